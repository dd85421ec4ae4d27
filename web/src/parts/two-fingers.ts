/** A point of the screen, px. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

const middleOf = ([a, b]: readonly [Point, Point]): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });

/**
 * What two fingers did between two moments: how much farther apart they are, where their middle went, and by how much
 * they turned about it.
 *
 * @returns `by` as a ratio, `moved` in px, `turned` in rad, clockwise on the screen positive and never more than half a
 *   turn, and the middle they ended at
 */
export function twoFingers(
  before: readonly [Point, Point],
  after: readonly [Point, Point],
): { readonly by: number; readonly moved: Point; readonly turned: number; readonly middle: Point } {
  const along = ([a, b]: readonly [Point, Point]) => ({ x: b.x - a.x, y: b.y - a.y });
  const [was, is] = [along(before), along(after)];
  const [long, longer] = [Math.hypot(was.x, was.y), Math.hypot(is.x, is.y)];
  const [from, to] = [middleOf(before), middleOf(after)];
  return {
    // Fingers on one point say nothing of size.
    by: long > 1 && longer > 1 ? longer / long : 1,
    moved: { x: to.x - from.x, y: to.y - from.y },
    turned: Math.atan2(was.x * is.y - was.y * is.x, was.x * is.x + was.y * is.y),
    middle: to,
  };
}
