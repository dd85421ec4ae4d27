import type { QuantityId } from '../units/quantity.ts';
import { term, type Figure } from '../figure/index.ts';
import type { MoveWish as Moves } from './move.ts';
import type { CaseField, CaseLoads } from './pattern.ts';
import { sure } from './pattern.ts';

type Units = {
  readonly speed: QuantityId;
  readonly acceleration: QuantityId;
  readonly jerk: QuantityId;
  readonly speedStep: number;
  readonly accelerationStep: number;
  readonly jerkStep: number;
};

export const TURNING: Units = {
  speed: 'speed',
  acceleration: 'acceleration',
  jerk: 'jerk',
  speedStep: Math.PI / 30,
  accelerationStep: 1,
  jerkStep: 10,
};
export const STRAIGHT: Units = {
  speed: 'linearSpeed',
  acceleration: 'linearAcceleration',
  jerk: 'linearJerk',
  speedStep: 0.01,
  accelerationStep: 0.1,
  jerkStep: 1,
};

/** How a move is entered, the same for every pattern that moves. */
export function moveFields<C extends Moves>(u: Units): CaseField<C>[] {
  const byLimits = (c: C) => c.given === 'limits';
  const fields: CaseField<Moves>[] = [
    {
      as: 'choice',
      path: 'given',
      label: 'Given',
      group: 'Move',
      help: 'Speed and acceleration, or how long one move takes.',
      options: [
        { value: 'limits', label: 'speed, acceleration' },
        { value: 'time', label: 'time of the move' },
      ],
    },
    {
      as: 'choice',
      path: 'profile',
      label: 'Profile',
      group: 'Move',
      help: 'Trapezoid: acceleration in steps. S-curve: it builds up, and shakes less.',
      options: [
        { value: 'trapezoid', label: 'trapezoid' },
        { value: 's-curve', label: 'S-curve' },
      ],
    },
    {
      as: 'quantity',
      path: 'speed',
      label: 'Speed',
      group: 'Move',
      help: 'Reached while moving, where the way is long enough.',
      quantity: u.speed,
      step: u.speedStep,
      min: 0,
      max: u.speed === 'speed' ? 1e3 : 100,
      when: byLimits as (c: Moves) => boolean,
    },
    {
      as: 'quantity',
      path: 'acceleration',
      label: 'Acceleration',
      group: 'Move',
      help: 'While speeding up and slowing down.',
      quantity: u.acceleration,
      step: u.accelerationStep,
      min: 0,
      max: 1e5,
      when: byLimits as (c: Moves) => boolean,
    },
    {
      as: 'quantity',
      path: 'jerk',
      label: 'Jerk',
      group: 'Move',
      help: 'How fast the acceleration builds up.',
      quantity: u.jerk,
      step: u.jerkStep,
      min: 1e-3,
      max: 1e8,
      when: (c) => c.given === 'limits' && c.profile === 's-curve',
    },
    {
      as: 'quantity',
      path: 'moveTime',
      label: 'One move takes',
      group: 'Move',
      help: 'From rest to rest.',
      quantity: 'time',
      step: 0.05,
      min: 1e-4,
      max: 1e6,
      when: (c) => c.given === 'time',
    },
    {
      as: 'quantity',
      path: 'rampShare',
      label: 'Speeding up for',
      group: 'Move',
      help: 'Share of the move; as much again slows it down. A third heats the motor least for a mass that only turns.',
      quantity: 'efficiency',
      step: 0.05,
      min: 0.01,
      max: 0.5,
      when: (c) => c.given === 'time',
    },
  ];
  return fields as unknown as CaseField<C>[];
}

/** Figures every pattern with a cycle has. */
export function cycleFigures(loads: CaseLoads): Figure[] {
  const cycle = term('Σt', 'one cycle', loads.cycle, 'time', 'computed');
  return [
    sure('equivalent', 'Equivalent', 'torque', loads.equivalent, () => ({
      formula: '(Σ|T|^(10/3)·|ω|t / Σ|ω|t)^(3/10)',
      terms: [cycle, term('by time', 'the same weighed by time alone', loads.equivalentByTime, 'torque', 'computed')],
      source: 'life exponent 10/3 of rolling bearings (ISO 281) and strain-wave bearings, weighed by the angle turned',
      note: 'What bearings feel over their life; rests count for nothing.',
    })),
    sure('duty', 'Moving', 'efficiency', loads.duty, () => ({
      formula: 'time moving / time of a cycle',
      terms: [term('move', 'one move', loads.moveTime, 'time', 'computed'), cycle],
      source: 'definition',
    })),
  ];
}

/** Advice on the shock factor, for the help of its field. */
export const SHOCK_HELP =
  'On the peak: 1.0 smooth; 1.3 usual; 1.5–2 hard stops; 2–3 jolts, walking, people leaning on it; more for falls.';
