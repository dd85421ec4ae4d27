import type { DriverUnit, Supply } from '@gristmill/core';
import { useShop } from '../../state/shop.ts';
import { putOn, takeOff } from '../../storage/edit-shop.ts';
import { TYPE_NAMES } from '../line/MotorPanel.tsx';
import { ThingTable, type ThingColumn } from './ThingTable.tsx';

const MATERIAL: readonly ThingColumn[] = [
  { key: 'strength', label: 'strength', quantity: 'stress', min: 1e4, max: 1e11 },
  { key: 'across', label: 'across layers', quantity: 'stress', min: 1e4, max: 1e11, absent: 'strength' },
  { key: 'modulus', label: 'modulus', quantity: 'stress', min: 1e5, max: 1e13 },
  { key: 'softening', label: 'softens', quantity: 'temperature', min: 200, max: 3000 },
  { key: 'density', label: 'density', quantity: 'density', min: 1, max: 3e4 },
  { key: 'creep', label: 'creeps, n', quantity: 'count', min: 0, max: 1, absent: 0 },
  { key: 'price', label: 'price', quantity: 'pricePerMass', min: 0, max: 1e6 },
];

const BEARING: readonly ThingColumn[] = [
  { key: 'bore', label: 'd', quantity: 'length', min: 1e-4, max: 2 },
  { key: 'outside', label: 'D', quantity: 'length', min: 1e-4, max: 3 },
  { key: 'width', label: 'B', quantity: 'length', min: 1e-4, max: 1 },
  { key: 'dynamic', label: 'C', quantity: 'force', min: 1, max: 1e8 },
  { key: 'static', label: 'C0', quantity: 'force', min: 1, max: 1e8 },
  { key: 'mass', label: 'mass', quantity: 'mass', min: 0, max: 1e3 },
  { key: 'price', label: 'price', quantity: 'money', min: 0, max: 1e6 },
];

const DRIVER: readonly ThingColumn[] = [
  { key: 'current', label: 'most', quantity: 'current', min: 1e-2, max: 1e3 },
  { key: 'least', label: 'from', quantity: 'voltage', min: 0, max: 1e3 },
  { key: 'most', label: 'to', quantity: 'voltage', min: 0.5, max: 1e3 },
  { key: 'resistance', label: 'switches', quantity: 'resistance', min: 0, max: 100 },
  { key: 'idle', label: 'own use', quantity: 'power', min: 0, max: 1e3 },
  { key: 'thermalResistance', label: 'to air', quantity: 'thermalResistance', min: 1e-2, max: 1e3 },
  { key: 'hottest', label: 'hottest', quantity: 'temperature', min: 200, max: 600 },
  { key: 'mass', label: 'mass', quantity: 'mass', min: 0, max: 100, absent: 0 },
  { key: 'price', label: 'price', quantity: 'money', min: 0, max: 1e7 },
];

const SUPPLY: readonly ThingColumn[] = [
  { key: 'voltage', label: 'voltage', quantity: 'voltage', min: 0.5, max: 1e3 },
  { key: 'current', label: 'current', quantity: 'current', min: 1e-2, max: 1e3 },
  { key: 'capacitance', label: 'capacitance', quantity: 'capacitance', min: 1e-6, max: 100 },
  { key: 'stands', label: 'stands', quantity: 'voltage', min: 0.5, max: 2e3 },
  { key: 'price', label: 'price', quantity: 'money', min: 0, max: 1e7 },
];

/** What a driver's current setting is, in short. */
const SETS: Readonly<Record<DriverUnit['sets'], string>> = { peak: 'peak', rms: 'RMS', line: 'line' };

/** Drivers and supplies. */
export function Drives() {
  const { shelf, edits } = useShop();
  const put = (s: Supply, takesBack: boolean) => putOn('supplies', { ...s, takesBack, source: 'set in the shop' });
  return (
    <>
      <ThingTable
        title="Drivers"
        note="most current in the measure it is set in; switches: of the two that a current passes; heat: own use and I²·R"
        things={shelf.drivers}
        own={new Set(edits.drivers?.map((d) => d.id))}
        columns={DRIVER}
        tell={{
          name: 'runs, sets',
          of: (d) => `${TYPE_NAMES[d.drives].split(',')[0]}, ${SETS[d.sets]}${d.torque ? ', torque' : ''}`,
        }}
        onPut={(d) => putOn('drivers', d)}
        onRemove={(id) => takeOff('drivers', id)}
      />
      <ThingTable
        title="Supplies"
        note="capacitance with the driver’s; stands: up to where its output may rise while power comes back"
        things={shelf.supplies}
        own={new Set(edits.supplies?.map((s) => s.id))}
        columns={SUPPLY}
        tell={{
          name: 'takes back',
          of: (s) => (
            <input
              type="checkbox"
              aria-label={`${s.name}, takes power back`}
              checked={s.takesBack}
              onChange={(e) => put(s, e.target.checked)}
            />
          ),
        }}
        onPut={(s) => putOn('supplies', s)}
        onRemove={(id) => takeOff('supplies', id)}
      />
    </>
  );
}

/** Materials, printed, milled and bought. */
export function Materials() {
  const { shelf, edits } = useShop();
  return (
    <ThingTable
      title="Materials"
      note="strength counted on: along the layers where printed, yield where metal; creep: E(t) = E·t⁻ⁿ, t in hours"
      things={shelf.materials}
      own={new Set(edits.materials?.map((m) => m.id))}
      columns={MATERIAL}
      tell={{ name: 'made', of: (m) => m.made }}
      onPut={(m) => putOn('materials', m)}
      onRemove={(id) => takeOff('materials', id)}
    />
  );
}

/** Rolling bearings by designation. */
export function Bearings() {
  const { shelf, edits } = useShop();
  return (
    <ThingTable
      title="Bearings"
      note="deep-groove ball bearings, ISO 15; C and C0 by ISO 281 and ISO 76"
      things={shelf.bearings}
      own={new Set(edits.bearings?.map((b) => b.id))}
      columns={BEARING}
      onPut={(b) => putOn('bearings', b)}
      onRemove={(id) => takeOff('bearings', id)}
    />
  );
}
