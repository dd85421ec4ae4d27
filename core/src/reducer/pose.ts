import type { Solid } from '../shape/solid.ts';
import { nested, undone, type Frame, type Vec } from './frame.ts';
import { radiiOf } from './reach.ts';

/** What of a radius still is one circle about the axis, m. */
const ROUND = 1e-9;
/** Places alike to this are one, m; directions to a hundredth of the angle that it is at 1 cm. */
const ALIKE = 1e-7;
const ALIKE_WAY = 1e-6;

/** Whether a solid looks the same however it is turned about its own axis. */
export const isRound = (solid: Solid): boolean =>
  solid.prisms.every((p) =>
    [p.outer, ...p.holes].every((o) => {
      const { most, least } = radiiOf(o);
      return most - least < ROUND;
    }),
  );

const across = (v: Vec): number => Math.hypot(v[0], v[1]);

/** A direction or place turned about z. */
function spun([x, y, z]: Vec, angle: number): Vec {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [c * x - s * y, s * x + c * y, z];
}

/**
 * How one thing stands to another, as text that is alike for alike poses: what they share and how near they come is the
 * same in all of these. Of a round one it does not matter how it is turned about its axis.
 *
 * @example poseOf({ ...HOME, at: [0, 0, 1e-3] }, HOME, true, true) // '0 0 -10000, 0 0 1000000'
 */
export function poseOf(a: Frame, b: Frame, aRound: boolean, bRound: boolean): string {
  const seen = nested(undone(a), b);
  let told: readonly Vec[] = bRound ? [seen.at, seen.z] : [seen.at, seen.z, seen.x];
  if (aRound) {
    // Turned until the first of these that does not point along the axis points along x.
    const first = told.find((v, i) => across(v) > (i === 0 ? ALIKE : ALIKE_WAY));
    if (first) told = told.map((v) => spun(v, -Math.atan2(first[1], first[0])));
  }
  return told
    .map((v, i) => v.map((x) => Math.round(x / (i === 0 ? ALIKE : ALIKE_WAY))).join(' '))
    .join(', ')
    .replaceAll('-0', '0');
}
