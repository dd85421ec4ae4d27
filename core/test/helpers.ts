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
