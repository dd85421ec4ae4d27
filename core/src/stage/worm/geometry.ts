import { crossedMesh, gear, rootSection, type CrossedMesh, type Gear, type RootSection } from '../../gear/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import type { WormParams } from './params.ts';

/** A worm and its wheel; everything that no factor moves. */
export interface WormGeometry {
  readonly mesh: CrossedMesh;
  /** Lead angle, rad, and lead, m. */
  readonly lead: number;
  readonly advance: number;
  /** Distance that the axes are set to, m. */
  readonly centre: number;
  readonly sections: readonly [RootSection, RootSection];
  /** Width over which a tooth of the wheel carries, m. */
  readonly carries: number;
  /** Play in the normal direction by drawing, m; below 0 where the teeth would bind. */
  readonly normalPlay: number;
  /** Across the wheel's axis, m. */
  readonly outside: number;
}

/** How worm and wheel lie to each other, and what they take up. */
export type WormPair = Pick<WormGeometry, 'mesh' | 'lead' | 'centre' | 'outside'> & {
  readonly worm: Gear;
  readonly wheel: Gear;
};

/** The largest of what a worm with its shaft and its wheel take up, m. */
export const wormOutside = (
  p: Pick<WormParams, 'length' | 'span'>,
  { mesh, centre }: Pick<WormPair, 'mesh' | 'centre'>,
): number => Math.max(p.length, p.span, 2 * mesh.s2.ra, mesh.s2.ra + centre + mesh.s1.ra);

/**
 * Least distance between the worm’s bearings at which their outer rings pass the tips of the wheel, m; 0 where they stand
 * above it.
 *
 * Source: Pythagoras in the wheel’s middle plane, from its tip circle to the lowest point of a ring.
 * @param tip radius of the wheel over its tips, m
 * @param centre distance of the axes, m
 * @param bearing over its outer ring, and wide, m
 * @example spanPastWheel(0.05, 0.045, { outside: 0.01, width: 0.004 }).toFixed(4) // '0.0640'
 */
export function spanPastWheel(
  tip: number,
  centre: number,
  { outside, width }: { readonly outside: number; readonly width: number },
): number {
  const low = Math.max(0, centre - outside / 2);
  return low >= tip ? 0 : 2 * Math.sqrt(tip * tip - low * low) + width;
}

/** How much further apart than without play the axes are set, m. */
export const furtherApart = (p: Pick<WormParams, 'playBy' | 'centreExtra'>): number =>
  p.playBy === 'centre' ? p.centreExtra : 0;

/** Worm and wheel in mesh, without what their teeth look like at their roots: what a search sorts candidates by. */
export function wormPair(p: WormParams): Result<WormPair> {
  const lead = Math.atan(p.starts / p.quotient);
  if (lead > Math.PI / 4 + 1e-9)
    return refuse(
      `A worm of ${p.starts} starts on a quotient of ${p.quotient} is steeper than 45°.`,
      'Beyond it worm and wheel change places.',
      `Take a quotient of ${p.starts} or more, or fewer starts.`,
      'quotient',
    );
  const c = Math.cos(lead);
  const hand = p.hand === 'right' ? 1 : -1;
  // Both wheels are told in normal modules: the worm's axial ones are longer by 1/cos γ.
  const common = {
    module: p.module * c,
    pressure: p.pressure,
    addendum: p.addendum / c,
    dedendum: p.dedendum / c,
    fillet: p.fillet / c,
  };
  const worm = gear({ ...common, teeth: p.starts, helix: hand * (Math.PI / 2 - lead), allowance: p.allowance1 });
  const wheel = gear({ ...common, teeth: p.z2, helix: hand * lead, shift: p.x2 / c, allowance: p.allowance2 });
  const centre = (p.module * (p.quotient + p.z2 + 2 * p.x2)) / 2 + furtherApart(p);
  const [root1, root2] = [
    (p.module * (p.quotient - 2 * p.dedendum)) / 2,
    (p.module * (p.z2 - 2 * (p.dedendum - p.x2))) / 2,
  ];
  if (root1 <= 0.2 * p.module)
    return refuse(
      'The worm’s thread is deeper than its body.',
      `With a quotient of ${p.quotient} nothing is left below the roots.`,
      `Take a quotient of ${Math.ceil(2 * p.dedendum + 3)} or more.`,
      'quotient',
    );
  if (root2 <= 0)
    return refuse(
      'The wheel’s teeth are deeper than the wheel.',
      'Nothing is left below its roots.',
      'Give it more teeth, or more shift.',
      'z2',
    );
  const mesh = crossedMesh(worm, wheel, centre);
  if (!(mesh.high > mesh.low))
    return refuse(
      'Worm and wheel do not reach one another.',
      'With this shift and addendum no place of the line of action lies inside both tip circles.',
      'Take less shift, or a higher addendum.',
      'x2',
    );
  return ok({ worm, wheel, mesh, lead, centre, outside: wormOutside(p, { mesh, centre }) });
}

/** Geometry of a worm stage; refuses in words what does not mesh. */
export function wormGeometry(p: WormParams): Result<WormGeometry> {
  const made = wormPair(p);
  if (!made.ok) return made;
  const { worm, wheel, mesh, lead, centre, outside } = made.value;
  const c = Math.cos(lead);
  const sn = Math.sin(p.pressure);
  const by =
    p.playBy === 'centre'
      ? 2 * furtherApart(p) * sn
      : p.playBy === 'dual-lead'
        ? -p.wormShift * p.leadDifference * Math.cos(p.pressure) * c
        : 0;
  return ok({
    mesh,
    lead,
    advance: Math.PI * p.module * p.starts,
    centre,
    sections: [rootSection(worm), rootSection(wheel)],
    carries: Math.min(p.width, 2 * p.module * Math.sqrt(p.quotient + 1)),
    normalPlay: (p.allowance1 + p.allowance2) * Math.cos(p.pressure) + by,
    outside,
  });
}
