import { makeMesh, plainToothing, wheel, type Mesh } from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { inMm, stop } from '../refuse-stage.ts';
import type { BevelParams } from './params.ts';

/** Addendum and dedendum of straight bevel teeth over the outer module. Source: ISO 23509, standard depth. */
export const [ADDENDUM, DEDENDUM] = [1, 1.2] as const;

/**
 * Depth of a rim below teeth over their height, from which on they do not break through it; behind a bevel's outer end as
 * much of it as the root cone faces the back. Source: ISO 6336-3, rim thickness factor Y_B.
 */
const RIM = 1.2;

/** What stands behind the teeth at their outer end, where their roots come out at the back: a ring, m. */
export interface Rim {
  readonly deep: number;
  /** Radii: below the roots of the inner end, and of the outer. */
  readonly within: number;
  readonly over: number;
}

/** One of both cones; angles rad, lengths m. */
export interface Cone {
  readonly teeth: number;
  /** Pitch cone angle δ. */
  readonly pitch: number;
  /** Tip and root cone angles. */
  readonly tip: number;
  readonly root: number;
  /** Teeth of its virtual spur wheel. */
  readonly virtual: number;
  /** Outer and mean pitch radius. */
  readonly outer: number;
  readonly mean: number;
  /** Radius over the tips at the outer end. */
  readonly over: number;
  readonly rim: Rim;
  /** From the apex to the back of the hub: the mounting distance. */
  readonly mount: number;
  /** Half the angle that a tooth takes on the pitch cone, about its axis. */
  readonly half: number;
}

/** Everything of a bevel pair that no factor moves. */
export interface BevelGeometry {
  readonly cones: readonly [Cone, Cone];
  /** Outer and mean cone distance, m. */
  readonly outer: number;
  readonly mean: number;
  readonly meanModule: number;
  /** The virtual spur pair at mid-face. */
  readonly mesh: Mesh;
  readonly outside: number;
  readonly length: number;
}

/**
 * Pitch cone angle of the pinion, rad: tan δ₁ = sin Σ/(z₂/z₁ + cos Σ).
 * @example ((180 / Math.PI) * pinionCone(20, 40, Math.PI / 2)).toFixed(6) // '26.565051'
 */
export const pinionCone = (z1: number, z2: number, shaft: number): number =>
  Math.atan2(Math.sin(shaft), z2 / z1 + Math.cos(shaft));

/** Geometry of a pair; refuses in words what does not mesh. Source: ISO 23509 for straight bevel gears. */
export function bevelGeometry(p: BevelParams): Result<BevelGeometry> {
  const d1 = pinionCone(p.z1, p.z2, p.shaft);
  const d2 = p.shaft - d1;
  // The larger cone is open beyond a right angle: an inside bevel, which nothing here cuts.
  if (!(d2 < (88 * Math.PI) / 180))
    return stop(
      `With ${p.z1} and ${p.z2} teeth at that shaft angle the wheel’s cone opens inwards.`,
      'Its cone angle would be 88° or more: a crown wheel, or one with teeth inside.',
      'Take a smaller shaft angle, or fewer teeth on the wheel.',
      'shaft',
      { path: 'shaft', value: Math.PI / 2, label: 'Shafts at a right angle' },
    );
  const outer = (p.module * p.z1) / (2 * Math.sin(d1));
  if (p.width > 0.9 * outer)
    return stop(
      `A face of ${inMm(p.width)} reaches the apex of cones that are ${inMm(outer)} long.`,
      'Teeth shrink to nothing there; a third of the cone distance is usual.',
      'Take a narrower face or more teeth.',
      'width',
      {
        path: 'width',
        value: Math.floor((outer / 3) * 2e3) / 2e3,
        label: `Face width ${inMm(Math.floor((outer / 3) * 2e3) / 2e3)}`,
      },
    );
  const mean = outer - p.width / 2;
  const share = mean / outer;
  const cone = (z: number, pitch: number, shift: number, allowance: number, hub: number): Cone => {
    const r = (p.module * z) / 2;
    const [ha, hf] = [(ADDENDUM + shift) * p.module, (DEDENDUM - shift) * p.module];
    const root = pitch - Math.atan(hf / outer);
    return {
      teeth: z,
      pitch,
      tip: pitch + Math.atan(ha / outer),
      root,
      virtual: z / Math.cos(pitch),
      outer: r,
      mean: r * share,
      over: r + ha * Math.cos(pitch),
      rim: {
        deep: Math.min(hub, RIM * (ha + hf) * Math.sin(root)),
        within: (outer - p.width) * Math.sin(root),
        over: outer * Math.sin(root),
      },
      mount: outer * Math.cos(pitch) + hf * Math.sin(pitch) + hub,
      half: Math.PI / (2 * z) + (2 * shift * Math.tan(p.pressure)) / z - allowance / (2 * r),
    };
  };
  const cones = [
    cone(p.z1, d1, p.shift, p.allowance1, p.hub1),
    cone(p.z2, d2, -p.shift, p.allowance2, p.hub2),
  ] as const;
  const toothing = {
    ...plainToothing(p.module * share, p.width),
    pressure: p.pressure,
    addendum: ADDENDUM,
    dedendum: DEDENDUM,
    fillet: 0.3,
  };
  const made = makeMesh(
    wheel(toothing, cones[0].virtual, { shift: p.shift, allowance: p.allowance1 * share }),
    wheel(toothing, cones[1].virtual, { shift: -p.shift, allowance: p.allowance2 * share }),
    p.width,
    false,
  );
  if (!made.ok) return made;
  return ok({
    cones,
    outer,
    mean,
    meanModule: p.module * share,
    mesh: made.value,
    // From the far side of the wheel to the back of the pinion, or across the wheel.
    outside:
      cones[1].over +
      Math.max(cones[1].over, cones[0].mount * Math.sin(p.shaft) + cones[0].over * Math.abs(Math.cos(p.shaft))),
    length: cones[1].mount + Math.max(0, cones[0].over * Math.sin(p.shaft) - cones[0].mount * Math.cos(p.shaft)),
  });
}

/**
 * Angle about its axis at which a spherical involute stands on a cone, from where it leaves its base cone, rad: arccos(cos
 * θ/cos δ_b)/sin δ_b − arccos(tan δ_b/tan θ).
 *
 * @param base base cone angle δ_b, sin δ_b = sin δ·cos α
 * @param at cone angle θ ≥ δ_b
 * Source: a great circle that rolls on the base cone’s circle.
 */
export function sphericalInvolute(base: number, at: number): number {
  if (at <= base) return 0;
  const [unrolled, turned] = [
    Math.acos(Math.min(1, Math.cos(at) / Math.cos(base))),
    Math.acos(Math.min(1, Math.tan(base) / Math.tan(at))),
  ];
  return unrolled / Math.sin(base) - turned;
}

/** One flank of a tooth as cone angles from root to tip, each with half the tooth's angle there, about the tooth's middle. */
export function flankOf(c: Cone, pressure: number, steps = 12): readonly (readonly [cone: number, half: number])[] {
  const base = Math.asin(Math.sin(c.pitch) * Math.cos(pressure));
  const atPitch = sphericalInvolute(base, c.pitch);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const cone = c.root + ((c.tip - c.root) * i) / steps;
    return [cone, Math.max(1e-4 / c.teeth, c.half + atPitch - sphericalInvolute(base, Math.max(cone, base)))] as const;
  });
}
