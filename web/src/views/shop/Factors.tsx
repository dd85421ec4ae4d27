import { whereUsed, type Factor } from '@gristmill/core';
import { memo, useMemo, useState } from 'react';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { useShop } from '../../state/shop.ts';
import { changeShop } from '../../storage/edit-shop.ts';
import { useReaders, useStageReads } from '../../workers/queries.ts';

/** One factor; a change of one redraws no other row of the hundreds. */
const FactorRow = memo(function FactorRow({ f, edited, used }: { f: Factor; edited: boolean; used: string }) {
  const set = (part: Partial<Factor>) => {
    const next = { value: f.value, low: f.low, high: f.high, ...part };
    if (!(next.low <= next.value && next.value <= next.high))
      return {
        what: 'The three are out of order.',
        why: 'The likely value lies between low and high.',
        mend: 'Move the other end first.',
      };
    const { edits } = useShop.getState();
    changeShop({ ...edits, factors: { ...edits.factors, [f.id]: { ...next, source: 'set in the shop' } } });
    return undefined;
  };
  const reset = () => {
    const { edits } = useShop.getState();
    const { [f.id]: _, ...rest } = edits.factors ?? {};
    changeShop({ ...edits, factors: rest });
  };
  const step = Math.max(Math.abs(f.value) / 20, 1e-9);
  return (
    <tr className="rule-b">
      <td>{f.name}</td>
      {(['low', 'value', 'high'] as const).map((key) => (
        <td key={key} className="w-[108px]">
          <QuantityField
            label={`${f.name}, ${key === 'value' ? 'likely' : key}`}
            hideLabel
            quantity={f.quantity}
            value={f[key]}
            min={0}
            step={step}
            onChange={(v) => set(f.low === f.high ? { low: v, value: v, high: v } : { [key]: v })}
          />
        </td>
      ))}
      <td className="label">{f.source}</td>
      <td className="label">{used}</td>
      <td className="pr-0 text-right">
        {edited ? (
          <button type="button" className="btn-quiet" aria-label={`Reset ${f.name}`} onClick={reset}>
            Reset
          </button>
        ) : null}
      </td>
    </tr>
  );
});

/** Every coefficient the predictions use: range, origin, where it is used. */
export function Factors() {
  const { shelf, edits } = useShop();
  const [find, setFind] = useState('');
  const list = useMemo(
    () => Object.values(shelf.factors).filter((f) => f.name.toLowerCase().includes(find.toLowerCase())),
    [shelf, find],
  );
  const readers = useReaders();
  const stages = useStageReads();
  return (
    <section aria-label="Factors" className="pb-6">
      <div className="flex items-baseline justify-between border-b border-strong pb-1">
        <h2>Factors</h2>
        <label className="label">
          find{' '}
          <input
            value={find}
            onChange={(e) => setFind(e.target.value)}
            className="border-b border-dotted border-muted bg-transparent text-ink"
          />
        </label>
      </div>
      <table className="w-full">
        <thead>
          <tr>
            <th>factor</th>
            <th className="text-right">low</th>
            <th className="text-right">likely</th>
            <th className="text-right">high</th>
            <th>where it comes from</th>
            <th>where it is used</th>
            <th>
              <span className="sr-only">Reset</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {list.map((f) => (
            <FactorRow
              key={f.id}
              f={f}
              edited={edits.factors?.[f.id] !== undefined}
              used={readers ? whereUsed(f.id, readers, stages) : '…'}
            />
          ))}
        </tbody>
      </table>
      {list.length === 0 ? <p className="py-2">No factor is called that.</p> : null}
    </section>
  );
}
