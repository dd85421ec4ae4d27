import { exact, term, worked, type Figure, type FigureMaker } from '../../figure/index.ts';
import { elastic } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { one, pieceFigures } from '../costs.ts';
import { couplingCost } from '../coupling.ts';
import { limitFigures } from '../limits.ts';
import { RUNS } from '../output-units.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import type { ScrewModel } from './model.ts';
import { nutLoad, nutsOf } from './nuts.ts';
import type { ScrewParams } from './params.ts';
import { ENDS } from './thread.ts';

/** Every figure of a screw stage with its working. */
export function screwFigures(
  p: ScrewParams,
  at: Duty,
  shelf: Shelf,
  m: ScrewModel,
  make: FigureMaker<ScrewModel>,
): Figure[] {
  const t = m.thread;
  const plain = p.type === 'trapezoidal';
  const lead = term('P_h', 'lead', t.lead, 'length', 'computed');
  const d2 = term('d₂', 'pitch diameter', t.pitchDiameter, 'length', 'computed');
  const d3 = term('d₃', 'core', t.core, 'length', 'computed');
  const lean = term('λ', 'lead angle', t.angle, 'angle', 'computed');
  const rho = term('ρ′', 'friction angle', m.frictionAngle, 'angle', 'computed');
  const F = term('F', 'peak force along the axis', at.torque, 'force', 'brief');
  const L = term('L', 'free length', p.free, 'length', 'field', 'free');
  const F1 = term('F', 'a newton', 1, 'force', 'definition');
  const T1 = term('T', 'torque that raises it', m.work.raise, 'torque', 'computed');
  const eta = term('η', 'efficiency of the thread', factor(shelf, 'screw.ball'), 'efficiency', 'shop', 'screw.ball');
  const back = factor(shelf, 'screw.ballBack');
  const etaBack = term('η_b', 'efficiency of the thread, pushed', back, 'efficiency', 'shop', 'screw.ballBack');
  const modulus = term(
    'E',
    'modulus of the screw',
    elastic(m.materials[0], factor(shelf, 'ambient'), shelf),
    'stress',
    'computed',
  );
  const collar = term('µ_c·d_c/2', 'collar', m.collar, 'length', 'computed');
  const nuts = nutsOf(p);
  return [
    exact('lead', 'Lead', 'length', t.lead, () => ({
      formula: 'P·n',
      terms: [
        term('P', 'pitch', p.pitch, 'length', 'field', 'pitch'),
        term('n', 'starts', p.starts, 'count', 'field', 'starts'),
      ],
      source: 'definition: travel of a turn',
    })),
    exact('leadAngle', 'Lead angle', 'angle', t.angle, () => ({
      formula: 'atan(P_h/(π·d₂))',
      terms: [lead, d2],
      source: 'thread unrolled on its pitch diameter',
    })),
    exact('core', 'Core of the screw', 'length', t.core, () => ({
      formula: plain ? 'd − P − 2·a_c' : 'd − ⅔·P',
      terms: [
        ...(plain
          ? [term('a_c', 'clearance at the root', (p.diameter - p.pitch - t.core) / 2, 'length', 'definition')]
          : []),
        term('d', 'diameter', p.diameter, 'length', 'field', 'diameter'),
        term('P', 'pitch', p.pitch, 'length', 'field', 'pitch'),
      ],
      source: plain ? 'ISO 2901 with its clearance at the root' : 'usual balls of two thirds of a pitch',
    })),
    ...(plain
      ? [
          make.figure(
            'frictionAngle',
            'Friction angle of the thread',
            'angle',
            (x) => x.frictionAngle,
            () => ({
              formula: 'atan(µ/cos(atan(tan α·cos λ)))',
              terms: [
                term(
                  'µ',
                  'friction',
                  m.friction,
                  'count',
                  'shop',
                  m.materials[1].plastic ? 'screw.friction' : 'screw.frictionMetal',
                ),
                term('α', 'half flank angle', p.flank, 'angle', 'field', 'flank'),
                lean,
              ],
              source: 'inclined plane with leaning flanks',
            }),
          ),
          make.figure(
            'holds',
            'Friction over what holds',
            'ratio',
            (x) => x.holds,
            () => ({
              formula: 'ρ′/λ',
              terms: [rho, lean],
              source: 'self-locking: holds still above one; vibration takes a third of its friction, hence 1.5',
            }),
          ),
        ]
      : []),
    make.figure(
      'torque',
      'Torque that raises the peak',
      'torque',
      (x) => x.torque,
      () => ({
        formula: plain ? 'F·(d₂/2·tan(λ + ρ′) + µ_c·d_c/2)' : 'F·(P_h/(2π·η) + µ_c·d_c/2)',
        terms: plain ? [F, d2, lean, rho, collar] : [F, lead, eta, collar],
        source: plain ? 'inclined plane' : 'work over efficiency',
      }),
    ),
    make.figure(
      'lower',
      m.work.lower > 0 ? 'Torque that lowers it' : 'Torque that the peak drives it with',
      'torque',
      (x) => Math.abs(at.torque * x.work.lower),
      () => ({
        formula: plain ? 'F·|d₂/2·tan(ρ′ − λ) + µ_c·d_c/2|' : 'F·|P_h·η_b/(2π) − µ_c·d_c/2|',
        terms: plain ? [F, d2, lean, rho, collar] : [F, lead, etaBack, collar],
        source: 'the same plane downwards',
      }),
    ),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (x) => x.work.forward,
      () => ({
        formula: 'P_h·F/(2π·T)',
        terms: [lead, F1, T1],
        source: plain ? 'work out over work in' : 'work out over work in, by the shop’s starting value for ball screws',
      }),
    ),
    ...(m.work.backward > 0
      ? [
          make.figure(
            'backward',
            'Efficiency, pushed',
            'efficiency',
            (x) => Math.max(1e-6, x.work.backward),
            () => ({
              formula: plain ? '(d₂/2·tan(λ − ρ′) − µ_c·d_c/2)·2π/P_h' : 'η_b − 2π·µ_c·d_c/2/P_h',
              terms: plain ? [d2, lean, rho, collar, lead] : [etaBack, collar, lead],
              source: 'what arrives at the shaft when the load drives',
            }),
          ),
        ]
      : []),
    ...partLoadFigures(make, m, at, RUNS),
    worked(
      {
        id: 'play',
        name: 'Play along the axis',
        quantity: 'smallLength',
        value: m.numbers.play[0],
        low: m.numbers.play[1],
        high: m.numbers.play[2],
      },
      () => ({
        formula: 'j_nut + e/2; half of both to half as much again',
        terms: [
          term('j_nut', 'nut', p.nut === 'double' ? 0 : p.play, 'length', 'field', 'play'),
          term('e', 'end play of the bearing', factor(shelf, 'worm.endPlay'), 'length', 'shop', 'worm.endPlay'),
        ],
        source: p.nut === 'double' ? 'two nuts have none; the bearing’s own is left' : 'as stated for the nut',
      }),
    ),
    ...(p.nut === 'double'
      ? [
          exact('opens', 'Load that takes the preload off', 'force', m.opens, () => ({
            formula: nuts.balls ? '2^(3/2)·F_v' : '2·F_v',
            terms: [term('F_v', 'preload', p.preload, 'force', 'field', 'preload')],
            source: nuts.balls
              ? 'ISO 3408-5: balls stiffen as they are pressed; beyond it one nut lets go'
              : 'threads give in proportion to their load; beyond it one nut lets go',
          })),
        ]
      : []),
    ...springFigures(
      make,
      m,
      'E·A/L of the core, G·I_p/L·(2π/P_h)² where it twists, the coupling by the same lever, the nut and the bearing, in series',
      RUNS,
    ),
    make.figure(
      'euler',
      'Euler’s load',
      'force',
      (x) => x.buckles,
      () => ({
        formula: 'f·π²·E·π·d₃⁴/64/L²',
        terms: [modulus, term('f', 'ends', ENDS[p.ends].buckles, 'count', 'field', 'ends'), d3, L],
        source: 'Euler; three to five times the load is wanted',
      }),
    ),
    make.figure(
      'whirl',
      'First whirl',
      'speed',
      (x) => x.whirl,
      () => ({
        formula: 'β²·√(E·d₃²/16/(ϱ·L⁴))',
        terms: [
          modulus,
          term('ϱ', 'density', m.materials[0].material.density, 'density', 'shop'),
          term('β', 'ends', ENDS[p.ends].whirls, 'count', 'field', 'ends'),
          d3,
          L,
        ],
        source: 'first mode of a beam; stay below eight tenths',
      }),
    ),
    make.figure(
      'speed',
      'Speed of the screw',
      'speed',
      () => (at.speed * 2 * Math.PI) / t.lead,
      () => ({
        formula: '2π·v/P_h',
        terms: [term('v', 'speed', at.speed, 'linearSpeed', 'brief'), lead],
        source: 'definition',
      }),
    ),
    ...(plain
      ? [
          make.figure(
            'pressure',
            'Pressure on the nut’s threads',
            'stress',
            (x) => x.pressure,
            () => ({
              formula: 'F_n/(π·d₂·H₁·l/P)',
              terms: [
                term('F_n', 'what a nut carries at the peak', nutLoad(nuts, at.torque), 'force', 'computed'),
                d2,
                term('H₁', 'depth that bears', t.depth, 'length', 'computed'),
                term('P', 'pitch', p.pitch, 'length', 'field', 'pitch'),
                term('l', 'nut length', p.nutLength, 'length', 'field', 'nutLength'),
              ],
              source: 'all turns alike',
            }),
          ),
        ]
      : []),
    make.figure(
      'drag',
      'No-load torque',
      'torque',
      (x) => x.numbers.drag,
      () => ({
        formula: 'F_v·(w_r + w_l) + T_b',
        terms: [
          term('w_r', 'torque of the thread that raises a newton', m.work.raise - m.collar, 'length', 'computed'),
          term('w_l', 'torque of the thread that lowers it', m.work.lower - m.collar, 'length', 'computed'),
          term('T_b', 'bearings', m.numbers.drag - m.rubs, 'torque', 'computed'),
          term('F_v', 'preload', nuts.preload, 'force', 'field', 'preload'),
        ],
        source: 'one nut is raised and the other lowered under the preload; bearings by Palmgren',
      }),
    ),
    ...limitFigures(m.limits, make, (x) => x.limits, RUNS),
    ...pieceFigures(
      make,
      {
        screw: one(m.masses[0], m.prices[0]),
        nuts: { quantity: m.nuts, mass: m.masses[1], money: m.prices[1] },
        bearings: m.bearings,
        coupling: couplingCost(m.coupling),
      },
      {
        mass: 'volume times density; a thread counts as half of its ring',
        money: 'screw by length and diameter',
      },
    ),
  ];
}
