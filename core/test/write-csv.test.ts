import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import {
  analyseTest,
  blankTest,
  contextFor,
  findingsOf,
  importFile,
  makeShelf,
  readJointFile,
  testCsv,
  testKind,
  unpackRecording,
  type BenchTest,
  type TestResult,
} from '../src/index.ts';

const shelf = makeShelf();
const joints = ['body-yaw', 'neck-lift', 'tide-dial', 'wing-root'].map((name) => {
  const read = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!read.ok) throw new Error(read.problem.what);
  return { name, joint: read.value, findings: findingsOf(read.value, shelf) };
});
const every = joints.flatMap(({ name, joint, findings }) =>
  joint.tests.map((test) => ({
    what: `${name}, ${test.kind} ${test.id}`,
    test,
    finding: findings.find((f) => f.testId === test.id)!,
  })),
);
const samplesOf = (test: BenchTest) => {
  const unpacked = test.recording && unpackRecording(test.recording as never);
  return unpacked?.ok ? unpacked.value : undefined;
};

/** A file read into a fresh test of the kind and analysed without a variant. */
function again(kindId: string, text: string): { test: BenchTest; result: TestResult } {
  const kind = testKind(kindId)!;
  const read = importFile(kind, new TextEncoder().encode(text));
  if (!read.ok) throw new Error(`${read.problem.what} ${read.problem.why}`);
  const blank = blankTest(kind, { id: 'again', buildId: '', date: '' });
  const test = { ...blank, rig: { ...blank.rig, ...read.value.rig }, readings: read.value.readings };
  return { test, result: analysed(test, read.value.recording) };
}

function analysed(test: BenchTest, recording = samplesOf(test)): TestResult {
  // What a motor is known by stands in its variant, not in the test.
  const context = { ...contextFor(undefined, undefined, shelf, recording), torqueConstant: 0.05, ratio: 20 };
  const r = analyseTest(test, context);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
}

const same = (a: TestResult, b: TestResult, digits: number): void => {
  expect(a.found === undefined).toBe(b.found === undefined);
  const pairs = [
    ...(a.found && b.found ? [['found', a.found.value, b.found.value, b.found.U] as const] : []),
    ...a.figures.map((f) => [f.id, f.value, b.figures.find((g) => g.id === f.id)?.value ?? NaN, f.U] as const),
  ];
  for (const [id, x, y] of pairs)
    expect(Math.abs(x - y), id).toBeLessThanOrEqual(10 ** -digits * Math.max(1e-6, Math.abs(y)));
};

describe('a test that goes out as CSV', () => {
  it.each(every)('comes back and gives the same: $what', ({ test, finding }) => {
    const { test: back, result } = again(test.kind, testCsv(test, finding, 'A-1', samplesOf(test)));
    expect(back.readings.map((r) => [r.text, r.struck ?? ''])).toEqual(
      test.readings.map((r) => [r.text, r.struck ?? '']),
    );
    expect(back.rig['instrument'] ?? '').toBe(test.rig['instrument'] ?? '');
    same(result, analysed(test), 6);
  });

  it.each(every)('and as JSON: $what', ({ test }) => {
    const { test: back, result } = again(test.kind, JSON.stringify(test));
    expect(back.readings.map((r) => [r.text, r.struck ?? ''])).toEqual(
      test.readings.map((r) => [r.text, r.struck ?? '']),
    );
    same(result, analysed(test), 9);
  });

  it('has units in its heads, each reading with its reason, and the result with its budget above', () => {
    const { test, finding } = every.find((x) => x.test.id === 'test-play')!;
    const text = testCsv(test, finding, 'A-1');
    const lines = text.split('\r\n');
    const from = lines.findIndex((l) => l.startsWith('output angle'));
    const rows = Papa.parse<string[]>(lines.slice(from).join('\n')).data;
    expect(rows[0]).toEqual([
      'output angle (°)',
      'difference (mm)',
      'comes to, play (′)',
      'as entered',
      'struck out because',
    ]);
    expect(rows.slice(1, 8).map((r) => r[1])).toEqual(['0.77', '0.8', '0.86', '0.83', '0.78', '0.81', '1.43']);
    expect(rows[7]![4]).toMatch(/slipped/);
    // 2·asin(0.77/360) is 14.706′ by hand, less what the push wound up.
    const windUp = finding.result!.figures.find((f) => f.id === 'windUp')!.value;
    expect(Number(rows[1]![2]) + (windUp * 10800) / Math.PI).toBeCloseTo(14.706, 2);
    expect(lines.filter((l) => l.startsWith('# result, standard uncertainty'))).toHaveLength(
      finding.found!.budget.length,
    );
    const found = lines.find((l) => l.startsWith('# result, found: '))!;
    expect(Number.parseFloat(found.slice(17))).toBeCloseTo((finding.found!.value * 10800) / Math.PI, 9);
    expect(lines).toContain('# lever: 180 mm');
  });

  it('makes no formula of a text that looks like one', () => {
    const test = structuredClone(every.find((x) => x.test.id === 'test-play')!.test);
    test.readings[0]!.struck = '=HYPERLINK("x")';
    const text = testCsv(test, undefined, '@build');
    expect(text).toContain(`'=HYPERLINK`);
    expect(text).toContain(`'@build`);
    expect(again('play-lever', text).test.readings[0]!.struck).toBe('=HYPERLINK("x")');
  });
});
