import {
  BODY_FIELDS,
  DRIVER_FIELDS,
  driverFor,
  MOTOR_FIELDS,
  setDriver,
  withSupply,
  withUnit,
  type Motor,
  type NumberField,
  type Shelf,
  type Variant,
} from '@gristmill/core';
import { ChoiceField, TextField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Section } from '../../parts/Section.tsx';
import { editVariant, useOpen, useVariant } from '../../state/open.ts';
import { useShelf } from '../../state/shelf.ts';
import { OutputFields } from './OutputFields.tsx';

export const TYPE_NAMES: Readonly<Record<Motor['type'], string>> = {
  stepper: 'stepper',
  brushless: 'brushless',
  brushed: 'brushed',
  servo: 'servo, by data sheet',
};
const ROOM = 293.15;

/** Takes a motor into a variant, with a driver and a supply that suit it. */
export function takeMotor(
  v: { motor: Variant['motor']; driver: Variant['driver'] },
  chosen: Motor,
  shelf: Shelf,
): void {
  v.driver = driverFor(chosen, v.motor, v.driver, shelf) as Variant['driver'];
  v.motor = structuredClone(chosen) as Variant['motor'];
}

const SETTINGS = [
  { value: 'peak', label: 'peak of a phase' },
  { value: 'rms', label: 'RMS of a phase' },
  { value: 'line', label: 'line, trapezoidal' },
];

const SENSOR_PLACES = [
  { value: 'none', label: 'none' },
  { value: 'motor', label: 'the motor shaft' },
  { value: 'output', label: 'the output' },
  { value: 'both', label: 'both' },
];

/** A shelf as a choice, beside numbers of one's own. */
const choices = (
  list: readonly { readonly id: string; readonly name: string }[],
  chosen: { readonly id: string; readonly name: string } | undefined,
) => [
  { value: '', label: 'own numbers' },
  ...(chosen && !list.some((x) => x.id === chosen.id) ? [{ value: chosen.id, label: chosen.name }] : []),
  ...list.map((x) => ({ value: x.id, label: x.name })),
];

/** Which driver and supply of the shop, what the driver can do, and where power goes that comes back. */
function Drive() {
  const { motor, driver } = useVariant();
  const shelf = useShelf();
  const readOnly = useOpen((s) => s.readOnly);
  const units = shelf.drivers.filter((u) => u.drives === motor.type);
  const set = (label: string, make: (d: Variant['driver']) => unknown) =>
    editVariant(label, (v) => void (v.driver = make(driver) as Variant['driver']));
  return (
    <>
      <ChoiceField
        label="Driver"
        value={driver.unit?.id ?? ''}
        disabled={readOnly}
        options={choices(units, driver.unit)}
        onChange={(id) => {
          const unit = units.find((u) => u.id === id);
          set(unit ? `Driver: ${unit.name}` : 'Driver: own numbers', (d) => {
            const { unit: _, ...rest } = d;
            return unit ? withUnit(d, unit, motor) : rest;
          });
        }}
      />
      {driver.unit ? (
        <p className="label" data-torque={driver.unit.torque}>
          {driver.unit.torque
            ? 'Commands torque: the joint can be made to yield, and pushed by hand while powered.'
            : motor.type === 'stepper'
              ? 'Commands steps, not torque: the joint holds its place until it loses steps.'
              : 'Commands speed, not torque.'}
        </p>
      ) : null}
      <ChoiceField
        label="Supply"
        value={driver.supply?.id ?? ''}
        disabled={readOnly}
        options={choices(shelf.supplies, driver.supply)}
        onChange={(id) => {
          const supply = shelf.supplies.find((x) => x.id === id);
          set(supply ? `Supply: ${supply.name}` : 'Supply: own numbers', (d) => {
            const { supply: _, ...rest } = d;
            return supply ? withSupply(d, supply) : rest;
          });
        }}
      />
      {driver.supply && !driver.supply.takesBack ? (
        <QuantityField
          label="Brake resistor"
          quantity="power"
          step={5}
          min={0}
          max={1e5}
          disabled={readOnly}
          help="Burns what comes back while a load is lowered or stopped; 0 for none."
          value={driver.brake ?? 0}
          onChange={(brake) => set('Brake resistor', (d) => ({ ...d, brake }))}
        />
      ) : null}
    </>
  );
}

/** Motor, driver and sensor of the open variant. */
export function MotorPanel() {
  const variant = useVariant();
  const shelf = useShelf();
  const readOnly = useOpen((s) => s.readOnly);
  const { motor, driver, sensor } = variant;
  const fields = (what: 'motor' | 'driver' | 'sensor', rows: readonly NumberField[]) =>
    rows.map((r) => (
      <QuantityField
        key={r.key}
        label={r.label}
        quantity={r.quantity}
        step={r.step}
        min={r.min}
        max={r.max}
        {...(r.whole ? { whole: true } : {})}
        {...(r.help ? { help: r.help } : {})}
        disabled={readOnly}
        value={(variant[what] as unknown as Record<string, number>)[r.key] ?? 0}
        onChange={(value) =>
          editVariant(
            `${what === 'motor' ? 'Motor' : what === 'driver' ? 'Driver' : 'Sensor'}: ${r.label.toLowerCase()}`,
            (v) => {
              if (what === 'driver') v.driver = setDriver(driver, r.key as 'currentLimit', value) as Variant['driver'];
              else Object.assign(v[what], { [r.key]: value });
            },
          )
        }
      />
    ));
  const onShelf = shelf.motors.some((m) => m.id === motor.id);
  const pick = (id: string | number) => {
    const chosen = shelf.motors.find((m) => m.id === id);
    if (chosen) editVariant(`Motor: ${chosen.name}`, (v) => takeMotor(v as Variant, chosen, shelf));
  };
  const counts: NumberField = {
    key: 'counts',
    label: sensor.place === 'both' ? 'Motor counts per turn' : 'Counts per turn',
    quantity: 'count',
    step: 1,
    min: 1,
    max: 1e9,
    whole: true,
  };
  return (
    <>
      <Section title="Motor" aside={TYPE_NAMES[motor.type]}>
        <ChoiceField
          label="From the shop"
          value={onShelf ? motor.id : ''}
          disabled={readOnly}
          options={[
            ...(onShelf ? [] : [{ value: '', label: `${motor.name} (own)` }]),
            ...shelf.motors.map((m) => ({ value: m.id, label: m.name })),
          ]}
          onChange={pick}
        />
        <TextField
          label="Name"
          value={motor.name}
          className="text-right"
          onChange={(name) => editVariant('Motor: name', (v) => void (v.motor.name = name))}
        />
        {fields('motor', MOTOR_FIELDS[motor.type])}
        {motor.type === 'brushless' ? (
          <ChoiceField
            label="Rotor sensor"
            value={motor.sensored ? 'yes' : 'no'}
            disabled={readOnly}
            options={[
              { value: 'yes', label: 'sensored' },
              { value: 'no', label: 'sensorless' },
            ]}
            help="A sensorless drive has no usable torque near standstill."
            onChange={(value) =>
              editVariant(
                'Motor: sensor',
                (v) => void (v.motor.type === 'brushless' && (v.motor.sensored = value === 'yes')),
              )
            }
          />
        ) : null}
        <details>
          <summary className="label cursor-pointer">Body, inertia and price</summary>
          <div className="space-y-1 pt-1">{fields('motor', BODY_FIELDS)}</div>
        </details>
      </Section>
      <Section title="Driver and supply">
        <Drive />
        {fields('driver', DRIVER_FIELDS)}
        {!driver.unit && (motor.type === 'stepper' || motor.type === 'brushless') ? (
          <ChoiceField
            label="Current limit is"
            value={driver.sets ?? 'peak'}
            disabled={readOnly}
            options={SETTINGS.filter((s) => motor.type === 'brushless' || s.value !== 'line')}
            help="What the driver means by its setting: a phase’s amplitude gives a stepper 0.71 of its holding torque, its RMS all of it with twice the heat."
            onChange={(value) =>
              editVariant('Driver: what it sets', (v) => void (v.driver.sets = value as Variant['driver']['sets']))
            }
          />
        ) : null}
        {motor.type === 'stepper' ? (
          <ChoiceField
            label="Microsteps"
            value={driver.microsteps}
            disabled={readOnly}
            options={[1, 2, 4, 8, 16, 32, 64, 128, 256].map((n) => ({ value: n, label: String(n) }))}
            help="Microsteps resolve; they do not hold."
            onChange={(value) => editVariant('Driver: microsteps', (v) => void (v.driver.microsteps = Number(value)))}
          />
        ) : null}
        {motor.type === 'brushless' || motor.type === 'brushed' ? (
          <QuantityField
            label="Winding at"
            quantity="temperature"
            step={5}
            min={200}
            max={600}
            disabled={readOnly}
            help="Temperature for which reach and curves hold: a hot winding has more resistance."
            value={driver.winding ?? ROOM}
            onChange={(value) => editVariant('Driver: winding temperature', (v) => void (v.driver.winding = value))}
          />
        ) : null}
        <p className="caution">
          Set the driver’s current limit and try the emergency stop before the motor gets power. Motors at their rated
          current burn fingers and soften printed mounts.
        </p>
      </Section>
      <Section title="Position sensor">
        <ChoiceField
          label="On"
          value={sensor.place}
          disabled={readOnly}
          options={SENSOR_PLACES}
          onChange={(value) =>
            editVariant('Sensor: place', (v) => void (v.sensor.place = value as Variant['sensor']['place']))
          }
        />
        {sensor.place !== 'none' ? fields('sensor', [counts]) : null}
        {sensor.place === 'both'
          ? fields('sensor', [{ ...counts, key: 'outputCounts', label: 'Output counts per turn' }])
          : null}
        {sensor.place !== 'none'
          ? fields('sensor', [
              {
                key: 'error',
                label: 'Error left',
                quantity: 'smallAngle',
                step: Math.PI / 108000,
                min: 0,
                max: 1,
                help: 'Largest over a turn, after correction; of the output’s sensor where there is one.',
              },
              {
                key: 'noise',
                label: 'Noise',
                quantity: 'smallAngle',
                step: Math.PI / 108000,
                min: 0,
                max: 1,
                help: 'Peak to peak.',
              },
            ])
          : null}
      </Section>
      <Section title="Mount and output">
        <ChoiceField
          label="Motor mount"
          value={variant.mount?.id ?? ''}
          disabled={readOnly}
          help="What the motor is screwed to: does it stand the heat?"
          options={[
            { value: '', label: 'not said' },
            ...(variant.mount && !shelf.materials.some((m) => m.id === variant.mount!.id)
              ? [{ value: variant.mount.id, label: variant.mount.name }]
              : []),
            ...shelf.materials.map((m) => ({ value: m.id, label: m.name })),
          ]}
          onChange={(id) =>
            editVariant('Motor mount', (v) => {
              const m = shelf.materials.find((x) => x.id === id);
              if (m) v.mount = { ...m };
              else if (id === '') delete v.mount;
            })
          }
        />
        <OutputFields />
      </Section>
    </>
  );
}
