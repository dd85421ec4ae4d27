import { term, type Figure, type Term, worked } from '../figure/index.ts';
import type { Shelf } from '../shop/shelf.ts';
import { motorTorque, topSpeed } from './available.ts';
import { continuousCurrent, torqueConstant } from './brushless.ts';
import type { Driver, Motor } from './motor.ts';
import { microstepTorque, stepperTorqueConstant } from './stepper.ts';

/** What follows from a motor and its driver, SI units; NaN marks what a type does not have. */
export interface MotorConstants {
  readonly torqueConstant: number;
  /** k_t/√R, N·m/√W: torque for a watt of heat. */
  readonly motorConstant: number;
  readonly topSpeed: number;
  readonly noLoadSpeed: number;
  readonly stallTorque: number;
  readonly continuousTorque: number;
  readonly continuousCurrent: number;
  /** Torque of one microstep, N·m. */
  readonly microstepTorque: number;
  /** Slope of the torque over the rotor's angle at rest, N·m/rad: what a stepper holds its place with. */
  readonly stepStiffness: number;
}

export function motorConstants(m: Motor, d: Driver, shelf: Shelf): MotorConstants {
  const magnets = m.type === 'brushless' || m.type === 'brushed';
  const kt = magnets
    ? torqueConstant(m)
    : m.type === 'stepper'
      ? stepperTorqueConstant(m)
      : m.ratedTorque / m.ratedCurrent;
  const current = m.type === 'stepper' ? Math.min(1, d.currentLimit / m.ratedCurrent) : NaN;
  return {
    torqueConstant: kt,
    motorConstant: m.type === 'servo' ? NaN : kt / Math.sqrt(m.resistance),
    topSpeed: topSpeed(m, d),
    noLoadSpeed: magnets ? (d.supplyVoltage - m.idleCurrent * m.resistance) * m.speedConstant : NaN,
    stallTorque: motorTorque(m, d, shelf, 0, 'peak').torque,
    continuousTorque: motorTorque(m, d, shelf, 0, 'continuous').torque,
    continuousCurrent: magnets ? continuousCurrent(m, shelf) : m.ratedCurrent,
    microstepTorque: m.type === 'stepper' ? current * microstepTorque(m, d.microsteps) : NaN,
    // T = T_hold·sin(θ·steps/4): slope at rest T_hold·steps/4.
    stepStiffness: m.type === 'stepper' ? (current * m.holdTorque * m.stepsPerTurn) / 4 : NaN,
  };
}

/** The constants that a motor's type has, each with its working. */
export function constantFigures(m: Motor, d: Driver, shelf: Shelf): Figure[] {
  const c = motorConstants(m, d, shelf);
  const own = (symbol: string, name: string, key: string, quantity: Term['quantity']): Term[] => {
    const value = (m as unknown as Record<string, unknown>)[key];
    return typeof value === 'number' ? [term(symbol, name, value, quantity, 'motor', key)] : [];
  };
  const hold = own('T_hold', 'holding torque', 'holdTorque', 'torque');
  const rated = own('I_r', 'rated current', 'ratedCurrent', 'current');
  const steps = own('steps', 'full steps per turn', 'stepsPerTurn', 'count');
  const resistance = own('R', 'resistance', 'resistance', 'resistance');
  const speed = own('K_V', 'speed constant', 'speedConstant', 'speedConstant');
  const limit = term('I', 'driver’s limit', d.currentLimit, 'current', 'field');
  const make = (
    id: string,
    name: string,
    quantity: Figure['quantity'],
    value: number,
    formula: string,
    terms: Term[],
    source: string,
  ): Figure =>
    worked({ id: `motor-${id}`, name, quantity, value, low: value, high: value }, () => ({ formula, terms, source }));
  const stepper = m.type === 'stepper';
  const servo = m.type === 'servo';
  return [
    make(
      'kt',
      'Torque constant',
      'torqueConstant',
      c.torqueConstant,
      stepper ? 'T_hold/(√2·I_r)' : servo ? 'T_r/I_r' : '60/(2π·K_V)',
      [...hold, ...own('T_r', 'rated torque', 'ratedTorque', 'torque'), ...(stepper || servo ? rated : []), ...speed],
      stepper ? 'two phases on' : servo ? 'data sheet' : 'line-current convention',
    ),
    make(
      'km',
      'Motor constant, per √W',
      'torque',
      c.motorConstant,
      'k_t/√R',
      [term('k_t', 'torque constant', c.torqueConstant, 'torqueConstant', 'computed'), ...resistance],
      'torque for the root of a watt of heat',
    ),
    make(
      'idle',
      'No-load speed',
      'speed',
      c.noLoadSpeed,
      '(V − I₀·R)·K_V',
      [
        term('V', 'supply', d.supplyVoltage, 'voltage', 'field'),
        ...own('I₀', 'no-load current', 'idleCurrent', 'current'),
        ...resistance,
        ...speed,
      ],
      'voltage balance of the winding',
    ),
    make(
      'stall',
      'Torque at standstill',
      'torque',
      c.stallTorque,
      'least of driver, winding, supply and data sheet',
      [limit, term('k_t', 'torque constant', c.torqueConstant, 'torqueConstant', 'computed')],
      'for moments',
    ),
    make(
      'ever',
      'continuous',
      'torque',
      c.continuousTorque,
      'the same with the continuous current',
      [term('I_∞', 'continuous current', c.continuousCurrent, 'current', 'computed'), limit],
      'winding heat',
    ),
    make(
      'current',
      'Current, continuous',
      'current',
      c.continuousCurrent,
      stepper || servo ? 'I_r' : '√(ΔT/(R_hot·R_th))',
      [
        ...(stepper || servo
          ? rated
          : [
              ...own('ΔT', 'allowed rise', 'allowedRise', 'temperatureRise'),
              ...own('R_th', 'winding to air', 'thermalResistance', 'thermalResistance'),
              ...resistance,
            ]),
      ],
      stepper || servo ? 'data sheet' : 'I²·R_hot·R_th = allowed rise',
    ),
    make(
      'microstep',
      'One microstep holds',
      'torque',
      c.microstepTorque,
      'T_hold·sin(π/2n)',
      [...hold, term('n', 'microsteps', d.microsteps, 'count', 'field')],
      'torque of a stepper over its rotor’s angle, at the driver’s current',
    ),
    make(
      'rest',
      'Stiffness at rest',
      'stiffness',
      c.stepStiffness,
      'T_hold·steps/4',
      [...hold, ...steps],
      'slope of that torque at rest',
    ),
  ].filter((f) => Number.isFinite(f.value));
}
