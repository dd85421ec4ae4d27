import { formatQuantity, stageKind, type CountSet, type StageRecord } from '@gristmill/core';
import { useMemo, useState } from 'react';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { useOpen } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { setParams } from './StageFields.tsx';

type Order = 'error' | 'gap' | 'size';
const ORDER: Readonly<Record<Order, (s: CountSet) => number>> = {
  error: (s) => Math.abs(s.error),
  gap: (s) => -s.gap,
  size: (s) => s.size,
};
const SHOWN = 8;
const W = 212;
const H = 150;

/** How the wheels of a set meet. */
const meshing = (set: CountSet): string =>
  `${set.sequence ? 'planets mesh one after another' : 'all planets mesh at once, louder'}, ` +
  (set.hunting ? 'every tooth meets every other' : 'the same teeth meet again');

/**
 * Tooth counts that give a wanted ratio: a lattice of what assembles and what does not, and the best of it to pick
 * from.
 */
export function CountLattice({ stage, ratio }: { stage: StageRecord; ratio: number | undefined }) {
  const kind = stageKind(stage.kind);
  const units = useUnits();
  const readOnly = useOpen((s) => s.readOnly);
  const [own, setOwn] = useState<number | undefined>();
  const [size, setSize] = useState(0.12);
  const [tolerance, setTolerance] = useState(0.03);
  const [order, setOrder] = useState<Order>('error');
  const [seen, setSeen] = useState<CountSet | undefined>();
  const wanted = own ?? Math.abs(ratio ?? 5);
  const desk = useMemo(
    () => kind?.counts?.(stage.params, { ratio: wanted, size, tolerance }),
    [kind, stage.params, wanted, size, tolerance],
  );
  if (!desk) return null;
  const fits = desk.sets
    .filter((s) => s.assembles)
    .sort((a, b) => ORDER[order](a) - ORDER[order](b) || Math.abs(a.error) - Math.abs(b.error) || a.size - b.size);
  const xs = desk.sets.map((s) => s.x);
  const ys = desk.sets.map((s) => s.y);
  const [x0, x1, y0, y1] = [Math.min(...xs) - 1, Math.max(...xs) + 1, Math.min(...ys) - 1, Math.max(...ys) + 1];
  const at = (s: CountSet): [number, number] => [
    22 + ((s.x - x0) / Math.max(1, x1 - x0)) * (W - 28),
    H - 16 - ((s.y - y0) / Math.max(1, y1 - y0)) * (H - 24),
  ];
  const take = (s: CountSet) => void setParams(stage, s.values, `Teeth ${s.label}`);
  const told = seen ?? desk.sets.find((s) => s.current);
  return (
    <details open className="pb-3">
      <summary className="rule-b cursor-pointer pb-1 font-semibold">Tooth counts for a ratio</summary>
      <QuantityField
        label="Wanted ratio"
        quantity="ratio"
        value={wanted}
        min={1.01}
        max={1000}
        step={0.1}
        help="Of this stage."
        onChange={setOwn}
      />
      <QuantityField
        label="Outside at most"
        quantity="length"
        value={size}
        min={5e-3}
        max={2}
        step={5e-3}
        help="With the module and wall as they are."
        onChange={setSize}
      />
      <QuantityField
        label="Ratio within"
        quantity="efficiency"
        value={tolerance}
        min={0}
        max={0.3}
        step={0.005}
        help="Either way."
        onChange={setTolerance}
      />
      <ChoiceField
        label="Best first by"
        value={order}
        options={[
          { value: 'error', label: 'Ratio' },
          { value: 'gap', label: 'Room between planets' },
          { value: 'size', label: 'Size' },
        ]}
        onChange={(v) => setOrder(v as Order)}
        help="How the list below is sorted."
      />
      {desk.sets.length === 0 ? (
        <p className="label py-1">
          No counts give this ratio within this size. Allow more size or more error, or take another module.
        </p>
      ) : (
        <>
          <svg
            width={W}
            height={H}
            role="img"
            aria-label={`${fits.length} of ${desk.sets.length} sets of teeth assemble`}
            className="mt-1 block"
          >
            <path d={`M22 4V${H - 16}H${W - 4}`} fill="none" stroke="var(--muted)" strokeWidth="0.8" />
            <text x={W - 4} y={H - 3} textAnchor="end" fontSize="11" fill="var(--muted)">
              {desk.axes[0]} {x0 + 1}–{x1 - 1}
            </text>
            <text x={10} y={10} fontSize="11" fill="var(--muted)" transform={`rotate(-90 10 10)`} textAnchor="end">
              {desk.axes[1]} {y0 + 1}–{y1 - 1}
            </text>
            {desk.sets.map((s) => {
              const [x, y] = at(s);
              return (
                <g
                  key={s.label}
                  onPointerEnter={() => setSeen(s)}
                  onPointerLeave={() => setSeen(undefined)}
                  onClick={() => !readOnly && take(s)}
                  className="cursor-pointer"
                >
                  <circle cx={x} cy={y} r={6} fill="transparent" />
                  {s.assembles ? (
                    <circle cx={x} cy={y} r={2.6} fill="var(--expected)" />
                  ) : (
                    <path d={`M${x - 2} ${y - 2}l4 4m0 -4l-4 4`} stroke="var(--muted)" strokeWidth="0.9" />
                  )}
                  {s.current ? (
                    <circle cx={x} cy={y} r={5.5} fill="none" stroke="var(--ink)" strokeWidth="1.4" />
                  ) : null}
                </g>
              );
            })}
          </svg>
          <p className="label min-h-[3.9em]" aria-live="polite">
            {told
              ? `${told.label}: ${formatQuantity(told.ratio, 'ratio', units, 4)}${told.assembles ? `, ${meshing(told)}` : `; ${told.why}`}`
              : 'Dots assemble, crosses do not. The ring marks the present counts.'}
          </p>
          <table className="w-full text-[12.5px]" aria-label="Sets of teeth that assemble">
            <thead>
              <tr>
                <th>teeth</th>
                <th className="text-right">off %</th>
                <th className="text-right">gap</th>
                <th className="pr-0 text-right">⌀</th>
              </tr>
            </thead>
            <tbody>
              {fits.slice(0, SHOWN).map((s) => (
                <tr
                  key={s.label}
                  onPointerEnter={() => setSeen(s)}
                  onPointerLeave={() => setSeen(undefined)}
                  onFocus={() => setSeen(s)}
                  onBlur={() => setSeen(undefined)}
                  className={s.current ? 'bg-paper font-semibold' : ''}
                  aria-current={s.current || undefined}
                >
                  <td className="num whitespace-nowrap py-[2px]">
                    {s.current || readOnly ? (
                      s.label.replaceAll(' ', '')
                    ) : (
                      <button type="button" className="mend" aria-label={`Take ${s.label}`} onClick={() => take(s)}>
                        {s.label.replaceAll(' ', '')}
                      </button>
                    )}
                  </td>
                  <td className="num text-right">{(s.error * 100).toFixed(1)}</td>
                  <td className="num whitespace-nowrap text-right">{formatQuantity(s.gap, 'length', units, 2)}</td>
                  <td className="num whitespace-nowrap pr-0 text-right">
                    {formatQuantity(s.size, 'length', units, 3)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </details>
  );
}
