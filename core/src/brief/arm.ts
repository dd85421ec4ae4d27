import { term, type Figure } from '../figure/index.ts';
import type { ArmCase } from '../schema/joint.ts';
import { sumCycle } from './cycle.ts';
import { planMove, stretchesOf } from './move.ts';
import { cycleFigures, moveFields, SHOCK_HELP, TURNING } from './move-fields.ts';
import { rmsPoint, sure, type CaseLoads, type LoadPattern } from './pattern.ts';

const deg = Math.PI / 180;

/**
 * Moment of inertia about the axis, load and arm as points plus what they have about their own centres: m_load·L² +
 * m_arm·c² + J_own, kg·m².
 */
export const armInertia = (c: ArmCase): number => c.load * c.length ** 2 + c.armMass * c.armCentre ** 2 + c.ownInertia;

/** Gravity torque at an angle from the horizontal: g·cos θ·(m_load·L + m_arm·c), N·m. */
export const armGravity = (c: ArmCase, angle: number, g: number): number =>
  g * Math.cos(angle) * (c.load * c.length + c.armMass * c.armCentre);

/** Torque at an angle and acceleration: gravity + J·θ̈, N·m; the dynamic factor is not in it. */
export const armTorque = (c: ArmCase, angle: number, acceleration: number, g: number): number =>
  armGravity(c, angle, g) + armInertia(c) * acceleration;

/**
 * Peak, RMS and hold of an arm against gravity over up, rest, down and rest: T(θ) = g·cos θ·(m_load·L + m_arm·c) +
 * J·θ̈.
 *
 * @param g local gravity, m/s²
 */
export function armLoads(c: ArmCase, g: number): CaseLoads {
  const from = Math.min(c.angleFrom, c.angleTo);
  const to = Math.max(c.angleFrom, c.angleTo);
  const inertia = armInertia(c);
  // |cos θ| peaks at multiples of π; otherwise at an end.
  const inside = Math.ceil(from / Math.PI) * Math.PI || 0;
  const worstAngle = inside <= to ? inside : Math.abs(Math.cos(from)) > Math.abs(Math.cos(to)) ? from : to;
  const static_ = Math.abs(armGravity(c, worstAngle, g));
  const move = planMove(to - from, c);
  // Coming down is the same path backwards in time: same angle, same acceleration, speed reversed.
  const pass = (down: boolean) =>
    stretchesOf(move, down, (p) => ({
      position: from + p.position,
      speed: p.speed,
      torque: armTorque(c, from + p.position, p.acceleration, g),
      acceleration: p.acceleration,
    }));
  const rest = (angle: number) => ({
    duration: c.rest,
    steady: true,
    at: () => ({ position: angle, speed: 0, torque: armGravity(c, angle, g) }),
  });
  const sums = sumCycle([...pass(false), rest(to), ...pass(true), rest(from)]);
  const restFrom = Math.abs(armGravity(c, from, g));
  const restTo = Math.abs(armGravity(c, to, g));
  const peak = Math.max(static_, sums.most) * c.dynamicFactor;
  const hold = Math.max(restFrom, restTo);
  const rms = sums.cycle > 0 ? sums.rms : static_;
  const speed = move.top || c.speed;
  return {
    ...sums,
    rms,
    peak,
    hold,
    speed,
    moveTime: move.duration,
    inertia,
    friction: 0,
    arm: c.length,
    swing: to - from,
    points: [
      { name: 'peak', torque: peak, speed, time: 'peak', acceleration: move.peakAcceleration },
      rmsPoint(sums, rms),
      { name: 'hold', torque: hold, speed: 0, time: 'continuous' },
    ],
    values: { worstAngle, static: static_, moving: sums.most, acceleration: move.peakAcceleration },
  };
}

function figures(c: ArmCase, g: number): Figure[] {
  const loads = armLoads(c, g);
  const mass = term('m', 'mass carried', c.load, 'mass', 'brief', 'load');
  const length = term('L', 'axis to load', c.length, 'length', 'brief', 'length');
  const arm = term('mₐ', 'mass of the arm', c.armMass, 'mass', 'brief', 'armMass');
  const centre = term('c', 'axis to its centre', c.armCentre, 'length', 'brief', 'armCentre');
  const gravity = term('g', 'gravity', g, 'gravity', 'shop', 'gravity');
  const inertia = term('J', 'inertia, m·L² + mₐ·c² + J₀', loads.inertia, 'inertia', 'computed');
  return [
    sure('peak', 'Peak', 'torque', loads.peak, () => ({
      formula: 'max |g·cos θ·(m·L + mₐ·c) + J·θ̈| · shock',
      terms: [
        gravity,
        mass,
        length,
        arm,
        centre,
        inertia,
        term('θ̈', 'acceleration', loads.values['acceleration']!, 'acceleration', 'computed'),
        term('shock', 'shock factor', c.dynamicFactor, 'ratio', 'brief'),
        term('θ', 'worst angle for gravity', loads.values['worstAngle']!, 'angle', 'computed'),
      ],
      source: 'moments about the axis, load and arm as points',
    })),
    sure('rms', 'RMS', 'torque', loads.rms, () => ({
      formula: '√(Σ T²·t / Σ t) over up, rest, down, rest',
      terms: [
        term('t', 'one move', loads.moveTime, 'time', 'computed'),
        term('rest', 'rest at each end', c.rest, 'time', 'brief'),
        inertia,
      ],
      source: 'Gauss–Legendre over each stretch of the move',
      note: 'What motor and stages carry continuously; the shock factor is not in it.',
    })),
    sure('hold', 'Hold', 'torque', loads.hold, () => ({
      formula: 'larger |g·cos θ·(m·L + mₐ·c)| of the two ends',
      terms: [gravity, mass, length, arm, centre],
      source: 'moments about the axis',
    })),
    sure('move', 'One move', 'time', loads.moveTime, () => ({
      formula: 'ramps + the way left at the top speed',
      terms: [
        term('v', 'speed reached', loads.topSpeed, 'speed', 'computed'),
        term('a', 'acceleration reached', loads.values['acceleration']!, 'acceleration', 'computed'),
      ],
      source:
        c.profile === 's-curve'
          ? 'seven stretches of constant jerk'
          : 'trapezoid, or triangle where the speed is not reached',
    })),
    sure('inertia', 'Inertia', 'inertia', loads.inertia, () => ({
      formula: 'm·L² + mₐ·c² + J₀',
      terms: [mass, length, arm, centre, term('J₀', 'about their own centres', c.ownInertia, 'inertia', 'brief')],
      source: 'parallel axes',
    })),
    ...cycleFigures(loads),
  ];
}

/** An arm that lifts a load, its own mass included. */
export const armPattern: LoadPattern<ArmCase> = {
  id: 'arm',
  name: 'Arm against gravity',
  summary: 'A load at the end of an arm that lifts itself as well.',
  fields: [
    {
      as: 'quantity',
      path: 'load',
      label: 'Mass carried',
      group: 'Load',
      quantity: 'mass',
      step: 0.1,
      min: 0,
      max: 1e4,
      help: 'At the end of the arm.',
    },
    {
      as: 'quantity',
      path: 'length',
      label: 'Axis to load',
      group: 'Load',
      quantity: 'length',
      step: 0.005,
      min: 1e-3,
      max: 20,
      help: 'Centre of the load.',
    },
    {
      as: 'quantity',
      path: 'armMass',
      label: 'Mass of the arm',
      group: 'Load',
      quantity: 'mass',
      step: 0.05,
      min: 0,
      max: 1e4,
      help: 'Often forgotten: it lifts itself.',
    },
    {
      as: 'quantity',
      path: 'armCentre',
      label: 'Axis to its centre',
      group: 'Load',
      quantity: 'length',
      step: 0.005,
      min: 0,
      max: 20,
      help: 'Centre of mass of the arm.',
    },
    {
      as: 'quantity',
      path: 'ownInertia',
      label: 'Own inertia',
      group: 'Load',
      quantity: 'inertia',
      step: 1e-4,
      min: 0,
      max: 1e4,
      help: 'Of load and arm about their own centres, beyond their mass at the distances above.',
    },
    {
      as: 'quantity',
      path: 'angleFrom',
      label: 'Lowest angle',
      group: 'Move',
      quantity: 'angle',
      step: deg,
      min: -2 * Math.PI,
      max: 2 * Math.PI,
      help: 'From the horizontal, up positive.',
    },
    {
      as: 'quantity',
      path: 'angleTo',
      label: 'Highest angle',
      group: 'Move',
      quantity: 'angle',
      step: deg,
      min: -2 * Math.PI,
      max: 2 * Math.PI,
      help: 'From the horizontal, up positive.',
    },
    ...moveFields<ArmCase>(TURNING),
    {
      as: 'quantity',
      path: 'rest',
      label: 'Rest at each end',
      group: 'Move',
      quantity: 'time',
      step: 0.5,
      min: 0,
      max: 1e6,
      help: 'Holding counts towards heat.',
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
  ],
  blank: (id) => ({
    id,
    name: 'Arm',
    pattern: 'arm',
    load: 0.5,
    length: 0.25,
    armMass: 0.15,
    armCentre: 0.12,
    ownInertia: 0,
    angleFrom: -30 * deg,
    angleTo: 60 * deg,
    given: 'limits',
    profile: 'trapezoid',
    speed: (20 * 2 * Math.PI) / 60,
    acceleration: 8,
    jerk: 100,
    moveTime: 1,
    rampShare: 1 / 3,
    dynamicFactor: 1.3,
    rest: 1,
  }),
  wrong: () => undefined,
  loads: armLoads,
  figures,
};
