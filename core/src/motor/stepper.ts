import { factor, type Shelf } from '../shop/shelf.ts';
import { phaseAmplitude } from './driver.ts';
import type { Driver, StepperMotor } from './motor.ts';

/** Torque per ampere of one phase, from the two-phase-on holding torque: k = T_hold/(√2·I_r), N·m/A. */
export const stepperTorqueConstant = (m: StepperMotor): number => m.holdTorque / (Math.SQRT2 * m.ratedCurrent);

/** Amplitude of a phase's current that a driver gives a stepper, A: its setting, and no more than the motor's rating. */
export const stepperAmplitude = (m: StepperMotor, d: Driver): number =>
  phaseAmplitude(d, Math.min(d.currentLimit, m.ratedCurrent));

/**
 * Torque at the best load angle at standstill and slowly, k·I, N·m: the holding torque where the setting is the rated
 * current root mean square, 1/√2 of it where it is the amplitude.
 */
export const stepperHold = (m: StepperMotor, d: Driver): number => stepperTorqueConstant(m) * stepperAmplitude(m, d);

/** What of a stepper on its driver no speed changes. */
interface Setup {
  /** What it was worked out from, in the order of `given`. */
  readonly given: readonly (number | string)[];
  /** Torque per ampere, N·m/A. */
  readonly constant: number;
  readonly amplitude: number;
  /** Reactance of a phase for a radian a second, Ω·s: p·L with p = steps/4 electrical turns a turn. */
  readonly perSpeed: number;
  readonly corner: number;
}

const setups = new WeakMap<StepperMotor, Setup>();

/** What a setup depends on. */
const given = (m: StepperMotor, d: Driver): readonly (number | string)[] => [
  d.currentLimit,
  d.supplyVoltage,
  d.sets ?? '',
  m.holdTorque,
  m.ratedCurrent,
  m.resistance,
  m.inductance,
  m.stepsPerTurn,
];

const same = ({ given: x }: Setup, m: StepperMotor, d: Driver): boolean =>
  x[0] === d.currentLimit &&
  x[1] === d.supplyVoltage &&
  x[2] === (d.sets ?? '') &&
  x[3] === m.holdTorque &&
  x[4] === m.ratedCurrent &&
  x[5] === m.resistance &&
  x[6] === m.inductance &&
  x[7] === m.stepsPerTurn;

/** A search asks for the same motor on the same driver thousands of times. */
function setupOf(m: StepperMotor, d: Driver): Setup {
  const had = setups.get(m);
  if (had && same(had, m, d)) return had;
  const constant = stepperTorqueConstant(m);
  const amplitude = stepperAmplitude(m, d);
  const perSpeed = (m.stepsPerTurn / 4) * m.inductance;
  const made = {
    given: given(m, d),
    constant,
    amplitude,
    perSpeed,
    corner: corner(m, d, constant, amplitude, perSpeed),
  };
  setups.set(m, made);
  return made;
}

/** I·Z + k·ω·R/Z = V, met by a few steps from I·Z = V; 0 where the voltage cannot drive the current at all. */
function corner(m: StepperMotor, d: Driver, constant: number, amplitude: number, perSpeed: number): number {
  let z = d.supplyVoltage / amplitude;
  let w = 0;
  for (let i = 0; i < 6; i++) {
    w = Math.sqrt(Math.max(0, z * z - m.resistance ** 2)) / perSpeed;
    z = Math.max(
      m.resistance,
      (d.supplyVoltage - (constant * w * m.resistance) / Math.max(z, m.resistance)) / amplitude,
    );
  }
  return w;
}

/**
 * Pull-out torque at a speed, N·m: the least of what the current, the voltage and the supply's power allow.
 *
 * With sine currents T = k·I at the best load angle, and as much power goes into the air gap as comes out. Held by the voltage,
 * T = k·(V·Z − k·ω·R)/Z² with Z² = R² + (p·ω·L)²: it falls smoothly and has no wall.
 *
 * @param speed rad/s; the sign does not matter
 * Source: a phase as resistance, reactance and back-EMF in phasors (Acarnley, Stepping Motors, fixed-voltage drive).
 */
export const pullOut = (m: StepperMotor, d: Driver, speed: number): { torque: number; bound: string } =>
  pulled(setupOf(m, d), m, d, Math.abs(speed));

function pulled({ constant: k, amplitude, perSpeed }: Setup, m: StepperMotor, d: Driver, w: number) {
  const x = perSpeed * w;
  const square = m.resistance ** 2 + x * x;
  const byVoltage = Math.max(0, (k * (d.supplyVoltage * Math.sqrt(square) - k * w * m.resistance)) / square);
  const heat = amplitude * amplitude * m.resistance;
  const byPower = w > 0 ? Math.max(0, d.supplyVoltage * d.supplyCurrent - heat) / w : Infinity;
  const byCurrent = k * amplitude;
  if (byVoltage < byCurrent && byVoltage <= byPower) return { torque: byVoltage, bound: 'voltage and inductance' };
  if (byPower < byCurrent) return { torque: byPower, bound: 'supply current' };
  return { torque: byCurrent, bound: d.currentLimit < m.ratedCurrent ? 'driver current' : 'rated current' };
}

/** Speed from which the voltage bounds the torque, rad/s; 0 where it cannot drive the current at all. */
export const cornerSpeed = (m: StepperMotor, d: Driver): number => setupOf(m, d).corner;

/**
 * Share of its pull-out torque at which a stepper still keeps step: one factor at a crawl, another in the mid-band where
 * its rotor swings on its magnetic spring, and evenly between half the corner speed and it.
 *
 * Source: usual practice of stepper drives, factors of the shop; a sudden load leaves less.
 */
export const usableShare = (m: StepperMotor, d: Driver, shelf: Shelf, speed: number): number =>
  shared(setupOf(m, d).corner, shelf, Math.abs(speed));

function shared(at: number, shelf: Shelf, w: number): number {
  const u = at > 0 ? w / at : 1;
  if (u >= 1) return factor(shelf, 'motor.stepperMid');
  const slow = factor(shelf, 'motor.stepperSlow');
  return u <= 0.5 ? slow : slow + (factor(shelf, 'motor.stepperMid') - slow) * (2 * u - 1);
}

/** Torque with which a stepper keeps step at a speed, N·m, and what bounds it: pull-out and the share of it at once. */
export function stepperTorque(
  m: StepperMotor,
  d: Driver,
  shelf: Shelf,
  speed: number,
): { torque: number; bound: string } {
  const setup = setupOf(m, d);
  const w = Math.abs(speed);
  const out = pulled(setup, m, d, w);
  out.torque *= shared(setup.corner, shelf, w);
  return out;
}

/** Share of its torque at a crawl with which a stepper counts as having reached its highest speed. */
const LEAST_SHARE = 1 / 3;

/** Speed beyond which less than a third of a stepper's torque is left, rad/s, from k·V/(p·ω·L), which it falls along. */
export const stepperTop = (m: StepperMotor, d: Driver): number =>
  d.supplyVoltage / (LEAST_SHARE * stepperAmplitude(m, d) * setupOf(m, d).perSpeed);

/**
 * Torque that moves the rotor by no more than one microstep: T·sin(π/2/n), N·m. Microsteps resolve; they do not hold.
 *
 * @param hold torque at the best load angle, N·m
 */
export const microstepTorque = (hold: number, microsteps: number): number => hold * Math.sin(Math.PI / 2 / microsteps);
