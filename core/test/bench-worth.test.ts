import { describe, expect, it } from 'vitest';
import { fromBounds, type BenchTest } from '../src/index.ts';
import { dice } from './helpers.ts';
import { loop } from './loop.ts';
import { analysed, type Typed } from './typed-bench.ts';

// What a figure of the bench is told to be worth, found a second way: by doing the test over and over with readings that
// scatter as they would, and counting how often the truth lies within U; and, with readings that do not scatter at all, by
// what an error in each field of the rig would make of it.

function figuresOf(id: BenchTest['kind'], readings: readonly Typed[], rig: Typed) {
  const { found, figures } = analysed(id, readings, rig);
  return new Map<string, { value: number; U?: number | undefined }>([
    ...figures.map((f) => [f.id, f] as const),
    ...(found ? ([['found', found]] as const) : []),
  ]);
}

/** A test that is done again and again: readings with a scatter that goes with `noise()`, of the standard deviation one. */
interface Repeated {
  readonly kind: BenchTest['kind'];
  readonly name?: string;
  readonly rig: Typed;
  readonly read: (noise: () => number) => Typed[];
  readonly truth: Readonly<Record<string, number>>;
  /** How often it is done. */
  readonly runs?: number;
}

const chord = (d: number) => 2 * Math.asin(d / 0.36);
const ARCMIN = Math.PI / 10800;
const CLEAN_LOOP = loop(1, {
  ...{ play: 4 * ARCMIN, slopes: [500], bends: [], friction: 0.2 },
  ...{ most: 5, steps: 20, noise: 0 },
});

const REPEATED: readonly Repeated[] = [
  {
    kind: 'hysteresis',
    rig: { rated: 8 },
    read: (noise) =>
      Array.from(CLEAN_LOOP.torque, (torque, i) => ({
        torque,
        angle: CLEAN_LOOP.angle[i]! + 0.1 * ARCMIN * noise(),
      })),
    // Play, and both ways 3 % of 8 N·m over 500 N·m/rad.
    truth: { play: 4 * ARCMIN, lostMotion: 4 * ARCMIN + (2 * 0.24) / 500 },
    runs: 160,
  },
  {
    kind: 'play-lever',
    rig: { lever: 0.18, leverError: 0, push: 0, correctWindUp: 'no' },
    read: (noise) => [0, 1, 2, 3, 4].map((angle) => ({ angle, difference: 4e-4 + 3e-5 * noise() })),
    truth: { play: chord(4e-4) },
  },
  {
    kind: 'pluck',
    rig: { span: 0.15, spanError: 0, massPerLength: 8.4, massError: 0 },
    read: (noise) => [1, 2, 3, 4].map(() => ({ frequency: 90 + 3 * noise() })),
    // 4·m′·L²·f², of tones that scatter by more than half a hertz.
    truth: { found: 4 * 8.4e-3 * 0.15 ** 2 * 90 ** 2 },
  },
  {
    kind: 'no-load',
    rig: { torqueConstant: 0.05, constantError: 0 },
    read: (noise) => [20, 50, 80, 110, 140].map((speed) => ({ speed, current: 0.08 + 4e-4 * speed + 2e-3 * noise() })),
    truth: { drag: 0.004, viscous: 2e-5 },
  },
  {
    kind: 'efficiency',
    rig: { ratio: 20, torqueConstant: 0.05, constantError: 0 },
    read: (noise) =>
      [0.5, 1, 1.5, 2, 2.5, 3].map((current) => ({ current, torque: 0.8 * (current - 0.2) + 0.02 * noise() })),
    truth: { found: 0.8, slope: 0.8, noLoadCurrent: 0.2, drag: 0.01 },
  },
  {
    kind: 'endurance',
    rig: { limit: 4e-3, playError: 0 },
    read: (noise) =>
      [0, 2e4, 4e4, 6e4, 8e4, 1e5].map((cycles) => ({ cycles, play: 1e-3 + 1e-8 * cycles + 3e-5 * noise() })),
    truth: { rate: 1e-2, start: 1e-3 },
  },
  ...[8, 12].map((n): Repeated => ({
    kind: 'runout',
    name: `${n} angles`,
    rig: {},
    read: (noise) =>
      Array.from({ length: n }, (_, i) => {
        const angle = (2 * Math.PI * i) / n;
        return {
          angle,
          reading: 1e-4 + 4e-5 * Math.cos(angle - 0.3) + 1e-5 * Math.cos(2 * angle - 0.5) + 1e-6 * noise(),
        };
      }),
    truth: { eccentricity: 4e-5, angle: 0.3, ovality: 1e-5 },
  })),
  {
    kind: 'temperature',
    rig: { torque: 2, surroundings: 293.15, limit: 340 },
    read: (noise) =>
      Array.from({ length: 16 }, (_, i) => ({
        time: i * 300,
        temperature: 293.15 + 30 * (1 - Math.exp(-i / 4)) + 0.2 * noise(),
      })),
    truth: { settles: 323.15, timeConstant: 1200 },
    runs: 160,
  },
  {
    kind: 'leg-press',
    rig: { thigh: 0.18, shank: 0.22, legMass: 0, driven: 'knee', lengthError: 0, angleError: 0 },
    read: (noise) => [1, 2, 3, 4].map(() => ({ angle: 2, mass: 6 + 0.05 * noise() })),
    truth: {
      found:
        (6 * 9.80665 * 0.18 * 0.22 * Math.sin(2)) / Math.sqrt(0.18 ** 2 + 0.22 ** 2 - 2 * 0.18 * 0.22 * Math.cos(2)),
    },
  },
];

describe('a figure of the bench, the test done over and over', () => {
  for (const { kind, name = '', rig, read, truth, runs = 800 } of REPEATED)
    it(`${kind} ${name}: U holds the truth in about nineteen of twenty`, () => {
      const roll = dice(11);
      const even = () => (roll(1e6) + 0.5) / 1e6;
      const noise = () => Math.sqrt(-2 * Math.log(even())) * Math.cos(2 * Math.PI * even());
      const held = new Map(Object.keys(truth).map((id) => [id, 0]));
      for (let k = 0; k < runs; k++) {
        const found = figuresOf(kind, read(noise), rig);
        for (const [id, value] of Object.entries(truth)) {
          const f = found.get(id)!;
          if (Math.abs(f.value - value) <= f.U!) held.set(id, held.get(id)! + 1);
        }
      }
      // A U that were a third less would hold it in 0.81, one a third more in 0.99.
      for (const [id, count] of held) {
        expect(count / runs, id).toBeGreaterThan(0.91);
        expect(count / runs, id).toBeLessThan(0.98);
      }
    });
});

/** A test whose readings do not scatter: all that is not known is what the rig says of itself. */
interface Clean {
  readonly kind: BenchTest['kind'];
  readonly readings: readonly Typed[];
  readonly rig: Typed;
  /** Fields with their largest errors, as a share of them. */
  readonly errors: Readonly<Record<string, number>>;
  readonly figures: readonly string[];
}

const CLEAN: readonly Clean[] = [
  {
    kind: 'no-load',
    readings: [20, 60, 100].map((speed) => ({ speed, current: 0.08 + 4e-4 * speed })),
    rig: { torqueConstant: 0.05, constantError: 0.08 },
    errors: { torqueConstant: 0.08 },
    figures: ['drag', 'viscous', 'found'],
  },
  {
    kind: 'efficiency',
    readings: [1, 2, 3].map((current) => ({ current, torque: 0.8 * (current - 0.2) })),
    rig: { ratio: 20, torqueConstant: 0.05, constantError: 0.08 },
    errors: { torqueConstant: 0.08 },
    figures: ['drag', 'slope', 'noLoadCurrent', 'found'],
  },
  {
    kind: 'play-lever',
    readings: [0, 1, 2].map((angle) => ({ angle, difference: 4e-4 })),
    rig: { lever: 0.18, leverError: 1.8e-3, push: 0, correctWindUp: 'no' },
    errors: { lever: 0.01 },
    figures: ['play'],
  },
  {
    kind: 'leg-press',
    readings: [1, 2].map(() => ({ angle: 2, ahead: 0.05, mass: 6 })),
    rig: { thigh: 0.18, shank: 0.22, legMass: 0, driven: 'hip', lengthError: 0, angleError: 0 },
    errors: {},
    figures: ['found'],
  },
];

describe('a figure of the bench, read without scatter', () => {
  for (const { kind, readings, rig, errors, figures } of CLEAN)
    it(`${kind}: U is what an error in the rig makes of it, 1.96 standard deviations of an even spread`, () => {
      const found = figuresOf(kind, readings, rig);
      for (const id of figures) {
        let square = 0;
        for (const [field, share] of Object.entries(errors)) {
          const at = rig[field] as number;
          const of = (value: number) => figuresOf(kind, readings, { ...rig, [field]: value }).get(id)!.value;
          square += fromBounds(((of(at * 1.0001) - of(at * 0.9999)) / (2e-4 * at)) * share * at) ** 2;
        }
        const U = 1.96 * Math.sqrt(square);
        expect(Math.abs(found.get(id)!.U! - U), id).toBeLessThanOrEqual(1e-6 * U + 1e-15);
      }
    });
});
