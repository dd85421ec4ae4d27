import { inv } from './involute.ts';

/** A toothed wheel by what a gear cutter is told; SI units, factors in normal modules. */
export interface Gear {
  /** Normal module, m. */
  readonly module: number;
  /** Number of teeth; not whole for the virtual wheel of a helical one. */
  readonly teeth: number;
  /** Normal pressure angle, rad. */
  readonly pressure: number;
  /** Reference helix angle, rad; right-handed positive. */
  readonly helix: number;
  /** Profile shift factor x; a ring's is that of the wheel which would fill its spaces. */
  readonly shift: number;
  /** Whether the teeth point inwards. */
  readonly ring: boolean;
  /** Addendum factor h_a*. */
  readonly addendum: number;
  /** Dedendum factor h_f*. */
  readonly dedendum: number;
  /** Tip rounding of the cutter over the module, ρ_f*. */
  readonly fillet: number;
  /** Thickness taken off each tooth in the normal section on the reference circle, A_s, m. */
  readonly allowance: number;
  /** Radial depth of the tip chamfer, m. */
  readonly chamfer: number;
  /** How far the tips are shortened, m. */
  readonly short: number;
  /** Teeth of the pinion-shaped cutter whose rounded tip leaves a ring's root; not read for outside teeth. */
  readonly cutter: number;
}

/** What follows from a gear's data in its transverse section; metres and radians. */
export interface GearSize {
  /** Transverse module and pressure angle. */
  readonly mt: number;
  readonly at: number;
  /** Radii: reference, base, tip, root. */
  readonly r: number;
  readonly rb: number;
  readonly ra: number;
  readonly rf: number;
  /** Helix angle on the base cylinder. */
  readonly helixBase: number;
  /** Half the angle a tooth (a ring's space) spans on the reference circle, allowance included. */
  readonly half: number;
  /** The same on the base circle: half + inv α_t. */
  readonly halfBase: number;
  readonly inward: boolean;
}

/** ISO 53 basic rack A: addendum 1, dedendum 1.25, root rounding 0.38. */
export const BASIC_RACK = { addendum: 1, dedendum: 1.25, fillet: 0.38 } as const;

/** A gear with the basic rack's proportions; anything can be said otherwise. */
export const gear = (g: Partial<Gear> & Pick<Gear, 'module' | 'teeth'>): Gear => ({
  pressure: Math.PI / 9,
  helix: 0,
  shift: 0,
  ring: false,
  ...BASIC_RACK,
  allowance: 0,
  chamfer: 0,
  short: 0,
  cutter: Math.max(10, Math.min(25, g.teeth - 12)),
  ...g,
});

/**
 * Sizes of a gear in its transverse section.
 *
 * Source: ISO 21771:2007, clauses 4 and 5. A ring is treated as the wheel that fills its spaces, so all its signs are
 * an outside wheel's.
 */
export function gearSize(g: Gear): GearSize {
  const c = Math.cos(g.helix);
  const at = Math.atan(Math.tan(g.pressure) / c);
  const mt = g.module / c;
  const r = (mt * g.teeth) / 2;
  const s = g.ring ? 1 : -1;
  const half =
    Math.PI / (2 * g.teeth) + (2 * g.shift * Math.tan(g.pressure)) / g.teeth + (s * g.allowance) / (2 * c * r);
  return {
    mt,
    at,
    r,
    rb: r * Math.cos(at),
    half,
    halfBase: half + inv(at),
    inward: g.ring,
    ra: g.ring ? r - g.module * (g.addendum - g.shift) + g.short : r + g.module * (g.addendum + g.shift) - g.short,
    rf: g.ring ? r + g.module * (g.dedendum + g.shift) : r - g.module * (g.dedendum - g.shift),
    helixBase: Math.asin(Math.sin(g.helix) * Math.cos(g.pressure)),
  };
}

/** Half the angle that a tooth (a ring's space) spans at a radius no less than the base circle's, rad. */
export const halfAt = (s: GearSize, radius: number): number => s.halfBase - inv(Math.acos(Math.min(1, s.rb / radius)));

/** Thickness of a tooth along its circle at a radius, m (transverse); 0 or less where its flanks have met. */
export const thicknessAt = (s: GearSize, teeth: number, radius: number): number =>
  2 * radius * (s.inward ? Math.PI / teeth - halfAt(s, radius) : halfAt(s, radius));

/**
 * Least shift that keeps a rack-cut wheel's flank whole: x ≥ h* − z·sin² α_t/(2 cos β), with h* the height the cutter's
 * straight flank reaches.
 *
 * Source: ISO 21771, generation by a rack; h* = h_f* − ρ_f*(1 − sin α).
 */
export function leastShift(g: Pick<Gear, 'teeth' | 'pressure' | 'helix' | 'dedendum' | 'fillet'>): number {
  const at = Math.atan(Math.tan(g.pressure) / Math.cos(g.helix));
  return g.dedendum - g.fillet * (1 - Math.sin(g.pressure)) - (g.teeth * Math.sin(at) ** 2) / (2 * Math.cos(g.helix));
}
