import { createJoint, packRecording, readJointFile, type Joint, type BenchTest } from '@gristmill/core';
import { readFileSync } from 'node:fs';
import { JointShelf } from '../src/storage/joints.ts';
import { Recordings } from '../src/storage/recordings.ts';
import { MemoryVault } from '../src/storage/vault.ts';

export const NOW = '2026-11-23T10:00:00.000Z';
export const jib = (change: Partial<Joint> = {}): Joint => ({
  ...createJoint('Jib', { id: 'jib', now: NOW }),
  ...change,
});

export function demo(name: string): Joint {
  const r = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
}

/** Samples that do not squeeze well; another seed gives others of the same length. */
export const noisy = (n: number, seed = 1) =>
  packRecording({
    channels: [{ id: 'sound', name: 'sound', quantity: 'count' }],
    data: [Float64Array.from({ length: n }, (_, i) => Math.sin(seed * i * i))],
    rate: 1000,
    malformed: 0,
    gaps: 0,
    notes: [],
  });

/** An empty home for joints. */
export function home() {
  const vault = new MemoryVault();
  return { vault, shelf: new JointShelf(vault), recordings: new Recordings(vault) };
}

/** The demo's dial with a recording in its noise test. */
export function withRecording(packed: ReturnType<typeof noisy>, id = 'dial'): { joint: Joint; testId: string } {
  const j = demo('tide-dial');
  const t = j.tests.find((x) => x.kind === 'noise') as BenchTest;
  return {
    joint: {
      ...j,
      id,
      tests: j.tests.map((x) => (x.id === t.id ? ({ ...t, recording: { name: 'n.wav', ...packed } } as typeof x) : x)),
    },
    testId: t.id,
  };
}

export const recordingOf = (j: Joint, testId: string) => (j.tests.find((t) => t.id === testId) as BenchTest).recording!;

/** The browser's plain storage, in memory. */
export function keeper() {
  const all = new Map<string, string>();
  return {
    all,
    getItem: (key: string) => all.get(key) ?? null,
    setItem: (key: string, value: string) => void all.set(key, value),
    removeItem: (key: string) => void all.delete(key),
  };
}
