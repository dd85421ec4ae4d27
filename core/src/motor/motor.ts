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

/** Brushless motor, constants per the line-current convention: resistance between two terminals, k_t = 60/(2π·K_V). */
export interface BrushlessMotor extends MotorCommon {
  readonly type: 'brushless';
  /** Speed constant, rad/s per volt. */
  readonly speedConstant: number;
  readonly resistance: number;
  readonly idleCurrent: number;
  /** Short-time current the winding stands. */
  readonly peakCurrent: number;
  readonly thermalResistance: number;
  /** Allowed rise of the winding over the surroundings, K. */
  readonly allowedRise: number;
  readonly sensored: boolean;
}

export type Motor = StepperMotor | BrushlessMotor;

export interface Driver {
  readonly supplyVoltage: number;
  /** Phase current limit, A. */
  readonly currentLimit: number;
  /** What the supply can give, A. */
  readonly supplyCurrent: number;
  /** Microsteps per full step; counts for steppers only. */
  readonly microsteps: number;
}
