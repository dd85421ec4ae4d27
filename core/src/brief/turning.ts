import { term, type Figure } from '../figure/index.ts';
import type { TurningCase } from '../schema/joint.ts';
import { sumCycle } from './cycle.ts';
import { planMove, stretchesOf } from './move.ts';
import { cycleFigures, moveFields, SHOCK_HELP, TURNING } from './move-fields.ts';
import { rmsPoint, sure, type CaseLoads, type LoadPattern } from './pattern.ts';

/**
 * A mass that turns: T = J·α + friction while moving + unbalance, which counts against the move and at rest.
 */
export function turningLoads(c: TurningCase): CaseLoads {
  const move = planMove(c.angle, c);
  const sums = sumCycle([
    ...stretchesOf(move, false, (p) => ({
      position: p.position,
      speed: p.speed,
      torque: c.inertia * p.acceleration + c.friction + c.unbalance,
      acceleration: p.acceleration,
    })),
    { duration: c.rest, steady: true, at: () => ({ position: c.angle, speed: 0, torque: c.unbalance }) },
  ]);
  const steady = c.friction + c.unbalance;
  const peak = (c.inertia * move.peakAcceleration + steady) * c.dynamicFactor;
  const speed = move.top || c.speed;
  const rms = sums.cycle > 0 ? sums.rms : c.unbalance;
  return {
    ...sums,
    rms,
    peak,
    hold: c.unbalance,
    speed,
    moveTime: move.duration,
    inertia: c.inertia,
    friction: c.friction,
    arm: c.radius,
    swing: c.angle,
    points: [
      { name: 'peak', torque: peak, speed, time: 'peak', acceleration: move.peakAcceleration },
      rmsPoint(sums, rms),
      ...(c.unbalance > 0 ? [{ name: 'hold', torque: c.unbalance, speed: 0, time: 'continuous' } as const] : []),
    ],
    values: {
      acceleration: move.peakAcceleration,
      accelerating: c.inertia * move.peakAcceleration,
      steady,
      braking: steady - c.inertia * move.peakAcceleration,
    },
  };
}

function figures(c: TurningCase): Figure[] {
  const l = turningLoads(c);
  const terms = [
    term('J', 'inertia', c.inertia, 'inertia', 'brief', 'inertia'),
    term('α', 'acceleration reached', l.values['acceleration']!, 'acceleration', 'computed'),
    term('T_f', 'friction', c.friction, 'torque', 'brief', 'friction'),
    term('T_u', 'unbalance', c.unbalance, 'torque', 'brief', 'unbalance'),
  ];
  return [
    sure('peak', 'Peak', 'torque', l.peak, () => ({
      formula: '(J·α + T_f + T_u)·shock',
      terms: [...terms, term('shock', 'shock factor', c.dynamicFactor, 'ratio', 'brief')],
      source: 'Newton for rotation; at the end of speeding up',
    })),
    sure('rms', 'RMS', 'torque', l.rms, () => ({
      formula: '√(Σ T²·t / Σ t) over speeding up, cruising, braking, rest',
      terms: [
        ...terms,
        term('t', 'one move', l.moveTime, 'time', 'computed'),
        term('rest', 'between moves', c.rest, 'time', 'brief'),
      ],
      source: 'exact for stretches of constant torque; the shock factor is not in it',
      note: 'Braking has friction on its side.',
    })),
    sure('hold', 'Hold', 'torque', l.hold, () => ({
      formula: 'T_u',
      terms: [terms[3]!],
      source: 'friction is not counted on to hold',
    })),
    sure('move', 'One move', 'time', l.moveTime, () => ({
      formula: 'ramps + the way left at the top speed',
      terms: [
        term('φ', 'angle', c.angle, 'angle', 'brief'),
        term('ω', 'speed reached', l.topSpeed, 'speed', 'computed'),
      ],
      source:
        c.profile === 's-curve'
          ? 'seven stretches of constant jerk'
          : 'trapezoid, or triangle where the speed is not reached',
    })),
    ...cycleFigures(l),
  ];
}

/** A table, a yaw axis, a dial: inertia, friction and unbalance. */
export const turningPattern: LoadPattern<TurningCase> = {
  id: 'turning',
  name: 'Turning mass',
  summary: 'Inertia to be sped up and stopped, with friction and unbalance.',
  fields: [
    {
      as: 'quantity',
      path: 'inertia',
      label: 'Inertia',
      group: 'Load',
      quantity: 'inertia',
      step: 1e-3,
      min: 0,
      max: 1e5,
      help: 'About the axis. A disc has m·r²/2, a ring m·r².',
    },
    {
      as: 'quantity',
      path: 'friction',
      label: 'Friction of the axis',
      group: 'Load',
      quantity: 'torque',
      step: 0.01,
      min: 0,
      max: 1e5,
      help: 'Bearings, seals, slip rings.',
    },
    {
      as: 'quantity',
      path: 'unbalance',
      label: 'Unbalance',
      group: 'Load',
      quantity: 'torque',
      step: 0.01,
      min: 0,
      max: 1e5,
      help: 'Weight beside the axis, wind or process; against the move, and at rest.',
    },
    {
      as: 'quantity',
      path: 'dynamicFactor',
      label: 'Shock factor',
      group: 'Load',
      quantity: 'ratio',
      step: 0.05,
      min: 1,
      max: 20,
      help: SHOCK_HELP,
    },
    {
      as: 'quantity',
      path: 'radius',
      label: 'Errors count at',
      group: 'Load',
      quantity: 'length',
      step: 0.01,
      min: 0,
      max: 100,
      help: 'Radius at which play and wind-up become a distance; 0 where none matters.',
    },
    {
      as: 'quantity',
      path: 'angle',
      label: 'One move',
      group: 'Move',
      quantity: 'angle',
      step: Math.PI / 180,
      min: 0,
      max: 1e4,
      help: 'Always on in the same sense; rests in between.',
    },
    ...moveFields<TurningCase>(TURNING),
    {
      as: 'quantity',
      path: 'rest',
      label: 'Rest between',
      group: 'Move',
      quantity: 'time',
      step: 0.5,
      min: 0,
      max: 1e6,
      help: 'Unbalance is held.',
    },
  ],
  blank: (id) => ({
    id,
    name: 'Turning mass',
    pattern: 'turning',
    inertia: 0.02,
    friction: 0.02,
    unbalance: 0,
    angle: Math.PI / 2,
    given: 'limits',
    profile: 'trapezoid',
    speed: Math.PI,
    acceleration: 10,
    jerk: 100,
    moveTime: 0.8,
    rampShare: 1 / 3,
    rest: 1,
    radius: 0.1,
    dynamicFactor: 1.2,
  }),
  wrong: () => undefined,
  loads: turningLoads,
  figures,
};
