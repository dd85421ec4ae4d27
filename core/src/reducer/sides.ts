/** Share of a plastic’s strength across its layers that a load which comes and goes is trusted with. */
export const TRUSTED = 0.5;

/**
 * Torque that walls carry round their axis, N·m: T = 2·A·t·τ with the area inside the middle of the wall.
 *
 * Source: Bredt’s formula for thin closed sections; shear by von Mises.
 * @param area inside their outer face, m²
 * @param wall m
 * @param strength across the layers, Pa
 * @example wallsCarry(Math.PI * 0.03 ** 2, 0.003, 25e6).toFixed(1) // '110.5'
 */
export function wallsCarry(area: number, wall: number, strength: number): number {
  // The middle of the wall lies half of it inside: by Steiner’s formula, with the outline of a circle of that area.
  const middle = area - wall * Math.sqrt(Math.PI * area) + (Math.PI * wall * wall) / 4;
  return (2 * middle * wall * TRUSTED * strength) / Math.sqrt(3);
}

/** A post between two plates, m. */
export interface Post {
  readonly diameter: number;
  readonly hole: number;
  readonly length: number;
}

/**
 * Torque that posts carry round an axis, N·m: each is bent between two plates that keep its ends straight, the farthest
 * one most. The screw in it is left aside.
 *
 * Source: beam held at both ends, M = F·L/2; W = π(D⁴ − d⁴)/(32·D).
 * @param radii of the posts about the axis, m
 * @param strength across the layers, Pa
 * @example postsCarry([0.08, 0.08, 0.08, 0.08], { diameter: 0.008, hole: 0.0034, length: 0.02 }, 25e6).toFixed(2) // '19.45'
 */
export function postsCarry(radii: readonly number[], { diameter, hole, length }: Post, strength: number): number {
  if (radii.length === 0 || !(length > 0)) return Infinity;
  const bends = (Math.PI * (diameter ** 4 - hole ** 4)) / (32 * diameter);
  const force = (2 * TRUSTED * strength * bends) / length;
  const farthest = Math.max(...radii);
  return (force * radii.reduce((s, r) => s + r * r, 0)) / farthest;
}

/**
 * Torque that a face screwed to something holds by friction, N·m.
 *
 * @param radii of the screws about the axis, m
 * @param force that each keeps, N
 * @example faceHolds([0.05, 0.05], 400, 0.2) // 8
 */
export const faceHolds = (radii: readonly number[], force: number, friction: number): number =>
  friction * force * radii.reduce((s, r) => s + r, 0);
