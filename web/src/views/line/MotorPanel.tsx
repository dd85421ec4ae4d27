import type { Motor, QuantityId, Variant } from '@gristmill/core';
import { ChoiceField, TextField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Section } from '../../parts/Section.tsx';
import { editVariant, useOpen, useVariant } from '../../state/open.ts';
import { useShelf } from '../../state/shop.ts';

interface Row {
  readonly key: string;
  readonly label: string;
  readonly quantity: QuantityId;
  readonly step: number;
  readonly min: number;
  readonly max: number;
  readonly whole?: boolean;
}

const row = (key: string, label: string, quantity: QuantityId, step: number, min: number, max: number, whole = false): Row => ({ key, label, quantity, step, min, max, whole });

/** Parameters of a motor by type, as the schema bounds them. */
export const MOTOR_ROWS: Readonly<Record<Motor['type'], readonly Row[]>> = {
  stepper: [
    row('holdTorque', 'Holding torque', 'torque', 0.01, 1e-4, 1e3), row('ratedCurrent', 'Rated current', 'current', 0.1, 1e-2, 100), row('resistance', 'Phase resistance', 'resistance', 0.1, 1e-3, 1e3),
    row('inductance', 'Phase inductance', 'inductance', 1e-4, 1e-6, 1), row('stepsPerTurn', 'Full steps per turn', 'count', 1, 4, 1000, true),
  ],
  brushless: [
    row('speedConstant', 'Speed constant', 'speedConstant', 1, 0.05, 5e3), row('resistance', 'Resistance, two terminals', 'resistance', 0.01, 1e-4, 1e3), row('idleCurrent', 'No-load current', 'current', 0.1, 0, 100),
    row('peakCurrent', 'Short-time current', 'current', 1, 1e-2, 1e3), row('thermalResistance', 'Winding to air', 'thermalResistance', 0.1, 1e-2, 1e3),
  ],
};
export const COMMON_ROWS: readonly Row[] = [row('detentTorque', 'Unpowered torque', 'torque', 1e-3, 0, 1e3), row('rotorInertia', 'Rotor inertia', 'inertia', 1e-7, 0, 10), row('mass', 'Mass', 'mass', 0.01, 0, 1e3), row('price', 'Price', 'money', 1, 0, 1e7), row('frame', 'Frame', 'length', 1e-3, 1e-3, 1), row('length', 'Length', 'length', 1e-3, 1e-3, 2)];
const DRIVER_ROWS: readonly Row[] = [row('supplyVoltage', 'Supply voltage', 'voltage', 1, 0.5, 1e3), row('currentLimit', 'Phase current limit', 'current', 0.1, 1e-2, 1e3), row('supplyCurrent', 'Supply current', 'current', 0.5, 1e-2, 1e3)];

/** Motor, driver and sensor of the open variant. */
export function MotorPanel() {
  const variant = useVariant();
  const shelf = useShelf();
  const readOnly = useOpen((s) => s.readOnly);
  const motor = variant.motor;
  const set = (what: 'motor' | 'driver' | 'sensor', r: Row) => (value: number) => editVariant(`${what === 'motor' ? 'Motor' : what === 'driver' ? 'Driver' : 'Sensor'}: ${r.label.toLowerCase()}`, (v) => void Object.assign(v[what], { [r.key]: value }));
  const fields = (what: 'motor' | 'driver' | 'sensor', rows: readonly Row[]) =>
    rows.map((r) => <QuantityField key={r.key} label={r.label} quantity={r.quantity} step={r.step} min={r.min} max={r.max} {...(r.whole ? { whole: true } : {})} disabled={readOnly} value={(variant[what] as unknown as Record<string, number>)[r.key]!} onChange={set(what, r)} />);
  const onShelf = shelf.motors.some((m) => m.id === motor.id);
  const pick = (id: string | number) => {
    const chosen = shelf.motors.find((m) => m.id === id);
    if (!chosen) return;
    editVariant(`Motor: ${chosen.name}`, (v) => {
      v.motor = structuredClone(chosen) as Variant['motor'];
      const rated = chosen.type === 'stepper' ? chosen.ratedCurrent : chosen.peakCurrent;
      // A driver set above what the new motor stands would be a trap; below it is a choice.
      if (v.driver.currentLimit > rated || chosen.type !== motor.type) v.driver.currentLimit = rated;
    });
  };
  return (
    <>
      <Section title="Motor" aside={motor.type === 'stepper' ? 'stepper' : 'brushless'}>
        <ChoiceField label="From the shop" value={onShelf ? motor.id : ''} disabled={readOnly} options={[...(onShelf ? [] : [{ value: '', label: `${motor.name} (own)` }]), ...shelf.motors.map((m) => ({ value: m.id, label: m.name }))]} onChange={pick} />
        <TextField label="Name" value={motor.name} className="text-right" onChange={(name) => editVariant('Motor: name', (v) => void (v.motor.name = name))} />
        {fields('motor', MOTOR_ROWS[motor.type])}
        {motor.type === 'brushless' ? (
          <>
            <QuantityField label="Allowed rise" quantity="count" step={5} min={1} max={300} value={motor.allowedRise} disabled={readOnly} help="Of the winding over the surroundings, kelvin." onChange={(value) => editVariant('Motor: allowed rise', (v) => void (v.motor.type === 'brushless' && (v.motor.allowedRise = value)))} />
            <ChoiceField label="Rotor sensor" value={motor.sensored ? 'yes' : 'no'} disabled={readOnly} options={[{ value: 'yes', label: 'sensored' }, { value: 'no', label: 'sensorless' }]} help="A sensorless drive has no usable torque near standstill." onChange={(value) => editVariant('Motor: sensor', (v) => void (v.motor.type === 'brushless' && (v.motor.sensored = value === 'yes')))} />
          </>
        ) : null}
        <details>
          <summary className="label cursor-pointer">Body, inertia and price</summary>
          <div className="space-y-1 pt-1">{fields('motor', COMMON_ROWS)}</div>
        </details>
      </Section>
      <Section title="Driver and supply">
        {fields('driver', DRIVER_ROWS)}
        {motor.type === 'stepper' ? <ChoiceField label="Microsteps" value={variant.driver.microsteps} disabled={readOnly} options={[1, 2, 4, 8, 16, 32, 64, 128, 256].map((n) => ({ value: n, label: String(n) }))} help="Microsteps resolve; they do not hold." onChange={(value) => editVariant('Driver: microsteps', (v) => void (v.driver.microsteps = Number(value)))} /> : null}
        <p className="caution">Set the driver’s current limit and try the emergency stop before the motor gets power. Motors at their rated current burn fingers and soften printed mounts.</p>
      </Section>
      <Section title="Position sensor">
        <ChoiceField label="On" value={variant.sensor.place} disabled={readOnly} options={[{ value: 'none', label: 'none' }, { value: 'motor', label: 'the motor shaft' }, { value: 'output', label: 'the output' }]} onChange={(value) => editVariant('Sensor: place', (v) => void (v.sensor.place = value as 'none' | 'motor' | 'output'))} />
        {variant.sensor.place !== 'none' ? <QuantityField label="Counts per turn" quantity="count" whole step={1} min={1} max={1e9} value={variant.sensor.counts} disabled={readOnly} onChange={set('sensor', row('counts', 'Counts', 'count', 1, 1, 1e9, true))} /> : null}
      </Section>
    </>
  );
}

