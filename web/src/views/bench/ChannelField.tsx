import { differenceOf, instrumentOfChannel, instrumentsFor, keepChannel, type LineReader } from '@gristmill/core';
import { format } from 'date-fns';
import { useState } from 'react';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { useShop } from '../../state/shop.ts';
import { putOn } from '../../storage/edit-shop.ts';

const TURN = 2 * Math.PI;
/** Samples averaged for a reading at rest. */
const LAST = 50;

/** The mean of the last samples of a channel, as the rig sent them. */
function lastRaw(reader: LineReader, index: number): number {
  const c = reader.channels[index]!;
  const values = reader.column(c.id)?.slice(-LAST) ?? new Float64Array();
  return values.length ? values.reduce((a, v) => a + v, 0) / values.length / c.scale + c.zero : 0;
}

/**
 * What one count of a channel is worth: by counts a turn or by scale, its sense, its zero, and a known value held now,
 * which with the zero makes two points.
 * Kept with the instrument it is read with, for the next recording of a channel of that name.
 */
export function ChannelField({
  reader,
  index,
  disabled,
  own,
}: {
  reader: LineReader;
  index: number;
  disabled: boolean;
  own: boolean;
}) {
  const [, again] = useState(0);
  const instruments = useShop((s) => s.shelf.instruments);
  const c = reader.channels[index]!;
  const holder = instrumentOfChannel(c.name, instruments);
  const keep = (id: string | undefined) => {
    const { scale, zero } = reader.channels[index]!;
    for (const i of keepChannel(c.name, { scale, zero }, id, instruments))
      putOn('instruments', i.id === id ? { ...i, calibrated: format(new Date(), 'yyyy-MM-dd') } : i);
  };
  const put = (by: { scale?: number; zero?: number }) => {
    reader.calibrate(index, by);
    if (own && holder) keep(holder.id);
    again((x) => x + 1);
  };
  const empty = disabled || reader.samples === 0;
  const raw = lastRaw(reader, index);
  const turning = c.quantity === 'angle' || c.quantity === 'smallAngle';
  const holds = (value: number) => {
    const span = raw - c.zero;
    if (Math.abs(span) < 1e-9 || value === 0)
      return {
        what: value === 0 ? 'A known value of 0 gives no scale.' : 'The channel reads its zero now.',
        why: 'Two different points make a scale.',
        mend:
          value === 0
            ? 'Press “zero here” for nought, then hold something known.'
            : 'Hold something known, then type what it is.',
      };
    put({ scale: value / span });
  };
  return (
    <div role="group" aria-label={`Channel ${c.name}`} className="rule-b space-y-1 py-1">
      {turning ? (
        <QuantityField
          label={`${c.name}, counts a turn`}
          help="Counts, or units of the header, in one turn."
          quantity="count"
          value={TURN / Math.abs(c.scale)}
          step={1}
          min={1e-6}
          max={1e12}
          disabled={disabled}
          onChange={(v) => put({ scale: (TURN / v) * Math.sign(c.scale) })}
        />
      ) : (
        <QuantityField
          label={`${c.name}, one count`}
          help="What one count, or one unit of the header, is worth."
          quantity={differenceOf(c.quantity)}
          value={Math.abs(c.scale)}
          step={Math.abs(c.scale) / 100}
          min={1e-15}
          max={1e9}
          disabled={disabled}
          onChange={(v) => put({ scale: v * Math.sign(c.scale) })}
        />
      )}
      <QuantityField
        label={`${c.name} reads now`}
        help="The mean of the last samples. Type what it truly is, and the scale follows from it and the zero."
        quantity={c.quantity}
        value={(raw - c.zero) * c.scale}
        step={Math.abs(c.scale)}
        disabled={empty}
        onChange={holds}
      />
      {own ? (
        <ChoiceField
          label="Read with"
          help="The instrument that keeps this calibration."
          disabled={disabled}
          value={holder?.id ?? ''}
          options={[
            { value: '', label: 'this recording only' },
            ...instrumentsFor(c.quantity, instruments).map((i) => ({ value: i.id, label: i.name })),
          ]}
          onChange={(v) => keep(v === '' ? undefined : String(v))}
        />
      ) : null}
      <p className="flex justify-end gap-2 text-[12px]">
        <button
          type="button"
          className="mend"
          disabled={empty}
          aria-label={`Turn the sense of ${c.name}`}
          onClick={() => put({ scale: -c.scale })}
        >
          {c.scale < 0 ? 'counts backwards' : 'counts forwards'}
        </button>
        <button
          type="button"
          className="mend"
          disabled={empty}
          aria-label={`Zero of ${c.name} here`}
          onClick={() => put({ zero: raw })}
        >
          zero here
        </button>
      </p>
    </div>
  );
}
