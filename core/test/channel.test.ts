import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  calibrationsOf,
  instrumentOfChannel,
  instrumentsFor,
  keepChannel,
  LineReader,
  makeShelf,
  QUANTITIES,
  readShopEdits,
  readShopFile,
  writeShopFile,
  type ChannelCalibration,
  type Instrument,
  type QuantityId,
} from '../src/index.ts';

const shipped = makeShelf().instruments;
/** The shelf after `keepChannel` has been put on it. */
const kept = (
  name: string,
  c: ChannelCalibration,
  id: string | undefined,
  on: readonly Instrument[] = shipped,
): readonly Instrument[] =>
  makeShelf({
    instruments: [
      ...keepChannel(name, c, id, on),
      ...on.filter((i) => !keepChannel(name, c, id, on).some((k) => k.id === i.id)),
    ],
  }).instruments;
const worth = { scale: -2e-3, zero: 812 };

describe('what a channel is worth', () => {
  it('is kept with one instrument, and moves with the choice of another', () => {
    const first = kept('out', worth, 'magnetic');
    expect(instrumentOfChannel('out', first)?.id).toBe('magnetic');
    expect(calibrationsOf(first)).toEqual({ out: worth });
    const both = kept('in', { scale: 1e-3, zero: 0 }, 'magnetic', first);
    expect(Object.keys(calibrationsOf(both)).sort()).toEqual(['in', 'out']);
    const moved = kept('out', worth, 'optical', both);
    expect(instrumentOfChannel('out', moved)?.id).toBe('optical');
    expect(moved.find((i) => i.id === 'magnetic')!.channels).toEqual({ in: { scale: 1e-3, zero: 0 } });
    expect(calibrationsOf(kept('out', worth, undefined, moved))).toEqual({ in: { scale: 1e-3, zero: 0 } });
  });

  it('of a channel nobody keeps is nothing, whatever its name', () => {
    for (const name of ['out', 'constructor', '__proto__', 'toString', ''])
      expect(instrumentOfChannel(name, kept('load', worth, 'load-cell')), name).toBeUndefined();
  });

  it('any quantity can be read with something on the shelf, and only with what measures it', () => {
    for (const id of Object.keys(QUANTITIES) as QuantityId[])
      expect(instrumentsFor(id, shipped).length, id).toBeGreaterThan(0);
    expect(instrumentsFor('angle', shipped).every((i) => i.measures === 'angle')).toBe(true);
    expect(instrumentsFor('temperature', shipped).map((i) => i.id)).toEqual(['thermocouple']);
  });

  it('counts for the next recording of a channel of that name, over what its header says, and for no other', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-6, max: 10, noNaN: true }),
        fc.boolean(),
        fc.integer({ min: -5000, max: 5000 }),
        fc.integer({ min: -9000, max: 9000 }),
        (size, backwards, zero, raw) => {
          const scale = backwards ? -size : size;
          const reader = new LineReader(calibrationsOf(kept('out', { scale, zero }, 'magnetic')));
          reader.line(
            '{"channels":[{"name":"t"},{"name":"out","quantity":"angle","counts":4096},{"name":"in","quantity":"angle","counts":4096}]}',
          );
          reader.line(`0,${raw},${raw}`);
          expect(reader.column('output')![0]).toBeCloseTo((raw - zero) * scale, 6);
          expect(reader.column('input')![0]).toBeCloseTo((raw * 2 * Math.PI) / 4096, 9);
        },
      ),
    );
  });

  it('set while a recording stands, it changes what came and what comes, and undone gives what was', () => {
    const reader = new LineReader();
    reader.line('{"channels":[{"name":"t"},{"name":"load","unit":"N","quantity":"force","scale":0.5}]}');
    for (let i = 0; i < 5; i++) reader.line(`${i},${i * 100}`);
    const at = reader.channels.findIndex((c) => c.name === 'load');
    const id = reader.channels[at]!.id;
    const before = [...reader.column(id)!];
    reader.calibrate(at, { scale: -0.25, zero: 100 });
    reader.line('5,500');
    expect([...reader.column(id)!].map((x) => x + 0)).toEqual([25, 0, -25, -50, -75, -100]);
    reader.calibrate(at, { scale: 0.5, zero: 0 });
    expect([...reader.column(id)!].slice(0, 5)).toEqual(before);
    reader.calibrate(99, { scale: 3 });
    expect(reader.channels[at]!.scale).toBe(0.5);
  });

  it('goes out and comes in with the shop’s file; a scale of nought is refused', () => {
    const edits = { instruments: keepChannel('out', worth, 'magnetic', shipped) };
    const back = readShopFile(writeShopFile(edits));
    expect(back.ok && calibrationsOf(makeShelf(back.value).instruments)).toEqual({ out: worth });
    expect(
      readShopEdits({ instruments: [{ ...edits.instruments[0], channels: { out: { scale: 0, zero: 1 } } }] }),
    ).toMatchObject({ ok: false });
    expect(
      readShopEdits({ instruments: [{ ...edits.instruments[0], channels: { out: { scale: 'x', zero: 1 } } }] }),
    ).toMatchObject({ ok: false });
  });
});
