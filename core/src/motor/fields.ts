import type { QuantityId } from '../units/quantity.ts';
import type { Motor } from './motor.ts';

/** How one number of a motor, driver or sensor is edited; bounds as the schema has them. */
export interface NumberField {
  readonly key: string;
  readonly label: string;
  readonly quantity: QuantityId;
  readonly step: number;
  readonly min: number;
  readonly max: number;
  readonly whole?: boolean;
  readonly help?: string;
}

const row = (
  key: string,
  label: string,
  quantity: QuantityId,
  step: number,
  min: number,
  max: number,
  more: Pick<NumberField, 'whole' | 'help'> = {},
): NumberField => ({ key, label, quantity, step, min, max, ...more });

const magnets = [
  row('speedConstant', 'Speed constant', 'speedConstant', 1, 0.05, 5e3),
  row('resistance', 'Resistance, two terminals', 'resistance', 0.01, 1e-4, 1e3),
  row('idleCurrent', 'No-load current', 'current', 0.1, 0, 100),
  row('peakCurrent', 'Short-time current', 'current', 1, 1e-2, 1e3),
  row('thermalResistance', 'Winding to air', 'thermalResistance', 0.1, 1e-2, 1e3),
  row('allowedRise', 'Allowed rise', 'temperatureRise', 5, 1, 300, { help: 'Of the winding over the surroundings.' }),
];

/** Numbers of a motor by type. */
export const MOTOR_FIELDS: Readonly<Record<Motor['type'], readonly NumberField[]>> = {
  stepper: [
    row('holdTorque', 'Holding torque', 'torque', 0.01, 1e-4, 1e3),
    row('ratedCurrent', 'Rated current', 'current', 0.1, 1e-2, 100),
    row('resistance', 'Phase resistance', 'resistance', 0.1, 1e-3, 1e3),
    row('inductance', 'Phase inductance', 'inductance', 1e-4, 1e-6, 1),
    row('stepsPerTurn', 'Full steps per turn', 'count', 1, 4, 1000, { whole: true }),
  ],
  brushless: magnets,
  brushed: magnets,
  servo: [
    row('ratedTorque', 'Rated torque', 'torque', 0.01, 1e-4, 1e4),
    row('ratedSpeed', 'Rated speed', 'speed', 10, 1e-2, 1e5),
    row('peakTorque', 'Short-time torque', 'torque', 0.01, 1e-4, 1e5),
    row('maxSpeed', 'Highest speed', 'speed', 10, 1e-2, 1e5),
    row('ratedCurrent', 'Current at rated torque', 'current', 0.1, 1e-3, 1e3),
    row('efficiency', 'Efficiency, rated', 'efficiency', 0.01, 0.01, 1),
    row('allowedRise', 'Rise at rated torque', 'temperatureRise', 5, 1, 300, {
      help: 'Of the winding over the surroundings.',
    }),
  ],
};

/** What every motor has; what nobody has said of it is 0. */
export const BODY_FIELDS: readonly NumberField[] = [
  row('detentTorque', 'Unpowered torque', 'torque', 1e-3, 0, 1e3),
  row('rotorInertia', 'Rotor inertia', 'inertia', 1e-7, 0, 10),
  row('mass', 'Mass', 'mass', 0.01, 0, 1e3),
  row('price', 'Price', 'money', 1, 0, 1e7),
  row('frame', 'Frame', 'length', 1e-3, 1e-3, 1),
  row('length', 'Length', 'length', 1e-3, 1e-3, 2),
  row('pull', 'Pull on its shaft', 'force', 1, 0, 1e5, {
    help: 'Force across its shaft that its bearings stand, by its data sheet; 0 takes it by the shaft’s diameter.',
  }),
];

export const DRIVER_FIELDS: readonly (NumberField & {
  readonly key: 'supplyVoltage' | 'currentLimit' | 'supplyCurrent';
})[] = [
  { ...row('', 'Supply voltage', 'voltage', 1, 0.5, 1e3), key: 'supplyVoltage' },
  { ...row('', 'Phase current limit', 'current', 0.1, 1e-2, 1e3), key: 'currentLimit' },
  { ...row('', 'Supply current', 'current', 0.5, 1e-2, 1e3), key: 'supplyCurrent' },
];
