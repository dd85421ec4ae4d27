import type { BenchTest, Joint, LimitId } from '../joint/joint.ts';
import { analyseLine, type LineReport } from '../line/analyse.ts';
import type { Problem, Result } from '../result.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { analysePlay, type PlayResult } from './play-lever.ts';
import { slipsFor, type Slip } from './slips.ts';
import { analyseLadder, type LadderResult } from './torque-ladder.ts';
import type { Uncertain } from './uncertainty.ts';

/** What a test found, and on which row of the brief it lands. */
export interface Finding {
  readonly testId: string;
  readonly buildId: string;
  readonly variantId: string;
  readonly row: LimitId;
  readonly found: Uncertain | undefined;
  /** How far the figure is known: both sides, or only from one. */
  readonly bound: 'both' | 'atLeast' | 'atMost';
  readonly play: PlayResult | undefined;
  readonly ladder: LadderResult | undefined;
  readonly problem: Problem | undefined;
  readonly slips: readonly Slip[];
}

const ROW: Readonly<Record<BenchTest['kind'], LimitId>> = { 'play-lever': 'play', 'torque-ladder': 'torque' };

/** Analyses one test against the expected figures of its variant. */
export function findingOf(test: BenchTest, variantId: string, line: LineReport | undefined, shelf: Shelf): Finding {
  const row = ROW[test.kind];
  const instrument = shelf.instruments.find((i) => i.id === test.rig.instrument);
  const expected = line?.figures.find((f) => f.id === row);
  const base = { testId: test.id, buildId: test.buildId, variantId, row };
  const done = <T extends { found: Uncertain }>(r: Result<T>) => (r.ok ? { found: r.value.found, problem: undefined, slips: slipsFor(r.value.found.value, expected) } : { found: undefined, problem: r.problem, slips: [] });
  if (test.kind === 'play-lever') {
    const r = analysePlay(test, instrument, line?.figures.find((f) => f.id === 'stiffness')?.value);
    return { ...base, ...done(r), bound: 'both', play: r.ok ? r.value : undefined, ladder: undefined };
  }
  const r = analyseLadder(test, instrument, factor(shelf, 'gravity'));
  return { ...base, ...done(r), bound: r.ok && r.value.bound !== 'bracket' ? r.value.bound : 'both', play: undefined, ladder: r.ok ? r.value : undefined };
}

/** Findings of every test of a joint; lines of variants are analysed once each unless given. */
export function findingsOf(joint: Joint, shelf: Shelf, lines: ReadonlyMap<string, LineReport> = new Map()): Finding[] {
  const made = new Map(lines);
  const lineOf = (variantId: string): LineReport | undefined => {
    const variant = joint.variants.find((x) => x.id === variantId);
    if (!variant) return undefined;
    if (!made.has(variantId)) made.set(variantId, analyseLine(joint, variant, shelf));
    return made.get(variantId);
  };
  return joint.tests.map((t) => {
    const build = joint.builds.find((b) => b.id === t.buildId);
    const variantId = build?.variantId ?? '';
    return findingOf(t, variantId, lineOf(variantId), shelf);
  });
}

/** The finding that stands for a build on a row: the latest test that gave one. */
export function standing(findings: readonly Finding[], tests: readonly BenchTest[], buildId: string, row: LimitId): Finding | undefined {
  const dates = new Map(tests.map((t, i) => [t.id, `${t.date}#${String(i).padStart(6, '0')}`]));
  return findings
    .filter((f) => f.buildId === buildId && f.row === row && f.found)
    .sort((a, b) => (dates.get(a.testId) ?? '').localeCompare(dates.get(b.testId) ?? ''))
    .at(-1);
}
