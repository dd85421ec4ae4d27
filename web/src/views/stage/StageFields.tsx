import { readParams, stageKind, type FieldSpec, type Mend, type Problem, type StageRecord } from '@gristmill/core';
import { useMemo } from 'react';
import { ChoiceField, TextField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Section } from '../../parts/Section.tsx';
import { editVariant, useOpen } from '../../state/open.ts';
import { refuseChange } from '../../state/refusal.ts';
import { shelfNow, useShelf } from '../../state/shelf.ts';

type Params = Record<string, unknown>;

/** Sets one parameter of a stage, checked by its kind's schema first; returns why it cannot be. */
export function setParam(stage: StageRecord, path: string, value: unknown, label: string): Problem | undefined {
  const kind = stageKind(stage.kind);
  const [before, next] = [stage.params, { ...stage.params, [path]: value }].map((p) => readParams(stage.kind, p));
  const along =
    kind?.alongWith && before!.ok && next!.ok ? kind.alongWith(path, next!.value, before!.value, shelfNow()) : {};
  return setParams(stage, { [path]: value, ...along }, label);
}

/** Sets parameters that must change together, as one step to undo. */
export function setParams(
  stage: StageRecord,
  values: Readonly<Record<string, unknown>>,
  label: string,
): Problem | undefined {
  const tried = readParams(stage.kind, { ...stage.params, ...values });
  if (!tried.ok) {
    refuseChange(tried.problem);
    return tried.problem;
  }
  return editVariant(label, (v) => {
    const record = v.stages.find((s) => s.id === stage.id);
    if (!record) return;
    Object.assign(record.params, values);
    // A hand on a stage takes it out of the brief's own sizing; what was chosen stays.
    v.follows = false;
  });
}

export const mendStage = (stage: StageRecord) => (mend: Mend) =>
  void setParams(stage, { [mend.path]: mend.value, ...mend.also }, mend.label);

/** The form of a stage, made from its kind's fields. */
export function StageFields({ stage, index }: { stage: StageRecord; index: number }) {
  const kind = stageKind(stage.kind);
  const shelf = useShelf();
  const readOnly = useOpen((s) => s.readOnly);
  const groups = useMemo(() => [...new Set(kind?.fields.map((f) => f.group) ?? [])], [kind]);
  if (!kind) return null;
  // What a file of an earlier version does not say stands as its kind has it.
  const read = readParams(stage.kind, stage.params);
  const params = (read.ok ? read.value : stage.params) as Params;
  const field = (f: FieldSpec<Params>) => {
    const label = `Stage ${index + 1}: ${f.label.toLowerCase()}`;
    const id = `field-${stage.id}-${f.path}`;
    if (f.as === 'choice') {
      return (
        <ChoiceField
          key={f.path}
          id={id}
          label={f.label}
          help={f.help}
          disabled={readOnly}
          value={params[f.path] as string | number}
          options={f.options(params, shelf)}
          onChange={(v) => void setParam(stage, f.path, v, label)}
        />
      );
    }
    if (f.as === 'text')
      return (
        <TextField
          key={f.path}
          label={f.label}
          value={String(params[f.path] ?? '')}
          maxLength={f.maxLength}
          className="text-right"
          onChange={(v) => void setParam(stage, f.path, v, label)}
        />
      );
    if (f.as === 'count') {
      return (
        <QuantityField
          key={f.path}
          id={id}
          label={f.label}
          help={f.help}
          disabled={readOnly}
          quantity="count"
          whole
          min={f.min}
          max={f.max}
          step={1}
          value={params[f.path] as number}
          onChange={(v) => setParam(stage, f.path, v, label)}
        />
      );
    }
    return (
      <QuantityField
        key={f.path}
        id={id}
        label={f.label}
        help={f.help}
        disabled={readOnly}
        quantity={f.quantity}
        step={f.step}
        value={(params[f.path] as number | undefined) ?? 0}
        onChange={(v) => setParam(stage, f.path, v, label)}
      />
    );
  };
  return (
    <>
      {groups.map((group) => {
        const shown = (kind.fields as readonly FieldSpec<Params>[]).filter(
          (f) => f.group === group && (f.when?.(params) ?? true),
        );
        return shown.length ? (
          <Section key={group} title={group}>
            {shown.map(field)}
          </Section>
        ) : null;
      })}
    </>
  );
}
