import type { BodyPlace } from '../stage/contract.ts';

export type Vec = readonly [number, number, number];

/** Where something stands and how it lies: its origin, m, and the ways of its own axes. */
export interface Frame {
  readonly at: Vec;
  readonly x: Vec;
  readonly y: Vec;
  readonly z: Vec;
}

/** The frame of the line itself. */
export const HOME: Frame = { at: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

/** A direction given in a frame, told in the one that holds it. */
export const turnedBy = (f: Frame, [a, b, c]: Vec): Vec => [
  f.x[0] * a + f.y[0] * b + f.z[0] * c,
  f.x[1] * a + f.y[1] * b + f.z[1] * c,
  f.x[2] * a + f.y[2] * b + f.z[2] * c,
];

/**
 * A point given in a frame, told in the one that holds it.
 * @example pointIn({ ...HOME, at: [1, 2, 3] }, [10, 0, 0]) // [11, 2, 3]
 */
export function pointIn(f: Frame, p: Vec): Vec {
  const [x, y, z] = turnedBy(f, p);
  return [f.at[0] + x, f.at[1] + y, f.at[2] + z];
}

/** A frame that is given in another, told in the one that holds that. */
export const nested = (outer: Frame, inner: Frame): Frame => ({
  at: pointIn(outer, inner.at),
  x: turnedBy(outer, inner.x),
  y: turnedBy(outer, inner.y),
  z: turnedBy(outer, inner.z),
});

const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** The frame that undoes another: nested in it, it is home again. */
export function undone(f: Frame): Frame {
  const x: Vec = [f.x[0], f.y[0], f.z[0]];
  const y: Vec = [f.x[1], f.y[1], f.z[1]];
  const z: Vec = [f.x[2], f.y[2], f.z[2]];
  return { at: [-dot(f.at, f.x), -dot(f.at, f.y), -dot(f.at, f.z)], x, y, z };
}

/** Moved along a direction of the frame that holds it. */
export const shifted = (f: Frame, [x, y, z]: Vec): Frame => ({ ...f, at: [f.at[0] + x, f.at[1] + y, f.at[2] + z] });

/** The frame of a body in its stage: turned about its own axis, laid along x where it says so, then moved. */
export function placeFrame(b: BodyPlace): Frame {
  const [c, s] = [Math.cos(b.turn), Math.sin(b.turn)];
  const [l, m] = [Math.cos(b.lean ?? 0), Math.sin(b.lean ?? 0)];
  return b.along === 'x'
    ? { at: b.at, x: [c * m, s, -c * l], y: [-s * m, c, s * l], z: [l, 0, m] }
    : { at: b.at, x: [c, s, 0], y: [-s, c, 0], z: [0, 0, 1] };
}
