import { ownFace, SCREW_IDS, usualHousing, type Housing } from '@gristmill/core';
import { ChoiceField } from '../../../parts/ChoiceField.tsx';
import { QuantityField } from '../../../parts/QuantityField.tsx';
import { editVariant, useOpen, useVariant } from '../../../state/open.ts';
import { useShelf } from '../../../state/shelf.ts';

const LENGTHS = [
  { key: 'wall', label: 'Walls', step: 5e-4, min: 8e-4, max: 0.05, help: 'Their thickness.' },
  {
    key: 'plate',
    label: 'Plates',
    step: 5e-4,
    min: 1e-3,
    max: 0.05,
    help: 'Their least thickness; where a bearing or a sunk screw needs more, they are thicker.',
  },
  {
    key: 'gap',
    label: 'Room to what moves',
    step: 2e-4,
    min: 2e-4,
    max: 0.05,
    help: 'Across and along the axis, between what turns and what stands still.',
  },
] as const;

const FACE = [
  { key: 'circle', label: 'Circle of its screws', step: 1e-3, min: 2e-3, max: 0.5 },
  { key: 'pilot', label: 'Pilot', step: 1e-3, min: 0, max: 0.5 },
  { key: 'deep', label: 'Depth of its threads', step: 5e-4, min: 1e-3, max: 0.1 },
  { key: 'shaft', label: 'Shaft', step: 1e-3, min: 5e-4, max: 0.2 },
  { key: 'reach', label: 'Shaft stands out', step: 1e-3, min: 1e-3, max: 0.5 },
] as const;

const EARS = [
  { value: 'none', label: 'none' },
  { value: 'cover', label: 'on the cover' },
  { value: 'first', label: 'on the first plate' },
];

const SCREWS = SCREW_IDS.map((id) => ({ value: id, label: id }));

/** What the stages stand in: made here, or the reader's own. */
export function HousingFields() {
  const variant = useVariant();
  const shelf = useShelf();
  const readOnly = useOpen((s) => s.readOnly);
  const h = variant.housing;
  if (!h)
    return (
      <>
        <p className="label pb-2">
          The stages stand free. A housing adds plates, walls, shafts with their bearings and screws, and counts them in
          mass, money and size.
        </p>
        <button
          type="button"
          className="btn"
          disabled={readOnly}
          onClick={() => editVariant('Housing', (v) => void (v.housing = usualHousing(shelf)))}
        >
          Make a housing
        </button>
      </>
    );
  const set = (what: string, part: Partial<Housing>) =>
    editVariant(`Housing: ${what.toLowerCase()}`, (v) => void Object.assign(v.housing!, part));
  const face = ownFace(variant.motor, h);
  const given = { pilot: face.pilot, screws: face.screws, circle: face.circle, deep: face.deep, thread: face.thread };
  const setFace = (what: string, part: Partial<NonNullable<Housing['face']>>) =>
    set(what, { face: { ...given, shaft: face.shaft, reach: face.reach, ...h.face, ...part } });
  return (
    <>
      <ChoiceField
        label="Stands in"
        value={h.by}
        disabled={readOnly}
        options={[
          { value: 'here', label: 'plates made here' },
          { value: 'own', label: 'my own housing' },
        ]}
        help="Your own is not counted here; the section shows dashed what it must leave free, and it lies among all files."
        onChange={(by) => set('made', { by: by as Housing['by'] })}
      />
      {h.by === 'here' ? (
        <>
          <ChoiceField
            label="Sides"
            value={h.sides}
            disabled={readOnly}
            options={[
              { value: 'walls', label: 'closed by walls' },
              { value: 'posts', label: 'open, on posts' },
            ]}
            onChange={(sides) => set('sides', { sides: sides as Housing['sides'] })}
          />
          <ChoiceField
            label="Made of"
            value={h.material.id}
            disabled={readOnly}
            options={shelf.materials.filter((m) => m.made !== 'bought').map((m) => ({ value: m.id, label: m.name }))}
            help="Walls, cover and plates; the motor’s plate is of the mount’s material, chosen with the motor."
            onChange={(id) => {
              const m = shelf.materials.find((x) => x.id === id);
              if (m) set('material', { material: { ...m } });
            }}
          />
          {LENGTHS.map((f) => (
            <QuantityField
              key={f.key}
              label={f.label}
              quantity="length"
              step={f.step}
              min={f.min}
              max={f.max}
              help={f.help}
              disabled={readOnly}
              value={h[f.key]}
              onChange={(x) => set(f.label, { [f.key]: x })}
            />
          ))}
          <QuantityField
            label="Rods stand out"
            quantity="length"
            step={1e-3}
            min={0}
            max={0.2}
            help="How far behind the cover’s nuts, to mount the housing by them; 0 for not at all."
            disabled={readOnly}
            value={h.stands ?? 0}
            onChange={(stands) => set('rods stand out', { stands })}
          />
          <ChoiceField
            label="Held together by"
            value={h.screw}
            disabled={readOnly}
            options={SCREWS}
            onChange={(screw) => set('screws', { screw: screw as Housing['screw'] })}
          />
          <QuantityField
            label="Screws"
            quantity="count"
            whole
            step={1}
            min={0}
            max={24}
            help="0 for as many as the outline asks for."
            disabled={readOnly}
            value={h.screws}
            onChange={(x) => set('number of screws', { screws: x })}
          />
          <ChoiceField
            label="Ears to mount it"
            value={h.ears?.on ?? 'none'}
            disabled={readOnly}
            options={EARS}
            help="Lugs of one plate, beyond the outline, with a screw through each."
            onChange={(on) =>
              on === 'none'
                ? editVariant('Housing: no ears', (v) => void delete v.housing!.ears)
                : set('ears', { ears: { count: 4, screw: h.screw, ...h.ears, on: on as 'cover' | 'first' } })
            }
          />
          {h.ears ? (
            <>
              <QuantityField
                label="Ears"
                quantity="count"
                whole
                step={1}
                min={2}
                max={12}
                disabled={readOnly}
                value={h.ears.count}
                onChange={(count) => set('number of ears', { ears: { ...h.ears!, count } })}
              />
              <ChoiceField
                label="Screws of the ears"
                value={h.ears.screw}
                disabled={readOnly}
                options={SCREWS}
                onChange={(screw) =>
                  set('screws of the ears', { ears: { ...h.ears!, screw: screw as Housing['screw'] } })
                }
              />
            </>
          ) : null}
          <details className="pt-2">
            <summary className="label cursor-pointer">
              Motor’s face: {h.face ? 'as you gave it' : 'of its frame'}
            </summary>
            {FACE.map((f) => (
              <QuantityField
                key={f.key}
                label={f.label}
                quantity="length"
                step={f.step}
                min={f.min}
                max={f.max}
                disabled={readOnly}
                value={face[f.key]}
                onChange={(x) => setFace(f.label, { [f.key]: x })}
              />
            ))}
            <ChoiceField
              label="Its thread"
              value={face.thread}
              disabled={readOnly}
              options={SCREWS}
              onChange={(thread) => setFace('motor’s thread', { thread: thread as Housing['screw'] })}
            />
            <QuantityField
              label="Its screws"
              quantity="count"
              whole
              step={1}
              min={2}
              max={12}
              disabled={readOnly}
              value={face.screws}
              onChange={(x) => setFace('motor’s screws', { screws: x })}
            />
            {h.face ? (
              <button
                type="button"
                className="btn-quiet !pl-0"
                disabled={readOnly}
                onClick={() => editVariant('Motor’s face as its frame', (v) => void delete v.housing!.face)}
              >
                As its frame has it
              </button>
            ) : (
              <p className="label">{face.source}</p>
            )}
          </details>
        </>
      ) : (
        <QuantityField
          label={LENGTHS[2].label}
          quantity="length"
          step={LENGTHS[2].step}
          min={LENGTHS[2].min}
          max={LENGTHS[2].max}
          help={LENGTHS[2].help}
          disabled={readOnly}
          value={h.gap}
          onChange={(x) => set(LENGTHS[2].label, { gap: x })}
        />
      )}
      <button
        type="button"
        className="btn-quiet mt-1 !pl-0"
        disabled={readOnly}
        onClick={() => editVariant('Remove housing', (v) => void delete v.housing)}
      >
        Remove housing
      </button>
    </>
  );
}
