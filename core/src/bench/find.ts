import { motorConstants } from '../motor/index.ts';
import type { BenchTest, Joint, LadderTest, LimitId, PlayTest, ReadingsTest, Variant } from '../schema/joint.ts';
import { analyseLine, type LineReport } from '../line/analyse.ts';
import { refuse, type Problem, type Result } from '../result.ts';
import { calibratedReading } from '../shop/instrument.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import type { TestContext, TestResult } from './contract.ts';
import { calibrated } from './calibrate.ts';
import { lineOrders } from './line-orders.ts';
import { analysePlay, type PlayResult } from './play-lever.ts';
import { unpackRecording, type Recording } from './recording.ts';
import { slipsFor, type Slip } from './slips.ts';
import { analyseLadder, type LadderResult } from './torque-ladder.ts';
import { testKind } from './kinds/index.ts';
import type { Uncertain } from './uncertainty.ts';

/**
 * What a test found, and on which row of the brief it lands; a test that lands on several rows gives one of these each,
 * its headline first.
 */
export interface Finding {
  readonly testId: string;
  readonly buildId: string;
  readonly variantId: string;
  /** Absent where the brief has no row for it. */
  readonly row: LimitId | undefined;
  readonly found: Uncertain | undefined;
  /** How far the figure is known: both sides, or only from one. */
  readonly bound: 'both' | 'atLeast' | 'atMost';
  readonly play: PlayResult | undefined;
  readonly ladder: LadderResult | undefined;
  readonly result: TestResult | undefined;
  readonly problem: Problem | undefined;
  readonly slips: readonly Slip[];
}

/** What an analysis of a test needs to know of its variant. */
export function contextFor(
  variant: Variant | undefined,
  line: LineReport | undefined,
  shelf: Shelf,
  recording?: Recording,
  told?: (share: number) => void,
): TestContext {
  const ratios = line?.stages.map((s) => s.report?.numbers.ratio);
  const known =
    ratios?.length && ratios.every((r) => r !== undefined) ? ratios.reduce<number>((p, r) => p * r!, 1) : undefined;
  const constant = variant && motorConstants(variant.motor, variant.driver, shelf).torqueConstant;
  const materials = variant
    ? [
        ...(variant.mount
          ? [
              {
                name: `the mount (${variant.mount.name})`,
                limit: variant.mount.softening - factor(shelf, 'mount.margin'),
              },
            ]
          : []),
        ...shelf.materials
          .filter(
            (m) =>
              variant.stages.some((s) => Object.values(s.params as Record<string, unknown>).includes(m.id)) &&
              m.made === 'printed',
          )
          .map((m) => ({ name: m.name, limit: m.softening - factor(shelf, 'mount.margin') })),
      ]
    : [];
  return {
    instruments: shelf.instruments,
    gravity: factor(shelf, 'gravity'),
    line,
    ratio: known,
    orders: lineOrders(variant, line),
    torqueConstant: constant !== undefined && Number.isFinite(constant) ? constant : undefined,
    materials,
    recording,
    told,
  };
}

/**
 * A result all of whose numbers can be told: a headline without one is refused, a figure without one is left out, which
 * is said.
 */
function told(r: Result<TestResult>): Result<TestResult> {
  if (!r.ok) return r;
  const known = (x: number | undefined) => x === undefined || Number.isFinite(x);
  const { found, figures, lands } = r.value;
  if ([found, ...lands.map((l) => l.found)].some((f) => f && !(known(f.value) && known(f.U))))
    return refuse(
      'These readings give no number.',
      'Some of them are so large, or so alike, that the arithmetic has no answer.',
      'Look for a slip in the readings or in the rig: a unit, a length of nothing, a value out of all measure.',
    );
  const lost = figures.filter((f) => !known(f.value) || !known(f.U));
  if (lost.length === 0) return r;
  return {
    ok: true,
    value: {
      ...r.value,
      figures: figures.filter((f) => !lost.includes(f)),
      advice: [...r.value.advice, `${lost.map((f) => f.name).join(', ')}: not to be told from these readings.`],
    },
  };
}

/** Analyses a test of typed readings or a recording. */
export function analyseReadings(test: ReadingsTest, context: TestContext): Result<TestResult> {
  const kind = testKind(test.kind);
  if (!kind)
    return {
      ok: false,
      problem: {
        what: `This version knows no test “${test.kind}”.`,
        why: 'It was made with a newer one.',
        mend: 'Open the joint there; nothing of it is lost here.',
      },
    };
  const own = calibrated(
    test,
    kind,
    context.instruments.find((i) => i.id === test.rig['instrument']),
  );
  let recording = context.recording;
  if (!recording && test.recording) {
    const packed = unpackRecording(test.recording);
    if (!packed.ok) return packed;
    recording = packed.value;
  }
  const r = told(kind.analyse(own.test, { ...context, recording }));
  return r.ok && own.says.length ? { ok: true, value: { ...r.value, advice: [...r.value.advice, ...own.says] } } : r;
}

/**
 * Analyses one test against the expected figures of its variant. A test that makes an analysis fail says so, and leaves
 * the others their results.
 */
export function findingsFor(
  test: BenchTest,
  variant: Variant | undefined,
  line: LineReport | undefined,
  shelf: Shelf,
  recording?: Recording,
  told?: (share: number) => void,
): Finding[] {
  try {
    return analysed(test, variant, line, shelf, recording, told);
  } catch (error) {
    const problem = {
      what: 'This test could not be analysed.',
      why: `The fault is Gristmill’s: ${error instanceof Error ? error.message.slice(0, 200) : 'unknown'}.`,
      mend: 'Its readings are kept. Look for one that is unlike the others, or export the test and report it.',
    };
    return [
      {
        testId: test.id,
        buildId: test.buildId,
        variantId: variant?.id ?? '',
        row: undefined,
        found: undefined,
        bound: 'both',
        play: undefined,
        ladder: undefined,
        result: undefined,
        problem,
        slips: [],
      },
    ];
  }
}

function analysed(
  test: BenchTest,
  variant: Variant | undefined,
  line: LineReport | undefined,
  shelf: Shelf,
  recording?: Recording,
  told?: (share: number) => void,
): Finding[] {
  const base = {
    testId: test.id,
    buildId: test.buildId,
    variantId: variant?.id ?? '',
    play: undefined,
    ladder: undefined,
    result: undefined,
  };
  const expectedOf = (row: LimitId | undefined) => line?.figures.find((f) => f.id === row);
  if (test.kind === 'play-lever' || test.kind === 'torque-ladder') {
    const row: LimitId = test.kind === 'play-lever' ? 'play' : 'torque';
    const instrument = shelf.instruments.find((i) => i.id === test.rig.instrument);
    const done = <T extends { found: Uncertain }>(r: Result<T>) =>
      r.ok
        ? { found: r.value.found, problem: undefined, slips: slipsFor(r.value.found.value, expectedOf(row)) }
        : { found: undefined, problem: r.problem, slips: [] };
    if (test.kind === 'play-lever') {
      const own = test as PlayTest;
      // A difference of two readings has no zero.
      const r = analysePlay(
        {
          ...own,
          readings: own.readings.map((x) => ({
            ...x,
            difference: calibratedReading({ ...instrument, zero: 0 }, x.difference),
          })),
        },
        instrument,
        line?.figures.find((f) => f.id === 'stiffness')?.value,
      );
      return [{ ...base, row, ...done(r), bound: 'both', play: r.ok ? r.value : undefined }];
    }
    const own = test as LadderTest;
    const r = analyseLadder(
      { ...own, readings: own.readings.map((x) => ({ ...x, mass: calibratedReading(instrument, x.mass) })) },
      instrument,
      factor(shelf, 'gravity'),
    );
    return [
      {
        ...base,
        row,
        ...done(r),
        bound: r.ok && r.value.bound !== 'bracket' ? r.value.bound : 'both',
        ladder: r.ok ? r.value : undefined,
      },
    ];
  }
  const own = test as ReadingsTest;
  const r = analyseReadings(own, contextFor(variant, line, shelf, recording, told));
  if (!r.ok)
    return [
      { ...base, row: testKind(own.kind)?.rows[0], found: undefined, bound: 'both', problem: r.problem, slips: [] },
    ];
  const result = r.value;
  const landed = result.lands.map((l): Finding => ({
    ...base,
    row: l.row,
    found: l.found,
    bound: l.bound ?? 'both',
    result,
    problem: undefined,
    slips: slipsFor(l.found.value, expectedOf(l.row)),
  }));
  return landed.length && landed[0]!.found === result.found
    ? landed
    : [
        { ...base, row: undefined, found: result.found, bound: result.bound, result, problem: undefined, slips: [] },
        ...landed,
      ];
}

/** The headline of one test. */
export const findingOf = (
  test: BenchTest,
  variant: Variant | undefined,
  line: LineReport | undefined,
  shelf: Shelf,
): Finding => findingsFor(test, variant, line, shelf)[0]!;

/** Every test of a joint with its variant and that variant's line; lines are analysed once each unless given. */
export function* eachTest(
  joint: Joint,
  shelf: Shelf,
  lines: ReadonlyMap<string, LineReport> = new Map(),
): Generator<{ test: BenchTest; variant: Variant | undefined; line: LineReport | undefined }> {
  const made = new Map(lines);
  for (const test of joint.tests) {
    const build = joint.builds.find((b) => b.id === test.buildId);
    const variant = joint.variants.find((x) => x.id === build?.variantId);
    if (variant && !made.has(variant.id)) made.set(variant.id, analyseLine(joint, variant, shelf));
    yield { test, variant, line: variant && made.get(variant.id) };
  }
}

/** Findings of every test of a joint. */
export const findingsOf = (
  joint: Joint,
  shelf: Shelf,
  lines?: ReadonlyMap<string, LineReport>,
  recordings: ReadonlyMap<string, Recording> = new Map(),
): Finding[] =>
  [...eachTest(joint, shelf, lines)].flatMap(({ test, variant, line }) =>
    findingsFor(test, variant, line, shelf, recordings.get(test.id)),
  );

/** The finding that stands for a build on a row: the latest test that gave one. */
export function standing(
  findings: readonly Finding[],
  tests: readonly BenchTest[],
  buildId: string,
  row: LimitId,
): Finding | undefined {
  const dates = new Map(tests.map((t, i) => [t.id, `${t.date}#${String(i).padStart(6, '0')}`]));
  return findings
    .filter((f) => f.buildId === buildId && f.row === row && f.found)
    .sort((a, b) => (dates.get(a.testId) ?? '').localeCompare(dates.get(b.testId) ?? ''))
    .at(-1);
}
