import { factor, findSection, type Shelf } from '../../shop/shelf.ts';
import type { BeltParams } from './params.ts';

/** Share of the allowable tension that a belt is put on with at most, so that the load finds room on its tight side. */
const MOST = 0.5;

/**
 * A belt of another section: the stocked width nearest to the old one, and a tension that keeps the same torque on it
 * before its slack side hangs, T = F·z·p/π, within what the new belt bears.
 *
 * @example with 20 N on a pitch of 3 mm a pitch of 5 mm takes 12 N
 */
export function reTension(
  path: keyof BeltParams & string,
  next: BeltParams,
  before: BeltParams,
  shelf: Shelf,
): Partial<BeltParams> {
  if (path !== 'section') return {};
  const [was, is] = [findSection(shelf, before.section), findSection(shelf, next.section)];
  if (!was || !is || was === is) return {};
  const width = is.widths.reduce((best, w) => (Math.abs(w - before.width) < Math.abs(best - before.width) ? w : best));
  const most = MOST * factor(shelf, is.ids.tension) * width;
  const tension = Math.min(most, (before.tension * was.pitch) / is.pitch);
  return { width, tension: Number(tension.toPrecision(2)) };
}
