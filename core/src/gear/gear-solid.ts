import { cut, prism, type Prism } from '../shape/solid.ts';
import type { Outline } from '../shape/outline.ts';
import type { Gear } from './gear.ts';
import { gearOutline, toothSide } from './profile.ts';

/**
 * A gear's body as prisms: one for spur and helical wheels, two mirrored halves for a double helix.
 *
 * @param from bottom, m
 * @param holes of an outside wheel; for a ring pass its rim as `rim`
 */
export function gearPrisms(
  g: Gear,
  width: number,
  double: boolean,
  holes: readonly Outline[],
  options: { from?: number; rim?: Outline; tolerance?: number } = {},
): Prism[] {
  const side = toothSide(g);
  const profile = gearOutline(g, options.tolerance, side);
  const from = options.from ?? 0;
  // A right-handed helix turns by b·tan β/r over its width.
  const twist = (h: number, hand: number) => (hand * h * Math.tan(g.helix)) / side.size.r;
  // Holes must not turn with the teeth, so a twisted body has them cut through it afterwards.
  const twisted = g.helix !== 0;
  const one = (z0: number, z1: number, hand: number, turn: number): Prism => ({
    ...prism(
      options.rim ?? profile,
      z0,
      z1,
      [...(options.rim ? [profile] : []), ...(twisted ? [] : holes)],
      twist(z1 - z0, hand),
    ),
    turn,
  });
  const half = width / 2;
  const bodies =
    double && twisted
      ? [one(from, from + half, -1, 0), one(from + half, from + width, 1, twist(half, -1))]
      : [one(from, from + width, 1, 0)];
  return [...bodies, ...(twisted ? holes.map((h) => cut(h, from, from + width)) : [])];
}
