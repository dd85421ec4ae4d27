import type { Variant } from '../schema/joint.ts';
import { microstepTorque, stepperHold } from '../motor/stepper.ts';
import { factor, type Shelf } from '../shop/shelf.ts';

/**
 * Smallest changes at the output, rad; NaN marks what a line does not have. Play is not in them: its band comes from
 * sampling.
 */
export interface ResolutionNumbers {
  /** Smallest change that can be commanded. */
  readonly commanded: number;
  /** Smallest change that moves: microsteps gather until their torque beats the drag. */
  readonly moved: number;
  readonly gathered: number;
  readonly sensedMotor: number;
  readonly sensedOutput: number;
  /** Wind-up that friction holds at standstill: what sticks behind each spring over its stiffness. */
  readonly stick: number;
  readonly stepError: number;
  /** Error and noise of the sensor that closes the loop, at the output. */
  readonly sensorError: number;
  /** What a motor-side sensor (or none) keeps before play is added. */
  readonly keptMotor: number;
  /** What an output-side sensor keeps; play is seen by it. */
  readonly keptOutput: number;
}

/**
 * Resolution of a line for each place of the sensor: commanded, sensed and kept.
 *
 * @param size magnitude of the ratio
 * @param drag torque that the stages take at no load, at the motor, N·m
 * @param stick wind-up that friction holds, at the output, rad
 */
export function resolutionNumbers(
  variant: Variant,
  shelf: Shelf,
  size: number,
  drag: number,
  stick: number,
): ResolutionNumbers {
  const { motor, driver, sensor } = variant;
  const turn = 2 * Math.PI;
  const onMotor = sensor.place === 'motor' || sensor.place === 'both';
  const onOutput = sensor.place === 'output' || sensor.place === 'both';
  const outputCounts = sensor.place === 'both' ? sensor.outputCounts : sensor.counts;
  const sensedMotor = onMotor ? turn / (sensor.counts * size) : NaN;
  const sensedOutput = onOutput ? turn / outputCounts : NaN;
  let commanded = onMotor ? sensedMotor : sensedOutput;
  let gathered = 1;
  let stepError = 0;
  if (motor.type === 'stepper') {
    commanded = turn / (motor.stepsPerTurn * driver.microsteps * size);
    stepError = (factor(shelf, 'motor.stepError') * turn) / (motor.stepsPerTurn * size);
    // k·I·sin(π·m/2n) ≥ drag for m microsteps of n: fewer than that wind the magnetic spring up and move nothing.
    const strength = stepperHold(motor, driver);
    gathered =
      drag < strength
        ? Math.max(1, Math.ceil((2 * driver.microsteps * Math.asin(drag / strength)) / Math.PI - 1e-9))
        : NaN;
    if (microstepTorque(strength, driver.microsteps) >= drag) gathered = 1;
  }
  const moved = commanded * gathered;
  const own = sensor.error + sensor.noise;
  const sensorError = onOutput ? own : onMotor ? own / size : 0;
  const coarser = (...list: number[]) => list.reduce((m, x) => (x > m ? x : m), 0);
  const closedAtMotor = onMotor ? (onOutput ? 0 : sensorError) : stepError;
  const base = coarser(Number.isFinite(moved) ? moved : 0, onMotor ? sensedMotor : 0);
  return {
    commanded,
    moved,
    gathered,
    sensedMotor,
    sensedOutput,
    stick,
    stepError,
    sensorError,
    keptMotor: base > 0 ? base + stick + closedAtMotor : NaN,
    keptOutput: onOutput ? coarser(Number.isFinite(moved) ? moved : 0, sensedOutput) + stick + sensorError : NaN,
  };
}
