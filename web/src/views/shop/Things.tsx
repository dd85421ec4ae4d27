import { useShop } from '../../state/shop.ts';
import { putOn, takeOff } from '../../storage/edit-shop.ts';
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
