import { formatQuantity, type FitReading, type Process } from '@gristmill/core';
import type { FitHistory, FitStep } from '@gristmill/core/fit/process-fit';
import { Said } from '../../../parts/Said.tsx';
import { useUnits } from '../../../state/prefs.ts';

const FROM: Readonly<Record<string, string>> = {
  coupon: 'coupon',
  part: 'made part',
  bench: 'bench test',
  attempt: 'attempt',
};
const FEATURE: Readonly<Record<FitReading['feature'], string>> = {
  outside: 'outside',
  hole: 'hole',
  foot: 'at the bed',
  'foot-height': 'height of the foot',
  ladder: 'ladder',
};

function Readings({ step, change }: { step: FitStep; change: (id: string, part: Partial<FitReading>) => void }) {
  const units = useUnits();
  const length = (x: number) => formatQuantity(x, 'length', units, 6);
  const odd = new Map(step.odd.map((o) => [o.id, o]));
  return (
    <table className="w-full">
      <thead>
        <tr>
          <th>what</th>
          <th>along</th>
          <th className="text-right">drawn</th>
          <th className="text-right">made</th>
          <th className="text-right">off the fit</th>
          <th className="pr-0 text-right">
            <span className="sr-only">Strike out</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {step.entry.readings.map((r) => {
          const o = odd.get(r.id);
          const left = step.left.get(r.id);
          return (
            <tr key={r.id} className="rule-b align-baseline" data-reading={r.id}>
              <td>
                {r.where ? <Said>{r.where}</Said> : FEATURE[r.feature]}
                {r.where ? <span className="label"> {FEATURE[r.feature]}</span> : null}
                {o && r.struck === undefined ? (
                  <span className="block text-[12px] text-found">
                    <Said>{o.why}</Said>{' '}
                    {o.meant ? (
                      <button type="button" className="mend mr-2" onClick={() => change(r.id, o.meant!.change)}>
                        {o.meant.label}
                      </button>
                    ) : null}
                    <button type="button" className="mend" onClick={() => change(r.id, { counts: true })}>
                      It counts all the same
                    </button>
                  </span>
                ) : null}
              </td>
              <td>{r.axis === 'round' ? 'both' : r.axis}</td>
              <td className="num text-right">{r.drawn > 0 ? length(r.drawn) : '—'}</td>
              <td className="num text-right">{length(r.made)}</td>
              <td className="num text-right text-muted">
                {r.struck !== undefined
                  ? 'struck out'
                  : o?.aside
                    ? 'set aside'
                    : left === undefined
                      ? ''
                      : formatQuantity(left, 'length', { length: 'µm', ...units }, 2)}
              </td>
              <td className="pr-0 text-right">
                <button
                  type="button"
                  className="btn-quiet"
                  onClick={() => change(r.id, { struck: r.struck === undefined ? 'struck out' : undefined })}
                >
                  {r.struck === undefined ? 'Strike out' : 'Let it count'}
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** The history of a process: what was measured when, and what it left known. */
export function FitEntries({
  process,
  history,
  put,
}: {
  process: Process;
  history: FitHistory;
  put: (part: Partial<Process>) => void;
}) {
  const units = useUnits();
  const um = (x: number) => formatQuantity(x, 'length', { length: 'µm', ...units }, 3);
  if (history.steps.length === 0) return <p className="label">Nothing is measured yet.</p>;
  return (
    <table className="w-full" aria-label="History of measurements">
      <thead>
        <tr>
          <th>day</th>
          <th>from</th>
          <th className="text-right">readings</th>
          <th className="text-right">outsides, then</th>
          <th className="text-right">holes, then</th>
          <th className="text-right">scatter</th>
          <th className="pr-0 text-right">
            <span className="sr-only">Remove</span>
          </th>
        </tr>
      </thead>
      {[...history.steps].reverse().map((step) => {
        const { entry, fit } = step;
        return (
          <tbody key={entry.id} className="rule-b" data-entry={entry.day}>
            <tr>
              <td className="num whitespace-nowrap">{entry.day}</td>
              <td>{FROM[entry.from]}</td>
              <td className="num text-right">
                {step.counted}
                {step.odd.length ? `, ${step.odd.length} set aside` : ''}
              </td>
              <td className="num whitespace-nowrap text-right">
                {um(fit.out.value)} ± {um(1.96 * fit.out.u)}
              </td>
              <td className="num whitespace-nowrap text-right">
                {um(fit.into.value)} ± {um(1.96 * fit.into.u)}
              </td>
              <td className="num whitespace-nowrap text-right">{um(fit.spread.value)}</td>
              <td className="pr-0 text-right">
                <button
                  type="button"
                  className="btn-quiet"
                  aria-label={`Remove the readings of ${entry.day}`}
                  onClick={() => put({ fits: process.fits.filter((e) => e.id !== entry.id) })}
                >
                  Remove
                </button>
              </td>
            </tr>
            <tr>
              <td colSpan={7} className="!pt-0 pr-0">
                <details>
                  <summary className="label cursor-pointer">
                    <Said>{entry.note || 'readings'}</Said>
                  </summary>
                  <Readings
                    step={step}
                    change={(id, part) =>
                      put({
                        fits: process.fits.map((e) =>
                          e.id === entry.id
                            ? {
                                ...e,
                                readings: e.readings.map((r) => {
                                  if (r.id !== id) return r;
                                  const next = { ...r, ...part };
                                  if (next.struck === undefined) delete next.struck;
                                  return next;
                                }),
                              }
                            : e,
                        ),
                      })
                    }
                  />
                </details>
              </td>
            </tr>
          </tbody>
        );
      })}
    </table>
  );
}
