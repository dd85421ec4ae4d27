import { describe, expect, it } from 'vitest';
import {
  inUnits,
  analyseTest,
  blankTest,
  contextFor,
  findingsFor,
  importFile,
  LineReader,
  packRecording,
  sayProblem,
  testKind,
  unpackRecording,
  whatChanged,
  writeWav,
  type BenchTest,
  type Variant,
} from '../src/index.ts';
import { demo, shelf } from './helpers.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const test = (kind: string, more: Partial<BenchTest> = {}): BenchTest => ({
  ...blankTest(testKind(kind)!, { id: 't', buildId: 'b', date: '2026-11-27' }, ''),
  ...more,
});
const analyse = (t: BenchTest) => analyseTest(t, contextFor(undefined, undefined, shelf));
const says = (r: ReturnType<typeof analyse>) => (r.ok ? 'ok' : sayProblem(r.problem));

describe('what cannot be analysed is refused in words, and leaves the other tests their results', () => {
  it('a sound of a few samples', () => {
    for (const n of [1, 2, 3, 100, 255]) {
      const read = importFile(
        testKind('noise')!,
        writeWav(
          Array.from({ length: n }, (_, i) => Math.sin(i)),
          8000,
        ),
      );
      if (!read.ok) throw new Error(sayProblem(read.problem));
      const recording = { name: 'x.wav', ...packRecording(read.value.recording!) };
      expect(says(analyse(test('noise', { recording })))).toMatch(/too short for a spectrum/);
      expect(says(analyse(test('pluck', { recording })))).toMatch(/No tone was heard.*too short/);
    }
    expect(importFile(testKind('noise')!, writeWav([], 8000)).ok).toBe(false);
  });

  it('an analysis that fails is a problem of its test alone', () => {
    const broken = test('noise');
    Object.defineProperty(broken, 'rig', {
      get: () => {
        throw new Error('out of order');
      },
    });
    const [f] = findingsFor(broken, undefined, undefined, shelf);
    expect(f!.problem).toMatchObject({
      what: 'This test could not be analysed.',
      why: expect.stringContaining('out of order'),
    });
  });

  it('a positioning test of one run, which repeats nothing', () => {
    const stops = (runs: number) =>
      [0, 1, 2, 3, 4].flatMap((k) =>
        ['up', 'down'].flatMap((way) =>
          Array.from({ length: runs }, (_, r) => ({
            id: `${k}${way}${r}`,
            text: '',
            values: { target: k * 0.3, way, deviation: 1e-4 * (k + (way === 'up' ? 1 : 0) + 0.1 * r) },
          })),
        ),
      );
    expect(says(analyse(test('positioning', { readings: stops(1) })))).toMatch(
      /reached once from each side.*tells nothing about repeating/,
    );
    const two = analyse(test('positioning', { readings: stops(2) }));
    expect(two.ok && two.value.found!.value).toBeGreaterThan(0);
    expect(two.ok && two.value.found!.U).toBeGreaterThan(0);
  });

  it('samples that are no numbers: a damaged recording is told from a whole one', () => {
    const packed = packRecording({
      channels: [{ id: 'sound', name: 'sound', quantity: 'count' }],
      data: [Float64Array.of(1, 2, 3)],
      rate: 10,
      malformed: 0,
      gaps: 0,
      notes: [],
    });
    expect(unpackRecording(packed).ok).toBe(true);
    for (const data of [
      packed.data.replace(/^1/, 'x'),
      packed.data.replace(/^1/, '1e999'),
      packed.data.slice(0, -4),
      packed.data.replace(';', ''),
      '',
      ';',
    ])
      expect(unpackRecording({ ...packed, data }).ok, data.slice(0, 12)).toBe(false);
    expect(unpackRecording({ ...packed, rows: 0, data: `1;${packed.data.split(';')[1]}` }).ok).toBe(false);
  });
});

describe('what a rig cannot be', () => {
  it('is left out of an import, and said with its bound', () => {
    const kind = testKind('turn-back')!;
    const row = kind.columns.map((c) => (c.as === 'choice' ? c.options[0]!.value : '1 kg'));
    const read = importFile(
      kind,
      bytes(`# lever: 9000 m\n${kind.columns.map((c) => c.words[0]).join(',')}\n${row.join(',')}\n`),
    );
    if (!read.ok) throw new Error(sayProblem(read.problem));
    expect(read.value.rig['lever']).toBeUndefined();
    expect(inUnits(read.value.notes.join(' '))).toMatch(
      /Lever radius was left out: .*9 000 000 mm is more than 20 000 mm/,
    );
  });

  it('a header of nothing announces nothing, and what follows is still read', () => {
    for (const channels of ['[null]', '[{}]', '[[]]', '[{"name":null}]', '[{"name":"t"},{"name":"t"}]']) {
      const r = new LineReader();
      r.line(`{"channels":${channels},"rate":1e999}`);
      r.line('{"t":1,"out":2}');
      expect(r.rate).toBe(0);
      expect(Number.isFinite(r.samples)).toBe(true);
      expect(r.recording()?.channels.every((c) => c.name !== '') ?? true).toBe(true);
    }
    const far = new LineReader();
    far.line('{"channels":[{"name":"x","scale":1e300}]}');
    expect([far.line('{"x":1e300}'), far.line('{"x":1e-280}')]).toEqual([false, true]);
    expect(far.malformed).toBe(1);
  });
});

it('a change from nothing said is said so, not as a word of the program', () => {
  const [a] = demo().variants as [Variant];
  const b = structuredClone(a);
  for (const [from, to] of [
    [undefined, 0.001],
    [0.001, undefined],
    [null, 0.001],
  ]) {
    const [x, y] = [structuredClone(a), b].map((v, i) => ({
      ...v,
      stages: v.stages.map((s, k) => (k === 0 ? { ...s, params: { ...s.params, seat2: i ? to : from } } : s)),
    })) as [Variant, Variant];
    expect(whatChanged(x, y).join('\n')).toMatch(/not said/);
    expect(whatChanged(x, y).join('\n')).not.toMatch(/undefined|null/);
  }
});
