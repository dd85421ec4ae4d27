import { formatQuantity, fullRace, type OutputShaft } from '@gristmill/core';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { editVariant, useOpen, useVariant } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { useShelf } from '../../state/shelf.ts';

const FIELDS = [
  {
    key: 'shaftDiameter',
    label: 'Shaft diameter',
    quantity: 'length',
    step: 1e-3,
    min: 5e-4,
    max: 0.5,
    help: 'Of the output shaft.',
  },
  {
    key: 'shaftBore',
    label: 'Shaft hollow',
    quantity: 'length',
    step: 1e-3,
    min: 0,
    max: 0.5,
    help: '0 for a solid one.',
  },
  {
    key: 'shaftLength',
    label: 'Length that twists',
    quantity: 'length',
    step: 5e-3,
    min: 0,
    max: 5,
    help: 'Between the last stage and the load.',
  },
  {
    key: 'span',
    label: 'Between bearings',
    quantity: 'length',
    step: 5e-3,
    min: 1e-3,
    max: 5,
    help: 'Of the pair.',
    pair: true,
  },
  {
    key: 'overhang',
    label: 'Load overhangs',
    quantity: 'length',
    step: 5e-3,
    min: 0,
    max: 20,
    help: 'From the bearing, the nearer one of a pair, to the load’s plane.',
  },
  {
    key: 'load',
    label: 'Side force',
    quantity: 'force',
    step: 1,
    min: 0,
    max: 1e7,
    help: 'Weight of the load, or what pushes on it.',
  },
  {
    key: 'moment',
    label: 'Tilting moment',
    quantity: 'torque',
    step: 0.5,
    min: 0,
    max: 1e6,
    help: 'What tilts the load beside its side force.',
  },
  {
    key: 'axial',
    label: 'Force along the shaft',
    quantity: 'force',
    step: 1,
    min: 0,
    max: 1e7,
    help: 'The nearer bearing takes it.',
  },
] as const;

const RACE = [
  { key: 'diameter', label: 'Circle of the balls', quantity: 'length', step: 1e-3, min: 5e-3, max: 3 },
  { key: 'ball', label: 'Ball', quantity: 'length', step: 5e-4, min: 5e-4, max: 0.1 },
  { key: 'balls', label: 'Balls', quantity: 'count', step: 1, min: 3, max: 2000, whole: true },
] as const;

const ARRANGEMENTS = [
  { value: 'pair', label: 'two rows at a distance' },
  { value: 'single', label: 'one row, or crossed rollers' },
  { value: 'race', label: 'race of balls, printed' },
];

/** A race that goes round a shaft, its balls one beside the other. */
function raceAround(shaft: number, material: OutputShaft['shaftMaterial']): NonNullable<OutputShaft['race']> {
  const race = { diameter: Math.max(0.04, Math.ceil(shaft * 2e3) / 1e3), ball: 0.006 };
  return { ...race, balls: fullRace(race), material };
}

/** Shaft and bearings between the last stage and the load. */
export function OutputFields() {
  const variant = useVariant();
  const shelf = useShelf();
  const units = useUnits();
  const readOnly = useOpen((s) => s.readOnly);
  const o = variant.output;
  if (!o) {
    return (
      <button
        type="button"
        className="btn"
        disabled={readOnly}
        onClick={() =>
          editVariant(
            'Output shaft',
            (v) =>
              void (v.output = {
                shaftDiameter: 0.008,
                shaftBore: 0,
                shaftLength: 0.04,
                shaftMaterial: { ...shelf.materials.find((m) => m.id === 'silver-steel')! },
                bearing: { ...shelf.bearings.find((b) => b.bore >= 0.008)! },
                span: 0.03,
                overhang: 0.02,
                load: 10,
              } as OutputShaft),
          )
        }
      >
        Add output shaft and bearings
      </button>
    );
  }
  const arrangement = o.arrangement ?? 'pair';
  const set = (what: string, part: Partial<OutputShaft>) =>
    editVariant(`Output: ${what.toLowerCase()}`, (v) => void Object.assign(v.output!, part));
  return (
    <>
      <ChoiceField
        label="Shaft of"
        value={o.shaftMaterial.id}
        disabled={readOnly}
        options={shelf.materials.map((m) => ({ value: m.id, label: m.name }))}
        onChange={(id) => {
          const m = shelf.materials.find((x) => x.id === id);
          if (m) set('Shaft material', { shaftMaterial: { ...m } });
        }}
      />
      <ChoiceField
        label="Borne by"
        value={arrangement}
        disabled={readOnly}
        options={ARRANGEMENTS}
        help="Two rows carry tilting by their distance, crossed rollers by their circle; a printed race wears, and how long it lasts is not known."
        onChange={(v) => {
          const petg = shelf.materials.find((m) => m.id === 'petg') ?? o.shaftMaterial;
          const race = v === 'race' && !o.race ? { race: raceAround(o.shaftDiameter, { ...petg }) } : {};
          set('Borne by', { arrangement: v as NonNullable<OutputShaft['arrangement']>, ...race });
        }}
      />
      {arrangement === 'race' && o.race ? (
        <>
          <ChoiceField
            label="Race of"
            value={o.race.material.id}
            disabled={readOnly}
            options={shelf.materials.map((m) => ({ value: m.id, label: m.name }))}
            onChange={(id) => {
              const m = shelf.materials.find((x) => x.id === id);
              if (m) set('Race material', { race: { ...o.race!, material: { ...m } } });
            }}
          />
          {RACE.map((f) => (
            <QuantityField
              key={f.key}
              label={f.label}
              quantity={f.quantity}
              step={f.step}
              min={f.min}
              max={f.max}
              {...('whole' in f ? { whole: true } : {})}
              disabled={readOnly}
              value={o.race![f.key]}
              onChange={(x) => set(f.label, { race: { ...o.race!, [f.key]: x } })}
            />
          ))}
        </>
      ) : (
        <ChoiceField
          label={arrangement === 'pair' ? 'Bearings' : 'Bearing'}
          value={o.bearing?.id ?? ''}
          disabled={readOnly}
          options={[
            { value: '', label: 'none' },
            ...shelf.bearings.map((b) => ({
              value: b.id,
              label: `${b.name} (${formatQuantity(b.bore, 'length', units, 4)})`,
            })),
          ]}
          onChange={(id) => {
            const b = shelf.bearings.find((x) => x.id === id);
            set('Bearings', { bearing: b ? { ...b } : null });
          }}
        />
      )}
      {FIELDS.filter((f) => arrangement === 'pair' || !('pair' in f)).map((f) => (
        <QuantityField
          key={f.key}
          label={f.label}
          quantity={f.quantity}
          step={f.step}
          min={f.min}
          max={f.max}
          help={f.help}
          disabled={readOnly}
          value={o[f.key] ?? 0}
          onChange={(x) => set(f.label, { [f.key]: x })}
        />
      ))}
      <button
        type="button"
        className="btn-quiet !pl-0"
        disabled={readOnly}
        onClick={() => editVariant('Remove output shaft', (v) => void delete v.output)}
      >
        Remove output shaft
      </button>
    </>
  );
}
