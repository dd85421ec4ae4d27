import { exact, term, worked, type Figure, type FigureMaker } from '../../figure/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { bentBy } from '../ring-wall.ts';
import type { Duty } from '../contract.ts';
import { pieceFigures } from '../costs.ts';
import { limitFigures } from '../limits.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import type { RollerWaveModel } from './model.ts';
import { heldShare, type RollerWaveParams } from './params.ts';

/** Every figure of a roller wave stage with its working. */
export function rollerWaveFigures(
  p: RollerWaveParams,
  at: Duty,
  shelf: Shelf,
  m: RollerWaveModel,
  make: FigureMaker<RollerWaveModel>,
): Figure[] {
  const w = m.wave;
  const N = term('N', 'rollers', p.rollers, 'count', 'field', 'rollers');
  const W = term('W', 'lobes of the ring', w.lobes, 'count', 'computed');
  const e = term('e', 'eccentricity', p.throw, 'length', 'field', 'throw');
  const r = term('r', 'roller’s radius', w.roller, 'length', 'computed');
  const R = term('R_c', 'eccentric’s radius', w.eccentric, 'length', 'computed');
  const T = term('T', 'peak torque at the output', at.torque, 'torque', 'brief');
  const against = m.numbers.ratio < 0;
  return [
    exact('ratio', 'Ratio', 'ratio', m.numbers.ratio, () => ({
      formula:
        p.held === 'ring'
          ? p.more > 0
            ? '−N; W = N + 1'
            : 'N; W = N − 1'
          : p.more > 0
            ? 'W; W = N + 1'
            : '−W; W = N − 1',
      terms: [N, W],
      source: `a wave goes on by a lobe for each turn of the eccentric; the output turns ${against ? 'against' : 'along with'} the crank`,
    })),
    exact('eccentric', 'Eccentric with bearing and sleeve', 'length', 2 * w.eccentric, () => ({
      formula: 'D + 2·sleeve',
      terms: [
        term('D', 'bearing’s outside', m.bearing.outside, 'length', 'shop', m.bearing.id),
        term('sleeve', 'sleeve', p.sleeve, 'length', 'field', 'sleeve'),
      ],
      source: 'what the rollers run on',
    })),
    exact('deep', 'Ring’s hollows', 'length', 2 * m.reach[1], () => ({
      formula: '2(R_c + 2r + e + gap)',
      terms: [R, r, e, term('gap', 'gap all round', p.gap, 'length', 'field', 'gap')],
      source: 'the rollers’ path moved outwards along its normal',
    })),
    exact('near', 'Ring’s crests', 'length', 2 * m.reach[0], () => ({
      formula: '2(R_c + 2r − e + gap)',
      terms: [R, r, e],
      source: 'the same, at its nearest',
    })),
    exact('hollow', 'Sharpest bend of the rollers’ path', 'length', m.hollow, () => ({
      formula: 'min (ρ² + ρ′²)^1.5/(ρρ″ − ρ² − 2ρ′²), ρ(W·θ)',
      terms: [R, r, e, W],
      source: 'curvature of a polar curve where it bends to the axis; below r the ring is undercut',
    })),
    exact('wall', 'Wall between slots', 'length', m.wall, () => ({
      formula: '2π·ρ_i/N − 2r − slot',
      terms: [N, r, term('slot', 'slot wider by', p.slot, 'length', 'field', 'slot')],
      source: 'at the slots’ inner end',
    })),
    make.figure(
      'rim',
      'Ring wall, bending',
      'stress',
      (x) => x.rimStress(),
      () =>
        bentBy('rollers of a row', [
          term('F', 'worst roller', m.spread.force, 'force', 'computed'),
          term('R', 'middle of the wall', m.reach[1] + p.rim / 2, 'length', 'computed'),
          term('b', 'width of a row', p.width, 'length', 'field', 'width'),
          term('t', 'wall at the hollows', p.rim, 'length', 'field', 'rim'),
        ]),
    ),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (x) => x.numbers.etaForward,
      () => ({
        formula: '1/(1 + µ·Σ|Q|(|ρ_ψ|·n + √(ρ² + ρ_φ²) + r)/T + µ_b·F·d/2·n_b/T)',
        terms: [
          term('µ', 'roller on its wall', factor(shelf, 'lobe.slide'), 'count', 'shop', 'lobe.slide'),
          term('Q', 'worst push on a wall', m.spread.wall, 'force', 'computed'),
          term('µ_b', 'eccentric bearing', factor(shelf, 'pin.roll'), 'count', 'shop', 'pin.roll'),
          term('n_b', 'its turns for one of the output', m.rolls, 'count', 'computed'),
        ],
        source: 'rollers roll on ring and eccentric, and so rub on the cage’s walls as they rise and as they spin',
      }),
    ),
    make.figure(
      'backward',
      'Efficiency, turned back',
      'efficiency',
      (x) => Math.max(1e-6, x.numbers.etaBackward),
      () => ({ formula: '1 − loss', terms: [], source: 'the same friction the other way' }),
    ),
    worked(
      {
        id: 'play',
        name: 'Play',
        quantity: 'smallAngle',
        value: m.numbers.play[0],
        low: m.numbers.play[1],
        high: m.numbers.play[2],
      },
      () => ({
        formula: '(2·gap/max ρ·sin β + slot/ρ)·T_r/T',
        terms: [
          term('gaps', 'of the gaps at the ring', m.playGap, 'smallAngle', 'computed'),
          term('slots', 'of the slots', m.playSlot, 'smallAngle', 'computed'),
          term('T_r/T', 'ring’s torque over the output’s', heldShare(p), 'ratio', 'computed'),
        ],
        source: 'the first roller to touch either way, where the wave is steepest; spread of profile and slots',
      }),
    ),
    ...partLoadFigures(make, m, at),
    ...springFigures(
      make,
      m,
      'rollers on ring and eccentric by their levers squared, the cage’s walls as beams, the eccentric bearings',
    ),
    make.figure(
      'carrying',
      'Rollers that carry',
      'count',
      (x) => x.spread.carrying,
      () => ({
        formula: 'those whose gap has closed, mean over a pitch',
        terms: [T],
        source: 'equilibrium with one-sided springs',
      }),
    ),
    make.figure(
      'force',
      'Worst roller on the ring',
      'force',
      (x) => x.spread.force,
      () => ({ formula: 'k·(θ·ρ·sin β − gap)', terms: [T], source: 'the same equilibrium' }),
    ),
    make.figure(
      'pressure',
      'Worst pressure at the ring',
      'stress',
      (x) => x.spread.pressure,
      () => ({
        formula: '√(F/b·E*·(1/r − κ)/π)',
        terms: [term('F', 'worst roller', m.spread.force, 'force', 'computed'), r],
        source: 'Hertz along a line; Johnson, Contact Mechanics, 4.2',
      }),
    ),
    make.figure(
      'push',
      'Worst push on a wall of the cage',
      'force',
      (x) => x.spread.wall,
      () => ({
        formula: 'F·sin β + F_e·sin γ',
        terms: [term('F', 'worst roller', m.spread.force, 'force', 'computed')],
        source: 'balance of the roller between ring and eccentric; the wall takes what is left across',
      }),
    ),
    make.figure(
      'bearing',
      'Load of the eccentric bearing',
      'force',
      (x) => x.spread.bearing,
      () => ({ formula: '|Σ F_e|', terms: [T], source: 'all rollers of a row' }),
    ),
    ...(Number.isFinite(m.bearingLife)
      ? [
          make.figure(
            'life',
            'Life of the eccentric bearings',
            'life',
            (x) => x.bearingLife,
            () => ({
              formula: '(C/F)³ million turns',
              terms: [
                term('C', 'dynamic rating', m.bearing.dynamic, 'force', 'shop', m.bearing.id),
                term('n_b', 'its turns for one of the output', m.rolls, 'count', 'computed'),
              ],
              source:
                'ISO 281; it turns with the crank against what it carries, which rolls the other way on the rollers',
            }),
          ),
        ]
      : []),
    make.figure(
      'shaking',
      'Shaking force at speed',
      'force',
      (x) => x.shaking,
      () => ({
        formula: 'm·e·ω²',
        terms: [e],
        source:
          p.rows === 2
            ? 'two rows at half a turn cancel it'
            : 'eccentric bearing, sleeve and half of the rollers of a row, which go in and out along their radii',
      }),
    ),
    ...limitFigures(m.limits, make, (x) => x.limits),
    ...pieceFigures(
      make,
      {
        ring: m.costs.ring,
        cage: m.costs.cage,
        'cage’s second plate': m.costs.cagePlate,
        rollers: m.costs.roller,
        eccentric: m.costs.crank,
        sleeves: m.costs.sleeve,
        bearings: m.costs.bearing,
      },
      {
        mass: 'volumes times density',
        money: 'material by mass, work by roller',
      },
    ),
  ];
}
