import { term, type Figure, type Term, worked } from '../figure/index.ts';
import type { Shelf } from '../shop/shelf.ts';
import { motorTorque, topSpeed } from './available.ts';
import { continuousCurrent, torqueConstant } from './brushless.ts';
import type { Driver, Motor } from './motor.ts';
import { linePerAmpere } from './driver.ts';
import { microstepTorque, stepperHold, stepperTorqueConstant } from './stepper.ts';

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
  /** Torque at the best load angle at standstill with the driver's current, before steps are lost, N·m. */
  readonly holdTorque: number;
  /** Slope of the torque over the rotor's angle at rest, N·m/rad: what a stepper holds its place with. */
  readonly stepStiffness: number;
}

export function motorConstants(m: Motor, d: Driver, shelf: Shelf): MotorConstants {
  const magnets = m.type === 'brushless' || m.type === 'brushed';
  const kt = magnets
    ? torqueConstant(m) * linePerAmpere(m, d)
    : m.type === 'stepper'
      ? stepperTorqueConstant(m)
      : m.ratedTorque / m.ratedCurrent;
  const hold = m.type === 'stepper' ? stepperHold(m, d) : NaN;
  return {
    torqueConstant: kt,
    motorConstant: magnets
      ? torqueConstant(m) / Math.sqrt(m.resistance)
      : m.type === 'stepper'
        ? kt / Math.sqrt(m.resistance)
        : NaN,
    topSpeed: topSpeed(m, d),
    noLoadSpeed: magnets ? (d.supplyVoltage - m.idleCurrent * m.resistance) * m.speedConstant : NaN,
    stallTorque: motorTorque(m, d, shelf, 0, 'peak').torque,
    continuousTorque: motorTorque(m, d, shelf, 0, 'continuous').torque,
    continuousCurrent: magnets ? continuousCurrent(m, shelf) / linePerAmpere(m, d) : m.ratedCurrent,
    microstepTorque: m.type === 'stepper' ? microstepTorque(hold, d.microsteps) : NaN,
    // T = k·I·sin(θ·steps/4): slope at rest k·I·steps/4.
    stepStiffness: m.type === 'stepper' ? (hold * m.stepsPerTurn) / 4 : NaN,
    holdTorque: hold,
  };
}

/** What a driver's ampere is, in words. */
const SETS = {
  peak: 'amplitude of a phase, sine currents',
  rms: 'root mean square of a phase, sine currents',
  line: 'line current, two phases in turn',
} as const;
const PER_AMPERE = { peak: '·√3/2', rms: '·√3/√2', line: '' } as const;

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
  const measure = m.type === 'brushed' ? 'line' : (d.sets ?? 'peak');
  const servo = m.type === 'servo';
  return [
    make(
      'kt',
      'Torque constant',
      'torqueConstant',
      c.torqueConstant,
      stepper ? 'T_hold/(√2·I_r)' : servo ? 'T_r/I_r' : `60/(2π·K_V)${PER_AMPERE[measure]}`,
      [...hold, ...own('T_r', 'rated torque', 'ratedTorque', 'torque'), ...(stepper || servo ? rated : []), ...speed],
      stepper ? 'two phases on' : servo ? 'data sheet' : SETS[measure],
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
      'hold',
      'Holding torque at the driver’s current',
      'torque',
      c.holdTorque,
      `T_hold·${d.sets === 'rms' ? 'I/I_r' : 'I/(√2·I_r)'}`,
      [...hold, ...rated, limit],
      `setting: ${SETS[d.sets === 'rms' ? 'rms' : 'peak']}; the data sheet holds with both phases at the rated current`,
    ),
    make(
      'ever',
      'Continuous torque',
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
      'k·I·sin(π/2n)',
      [...hold, ...rated, limit, term('n', 'microsteps', d.microsteps, 'count', 'field')],
      'torque of a stepper over its rotor’s angle, at the driver’s current',
    ),
    make(
      'rest',
      'Stiffness at rest',
      'stiffness',
      c.stepStiffness,
      'k·I·steps/4',
      [...hold, ...rated, limit, ...steps],
      'slope of that torque at rest',
    ),
  ].filter((f) => Number.isFinite(f.value));
}
