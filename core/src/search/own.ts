import { stopping, type LineReport } from '../line/analyse.ts';
import { LIMIT_KINDS } from '../brief/demand.ts';
import { stageKind } from '../stage/registry.ts';
import { stated } from '../units/stated.ts';
import { AIMS, type Aim } from './compose.ts';
import type { FoundLine } from './found.ts';
import { AIM_WORDS } from './says.ts';

/** What a line is chosen by, SI. */
type Aims = Readonly<Record<Aim, number>>;

/** What a variant's report says of what found lines are chosen by; undefined where it cannot be computed. */
export function aimsOfReport(report: LineReport): Aims | undefined {
  if (report.problem) return undefined;
  const of = AIMS.map((a) => [a, report.figures.find((f) => f.id === a)?.value ?? NaN] as const);
  return of.every(([, v]) => Number.isFinite(v)) ? (Object.fromEntries(of) as Record<Aim, number>) : undefined;
}

/** What a found line is chosen by at list prices: a variant is told by those, whatever lies in the drawer. */
const listed = (l: FoundLine): Aims => ({
  ...l.aims,
  money: (l.there ?? []).reduce((m, x) => m + x.saves, l.aims.money),
});

/** How many times as good one is as another in something: above 1 where it is better. */
const better = (aim: Aim, a: number, b: number): number =>
  AIM_WORDS[aim].most ? a / Math.max(b, 1e-12) : Math.max(b, 1e-5) / Math.max(a, 1e-5);

/**
 * A found line that is at least as good as another in everything, and better by a percent in something: of several the one
 * that is most better in the middle.
 *
 * @param aims of the other, SI
 */
export function beatenBy(aims: Aims, lines: readonly FoundLine[]): FoundLine | undefined {
  let best: FoundLine | undefined;
  let by = 0;
  for (const l of lines) {
    const own = listed(l);
    const shares = AIMS.map((a) => better(a, own[a], aims[a]));
    if (shares.some((s) => s < 1 - 1e-9) || !shares.some((s) => s > 1.01)) continue;
    const gain = shares.reduce((s, x) => s + Math.log(Math.min(x, 10)), 0);
    if (gain > by) [by, best] = [gain, l];
  }
  return best;
}

/** How a variant stands beside found lines, in a sentence. */
export function ownSays(name: string, report: LineReport, lines: readonly FoundLine[]): string {
  const aims = aimsOfReport(report);
  const missed = report.verdicts.filter((v) => v.need === 'must' && v.state === 'fails');
  if (!aims) return `${name} cannot be computed as it stands.`;
  if (missed.length > 0)
    return `${name} misses ${missed.map((v) => LIMIT_KINDS[v.id].name.toLowerCase()).join(' and ')}; every line here is expected to meet all musts.`;
  const [stopped] = stopping(report);
  if (stopped) return `${name} is stopped by a check of ${stopped.where}: ${stopped.check.name.toLowerCase()}.`;
  const by = beatenBy(aims, lines);
  if (!by) return `${name}: none of those found is as good in everything.`;
  const its = listed(by);
  const most = [...AIMS].sort((a, b) => better(b, its[b], aims[b]) - better(a, its[a], aims[a])).slice(0, 2);
  const said = most.map((a) => {
    const { name: of, quantity } = AIM_WORDS[a];
    return `${of} ${stated(its[a], quantity, 3)} beside ${stated(aims[a], quantity, 3)}`;
  });
  const kinds = by.stages.map((s) => (stageKind(s.kind)?.name ?? s.kind).toLowerCase()).join(', ');
  return `${name}: ${kinds} with ${by.motor.name} is at least as good in everything (${said.join(', ')}).`;
}
