import type { MeshDuty } from './mesh.ts';

/** Ways in which the play of a mesh is taken out by its design. */
export type TakenOut = 'none' | 'split' | 'spring' | 'eccentric' | 'taper';

/** How a stage's play is taken out: not at all where a file of an earlier version does not say. */
export const takenOutBy = (p: { readonly takenOut?: TakenOut | undefined }): TakenOut => p.takenOut ?? 'none';

/** What taking play out leaves and costs; along the working circle, m and N. */
export interface PlayOut {
  /** Play that is left: likely, least and most. */
  readonly left: readonly [number, number, number];
  /** Circumferential force beyond which the play is there all the same; 0 where nothing presses. */
  readonly opens: number;
  /** Friction of both flanks, as a force that always brakes. */
  readonly drag: number;
}

/** What a hand leaves between flanks when it sets them: likely, least and most, m. Source: usual practice of fitting. */
export const BY_HAND: readonly [number, number, number] = [2e-5, 1e-5, 3e-5];

/**
 * What is left of a mesh's play and what that costs.
 *
 * - split: two halves turned apart by a spring; no play until the load overcomes it, both flanks rub under it
 * - spring: the centres pressed together; flanks touch on both sides until the load's separating force lifts them
 * - eccentric, taper: set by hand, by the centre distance or by moving teeth whose shift runs with their width
 *
 * @param play of the mesh as it is: likely, least, most, m
 * @param force of the spring, N: along the circle for halves, towards the mate for centres
 * @param slope tangent of the working pressure angle
 * @param efficiency of the mesh
 * Source: force balance on the flanks; friction of each flank loses what the mesh loses of its force.
 * @example playOut('spring', [1e-4, 0, 2e-4], 10, Math.tan(Math.PI / 9), 0.97).opens.toFixed(3) // '27.475'
 * @example playOut('split', [1e-4, 0, 2e-4], 10, 0.364, 0.97).drag.toFixed(2) // '0.60'
 */
export function playOut(
  way: TakenOut,
  play: readonly [number, number, number],
  force: number,
  slope: number,
  efficiency: number,
): PlayOut {
  const none = [0, 0, 0] as const;
  switch (way) {
    case 'none':
      return { left: play, opens: 0, drag: 0 };
    case 'split':
      return { left: none, opens: force, drag: 2 * force * (1 - efficiency) };
    case 'spring':
      return { left: none, opens: force / slope, drag: (force / slope) * (1 - efficiency) };
    default:
      return { left: BY_HAND, opens: 0, drag: 0 };
  }
}

/**
 * How far teeth whose shift runs with their width are moved along the axis to take a play out: s = j/(2·tan θ·tan α).
 *
 * @param taper θ, by which the shift runs, rad
 * @returns m
 * @example taperMove(1e-4, 0.0349066, 0.363970).toFixed(6) // '0.003934'
 */
export const taperMove = (play: number, taper: number, slope: number): number => play / (2 * Math.tan(taper) * slope);

/** What springs add to the teeth of a mesh, all as forces along its circle on its whole width. */
export interface Press {
  /** How much of the load the teeth that carry most have to carry, of what they would without springs. */
  readonly load: number;
  /** How much of the spring's force comes on top. */
  readonly spring: number;
  /** How many flanks of the mesh rub under the spring's force whatever the load is. */
  readonly flanks: number;
}

/** A mesh that nothing presses. */
export const UNPRESSED: Press = { load: 1, spring: 0, flanks: 0 };

/** A mesh with a split wheel: one half of the width carries the load and the spring's force, both halves rub. */
export const HALVES: Press = { load: 2, spring: 2, flanks: 2 };

/** How springs press a mesh of a pair. */
export const pressOf = (way: TakenOut): Press => (way === 'split' ? HALVES : UNPRESSED);

/**
 * What the teeth carry of a load with what springs add, as a force on the whole width.
 *
 * @param force of the load, N
 * @param spring force, N
 * @example underPress(HALVES, 100, 10) // 220
 */
export const underPress = (press: Press, force: number, spring: number): number =>
  press.spring === 0 ? press.load * force : press.load * force + press.spring * spring;

/**
 * The load at which teeth reach what their whole width bears: `underPress` undone; never below nought.
 *
 * @example loadBorne(HALVES, 220, 10) // 100
 */
export const loadBorne = (press: Press, bears: number, spring: number): number =>
  press.spring === 0 ? bears / press.load : Math.max(0, (bears - press.spring * spring) / press.load);

/** What a mesh is asked to carry, with what springs add to it. */
export function dutyUnder(press: Press, on: MeshDuty, spring: number): MeshDuty {
  if (press === UNPRESSED) return on;
  const add = (force: number): number => underPress(press, force, spring);
  return {
    ...on,
    force: add(on.force),
    ever: add(on.ever),
    lasting: add(on.lasting),
    times: press.load,
    sprung: press.spring * spring,
  };
}
