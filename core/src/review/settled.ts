import type { Finding, Standing } from '../bench/find.ts';
import type { Verdict } from '../line/analyse.ts';
import { builtAsNow } from '../document/design.ts';
import type { Build, Variant } from '../schema/joint.ts';
import { agreement, type BuiltOf } from './difference.ts';

/** A limit with what decides it: the measurement where there is one that does, what is expected otherwise. */
export interface SettledVerdict extends Verdict {
  /** What `state` follows from. */
  readonly by: 'found' | 'expected';
  /** What the expected figure alone would say. */
  readonly expectedState: Verdict['state'];
  /** Where a finding lies beside the expected band by more than its uncertainty. */
  readonly against?: 'above' | 'below';
  /** What a bound leaves open: the test stopped before it could tell. */
  readonly open?: true;
  /** What was found, whether it decides or not. */
  readonly finding?: Finding;
  /** It was found of a build of an earlier design, and decides nothing about this one. */
  readonly earlier?: true;
}

/**
 * What a finding says of a limit: it holds where all of value ± U meets it, fails where none does, and is near where the
 * limit lies in between.
 *
 * @param asked SI
 * @param bound a value that was only reached (`atLeast`) or not (`atMost`) decides where the limit lies on its known side
 * @returns undefined where the bound leaves it open
 * @example foundState(6, 'max', { value: 38, U: 15 }) // 'fails'
 * @example foundState(6, 'max', { value: 5.9, U: 0.3 }) // 'near'
 * @example foundState(3, 'min', { value: 4, U: 0.2 }, 'atLeast') // 'holds'
 * @example foundState(5, 'min', { value: 4, U: 0.2 }, 'atLeast') // undefined
 */
export function foundState(
  asked: number,
  sense: 'min' | 'max',
  found: { readonly value: number; readonly U: number },
  bound?: Finding['bound'],
): 'holds' | 'near' | 'fails' | undefined {
  const slack = 1e-9 * Math.abs(asked);
  const [low, high] = [found.value - found.U, found.value + found.U];
  // What is only known from one side decides on that side alone.
  const up = bound === 'atLeast' ? Infinity : high;
  const down = bound === 'atMost' ? -Infinity : low;
  const [meets, misses] =
    sense === 'min' ? [down >= asked - slack, up < asked - slack] : [up <= asked + slack, down > asked + slack];
  if (meets) return 'holds';
  if (misses) return 'fails';
  return bound === 'atLeast' || bound === 'atMost' ? undefined : 'near';
}

/** A verdict with what was found for it, which decides where it can. */
export function settle(verdict: Verdict, finding: Finding | undefined): SettledVerdict {
  const expectedState = verdict.state;
  const found = finding?.found;
  if (!found || verdict.sense === 'either' || !Number.isFinite(verdict.asked))
    return { ...verdict, by: 'expected', expectedState, ...(finding && { finding }) };
  const lies = verdict.figure && agreement(found, verdict.figure);
  // A bound beyond the band on the side it leaves open says nothing against it.
  const silent = (finding.bound === 'atLeast' && lies === 'below') || (finding.bound === 'atMost' && lies === 'above');
  const against = (lies === 'above' || lies === 'below') && !silent ? { against: lies } : {};
  const state = foundState(verdict.asked, verdict.sense, found, finding.bound);
  return state === undefined
    ? { ...verdict, by: 'expected', expectedState, finding, ...against, open: true }
    : { ...verdict, state, by: 'found', expectedState, finding, ...against };
}

/** The finding that counts for a variant on a row: the newest build's that has one, of the design as it is now first. */
export function foundFor(
  builds: readonly Build[],
  found: Standing,
  variant: Variant,
  row: Verdict['id'],
): { readonly finding: Finding; readonly earlier: boolean } | undefined {
  let earlier: Finding | undefined;
  for (const build of [...builds].reverse()) {
    if (build.variantId !== variant.id) continue;
    const finding = found(build.id, row);
    if (!finding) continue;
    if (builtAsNow(build, variant)) return { finding, earlier: false };
    earlier ??= finding;
  }
  return earlier && { finding: earlier, earlier: true };
}

/** Every limit of a line with what was found of a variant's builds. */
export const settleAll = (
  builds: readonly Build[],
  verdicts: readonly Verdict[],
  found: Standing,
  variant: Variant,
): SettledVerdict[] =>
  verdicts.map((v) => {
    const own = foundFor(builds, found, variant, v.id);
    if (!own?.earlier) return settle(v, own?.finding);
    return { ...v, by: 'expected', expectedState: v.state, finding: own.finding, earlier: true };
  });

/** What a build is of: the kinds of its variant's stages, and whether that has changed since. */
export const builtOf = (build: Build, variant: Variant | undefined): BuiltOf => ({
  stages: variant?.stages.map((s) => s.kind) ?? [],
  earlier: variant !== undefined && !builtAsNow(build, variant),
});
