import { packRecording, readJointFile, unpackRecording, type Joint, type ReadingsTest } from '@gristmill/core';
import { readFileSync } from 'node:fs';
import { describe, expect, it, vi } from 'vitest';

// The browser's storage is not here: a map stands in for it.
vi.mock('../src/storage/store.ts', async (original) => {
  const real = await original<typeof import('../src/storage/store.ts')>();
  return { ...real, forageStore: real.memoryStore };
});
const { keepRecording, packedData, withoutRecordings, withRecordings } = await import('../src/storage/recordings.ts');

const noisy = (n: number) => packRecording({ channels: [{ id: 'sound', name: 'sound', quantity: 'count' }], data: [Float64Array.from({ length: n }, (_, i) => Math.sin(i * i))], rate: 1000, malformed: 0, gaps: 0, notes: [] });
const joint = (): Joint => {
  const r = readJointFile(readFileSync(new URL('../../demo/tide-dial.json', import.meta.url), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};

describe('recordings beside a joint', () => {
  it('small ones stay in the test, large ones lie beside it', async () => {
    const small = await keepRecording('a', 'tap.wav', noisy(500));
    expect(small.data).toBeDefined();
    expect(await packedData('a')).toBeNull();
    const large = await keepRecording('b', 'long.wav', noisy(60_000));
    expect(large.data).toBeUndefined();
    expect([large.name, large.rows]).toEqual(['long.wav', 60_000]);
    const back = unpackRecording({ ...large, data: (await packedData('b'))! });
    expect(back.ok && back.value.data[0]![777]).toBeCloseTo(Math.sin(777 * 777), 5);
  });

  it('go out with the joint’s file and come back beside it, nothing lost', async () => {
    const j = joint();
    const t = j.tests.find((x) => x.kind === 'noise') as ReadingsTest;
    const packed = noisy(50_000);
    const full: Joint = { ...j, tests: j.tests.map((x) => (x.id === t.id ? ({ ...t, recording: { name: 'n.wav', ...packed } } as typeof x) : x)) };
    const light = await withoutRecordings(full);
    expect((light.tests.find((x) => x.id === t.id) as ReadingsTest).recording!.data).toBeUndefined();
    expect(JSON.stringify(light).length).toBeLessThan(JSON.stringify(full).length / 2);
    const again = await withRecordings(light);
    expect(again).toEqual(full);
    // One that is nowhere leaves its test as it is, and the analysis says so.
    const lost = await withRecordings({ ...light, tests: light.tests.map((x) => (x.id === t.id ? { ...x, id: 'elsewhere' } : x)) });
    const gone = (lost.tests.find((x) => x.id === 'elsewhere') as ReadingsTest).recording!;
    expect(gone.data).toBeUndefined();
    const r = unpackRecording(gone);
    expect(!r.ok && r.problem.what).toContain('is not here');
  });
});
