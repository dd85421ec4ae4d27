import { readFileSync } from 'node:fs';
import { expect } from 'vitest';
import { makeShelf, readJointFile, type Figure, type Joint } from '../src/index.ts';

export const shelf = makeShelf();

/** The same shop in a draught that carries all heat off: stages stay at 20 °C, which is what worked values hold for. */
export const cold = makeShelf({ factors: { 'stage.cooling': { value: 1e9, low: 1e9, high: 1e9 } } });

export const demoText = readFileSync(new URL('../../demo/body-yaw.json', import.meta.url), 'utf8');

/** The demo joint, fresh for each caller. */
export function demo(): Joint {
  const read = readJointFile(demoText);
  if (!read.ok) throw new Error(read.problem.what);
  return read.value;
}

/**
 * How many examples of a dear property are tried: a sixth where every change waits for them, a third of those while one
 * works (`npm run unit`), all with `AT_LENGTH=1` (`npm run unit:long`).
 *
 * @param least where too few would find nothing to look at
 */
export const examples = (many: number, least = 1): number =>
  process.env['AT_LENGTH'] ? many : Math.max(least, Math.ceil(many / (process.env['UNIT'] ? 18 : 6)));

/** A small seeded generator for tests that want repeatable disorder. */
export function dice(seed: number): (n: number) => number {
  let s = seed >>> 0;
  return (n) => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return Math.floor((s / 4294967296) * n);
  };
}

/** Distance of a point from a closed outline of straight pieces, m. */
export function distanceTo(outline: ArrayLike<number>, x: number, y: number): number {
  let least = Infinity;
  for (let i = 0; i < outline.length; i += 2) {
    const n = (i + 2) % outline.length;
    const [ax, ay] = [outline[i]!, outline[i + 1]!];
    const [bx, by] = [outline[n]! - ax, outline[n + 1]! - ay];
    const u = Math.max(0, Math.min(1, ((x - ax) * bx + (y - ay) * by) / (bx * bx + by * by)));
    least = Math.min(least, Math.hypot(x - ax - u * bx, y - ay - u * by));
  }
  return least;
}

/**
 * A figure lies in its band, and a band of what cannot be negative stays clear of nought; an efficiency's below one.
 *
 * @param f any figure
 */
export function expectBand(f: Figure): void {
  const slack = 1e-9 * Math.abs(f.value);
  expect(f.low, f.id).toBeLessThanOrEqual(f.value + slack);
  expect(f.high, f.id).toBeGreaterThanOrEqual(f.value - slack);
  if (NEVER_NEGATIVE.has(f.quantity) && f.value > 0) expect(f.low, f.id).toBeGreaterThan(0);
  if (f.quantity === 'efficiency' && f.value < 1) expect(f.high, f.id).toBeLessThan(1);
}
const NEVER_NEGATIVE = new Set(['torque', 'stiffness', 'force', 'stress', 'life', 'mass', 'money', 'inertia', 'power']);
