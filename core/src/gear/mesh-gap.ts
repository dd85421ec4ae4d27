import { factor, type Shelf } from '../shop/shelf.ts';
import type { Gap, GapSide } from '../stage/freedom.ts';
import type { Mesh } from './mesh.ts';

/** Ranges of the shop are ±1.96 standard deviations. */
export const RANGE = 1.96;

/** A wheel of a mesh as a part. */
export interface WheelPart {
  readonly part: string;
  readonly name: string;
  /** Every path has a wheel of its own. */
  readonly each: boolean;
}

/**
 * Free way along the working circle of a mesh, and what takes from it: both flanks of a tooth and of its space stand in it,
 * run-out brings the centres nearer, warmth makes wheels and frame larger.
 *
 * Source: normal to circular play, j_t = j_n/(cos α_wt·cos β_b); Δj = 2·Δa·tan α_wt (ISO 21771), a run-out F moves the
 * centres by F/2.
 *
 * @param turn of the stage's output for a metre along the circle, rad/m
 */
export function meshGap(
  name: string,
  { pair: p }: Pick<Mesh, 'pair'>,
  wheels: readonly [WheelPart, WheelPart],
  turn: number,
  shelf: Shelf,
): Gap {
  const normal = Math.cos(p.working) * Math.cos(p.s1.helixBase);
  const tan = Math.tan(p.working);
  const out = p.ring ? -1 : 1;
  const side = (w: WheelPart, ring: boolean, radius: number, perGrowth: number): GapSide => ({
    ...w,
    contour: ring ? 'hole' : 'outside',
    share: 2 / normal,
    usual: factor(shelf, 'gear.thickness') / RANGE,
    radius,
    perGrowth,
  });
  return {
    name,
    drawn: p.play,
    turn,
    sides: [
      side(wheels[0], false, p.rw1, -2 * tan),
      // A ring that grows goes away from its pinion, an outside wheel comes nearer.
      side(wheels[1], p.ring, p.rw2, -2 * tan * out),
    ],
    wobble: (Math.SQRT2 * factor(shelf, 'gear.runout') * tan) / RANGE,
    place: 0,
    centre: p.centre,
    perCentre: 2 * tan * out,
  };
}
