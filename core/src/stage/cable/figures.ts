import { exact, term, worked, type Figure, type FigureMaker } from '../../figure/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { one, pieceFigures } from '../costs.ts';
import { limitFigures } from '../limits.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import { RIM, type CableModel } from './model.ts';
import type { CableParams } from './params.ts';

/** Every figure of a cable drive with its working. */
export function cableFigures(
  p: CableParams,
  at: Duty,
  shelf: Shelf,
  m: CableModel,
  make: FigureMaker<CableModel>,
): Figure[] {
  const [r1, r2] = m.radii;
  const d = term('d_c', 'cable', p.cable, 'length', 'field', 'cable');
  const R1 = term('R₁', 'driving radius, middle of the cable', r1, 'length', 'computed');
  const R2 = term('R₂', 'driven radius, middle of the cable', r2, 'length', 'computed');
  const F0 = term('F₀', 'preload', p.preload, 'force', 'field', 'preload');
  const dF = term('ΔF', 'pull, T/R₂', m.force, 'force', 'computed');
  const La = term('L_a', 'pulling run', m.runs[0], 'length', 'computed');
  const Lb = term('L_b', 'other run', m.runs[1], 'length', 'computed');
  const kA = term('k_a', 'pulling run, with drums and clamp', m.runStiffness[0], 'stiffnessPerLength', 'computed');
  const kB = term('k_b', 'other run, with drums and clamp', m.runStiffness[1], 'stiffnessPerLength', 'computed');
  const EA = term(
    'E·A',
    'stiffness to a strain',
    m.rigidity,
    'force',
    p.rigidity > 0 ? 'field' : 'shop',
    p.rigidity > 0 ? 'rigidity' : m.sort.stiffness,
  );
  const mu = term('µ', 'friction on the drum', factor(shelf, m.sort.friction), 'count', 'shop', m.sort.friction);
  return [
    exact('ratio', 'Ratio', 'ratio', m.numbers.ratio, () => ({
      formula: p.path === 'eight' ? '−R₂/R₁' : 'R₂/R₁',
      terms: [R1, R2],
      source: 'the cable’s middle runs half its diameter above the drums',
    })),
    exact('run', 'Free run', 'length', m.runs[0], () =>
      p.runsBy === 'given'
        ? {
            formula: 'L_a',
            terms: [term('L_a', 'pulling run', p.runA, 'length', 'field', 'runA')],
            source: 'as given, led over pulleys',
          }
        : {
            formula: p.path === 'eight' ? '√(C² − (R₁ + R₂)²)' : '√(C² − (R₂ − R₁)²)',
            terms: [term('C', 'centre distance', p.centre, 'length', 'field', 'centre'), R1, R2],
            source: 'tangents of two circles',
          },
    ),
    exact('bend', 'Drum over cable, D/d', 'ratio', (2 * r1) / p.cable, () => ({
      formula: '2·R₁/d_c',
      terms: [R1, d],
      source: `${m.sort.bends} and more for this make`,
    })),
    make.figure(
      'tight',
      'Pull of the tight run',
      'force',
      (x) => x.tight,
      () => ({
        formula: m.slack > 0 ? 'F₀ + ΔF·k_a/(k_a + k_b)' : 'ΔF',
        terms: [F0, dF, kA, kB],
        source: 'two springs side by side; once the other run hangs it carries all',
      }),
    ),
    make.figure(
      'slack',
      'Pull of the other run',
      'force',
      (x) => x.slack,
      () => ({
        formula: 'max(0, F₀ − ΔF·k_b/(k_a + k_b))',
        terms: [F0, dF, kA, kB],
        source: 'what the tight run does not take',
      }),
    ),
    make.figure(
      'needs',
      'Preload that keeps it taut',
      'force',
      (x) => x.needs,
      () => ({
        formula: 'ΔF·k_b/(k_a + k_b)',
        terms: [dF, kA, kB],
        source: 'the other run just carries nothing',
      }),
    ),
    make.figure(
      'hangs',
      'Torque at which the other run hangs',
      'torque',
      (x) => x.hangs,
      () => ({
        formula: 'F₀·R₂·(k_a + k_b)/k_b',
        terms: [F0, R2, kA, kB],
        source: 'beyond it one run carries alone',
      }),
    ),
    make.figure(
      'grip',
      'Tight over slack that friction holds',
      'ratio',
      (x) => x.ratioHeld,
      () => ({
        formula: 'e^(µ·2π·n)',
        terms: [
          term('e', 'Euler’s number', Math.E, 'count', 'definition'),
          mu,
          term('n', 'turns', p.wraps, 'count', 'field', 'wraps'),
        ],
        source: 'Euler’s rope friction',
      }),
    ),
    worked({ id: 'play', name: 'Play', quantity: 'smallAngle', value: 0, low: 0, high: 0 }, () => ({
      formula: '0; while both runs are taut',
      terms: [F0],
      source: 'nothing lies between cable and drum',
    })),
    make.figure(
      'runs',
      'Stiffness of the free runs alone',
      'stiffness',
      (x) => x.runsStiffness,
      () => ({ formula: 'R₂²·E·A·(1/L_a + 1/L_b)', terms: [R2, EA, La, Lb], source: 'both runs taut' }),
    ),
    ...springFigures(
      make,
      m,
      'free runs; what lies on the drums as r/µ·(1 − e^(−µ·wrap)) more of it, and its clamps, in series',
    ),
    exact('fleet', 'Leans sideways', 'angle', m.fleet, () => ({
      formula: 'atan(½·walk/L)',
      terms: [
        term('walk', 'way along the driving drum', m.walks, 'length', 'computed'),
        term('L', 'shorter free run', Math.min(...m.runs), 'length', 'computed'),
      ],
      source: 'grooves 1.1 diameters apart; the cable walks along as the drum turns',
    })),
    exact('width', 'Width of the driving drum', 'length', m.widths[0], () => ({
      formula: 'n·1.1·d_c + walk + 2·s',
      terms: [
        term('n', 'turns', p.wraps, 'count', 'field', 'wraps'),
        d,
        term('walk', 'way of the cable along it in the range', m.walks, 'length', 'computed'),
        term('s', 'rim', RIM, 'length', 'definition'),
      ],
      source: 'helical grooves 1.1 diameters apart, for all turns at both ends of the range',
    })),
    ...(p.hold === 'clamped'
      ? [
          exact('stores', 'Range that clamped turns allow', 'angle', m.stores, () => ({
            formula: '2π·(n − 1)·R₁/R₂',
            terms: [term('n', 'turns', p.wraps, 'count', 'field', 'wraps'), R1, R2],
            source: 'a turn stays on the drum for the clamp’s sake',
          })),
        ]
      : []),
    make.figure(
      'efficiency',
      'Efficiency under load',
      'efficiency',
      (x) => x.numbers.etaForward,
      () => ({
        formula: 'η',
        terms: [term('η', 'cable', factor(shelf, 'cable.efficiency'), 'efficiency', 'shop', 'cable.efficiency')],
        source: 'wires or strands that slide as they bend; bearings apart',
      }),
    ),
    ...partLoadFigures(make, m, at),
    make.figure(
      'drag',
      'Drag at the input',
      'torque',
      (x) => x.numbers.drag,
      () => ({
        formula: 'T_s + μ·F·b₁/2 + (T_s + μ·F·b₂/2)/|i|',
        terms: [
          term('T_s', 'seal drag of a shaft', factor(shelf, 'belt.seal'), 'torque', 'shop', 'belt.seal'),
          term('μ', 'bearing friction', factor(shelf, 'belt.bearing'), 'count', 'shop', 'belt.bearing'),
          term('b₁', 'bore, driving', p.bore1, 'length', 'field', 'bore1'),
          term('b₂', 'bore, driven', p.bore2, 'length', 'field', 'bore2'),
          term('i', 'ratio', m.numbers.ratio, 'ratio', 'computed'),
          term('F', 'both runs together', m.tight + m.slack, 'force', 'computed'),
        ],
        source: 'seals, and bearings that both runs load',
      }),
    ),
    ...limitFigures(m.limits, make, (x) => x.limits),
    ...pieceFigures(
      make,
      {
        'driving drum': one(m.masses[0], m.prices[0]),
        'driven drum': one(m.masses[1], m.prices[1]),
        cable: one(m.masses[2], m.prices[2]),
      },
      {
        mass: 'discs as wide as their grooves, the cable by its length',
        money: 'drums by mass, the cable by its length',
      },
    ),
  ];
}
