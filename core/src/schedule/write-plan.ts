import { inUnits } from '../units/stated.ts';
import type { Schedule } from './plan.ts';
import type { Span } from './hours.ts';
import type { Placed } from './lay-out.ts';
import { atClock, dayOf } from './wall-clock.ts';

/** What of a task happens on a day. */
export interface DayEntry {
  readonly placed: Placed;
  readonly does: 'hands' | 'print' | 'comes' | 'runs' | 'done';
  readonly span: Span;
}

/** A day with what is to be done on it, in order. */
export interface PlanDay {
  readonly day: string;
  readonly entries: readonly DayEntry[];
}

/** A plan day by day; days on which nothing happens are left out. */
export function byDay(placed: readonly Placed[]): PlanDay[] {
  const days = new Map<string, DayEntry[]>();
  const add = (p: Placed, does: DayEntry['does'], span: Span) => {
    const day = dayOf(span[0]);
    days.set(day, [...(days.get(day) ?? []), { placed: p, does, span }]);
  };
  for (const p of placed) {
    if (p.task.done !== undefined) {
      add(p, 'done', [p.task.done, p.task.done]);
      continue;
    }
    if (p.printer) add(p, 'print', p.printer.span);
    else for (const span of p.hands) add(p, 'hands', span);
    if (p.task.kind === 'buy') add(p, 'comes', [p.end, p.end]);
    if (p.task.kind === 'reading' && p.waits) add(p, 'runs', p.waits);
  }
  return [...days]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([day, entries]) => ({ day, entries: entries.sort((a, b) => a.span[0] - b.span[0]) }));
}

const DOES: Readonly<Record<DayEntry['does'], string>> = {
  hands: '',
  print: '',
  comes: 'comes: ',
  runs: 'runs: ',
  done: 'done: ',
};

/** A plan as a list to tick off. */
export function planMarkdown(schedule: Pick<Schedule, 'placed' | 'stuck' | 'end'>, title: string): string {
  const lines = [`# ${title}`, '', `All done on ${dayOf(schedule.end)}.`, ''];
  for (const { day, entries } of byDay(schedule.placed)) {
    lines.push(`## ${day}`, '');
    for (const { placed, does, span } of entries) {
      const { task } = placed;
      const until =
        span[1] > span[0]
          ? ` to ${atClock(span[1])
              .slice(dayOf(span[1]) === day ? 11 : 0)
              .replace('T', ' ')}`
          : '';
      const when = does === 'comes' ? '' : `${atClock(span[0]).slice(11)}${until} `;
      lines.push(`- [${does === 'done' ? 'x' : ' '}] ${when}${DOES[does]}${inUnits(task.name)}: ${inUnits(task.says)}`);
    }
    lines.push('');
  }
  if (schedule.stuck.length > 0) {
    lines.push('## Not planned', '');
    for (const { why } of schedule.stuck) lines.push(`- ${inUnits(why)}`);
    lines.push('');
  }
  return lines.join('\n');
}
