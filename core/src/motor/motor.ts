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
  /** Force across its shaft that its bearings stand, N; 0 or left out where nobody says. */
  readonly pull?: number | undefined;
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
  /** The driver itself and the supply, where they are chosen; what is set above may be less than they give. */
  readonly unit?: DriverUnit | undefined;
  readonly supply?: Supply | undefined;
  /** Power that a brake resistor takes up when the joint drives the motor, W; none where left out. */
  readonly brake?: number | undefined;
}

/** A driver as a thing: what it runs, what it can be set to, and how it warms. */
export interface DriverUnit {
  readonly id: string;
  readonly name: string;
  readonly drives: Motor['type'];
  /** What its current setting is; see `Driver`. */
  readonly sets: 'peak' | 'rms' | 'line';
  /** Most it can be set to, A. */
  readonly current: number;
  /** Supply voltage it takes, V. */
  readonly least: number;
  readonly most: number;
  /** Whether it commands torque, and not only steps, speed or voltage. */
  readonly torque: boolean;
  /** Of the two switches a current passes, Ω. */
  readonly resistance: number;
  /** Its own use, switching included, W. */
  readonly idle: number;
  /** Driver to air, K/W, and the temperature it must stay below, K. */
  readonly thermalResistance: number;
  readonly hottest: number;
  /** kg; 0 where it is not known. */
  readonly mass?: number;
  readonly price: number;
  readonly source: string;
}

/** What feeds a driver. */
export interface Supply {
  readonly id: string;
  readonly name: string;
  readonly voltage: number;
  readonly current: number;
  /** Whether it takes power back, as a battery does; else its capacitance alone swallows it. */
  readonly takesBack: boolean;
  /** At its output, with the driver's, F. */
  readonly capacitance: number;
  /** Voltage at its output that it stands, V. */
  readonly stands: number;
  readonly price: number;
  readonly source: string;
}
