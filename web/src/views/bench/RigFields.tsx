import type { BenchTest, LadderTest, PlayTest, Problem, QuantityId } from '@gristmill/core';
import type { Draft } from 'immer';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Section } from '../../parts/Section.tsx';
import { useOpen } from '../../state/open.ts';
import { useShelf } from '../../state/shelf.ts';

/** Changes one test of the open joint. */
export function editTest<K extends BenchTest['kind']>(
  test: Extract<BenchTest, { kind: K }>,
  label: string,
  recipe: (t: Draft<Extract<BenchTest, { kind: K }>>) => void,
): Problem | undefined {
  return useOpen.getState().edit(label, (d) => {
    const found = d.tests.find((t) => t.id === test.id);
    if (found && found.kind === test.kind) recipe(found as Draft<Extract<BenchTest, { kind: K }>>);
  });
}

const row = (
  key: string,
  label: string,
  quantity: QuantityId,
  step: number,
  min: number,
  max: number,
  help: string,
) => ({ key, label, quantity, step, min, max, help });
const LEVER = [
  row('lever', 'Lever radius', 'length', 1e-3, 1e-4, 20, 'From the axis to the point that is read or hung from.'),
  row('leverError', 'Its largest error', 'length', 1e-4, 0, 1, 'How far off that radius could be.'),
];
/** Words about a test of any kind. */
export const editNotes = (id: string, notes: string): void =>
  void useOpen.getState().edit('Notes of a test', (d) => void (d.tests.find((t) => t.id === id)!.notes = notes));

const ROWS: Record<'play-lever' | 'torque-ladder', ReturnType<typeof row>[]> = {
  'play-lever': [
    ...LEVER,
    row('push', 'Push, each way', 'torque', 0.01, 0, 1e5, 'Torque of the light push; 0 where it is not known.'),
  ],
  'torque-ladder': [
    ...LEVER,
    row('leverMass', 'Lever mass', 'mass', 0.01, 0, 1e3, 'The lever weighs too.'),
    row('leverCentre', 'Axis to its centre', 'length', 1e-3, 0, 20, 'Balance it on an edge.'),
    row('basket', 'Basket and hook', 'mass', 0.01, 0, 1e3, 'Weighed together.'),
    row('angle', 'Lever above level', 'angle', Math.PI / 180, -Math.PI / 2, Math.PI / 2, 'The cosine counts.'),
    row('angleError', 'Its largest error', 'angle', Math.PI / 180, 0, 1, 'A spirit level gives about half a degree.'),
  ],
};

/** What was rigged: dimensions, masses and the instrument with its resolution and error. */
export function RigFields({ test }: { test: PlayTest | LadderTest }) {
  const shelf = useShelf();
  const readOnly = useOpen((s) => s.readOnly);
  const rig = test.rig as unknown as Record<string, number>;
  const instruments = shelf.instruments.filter((i) => i.measures === (test.kind === 'play-lever' ? 'length' : 'mass'));
  const chosen = shelf.instruments.find((i) => i.id === test.rig.instrument);
  return (
    <Section title="Rig">
      {ROWS[test.kind].map((r) => (
        <QuantityField
          key={r.key}
          label={r.label}
          help={r.help}
          quantity={r.quantity}
          step={r.step}
          min={r.min}
          max={r.max}
          disabled={readOnly}
          value={rig[r.key]!}
          onChange={(v) =>
            editTest(test, `Rig: ${r.label.toLowerCase()}`, (t) => void Object.assign(t.rig, { [r.key]: v }))
          }
        />
      ))}
      <ChoiceField
        label="Read with"
        disabled={readOnly}
        value={test.rig.instrument}
        options={[
          ...(chosen ? [] : [{ value: test.rig.instrument, label: `${test.rig.instrument} (not in the shop)` }]),
          ...instruments.map((i) => ({ value: i.id, label: i.name })),
        ]}
        onChange={(v) => editTest(test, 'Rig: instrument', (t) => void (t.rig.instrument = String(v)))}
      />
      {chosen ? (
        <p className="label">
          steps of {chosen.resolution * 1000} {chosen.measures === 'length' ? 'mm' : 'g'}, error up to{' '}
          {chosen.error * 1000} {chosen.measures === 'length' ? 'mm' : 'g'} ({chosen.source})
        </p>
      ) : null}
      {test.kind === 'play-lever' ? (
        <label className="flex items-baseline gap-2">
          <input
            type="checkbox"
            className="accent-[var(--ink)]"
            disabled={readOnly}
            checked={test.rig.correctWindUp}
            onChange={(e) =>
              editTest(test, 'Rig: wind-up of the push', (t) => void (t.rig.correctWindUp = e.target.checked))
            }
          />
          <span>Take the push’s wind-up out</span>
        </label>
      ) : null}
    </Section>
  );
}
