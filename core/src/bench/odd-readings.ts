import type { Problem } from '../result.ts';
import type { BenchTest } from '../schema/joint.ts';
import { stated } from '../units/stated.ts';
import { QUANTITIES, type QuantityId } from '../units/quantity.ts';
import { columnsOf, type ReadingColumn, type TestKind } from './contract.ts';
import type { Recording } from './recording.ts';

/**
 * The largest size that anything on a bench for joints has, SI: beyond it a unit or a digit is wrong. Quantities without
 * one here have none.
 */
const LARGEST: Readonly<Partial<Record<QuantityId, number>>> = {
  length: 1e3,
  smallAngle: 7,
  mass: 1e5,
  torque: 1e5,
  force: 1e7,
  stiffness: 1e8,
  temperature: 3000,
  temperatureRise: 3000,
  current: 1e5,
  power: 1e7,
  speed: 1e6,
  frequency: 1e9,
  time: 1e10,
};

/** Whether a value of a quantity is no value of a bench: infinite, larger than anything there, or colder than nothing. */
export const beyondBench = (value: number, quantity: QuantityId): boolean =>
  !(Math.abs(value) <= (LARGEST[quantity] ?? Infinity)) || (quantity === 'temperature' && value < 0);

type Quantity = Extract<ReadingColumn, { as: 'quantity' }>;

/** The reading by its place among all, as a person counts. */
const placed = (c: Quantity, i: number): string =>
  `${c.label.charAt(0).toUpperCase()}${c.label.slice(1)}, row ${i + 1}`;

/**
 * The first reading that no bench gives: below nought where a size is read, nought where a size must be, or beyond all
 * measure.
 *
 * @returns undefined where all can be
 */
export function oddReading(kind: TestKind, test: BenchTest): Problem | undefined {
  const columns = columnsOf(kind, test.rig).filter((c): c is Quantity => c.as === 'quantity');
  for (const [i, r] of test.readings.entries()) {
    if (r.struck !== undefined) continue;
    for (const c of columns) {
      const value = r.values[c.id];
      if (typeof value !== 'number') continue;
      const said = stated(value, c.quantity, 4);
      if (!c.signed && value < 0)
        return {
          what: `${placed(c, i)}: ${said} is below nought.`,
          why: 'It is read as a size here.',
          mend: 'Give it without its sign, or strike the reading out.',
        };
      if (c.positive && value === 0)
        return {
          what: `${placed(c, i)} is nought.`,
          why: 'Nothing there has no size.',
          mend: 'Read it again, or strike the reading out.',
        };
      if (beyondBench(value, c.quantity) || Math.abs(value) > (c.most ?? Infinity))
        return {
          what: `${placed(c, i)}: ${QUANTITIES[c.quantity].name} beyond all measure.`,
          why: `At most ${stated(c.most ?? LARGEST[c.quantity] ?? 0, c.quantity, 3)} can be read here.`,
          mend: 'Look at its unit, or strike the reading out.',
        };
    }
  }
  return undefined;
}

/** Readings in the order of their times where they stand in another, and what is said of it. */
export function inOrderOfTime(test: BenchTest): { readonly test: BenchTest; readonly says: readonly string[] } {
  const time = (r: BenchTest['readings'][number]) => r.values['time'];
  const back = test.readings.filter((r, i) => {
    const [before, now] = [i > 0 ? time(test.readings[i - 1]!) : undefined, time(r)];
    return typeof before === 'number' && typeof now === 'number' && now < before;
  }).length;
  if (back === 0) return { test, says: [] };
  return {
    test: {
      ...test,
      readings: [...test.readings].sort((a, b) => (Number(time(a)) || 0) - (Number(time(b)) || 0)),
    },
    says: [
      `Times go back ${back} time${back === 1 ? '' : 's'}: the readings were taken in the order of their times. Look whether the rows are whole.`,
    ],
  };
}

/** Samples at one end of a channel in a row from which it is no chance. */
const STUCK = 8;

/**
 * Whether a channel stands at its own end again and again, as a converter does that can count no further: the share of
 * samples there.
 */
export function clippedShare(a: Float64Array): number {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < a.length; i++) {
    if (a[i]! < low) low = a[i]!;
    if (a[i]! > high) high = a[i]!;
  }
  if (!(high > low)) return 0;
  let [run, all] = [0, 0];
  for (let i = 0; i <= a.length; i++) {
    if (i < a.length && (a[i] === high || a[i] === low) && (i === 0 || run === 0 || a[i] === a[i - 1])) run++;
    else {
      if (run >= STUCK) all += run;
      run = i < a.length && (a[i] === high || a[i] === low) ? 1 : 0;
    }
  }
  return all / a.length;
}

/** Channels of a recording that all but stand at one of their ends, in words. */
export function clippedSays(recording: Recording | undefined, ids: readonly string[]): string[] {
  return (recording?.channels ?? []).flatMap((c, k) => {
    const share = ids.includes(c.id) ? clippedShare(recording!.data[k]!) : 0;
    return share > 0.01
      ? [
          `${c.name}: ${(100 * share).toFixed(0)} % of the samples stand at one end of what it gives. It is clipped or stuck: ` +
            'what goes beyond is lost. Lower the gain or the load, or move the sensor.',
        ]
      : [];
  });
}
