import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  demandOf,
  drawn,
  FigureMaker,
  leastBand,
  normalQuantile,
  openLine,
  quantiles,
  sumLine,
  type Ends,
} from '../src/index.ts';
import { normalBelow } from '../src/math/normal.ts';
import { seeded } from '../src/math/random.ts';
import { demo, shelf } from './helpers.ts';

// Bands of what is the least of several, drawn: against closed forms, and against a line that is summed anew for each draw.

const log = Math.log;

describe('a sampled band', () => {
  it('draws from a normal distribution', () => {
    expect(normalQuantile(0.975)).toBeCloseTo(1.959963985, 8);
    expect(normalQuantile(0.5)).toBeCloseTo(0, 12);
    expect(normalQuantile(0.001)).toBeCloseTo(-3.090232306, 7);
    expect(normalQuantile(0.9)).toBeCloseTo(1.281551566, 8);
  });

  it('of one value is the root sum of squares of its factors, as a band that is felt out has it', () => {
    const ends: Ends = [
      [[8], [12.5]],
      [[9], [10 / 0.9]],
      [undefined, undefined],
    ];
    const [row] = drawn([10], ends);
    const { low, high } = quantiles(row!, 0);
    const rss = Math.hypot(log(1.25), log(10 / 9));
    expect(high / rss).toBeCloseTo(1, 1);
    expect(low / -rss).toBeCloseTo(1, 1);
    expect(leastBand([10], [[[8], [12.5]]])).toBeUndefined();
  });

  it('of the least of two alike that scatter apart lies where order statistics have it', () => {
    // Each has its own factor of ±20 %; the least of two normals lies below x where not both lie above it.
    const s = log(1.2) / 1.959964;
    const ends: Ends = [
      [
        [10 / 1.2, 10],
        [12, 10],
      ],
      [
        [10, 10 / 1.2],
        [10, 12],
      ],
    ];
    const { low, high } = leastBand([10, 10], ends)!;
    expect(log(low / 10) / (s * normalQuantile(1 - Math.sqrt(0.975)))).toBeCloseTo(1, 1);
    // The upper end is no better than what is likely of one: √(1 − 0.975) of each above it.
    expect(log(high / 10) / (s * normalQuantile(1 - Math.sqrt(0.025)))).toBeCloseTo(1, 0);
    expect(low).toBeLessThan(10 / 1.2);
  });

  it('of the least of two, one a little above the other, lies where both together have it', () => {
    const s = log(1.2) / 1.959964;
    const ends: Ends = [
      [
        [10 / 1.2, 10.5],
        [12, 10.5],
      ],
      [
        [10, 10.5 / 1.2],
        [10, 12.6],
      ],
    ];
    const { low, high } = leastBand([10, 10.5], ends)!;
    // Both lie above x with the product of their own chances.
    const below = (x: number) => 1 - (1 - normalBelow(log(x / 10) / s)) * (1 - normalBelow(log(x / 10.5) / s));
    const at = (share: number) => {
      let [a, b] = [5, 20];
      for (let i = 0; i < 60; i++) {
        const m = (a + b) / 2;
        if (below(m) < share) a = m;
        else b = m;
      }
      return a;
    };
    expect(low / at(0.025)).toBeCloseTo(1, 1.5);
    expect(high / at(0.975)).toBeCloseTo(1, 1.5);
    // One that never comes so near does not count: then nothing is drawn.
    expect(
      leastBand(
        [10, 18],
        [
          [
            [10 / 1.2, 18],
            [12, 18],
          ],
        ],
      ),
    ).toBeUndefined();
  });

  it('looks at nothing that is far away, not finite, or there only in some trials', () => {
    expect(leastBand([10, 1e6, Infinity, NaN], [[[9, 1e6], [11]]])).toBeUndefined();
    expect(leastBand([0, 1], [])).toBeUndefined();
    expect(leastBand([10, 11], [[[9], undefined]])).toBeUndefined();
  });

  it('of what has to be reached first is that of the draws that reach it', () => {
    const ends = [
      [
        { w: 2, m: 0.8 },
        { w: 3, m: 1.2 },
      ],
    ] as const;
    const make = new FigureMaker({ w: 2.5, m: 1.05 }, ends);
    const { figure, missed } = make.reached(
      'w',
      'w',
      'speed',
      (x) => x.w,
      (x) => x.m,
      () => ({ formula: '', terms: [], source: '' }),
    );
    // ln 1.05 of the way to ln(0.8/1.05), in standard deviations of 1/1.96.
    const z = (-log(1.05) / log(0.8 / 1.05)) * 1.959964;
    const share = [...Array(4000).keys()].filter((i) => normalQuantile((i + 0.5) / 4000) < -z).length / 4000;
    expect(missed).toBeCloseTo(share, 2);
    expect(figure.low).toBeGreaterThan(2.5 * (2 / 2.5) ** (z / 1.959964) * 0.99);
    expect(figure.low).toBeLessThan(2.5);
  });

  it('agrees with the line summed anew for each of some hundred draws of all factors at once', () => {
    const joint = demo();
    const variant = joint.variants[0]!;
    const report = analyseLine(joint, variant, shelf);
    const factors = report.reads.factors.map((id) => shelf.factors[id]!).filter((f) => f.high > f.low);
    const random = seeded(5);
    const found = new Float64Array(300);
    for (let i = 0; i < found.length; i++) {
      const moved = { ...shelf, factors: { ...shelf.factors } };
      for (const f of factors) {
        const z = Math.max(-1.5, Math.min(1.5, normalQuantile(random()) / 1.959964));
        const end = z < 0 ? f.low : f.high;
        moved.factors[f.id] = { ...f, value: f.value + Math.abs(z) * (end - f.value) };
      }
      const stages = openLine(variant.stages, moved).all;
      if (!stages.ok) throw new Error(stages.problem.what);
      const made = sumLine({ variant, stages: stages.value, demand: demandOf(joint.brief, moved), shelf: moved });
      if (!made.ok) throw new Error(made.problem.what);
      found[i] = made.value.numbers.torque;
    }
    const torque = report.figures.find((f) => f.id === 'torque')!;
    const band = quantiles(found, torque.value);
    expect(torque.low / band.low).toBeGreaterThan(0.93);
    expect(torque.low / band.low).toBeLessThan(1.07);
    expect(torque.high / band.high).toBeGreaterThan(0.93);
    expect(torque.high / band.high).toBeLessThan(1.07);
  });

  it('says of a speed in how many draws it is not there at all, and does not call it met', () => {
    const joint = demo();
    const variant = joint.variants[0]!;
    const report = analyseLine(joint, variant, shelf);
    const speed = report.figures.find((f) => f.id === 'speed')!;
    expect(speed.low).toBeGreaterThan(speed.value / 10);
    const reach = report.figures.find((f) => f.id === 'reach')!;
    expect(reach.low).toBeLessThan(report.demand.peak);
    const verdict = report.verdicts.find((v) => v.id === 'speed')!;
    expect(verdict.state).not.toBe('holds');
  });
});
