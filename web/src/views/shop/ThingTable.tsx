import type { QuantityId } from '@gristmill/core';
import type { ReactNode } from 'react';
import { TextField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { newId } from '../../state/identifier.ts';

export interface ThingColumn {
  readonly key: string;
  readonly label: string;
  readonly quantity: QuantityId;
  readonly min: number;
  readonly max: number;
  /** What a thing that does not say it counts as: a number, or another column's. */
  readonly absent?: number | string;
}

interface Thing {
  readonly id: string;
  readonly name: string;
  readonly source: string;
}

const valueOf = (t: Thing, { key, absent }: ThingColumn): number => {
  const said = t as unknown as Readonly<Record<string, number | undefined>>;
  return said[key] ?? (typeof absent === 'string' ? said[absent]! : (absent ?? NaN));
};

/** A shelf of things with a few numbers each: edited in place, copied, and put back as shipped. */
export function ThingTable<T extends Thing>({
  title,
  note,
  things,
  own,
  columns,
  tell,
  onPut,
  onRemove,
}: {
  title: string;
  note: string;
  things: readonly T[];
  own: ReadonlySet<string>;
  columns: readonly ThingColumn[];
  tell?: { readonly name: string; readonly of: (t: T) => ReactNode };
  onPut: (t: T) => void;
  onRemove: (id: string) => void;
}) {
  return (
    <section aria-label={title} className="pb-6">
      <div className="flex items-baseline justify-between border-b border-strong pb-1">
        <h2>{title}</h2>
        <span className="label">{note}</span>
      </div>
      <table className="w-full">
        <thead>
          <tr>
            <th>name</th>
            {tell ? <th>{tell.name}</th> : null}
            {columns.map((c) => (
              <th key={c.key} className="text-right">
                {c.label}
              </th>
            ))}
            <th className="whitespace-nowrap">where from</th>
            <th>
              <span className="sr-only">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {things.map((t) => (
            <tr key={t.id} className="rule-b" data-thing={t.id}>
              <td className={own.has(t.id) ? 'whitespace-nowrap' : ''}>
                {own.has(t.id) ? (
                  <TextField
                    label={`Name of ${t.name}`}
                    hideLabel
                    value={t.name}
                    refuse={(v) => v === ''}
                    onChange={(name) => onPut({ ...t, name })}
                  />
                ) : (
                  t.name
                )}
              </td>
              {tell ? <td className="whitespace-nowrap pr-3">{tell.of(t)}</td> : null}
              {columns.map((c) => {
                const value = valueOf(t, c);
                return (
                  <td key={c.key} className="w-[88px]">
                    <QuantityField
                      label={`${t.name}, ${c.label}`}
                      hideLabel
                      quantity={c.quantity}
                      value={value}
                      min={c.min}
                      max={c.max}
                      step={Math.max(Math.abs(value) / 20, 1e-9)}
                      onChange={(v) => onPut({ ...t, [c.key]: v, source: 'set in the shop' })}
                    />
                  </td>
                );
              })}
              <td className="label max-w-[130px] truncate" title={t.source}>
                {t.source}
              </td>
              <td className="whitespace-nowrap pr-0 text-right">
                <button
                  type="button"
                  className="btn-quiet"
                  aria-label={`Copy ${t.name}`}
                  onClick={() => onPut({ ...t, id: newId(), name: `${t.name}, copy` })}
                >
                  Copy
                </button>
                {own.has(t.id) ? (
                  <button
                    type="button"
                    className="btn-quiet"
                    aria-label={`Reset ${t.name}`}
                    onClick={() => onRemove(t.id)}
                  >
                    Reset
                  </button>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
