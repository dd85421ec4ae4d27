import { loadPattern, type AnyPattern, type LoadCase, type Problem } from '@gristmill/core';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { ArmSketch } from './ArmSketch.tsx';
import { LegSketch } from './LegSketch.tsx';
import { PointsTable } from './PointsTable.tsx';
import { StraightSketch } from './StraightSketch.tsx';
import { TurningSketch } from './TurningSketch.tsx';

/** A change of a case; a problem where it cannot be. */
export type Change = (part: Partial<LoadCase>, what: string) => Problem | undefined;

/** The sketch of a case. `onEdit` refuses beside the field that was typed in; `onChange` is for dragging, where there is none. */
export function CaseSketch({
  c,
  g,
  onChange,
  onEdit,
  disabled,
}: {
  c: LoadCase;
  g: number;
  onChange: Change;
  onEdit: Change;
  disabled: boolean;
}) {
  const change = onChange as never;
  switch (c.pattern) {
    case 'arm':
      return <ArmSketch c={c} onChange={change} disabled={disabled} />;
    case 'leg':
      return <LegSketch c={c} g={g} onChange={change} disabled={disabled} />;
    case 'turning':
      return <TurningSketch c={c} onChange={change} disabled={disabled} />;
    case 'straight':
      return <StraightSketch c={c} g={g} onChange={change} disabled={disabled} />;
    case 'points':
      return <PointsTable c={c} onChange={onEdit as never} disabled={disabled} />;
  }
}

type Group = 'Load' | 'Move';
const fieldsOf = (c: LoadCase, group: Group) =>
  (loadPattern(c.pattern) as AnyPattern).fields.filter((f) => f.group === group && (f.when?.(c) ?? true));

/** Whether a case has any fields of a group. */
export const hasFields = (c: LoadCase, group: Group): boolean => fieldsOf(c, group).length > 0;

/** The fields of a case, of what it carries or of how it moves. */
export function CaseFields({
  c,
  group,
  onChange,
  disabled = false,
}: {
  c: LoadCase;
  group: Group;
  onChange: Change;
  disabled?: boolean;
}) {
  return fieldsOf(c, group).map((f) => {
    const value = (c as Record<string, unknown>)[f.path];
    return f.as === 'choice' ? (
      <ChoiceField
        key={f.path}
        label={f.label}
        help={f.help}
        disabled={disabled}
        value={String(value)}
        options={f.options}
        onChange={(v) => void onChange({ [f.path]: v } as Partial<LoadCase>, f.label)}
      />
    ) : (
      <div key={`${c.id}-${f.path}`}>
        <QuantityField
          label={f.label}
          quantity={f.quantity}
          help={f.help}
          step={f.step}
          min={f.min}
          max={f.max}
          value={value as number}
          disabled={disabled}
          onChange={(v) => onChange({ [f.path]: v } as Partial<LoadCase>, f.label)}
        />
        {f.path === 'dynamicFactor' ? <p className="label leading-snug">{f.help}</p> : null}
      </div>
    );
  });
}
