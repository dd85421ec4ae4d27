import ical, { ICalCalendarMethod } from 'ical-generator';
import { inUnits } from '../units/stated.ts';
import type { Schedule } from './plan.ts';
import type { Span } from './hours.ts';
import type { Placed } from './lay-out.ts';
import { DAY, type WallTime } from './wall-clock.ts';

const date = (t: WallTime): Date => new Date(Math.round(t / 60) * 60e3);

/** What lies in a calendar of one task: when one is at it, when a machine runs, when something comes. */
function entries({ task, hands, printer, waits, end }: Placed): { span: Span; name: string; allDay?: true }[] {
  if (task.done !== undefined) return [];
  const own = hands.map((span, i) => ({
    span,
    name: hands.length > 1 ? `${task.name} (${i + 1} of ${hands.length})` : task.name,
  }));
  // A print is one entry from its beginning by hand to its end.
  if (printer) return [{ span: printer.span, name: task.name }];
  if (task.kind !== 'buy' || !waits) return own;
  return [
    { ...own[0]!, name: `Order: ${task.name}` },
    { span: [end, end], name: `Comes: ${task.name}`, allDay: true },
  ];
}

/**
 * What is to be done, as a calendar file: times by the clock on the wall, wherever it is opened.
 *
 * Source: RFC 5545, with floating times (3.3.5, form 1).
 * @param stamp when it was made
 */
export function planCalendar(schedule: Pick<Schedule, 'placed'>, title: string, stamp: Date): string {
  const calendar = ical({
    name: title,
    prodId: { company: 'Gristmill', product: 'Schedule', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const p of schedule.placed)
    entries(p).forEach(({ span, name, allDay }, i) =>
      calendar.createEvent({
        // The same task keeps its entry when the calendar is read again.
        id: `${p.task.id}/${i}@gristmill`,
        stamp,
        start: date(span[0]),
        end: date(span[1]),
        floating: true,
        summary: inUnits(name),
        description: inUnits(p.task.says),
        ...(allDay && { allDay: true, end: date(span[0] + DAY) }),
      }),
    );
  return calendar.toString();
}
