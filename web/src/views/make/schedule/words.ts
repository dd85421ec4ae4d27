import type { TaskKind } from '@gristmill/core/schedule/task';
import { DAY } from '@gristmill/core/schedule/wall-clock';

const day = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' });

/** A day in words; the time is by the clock on the wall. */
export const sayDay = (t: number): string => day.format(new Date(t * 1e3));

/** A time of day: 18:05. */
export const sayTime = (t: number): string => new Date(Math.round(t / 60) * 60e3).toISOString().slice(11, 16);

/** How long: 40 min, 2 h, 2 h 10, 3 d 4 h. */
export function sayLong(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  if (minutes < 60) return `${minutes} min`;
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (hours >= 72) return `${Math.floor(hours / 24)} d${hours % 24 ? ` ${hours % 24} h` : ''}`;
  return rest ? `${hours} h ${String(rest).padStart(2, '0')}` : `${hours} h`;
}

/** Now by the clock on the wall, to ten minutes, and minutes that it is ahead of universal time. */
export function wallNow(): { readonly now: number; readonly offset: number } {
  const offset = -new Date().getTimezoneOffset();
  return { now: Math.floor((Date.now() / 1e3 + offset * 60) / 600) * 600, offset };
}

/** A moment of the wall clock as a file has it, without a zone. */
export const wallMoment = (t: number): string => new Date(t * 1e3).toISOString().slice(0, 16);

export const KIND_NAMES: Readonly<Record<TaskKind, string>> = {
  buy: 'order',
  dry: 'dry',
  print: 'print',
  make: 'make',
  assemble: 'put together',
  test: 'bench',
  reading: 'reading',
};

export { DAY };
