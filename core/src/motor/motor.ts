import type { TorqueCurve } from './curve.ts';

interface MotorCommon {
  readonly id: string;
  readonly name: string;
  /** Side or diameter of the frame, m. */
  readonly frame: number;
  readonly length: number;
  /** Torque that the unpowered rotor resists with, N·m. */
  readonly detentTorque: number;
  readonly rotorInertia: number;
  readonly mass: number;
  readonly price: number;
  /** Short-time torque over speed from the data sheet; stands in place of what the constants give. */
  readonly curve?: TorqueCurve | undefined;
  /** The same for torque carried for ever. */
  readonly curveEver?: TorqueCurve | undefined;
}

/** Two-phase hybrid stepper; resistance and inductance of one phase. */
export interface StepperMotor extends MotorCommon {
  readonly type: 'stepper';
  readonly holdTorque: number;
  readonly ratedCurrent: number;
  readonly resistance: number;
  readonly inductance: number;
  readonly stepsPerTurn: number;
}

/** Constants of a motor with magnets, brushed or brushless. */
interface MagnetMotor extends MotorCommon {
  /** Speed constant, rad/s per volt. */
  readonly speedConstant: number;
  readonly resistance: number;
  readonly idleCurrent: number;
  /** Short-time current the winding stands. */
  readonly peakCurrent: number;
  readonly thermalResistance: number;
  /** Allowed rise of the winding over the surroundings, K. */
  readonly allowedRise: number;
}

/** Brushless motor, constants per the line-current convention: resistance between two terminals, k_t = 60/(2π·K_V). */
export interface BrushlessMotor extends MagnetMotor {
  readonly type: 'brushless';
  readonly sensored: boolean;
}

/** Brushed motor with permanent magnets. */
export interface BrushedMotor extends MagnetMotor {
  readonly type: 'brushed';
}

/** Motor with its drive, known by its data sheet alone. */
export interface ServoMotor extends MotorCommon {
  readonly type: 'servo';
  /** Torque for ever, held from standstill to the rated speed, N·m. */
  readonly ratedTorque: number;
  readonly ratedSpeed: number;
  readonly peakTorque: number;
  readonly maxSpeed: number;
  readonly ratedCurrent: number;
  /** At rated torque and speed. */
  readonly efficiency: number;
  /** Rise of the winding at rated torque, K. */
  readonly allowedRise: number;
}

export type DcMotor = BrushlessMotor | BrushedMotor;
export type Motor = StepperMotor | DcMotor | ServoMotor;

export interface Driver {
  readonly supplyVoltage: number;
  /** Current limit, A, in the measure that `sets` tells. */
  readonly currentLimit: number;
  /**
   * What the current limit is: amplitude of a phase (where left out), its root mean square, or the line current of a
   * trapezoidal drive (brushless). A brushed motor and a servo have one current.
   */
  readonly sets?: 'peak' | 'rms' | 'line' | undefined;
  /** What the supply can give, A. */
  readonly supplyCurrent: number;
  /** Microsteps per full step; counts for steppers only. */
  readonly microsteps: number;
  /** Temperature of the winding for which the curves hold, K; absent for 20 °C. */
  readonly winding?: number | undefined;
}
