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

/**
 * What the teeth of one half of a split wheel carry, as a force on the whole width: the load and the spring's force on half
 * of it.
 */
export const onHalf = (way: TakenOut, force: number, spring: number): number =>
  way === 'split' ? 2 * (force + spring) : force;

/** The load at which one half of a split wheel reaches what the whole width bears: `onHalf` undone; never below nought. */
export const ofHalf = (way: TakenOut, bears: number, spring: number): number =>
  way === 'split' ? Math.max(0, bears / 2 - spring) : bears;
