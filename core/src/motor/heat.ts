import { factor, type Shelf } from '../shop/shelf.ts';
import { lineCurrentFor } from './available.ts';
import { resistanceAt } from './brushless.ts';
import { stepperAmplitude } from './stepper.ts';
import type { Driver, Motor } from './motor.ts';

export interface MotorHeat {
  /** Rise of the winding over the surroundings, K; Infinity where it runs away. */
  readonly rise: number;
  /** Temperature of the winding, K. */
  readonly winding: number;
  /** Temperature where the motor meets its mount, K. */
  readonly mount: number;
}

/**
 * Where a motor's temperature settles at a torque held for ever.
 *
 * With magnets: ΔT = I²·R(T)·R_th with R(T) = R·(1 + α·(T − 20 °C)), solved for ΔT; as I²·R·R_th·α nears one it runs
 * away. A stepper is
 * heated by its set current whatever the load, ΔT = ΔT_rated·(I/I_r)²/2 with I the amplitude; a servo by its torque, ΔT = ΔT_rated·(T/T_r)².
 * The case lies at a share
 * of the winding's rise.
 */
export function motorHeat(m: Motor, d: Driver, shelf: Shelf, torque: number): MotorHeat {
  const ambient = factor(shelf, 'ambient');
  let rise: number;
  // Rated heat is that of both phases at the rated current, 2·I_r²·R; sine currents of an amplitude I give I²·R.
  if (m.type === 'stepper')
    rise = (factor(shelf, 'motor.stepperRise') * (stepperAmplitude(m, d) / m.ratedCurrent) ** 2) / 2;
  else if (m.type === 'servo') rise = m.allowedRise * (torque / m.ratedTorque) ** 2;
  else {
    const current = lineCurrentFor(m, torque);
    const cold = current * current * m.thermalResistance;
    const growth = cold * m.resistance * factor(shelf, 'motor.copper');
    rise = growth < 1 ? (cold * resistanceAt(m, ambient, shelf)) / (1 - growth) : Infinity;
  }
  return { rise, winding: ambient + rise, mount: ambient + rise * factor(shelf, 'motor.case') };
}
