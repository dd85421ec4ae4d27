import { describe, expect, it } from 'vitest';
import { blankTest, makeShelf, TEST_KINDS, type BenchTest, type TestContext, type TestResult } from '../src/index.ts';
import type { Anchor } from './anchors/anchor.ts';

// Every figure that a kind of test finds has a worked value at a sample of readings. Those that are worked in tests of
// their own, from records too long to stand here, are listed; the list may only become shorter.

const G = 9.80665;
const context: TestContext = {
  instruments: makeShelf().instruments,
  gravity: G,
  orders: [],
  materials: [{ name: 'PLA', limit: 330 }],
  torqueConstant: 0.05,
  ratio: 20,
};

interface Sample {
  readonly readings: readonly Record<string, number | string>[];
  readonly rig: Readonly<Record<string, number | string>>;
  readonly figures: Readonly<Record<string, Anchor>>;
}
/** Angle of a chord of a lever of 180 mm. */
const chord = (d: number) => 2 * Math.asin(d / 0.36);
/** Torque of a mass in a basket of 50 g on a lever of 200 mm that weighs 100 g in its middle. */
const hung = (m: number) => G * (0.2 * (m + 0.05) + 0.1 * 0.1);

const WORKED: Readonly<Record<string, Sample>> = {
  'play-lever': {
    readings: [
      { angle: 0, difference: 4e-4 },
      { angle: 2, difference: 5e-4 },
      { angle: 4, difference: 4.5e-4 },
    ],
    rig: { lever: 0.18, leverError: 5e-4, push: 0, correctWindUp: 'no' },
    figures: {
      play: [(chord(4e-4) + chord(5e-4) + chord(4.5e-4)) / 3, 'mean of three chords of 180 mm'],
      worst: [chord(5e-4), 'the longest'],
    },
  },
  'torque-ladder': {
    readings: [
      { mass: 1, outcome: 'lifted' },
      { mass: 2, outcome: 'skipped' },
    ],
    rig: { lever: 0.2, leverMass: 0.1, leverCentre: 0.1, basket: 0.05, angle: 0 },
    figures: {
      capacity: [(hung(1) + hung(2)) / 2, 'between both rungs'],
      bestGood: [hung(1), 'carried'],
      leastBad: [hung(2), 'not carried'],
      nextMass: [1.5, 'in the middle'],
    },
  },
  'play-spot': {
    readings: [{ shift: 6e-3 }, { shift: 6.2e-3 }],
    rig: { distance: 3, distanceError: 0.01, beam: 'direct' },
    figures: { worst: [2 * Math.atan(6.2e-3 / 6), 'the larger of two, at 3 m'] },
  },
  'torque-cell': {
    readings: Array.from({ length: 30 }, (_, i) => ({ time: i * 0.1, counts: i < 10 ? 100 + i * 100 : 1100 })),
    rig: {
      ...{ lever: 0.2, zeroCounts: 100, knownMass: 1, knownCounts: 1100, hold: 1 },
      ...{ checkMass: 2, checkCounts: 2110 },
    },
    figures: {
      peak: [G * 0.2, 'a kilogram at 200 mm'],
      sustained: [G * 0.2, 'held for two seconds'],
      residual: [0.01, '2010 counts for two kilograms'],
      perCount: [G / 1000, 'a kilogram over a thousand counts'],
    },
  },
  'no-load': {
    readings: [20, 60, 100].map((speed) => ({ speed, current: (0.004 + 2e-5 * speed) / 0.05 })),
    rig: { torqueConstant: 0.05, constantError: 0.08 },
    figures: { drag: [0.004, 'as put in'], viscous: [2e-5, 'as put in'] },
  },
  'turn-back': {
    readings: [
      { way: 'with', mass: 0.2, outcome: 'held' },
      { way: 'with', mass: 0.3, outcome: 'turned' },
      { way: 'against', mass: 0.3, outcome: 'held' },
      { way: 'against', mass: 0.35, outcome: 'turned' },
    ],
    rig: { lever: 0.2, leverMass: 0, leverCentre: 0, basket: 0 },
    figures: { with: [G * 0.2 * 0.25, 'between held and turned'], against: [G * 0.2 * 0.325, 'the same'] },
  },
  runout: {
    readings: Array.from({ length: 8 }, (_, i) => ({
      angle: (i * Math.PI) / 4,
      reading: 1e-3 + 2e-5 * Math.cos((i * Math.PI) / 4 - 0.3) + 5e-6 * Math.cos((i * Math.PI) / 2 - 0.5),
    })),
    rig: {},
    figures: {
      total: [
        2e-5 * (Math.cos(0.3) - Math.cos((5 * Math.PI) / 4 - 0.3)) + 5e-6 * (Math.cos(0.5) - Math.sin(0.5)),
        'of eight readings that at 0° is highest, that at 225° lowest',
      ],
      eccentricity: [2e-5, 'as put in'],
      angle: [0.3, 'as put in'],
      ovality: [5e-6, 'as put in'],
    },
  },
  step: {
    readings: Array.from({ length: 200 }, (_, i) => ({
      time: i * 0.01,
      commanded: i < 50 ? 0 : 0.1,
      measured: i < 50 ? 0 : 0.1 * Math.min(1, (i - 50) / 25),
    })),
    rig: { band: 0.001 },
    figures: {
      rise: [0.2, 'a ramp of a quarter of a second between a tenth and nine tenths'],
      overshoot: [0, 'it stops there'],
      settling: [0.25, 'one milliradian of a tenth short is 0.2475 s; the next sample within it'],
      steady: [0, 'it comes there'],
      huntAmplitude: [0, 'it rests'],
    },
  },
  'leg-press': {
    readings: [{ angle: 2, mass: 6.4 }],
    rig: { thigh: 0.18, shank: 0.22, legMass: 0.3, driven: 'knee' },
    figures: {
      force: [6.1 * G, 'scale less leg'],
      lever: [
        (0.18 * 0.22 * Math.sin(2)) / Math.sqrt(0.18 ** 2 + 0.22 ** 2 - 2 * 0.18 * 0.22 * Math.cos(2)),
        'virtual work with the foot under the hip',
      ],
    },
  },
  pluck: {
    readings: [{ frequency: 88 }, { frequency: 90 }, { frequency: 92 }],
    rig: { span: 0.15, spanError: 0.002, massPerLength: 8.4e-3, massError: 0.05 },
    figures: { frequency: [90, 'mean of three'] },
  },
  temperature: {
    readings: Array.from({ length: 14 }, (_, i) => ({
      time: i * 300,
      temperature: 293.15 + 30 * (1 - Math.exp(-i / 4)),
    })),
    rig: { torque: 2, surroundings: 293.15, limit: 340 },
    figures: {
      settles: [323.15, 'as put in'],
      timeConstant: [1200, 'as put in'],
      rise: [30, 'as put in'],
      torque0: [2 * Math.sqrt(46.85 / 30), '46.85 K stand to 30 as the squares of torques'],
    },
  },
};

/** Worked in `bench-kinds`, `hysteresis` and `line-full`. */
const ELSEWHERE = [
  ...['hysteresis', 'transmission', 'positioning', 'noise', 'fit'],
  // Their lines: slope, crossing and band by hand there.
  ...['efficiency', 'endurance'],
];

describe('worked values of the bench', () => {
  it('are there for every kind of test, or in tests of their own', () => {
    expect([...Object.keys(WORKED), ...ELSEWHERE].sort()).toEqual(TEST_KINDS.map((k) => k.id).sort());
  });

  for (const [id, sample] of Object.entries(WORKED)) {
    const kind = TEST_KINDS.find((k) => k.id === id)!;
    const blank = blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' });
    const made = kind.analyse(
      {
        ...blank,
        rig: { ...blank.rig, ...sample.rig },
        readings: sample.readings.map((values, i) => ({ id: `r${i}`, text: '', values })),
      } as BenchTest,
      context,
    );
    if (!made.ok) throw new Error(`${id}: ${made.problem.what}`);
    const figures = new Map((made.value as TestResult).figures.map((f) => [f.id, f.value]));

    it(`${id}: every figure has one`, () => {
      expect(Object.keys(sample.figures).sort()).toEqual([...figures.keys()].sort());
    });

    for (const [figure, [value, how]] of Object.entries(sample.figures))
      it(`${id}, ${figure}: ${how}`, () => {
        expect(Math.abs(figures.get(figure)! - value)).toBeLessThanOrEqual(1e-9 * Math.abs(value) + 1e-14);
      });
  }
});
