import type { BenchTest, TestKind } from '@gristmill/core';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Section } from '../../parts/Section.tsx';
import { useOpen } from '../../state/open.ts';
import { useShelf } from '../../state/shelf.ts';
import { editTest } from './edit-test.ts';

/** What was rigged for a test, as its kind names it. */
export function RigValues({ test, kind }: { test: BenchTest; kind: TestKind }) {
  const readOnly = useOpen((s) => s.readOnly);
  const shelf = useShelf();
  const instruments = shelf.instruments.filter((i) => i.measures === kind.measures);
  const chosen = shelf.instruments.find((i) => i.id === test.rig['instrument']);
  const put = (id: string, label: string, value: number | string) =>
    editTest(test.id, `Rig: ${label.toLowerCase()}`, (t) => void (t.rig[id] = value));
  if (kind.rig.length === 0 && !kind.measures) return null;
  return (
    <Section title="Rig">
      {kind.rig.map((f) =>
        f.as === 'quantity' ? (
          <QuantityField
            key={f.id}
            label={f.label}
            help={f.help}
            quantity={f.quantity}
            step={f.step}
            min={f.min}
            max={f.max}
            disabled={readOnly}
            value={typeof test.rig[f.id] === 'number' ? (test.rig[f.id] as number) : f.start}
            onChange={(v) => put(f.id, f.label, v)}
          />
        ) : (
          <ChoiceField
            key={f.id}
            label={f.label}
            help={f.help}
            disabled={readOnly}
            value={typeof test.rig[f.id] === 'string' ? (test.rig[f.id] as string) : f.start}
            options={f.options}
            onChange={(v) => put(f.id, f.label, v)}
          />
        ),
      )}
      {kind.measures ? (
        <ChoiceField
          label="Read with"
          disabled={readOnly}
          value={String(test.rig['instrument'] ?? '')}
          options={[
            ...(chosen && chosen.measures === kind.measures
              ? []
              : [{ value: String(test.rig['instrument'] ?? ''), label: chosen?.name ?? 'not said' }]),
            ...instruments.map((i) => ({ value: i.id, label: i.name })),
          ]}
          onChange={(v) => put('instrument', 'instrument', String(v))}
        />
      ) : null}
      {chosen ? <p className="label">{chosen.source}</p> : null}
    </Section>
  );
}
