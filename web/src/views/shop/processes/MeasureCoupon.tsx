import { formatQuantity, sayProblem, type FitEntry, type FitReading, type Process } from '@gristmill/core';
import { couponOf, type CouponMeasure } from '@gristmill/core/fit/coupon';
import { fitHistory } from '@gristmill/core/fit/process-fit';
import { slipIn } from '@gristmill/core/fit/reading';
import { couponMarkdown } from '@gristmill/core/fit/write-coupon';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { download, fileName } from '../../../app/download.ts';
import { FitNumbers } from '../../../parts/FitNumbers.tsx';
import { LengthInput } from '../../../parts/LengthInput.tsx';
import { ProblemNote } from '../../../parts/ProblemNote.tsx';
import { Said } from '../../../parts/Said.tsx';
import { today } from '../../../state/bench.ts';
import { newId } from '../../../state/identifier.ts';
import { useUnits } from '../../../state/prefs.ts';
import { couponAsFile } from '../../../workers/solid.ts';
import { BusyNote, useMaking } from '../../make/making.tsx';
import { CouponDrawing } from './CouponDrawing.tsx';

const FORMATS = ['3mf', 'stl', 'step', 'svg', 'dxf'] as const;

/** The coupon as files, and the sheet that says where the caliper goes. */
function CouponFiles({ process }: { process: Process }) {
  const units = useUnits();
  const { busy, make } = useMaking('The coupon could not be made');
  const save = (format: (typeof FORMATS)[number]) =>
    make('Coupon', async (_says, signal) => {
      const title = `Coupon, ${process.name}`;
      const out = await couponAsFile({ process, format, title }, signal);
      if (!out.ok) return void toast(sayProblem(out.problem));
      const kind = format === '3mf' || format === 'step' ? format : 'zip';
      const file = `${fileName('coupon', process.name)}${kind === 'zip' ? `-${format}` : ''}.${kind}`;
      download(file, out.value, kind === 'zip' ? 'application/zip' : `model/${format}`);
      toast(`${file}: as drawn, millimetres. Print it with the settings of your parts.`);
    });
  if (busy) return <BusyNote busy={busy} />;
  return (
    <span>
      {FORMATS.map((f) => (
        <button
          key={f}
          type="button"
          className="mend mr-3"
          aria-label={`Coupon as ${f.toUpperCase()}`}
          onClick={() => void save(f)}
        >
          {f.toUpperCase()}
        </button>
      ))}
      <button
        type="button"
        className="mend"
        onClick={() =>
          download(`${fileName('measuring', process.name)}.md`, couponMarkdown(process, units), 'text/markdown')
        }
      >
        Measuring sheet
      </button>
    </span>
  );
}

/** A coupon that is measured: where the caliper goes, what was read, and what it says of the process at once. */
export function MeasureCoupon({
  process,
  printed,
  onSave,
}: {
  process: Process;
  printed: boolean;
  onSave: (entry: FitEntry) => void;
}) {
  const units = useUnits();
  const coupon = useMemo(() => couponOf(process), [process]);
  const [read, setRead] = useState<Readonly<Record<string, Partial<FitReading>>>>({});
  const [round, setRound] = useState(0);
  const [at, setAt] = useState<string | undefined>();
  const day = today();
  const readingOf = (m: CouponMeasure): FitReading | undefined => {
    const own = read[m.id];
    return own?.made === undefined ? undefined : { ...m.reading, id: m.id, where: m.name, ...own, made: own.made };
  };
  const readings = coupon.measures.flatMap((m) => readingOf(m) ?? []);
  const entry: FitEntry = { id: newId(), day, from: 'coupon', note: 'coupon', readings };
  const made = readings.length > 0 ? fitHistory({ ...process, fits: [...process.fits, entry] }, day) : undefined;
  const step = made?.ok ? made.value.steps.find((s) => s.entry === entry) : undefined;
  const odd = new Map((step?.odd ?? readings.flatMap((r) => slipIn(r) ?? [])).map((o) => [o.id, o]));
  const length = (x: number) => formatQuantity(x, 'length', units, 6);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-6">
      <div className="min-w-0">
        <p className="flex flex-wrap items-baseline justify-between gap-2 pb-1">
          <span className="label">coupon as</span> <CouponFiles process={process} />
        </p>
        <ul className="label list-disc pl-4 pb-2">
          {coupon.notes.map((n) => (
            <li key={n}>
              <Said>{n}</Said>
            </li>
          ))}
        </ul>
        <table className="w-full" aria-label="Readings of the coupon" key={round}>
          <thead>
            <tr>
              <th>where</th>
              <th className="text-right">drawn</th>
              <th className="w-[92px] text-right">read</th>
              <th className="w-[92px] pr-0 text-right">off the fit</th>
            </tr>
          </thead>
          <tbody>
            {coupon.measures.map((m, i) => {
              const o = odd.get(m.id);
              const left = step?.left.get(m.id);
              return (
                <tr
                  key={m.id}
                  className="rule-b align-baseline"
                  data-measure={m.id}
                  onFocus={() => setAt(m.id)}
                  onMouseEnter={() => setAt(m.id)}
                >
                  <td>
                    <b className="num">{i + 1}</b> <Said>{m.name}</Said>
                    <span className="label block">
                      <Said>{m.how}</Said>
                    </span>
                    {o ? (
                      <span className="block text-[12px] text-found">
                        <Said>{o.why}</Said>{' '}
                        {o.meant ? (
                          <button
                            type="button"
                            className="mend"
                            onClick={() => setRead((r) => ({ ...r, [m.id]: { ...r[m.id], ...o.meant!.change } }))}
                          >
                            {o.meant.label}
                          </button>
                        ) : (
                          <button
                            type="button"
                            className="mend"
                            onClick={() => setRead((r) => ({ ...r, [m.id]: { ...r[m.id], counts: true } }))}
                          >
                            It counts all the same
                          </button>
                        )}
                      </span>
                    ) : null}
                  </td>
                  <td className="num text-right">{m.reading.drawn > 0 ? length(m.reading.drawn) : '—'}</td>
                  <td>
                    <LengthInput
                      label={`Read: ${i + 1}`}
                      onChange={(made) => setRead((r) => ({ ...r, [m.id]: made === undefined ? {} : { made } }))}
                    />
                  </td>
                  <td className="num pr-0 text-right text-muted">
                    {o?.aside
                      ? 'set aside'
                      : left === undefined
                        ? ''
                        : formatQuantity(left, 'length', { length: 'µm', ...units }, 2)}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        <p className="flex items-baseline gap-3 pt-2">
          <button
            type="button"
            className="btn"
            disabled={readings.length === 0 || !made?.ok}
            onClick={() => {
              onSave(entry);
              setRead({});
              setRound(round + 1);
              toast(
                `${readings.length} readings of ${process.name} are kept. Every joint that is made with it can take them.`,
              );
            }}
          >
            {readings.length === 0
              ? 'Keep the readings'
              : readings.length === 1
                ? 'Keep this reading'
                : `Keep these ${readings.length} readings`}
          </button>
          <span className="label">of today; fewer will do, with a wider band</span>
        </p>
      </div>
      <div>
        <CouponDrawing coupon={coupon} at={at} />
        {made && !made.ok ? <ProblemNote problem={made.problem} /> : null}
        {made?.ok ? (
          <div className="pt-2">
            <h3 className="font-semibold">With these readings</h3>
            <FitNumbers fit={made.value.now} printed={printed} />
          </div>
        ) : null}
      </div>
    </div>
  );
}
