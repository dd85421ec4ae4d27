import { blankTest, makeShelf, testKind, type BenchTest, type TestContext, type TestResult } from '../src/index.ts';

/** A bench with the shop's instruments and nothing known of the line. */
export const context: TestContext = {
  instruments: makeShelf().instruments,
  gravity: 9.80665,
  orders: [],
  materials: [],
  torqueConstant: 0.05,
  ratio: 20,
};

/** What is typed into a test: of its rig, and of one reading. */
export type Typed = Record<string, number | string>;

/** A test with readings as typed, analysed; what is refused throws its own words. */
export function analysed(id: BenchTest['kind'], readings: readonly Typed[], rig: Typed = {}): TestResult {
  const kind = testKind(id)!;
  const blank = blankTest(kind, { id: 't', buildId: 'b', date: '2026-11-01' });
  const r = kind.analyse(
    {
      ...blank,
      rig: { ...blank.rig, ...rig },
      readings: readings.map((values, i) => ({ id: `r${i}`, text: '', values })),
    } as BenchTest,
    context,
  );
  if (!r.ok) throw new Error(`${r.problem.what} ${r.problem.why}`);
  return r.value as TestResult;
}
