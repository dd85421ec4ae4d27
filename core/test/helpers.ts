import { readFileSync } from 'node:fs';
import { makeShelf, readJointFile, type Joint } from '../src/index.ts';

export const shelf = makeShelf();

export const demoText = readFileSync(new URL('../../demo/body-yaw.json', import.meta.url), 'utf8');

/** The demo joint, fresh for each caller. */
export function demo(): Joint {
  const read = readJointFile(demoText);
  if (!read.ok) throw new Error(read.problem.what);
  return read.value;
}

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
