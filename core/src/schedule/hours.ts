import type { BuildPlan } from '../schema/joint.ts';
import { DAY, dayOf, weekday, type WallTime } from './wall-clock.ts';

/** A stretch of time. */
export type Span = readonly [from: WallTime, to: WallTime];

/** How far ahead is planned, days. */
export const HORIZON = 3 * 366;

/**
 * The hours that one has on a day; undefined on a day without any.
 *
 * @param day days since 1970
 */
export function hoursOn(plan: Pick<BuildPlan, 'hours' | 'from' | 'off'>, day: number): Span | undefined {
  const length = plan.hours[weekday(day)]!;
  if (!(length > 0) || plan.off.includes(dayOf(day * DAY))) return undefined;
  const from = day * DAY + Math.min(plan.from, DAY - length);
  return [from, from + length];
}

/** Time that is taken, kept in order; what is asked of it is what is free. */
export class Booked {
  private readonly spans: Span[] = [];

  book(span: Span): void {
    const at = this.spans.findIndex((s) => s[0] >= span[1]);
    this.spans.splice(at < 0 ? this.spans.length : at, 0, span);
  }

  /** Free stretches within a span, in order. */
  free([from, to]: Span): Span[] {
    const out: Span[] = [];
    let at = from;
    for (const [a, b] of this.spans) {
      if (b <= at) continue;
      if (a >= to) break;
      if (a > at) out.push([at, a]);
      at = Math.max(at, b);
    }
    if (at < to) out.push([at, to]);
    return out;
  }

  /** Whether all of a span is free. */
  isFree(span: Span): boolean {
    return !this.spans.some(([a, b]) => a < span[1] && b > span[0]);
  }

  /** Ends of what is taken after a time: where something may begin. */
  endsAfter(t: WallTime): WallTime[] {
    return this.spans.flatMap(([, b]) => (b > t ? [b] : []));
  }
}

/** Hours of one's own from a time on, as far as is planned. */
export function* ownHours(plan: BuildPlan, from: WallTime): Generator<Span, undefined> {
  const first = Math.floor(from / DAY);
  for (let day = first; day <= first + HORIZON; day++) {
    const hours = hoursOn(plan, day);
    if (hours && hours[1] > from) yield [Math.max(from, hours[0]), hours[1]];
  }
}
