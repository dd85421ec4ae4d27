import { differenceOf, formatQuantity, parseQuantity, twoPoint, type Instrument, type Problem } from '@gristmill/core';
import { format } from 'date-fns';
import { Dialog } from 'radix-ui';
import { useState, type FormEvent } from 'react';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { useShop } from '../../state/shop.ts';
import { usePrefs, useUnits } from '../../state/prefs.ts';
import { putOn, takeOff } from '../../storage/edit-shop.ts';

/** What is known of an instrument since it was last calibrated, in a few words. */
function calibration(i: Instrument): string {
  const channels = Object.keys(i.channels ?? {});
  const known = [
    i.factor !== undefined && `× ${i.factor.toPrecision(5)}`,
    i.map && `map of ${i.map.length} harmonics`,
    channels.length > 0 && `channel ${channels.join(', ')}`,
  ]
    .filter(Boolean)
    .join(', ');
  return known && `${i.calibrated ?? ''} ${known}`.trim();
}

/** What reads a measurement, with its resolution, largest error, range and calibration. */
export function Instruments() {
  const shelf = useShop((s) => s.shelf);
  const edits = useShop((s) => s.edits);
  const [calibrating, setCalibrating] = useState<Instrument | undefined>();
  const put = (id: string, part: Partial<Instrument>) => {
    const i = shelf.instruments.find((x) => x.id === id)!;
    putOn('instruments', { ...i, ...part, source: 'set in the shop' });
  };
  return (
    <section aria-label="Instruments" className="pb-6">
      <div className="border-b border-strong pb-1">
        <h2>Instruments</h2>
      </div>
      <table className="w-full">
        <thead>
          <tr>
            <th>instrument</th>
            <th className="text-right">resolution</th>
            <th className="text-right">largest error</th>
            <th className="text-right">reads up to</th>
            <th className="pl-3">calibrated</th>
            <th>where it comes from</th>
            <th>
              <span className="sr-only">Calibrate, reset</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {shelf.instruments.map((i) => (
            <tr key={i.id} className="rule-b">
              <td>{i.name}</td>
              <td className="w-[104px]">
                <QuantityField
                  label={`${i.name}, resolution`}
                  hideLabel
                  quantity={differenceOf(i.measures)}
                  digits={3}
                  value={i.resolution}
                  min={1e-9}
                  max={10}
                  step={i.resolution}
                  onChange={(v) => put(i.id, { resolution: v })}
                />
              </td>
              <td className="w-[104px]">
                <QuantityField
                  label={`${i.name}, error`}
                  hideLabel
                  quantity={differenceOf(i.measures)}
                  digits={3}
                  value={i.error}
                  min={0}
                  max={10}
                  step={i.resolution}
                  onChange={(v) => put(i.id, { error: v })}
                />
              </td>
              <td className="w-[104px]">
                <QuantityField
                  label={`${i.name}, range`}
                  hideLabel
                  quantity={i.measures}
                  digits={3}
                  value={i.range ?? 0}
                  min={0}
                  max={1e6}
                  step={i.resolution * 100}
                  help="0 where it is not known."
                  onChange={(v) => put(i.id, v > 0 ? { range: v } : { range: undefined })}
                />
              </td>
              <td className="num pl-3 text-[12px]">{calibration(i) || <span className="text-muted">not yet</span>}</td>
              <td className="label">{i.source}</td>
              <td className="whitespace-nowrap pr-0 text-right">
                {i.measures === 'temperature' || i.measures === 'angle' ? null : (
                  <button
                    type="button"
                    className="btn-quiet"
                    aria-label={`Calibrate ${i.name}`}
                    onClick={() => setCalibrating(i)}
                  >
                    Calibrate
                  </button>
                )}
                {edits.instruments?.some((x) => x.id === i.id) ? (
                  <button
                    type="button"
                    className="btn-quiet"
                    aria-label={`Reset ${i.name}`}
                    onClick={() => takeOff('instruments', i.id)}
                  >
                    Reset
                  </button>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="label pt-1">
        An angle sensor’s error over its turn is mapped from a transmission test: one slow turn, then “Store as the
        sensor’s map”.
      </p>
      {calibrating ? (
        <Calibrate
          key={calibrating.id}
          instrument={calibrating}
          onClose={() => setCalibrating(undefined)}
          onTake={(part) => (put(calibrating.id, part), setCalibrating(undefined))}
        />
      ) : null}
    </section>
  );
}

/** Two known values and what is read for each give factor and zero; a third checks them. */
function Calibrate({
  instrument,
  onClose,
  onTake,
}: {
  instrument: Instrument;
  onClose: () => void;
  onTake: (part: Partial<Instrument>) => void;
}) {
  const units = useUnits();
  const [problem, setProblem] = useState<Problem | undefined>();
  const say = (v: number) => formatQuantity(v, instrument.measures, units, 5);
  const take = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const data = new FormData(e.currentTarget);
    const values: number[] = [];
    for (const key of ['known1', 'read1', 'known2', 'read2'] as const) {
      const read = parseQuantity(
        String(data.get(key)),
        instrument.measures,
        units[instrument.measures],
        usePrefs.getState().comma,
      );
      if (!read.ok) return setProblem(read.problem);
      values.push(read.value.si);
    }
    const [k1, r1, k2, r2] = values as [number, number, number, number];
    const made = twoPoint([k1, k2], [r1, r2]);
    if (!made)
      return setProblem({
        what: 'Both readings are the same.',
        why: 'Then nothing tells how far it reads for what hangs on it.',
        mend: 'Use known values that lie further apart.',
      });
    if (!(made.factor > 0.5 && made.factor < 2))
      return setProblem({
        what: `A factor of ${made.factor.toPrecision(3)} is no calibration.`,
        why: 'An instrument this far off has a fault, or a value is in another unit.',
        mend: 'Check units and which value is which.',
      });
    onTake({ ...made, calibrated: format(new Date(), 'yyyy-MM-dd') });
  };
  const field = (name: string, label: string, start: string) => (
    <label className="flex items-baseline justify-between gap-2">
      {label}{' '}
      <input name={name} defaultValue={start} className="field-input !w-32" autoComplete="off" aria-label={label} />
    </label>
  );
  return (
    <Dialog.Root open onOpenChange={(o) => (o ? undefined : onClose())}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/15" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[14vh] z-30 w-[min(440px,94vw)] -translate-x-1/2 border border-strong bg-panel px-5 py-4"
        >
          <div className="flex items-baseline justify-between">
            <Dialog.Title className="text-[16px] font-semibold">Calibrate {instrument.name}</Dialog.Title>
            <Dialog.Close className="btn-quiet">Close</Dialog.Close>
          </div>
          <p className="label pb-2">
            Two known values, one near nothing and one near what matters. Readings are corrected from then on; those
            already typed stay as they are and are corrected with them.
          </p>
          <form onSubmit={take} className="space-y-1.5">
            {field('known1', 'First known value', say(0))}
            {field('read1', 'Read for it', say(0))}
            {field('known2', 'Second known value', say(1))}
            {field('read2', 'Read for that', say(1))}
            {problem ? <ProblemNote problem={problem} /> : null}
            <p className="pt-1">
              <button type="submit" className="btn">
                Take the calibration
              </button>
            </p>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
