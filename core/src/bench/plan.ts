import type { BenchTest, Joint, LimitId, Variant } from '../schema/joint.ts';
import type { LineReport } from '../line/analyse.ts';
import type { Instrument } from '../shop/instrument.ts';
import type { Answer, TestKind } from './contract.ts';
import { TEST_KINDS } from './kinds/index.ts';

/** One line of a test plan. */
export interface PlannedTest {
  readonly kind: TestKind['id'];
  readonly name: string;
  readonly row: LimitId;
  /** How far the expected figure is from its limit, in the row's own unit. */
  readonly margin: number;
  /** What to rig so that the uncertainty stays below a third of that. */
  readonly rig: string;
  readonly values: Readonly<Record<string, number | string>>;
  readonly enough: boolean;
  /** No load first, then loaded, what can hurt the specimen last. */
  readonly order: 1 | 2 | 3;
  readonly done: boolean;
}

/** Kinds that answer a row, the best first. */
const answersTo = (row: LimitId): { kind: TestKind; answer: Answer }[] =>
  TEST_KINDS.flatMap((kind) =>
    (kind.answers ?? []).filter((a) => a.row === row).map((answer) => ({ kind, answer })),
  ).sort((x, y) => x.answer.rank - y.answer.rank);

const finest = (list: readonly Instrument[], measures: Instrument['measures'] | undefined): Instrument | undefined =>
  list
    .filter((i) => i.measures === measures)
    .sort((a, b) => Math.hypot(a.resolution, a.error) - Math.hypot(b.resolution, b.error))[0];

/**
 * Tests that answer the limits of a brief with the instruments at hand, in a safe order.
 *
 * The lever is chosen so that the expanded uncertainty stays below a third of the margin between what is expected and
 * the limit.
 */
export function testPlan(
  joint: Joint,
  variant: Variant,
  line: LineReport,
  instruments: readonly Instrument[],
  tests: readonly BenchTest[] = joint.tests,
): PlannedTest[] {
  const builds = new Set(joint.builds.filter((b) => b.variantId === variant.id).map((b) => b.id));
  const done = (kind: string) =>
    tests.some((t) => t.kind === kind && builds.has(t.buildId) && (t.readings.length > 0 || t.recording !== undefined));
  const torque = line.figures.find((f) => f.id === 'torque')?.value ?? 1;
  const list: PlannedTest[] = [];
  for (const v of line.verdicts) {
    const { figure } = v;
    if (!figure) continue;
    const margin = Number.isFinite(v.asked) ? Math.abs(v.asked - figure.value) : figure.value;
    for (const { kind, answer } of answersTo(v.id)) {
      const { says, values, enough } = answer.plan({
        expected: figure.value,
        asked: v.asked,
        wanted: Math.max(margin, 0.05 * Math.abs(figure.value)) / 3,
        torque,
        instrument: finest(instruments, kind.measures),
      });
      list.push({
        kind: kind.id,
        name: kind.name,
        row: v.id,
        margin,
        rig: says,
        values,
        enough,
        order: kind.destructive ? 3 : kind.loaded ? 2 : 1,
        done: done(kind.id),
      });
      // One answer is enough, the second stands by where the first is not fine enough.
      if (enough) break;
    }
  }
  return list.sort((a, b) => a.order - b.order);
}
