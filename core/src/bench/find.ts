import { motorConstants } from '../motor/index.ts';
import type { Figure } from '../figure/figure.ts';
import type { BenchTest, Joint, LimitId, Variant } from '../schema/joint.ts';
import { builtAsNow } from '../document/design.ts';
import { analyseLine, type LineReport } from '../line/analyse.ts';
import { ok, refuse, type Problem, type Result } from '../result.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { QUANTITIES } from '../units/quantity.ts';
import type { TestContext, TestResult } from './contract.ts';
import { calibrated } from './calibrate.ts';
import { corrected, slipInputs, type Correction } from './correct.ts';
import { lineOrders } from './line-orders.ts';
import { unpackRecording, type Recording } from './recording.ts';
import { oddRig } from './rig-values.ts';
import { explains, slipsFor, type Slip } from './slips.ts';
import { beyondBench, inOrderOfTime, oddReading } from './odd-readings.ts';
import { testKind } from './kinds/index.ts';
import type { Uncertain } from './uncertainty.ts';

/** A question about a slip; without a correction where no factor would take it out. */
export type AskedSlip = Omit<Slip, 'correction'> & { readonly correction?: Correction };

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
  readonly result: TestResult | undefined;
  readonly problem: Problem | undefined;
  readonly slips: readonly AskedSlip[];
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
  const far = [found, ...lands.map((l) => l.found)].find((f) => f && beyondBench(f.value, f.quantity));
  if (far)
    return refuse(
      'These readings come to something that no bench gives.',
      `The ${QUANTITIES[far.quantity].name} found is ${far.quantity === 'temperature' && far.value < 0 ? 'below absolute zero' : 'larger than anything of the kind'}.`,
      'Look at units, signs and the rig: a factor of a thousand, readings without their course, a channel in place of another.',
    );
  const lost = figures.filter((f) => !known(f.value) || !known(f.U) || beyondBench(f.value, f.quantity));
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

/** Analyses a test, readings and recording as its instrument's calibration makes them. */
export function analyseTest(test: BenchTest, context: TestContext): Result<TestResult> {
  const kind = testKind(test.kind);
  if (!kind)
    return refuse(
      `This version knows no test “${test.kind}”.`,
      'It was made with a newer one.',
      'Open the joint there; nothing of it is lost here.',
    );
  const odd = oddRig(kind, test.rig);
  if (odd) return odd;
  const wrong = oddReading(kind, test);
  if (wrong) return { ok: false, problem: wrong };
  let { recording } = context;
  if (!recording && test.recording) {
    const packed = unpackRecording(test.recording);
    if (!packed.ok) return packed;
    recording = packed.value;
  }
  const ordered = inOrderOfTime(test);
  const own = calibrated(
    ordered.test,
    kind,
    context.instruments.find((i) => i.id === test.rig['instrument']),
    recording,
  );
  const r = told(kind.analyse(own.test, { ...context, recording: own.recording }));
  const says = [...ordered.says, ...own.says];
  return r.ok && says.length ? ok({ ...r.value, advice: [...r.value.advice, ...says] }) : r;
}

/**
 * Questions about slips, each with its correction where that really gives what is expected: the test is analysed again
 * with it. A recording cannot be corrected by a factor of its readings.
 */
function slipsOf(
  test: BenchTest,
  row: LimitId,
  found: number,
  expected: Figure | undefined,
  context: TestContext,
): AskedSlip[] {
  const kind = testKind(test.kind);
  if (!kind) return [];
  return slipsFor(found, expected, slipInputs(kind, test.rig, row)).map(({ correction, ...slip }) => {
    if (correction.in === 'readings' && test.readings.length === 0) return slip;
    const again = analyseTest(corrected(test, correction), context);
    const now = again.ok ? again.value.lands.find((l) => l.row === row)?.found.value : undefined;
    return now !== undefined && expected && explains(now, expected) ? { ...slip, value: now, correction } : slip;
  });
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
    result: undefined,
  };
  const expectedOf = (row: LimitId | undefined) => line?.figures.find((f) => f.id === row);
  const context = contextFor(variant, line, shelf, recording, told);
  const r = analyseTest(test, context);
  if (!r.ok)
    return [
      { ...base, row: testKind(test.kind)?.rows[0], found: undefined, bound: 'both', problem: r.problem, slips: [] },
    ];
  const result = r.value;
  const landed = result.lands.map((l): Finding => ({
    ...base,
    row: l.row,
    found: l.found,
    bound: l.bound ?? 'both',
    result,
    problem: undefined,
    slips: slipsOf(test, l.row, l.found.value, expectedOf(l.row), context),
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
    if (variant && !made.has(variant.id)) made.set(variant.id, analyseLine(joint, variant, shelf, { mends: false }));
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
  confirmed(
    [...eachTest(joint, shelf, lines)].flatMap(({ test, variant, line }) =>
      findingsFor(test, variant, line, shelf, recordings.get(test.id)),
    ),
    joint,
  );

/**
 * Findings without questions where a reading has been confirmed: another test of the build that was read with something
 * else found the same, within what neither knows. Two instruments do not share a slip. And none are asked of a build of an
 * earlier design: what is expected of the variant as it is now was never asked of what was measured.
 *
 * @returns the same objects but for those that lose their questions
 */
export function confirmed(
  findings: readonly Finding[],
  { tests, builds, variants }: Pick<Joint, 'tests' | 'builds' | 'variants'>,
): Finding[] {
  const by = new Map(tests.map((t) => [t.id, t]));
  const asBuilt = new Set(
    builds.filter((b) => variants.some((v) => v.id === b.variantId && builtAsNow(b, v))).map((b) => b.id),
  );
  const readWith = (f: Finding) => {
    const test = by.get(f.testId);
    return test && `${test.kind} ${String(test.rig['instrument'] ?? '')}`;
  };
  return findings.map((f) => {
    if (f.slips.length === 0 || !f.found || f.row === undefined) return f;
    if (!asBuilt.has(f.buildId)) return { ...f, slips: [] };
    const found = f.found;
    const again = findings.some(
      (o) =>
        o.testId !== f.testId &&
        o.buildId === f.buildId &&
        o.row === f.row &&
        o.found !== undefined &&
        readWith(o) !== readWith(f) &&
        Math.abs(o.found.value - found.value) <= Math.hypot(o.found.U, found.U),
    );
    return again ? { ...f, slips: [] } : f;
  });
}

/** The finding that stands for a build on a row of the brief: the latest test that gave one. */
export type Standing = (buildId: string, row: LimitId) => Finding | undefined;

/**
 * What stands where, gone through once: of tests of one day the one listed later counts.
 *
 * @example const found = standings(findings, joint.tests); found('b1', 'play')
 */
export function standings(findings: readonly Finding[], tests: readonly BenchTest[]): Standing {
  const order = new Map(
    tests
      .map((t, i) => ({ t, i }))
      .sort((a, b) => a.t.date.localeCompare(b.t.date) || a.i - b.i)
      .map(({ t }, place) => [t.id, place]),
  );
  const latest = new Map<string, { finding: Finding; place: number }>();
  for (const finding of findings) {
    if (!finding.row || !finding.found) continue;
    const key = `${finding.buildId} ${finding.row}`;
    const place = order.get(finding.testId) ?? -1;
    const now = latest.get(key);
    if (!now || place >= now.place) latest.set(key, { finding, place });
  }
  return (buildId, row) => latest.get(`${buildId} ${row}`)?.finding;
}

/** The finding that stands for a build on a row, asked for once; `standings` answers many. */
export const standing = (
  findings: readonly Finding[],
  tests: readonly BenchTest[],
  buildId: string,
  row: LimitId,
): Finding | undefined => standings(findings, tests)(buildId, row);
