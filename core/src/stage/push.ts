import { lastingShare } from '../gear/lasting.ts';
import type { Duty, StageNumbers } from './contract.ts';
import type { StackLoad } from './stack-load.ts';

/** What a wheel puts on the bearings of its shaft: across it and along it, N, and the moment that tilts it, N·m. */
export interface Push {
  readonly across: number;
  readonly along: number;
  readonly moment: number;
}

/** That at the peak, and at the torque that wears rolling bearings. */
export interface Pushes {
  readonly peak: Push;
  readonly lasting: Push;
}

/** What a stage puts on the bearings of an axle of its own, and what that axle stands. */
export interface AxleLoad extends Pushes {
  /** Stress that it may be bent to, Pa. */
  readonly stands: number;
  /** It is no thicker between its ends; else they bend where they come out of what is. */
  readonly slim: boolean;
}

/** Where nothing pushes: forces balance, or the stage bears them itself. */
export const NO_PUSH: Push = { across: 0, along: 0, moment: 0 };

/** Runs of a belt, a chain or a cable pull across alone. */
export const pulled = (peak: number, lasting: number): Pushes => ({
  peak: { ...NO_PUSH, across: peak },
  lasting: { ...NO_PUSH, across: lasting },
});

/**
 * What eccentrics do to the bearings of the shaft they are on: all of it goes with the torque.
 *
 * @param share of the load that the stack's forces are for, at the peak
 * @param pitch of its layers, m
 * @example borneBy({ torque: 4, torqueRms: 2 }, 1, { across: 60, acrossMean: 50, tilt: 90, tiltMean: 80 }, 0.01).lasting
 * // { across: 25, along: 0, moment: 0.4 }
 */
export function borneBy(
  at: Pick<Duty, 'torque' | 'torqueRms' | 'equivalent'>,
  share: number,
  { across, acrossMean, tilt, tiltMean }: StackLoad,
  pitch: number,
): Pushes {
  const often = share * lastingShare(at);
  return {
    peak: { across: share * across, along: 0, moment: share * tilt * pitch },
    lasting: { across: often * acrossMean, along: 0, moment: often * tiltMean * pitch },
  };
}

/** The same of eccentrics on the shaft that drives them, as numbers of their stage. */
export function pulledBy(
  ...of: Parameters<typeof borneBy>
): Required<Pick<StageNumbers, 'pull' | 'pullPeak' | 'tilt' | 'tiltPeak'>> {
  const { peak, lasting } = borneBy(...of);
  return { pull: lasting.across, pullPeak: peak.across, tilt: lasting.moment, tiltPeak: peak.moment };
}

/**
 * What teeth push their wheel with: all of it goes with the torque.
 *
 * @param tangent along its circle, N
 * @param radial from the other wheel, N
 * @param axial along the shaft, N: it tilts as well, about the wheel's middle
 * @param radius at which, m
 * @example pushedByTeeth({ torque: 4, torqueRms: 2 }, 30, 40, 10, 0.02).lasting // { across: 25, along: 5, moment: 0.1 }
 */
export function pushedByTeeth(
  at: Pick<Duty, 'torque' | 'torqueRms' | 'equivalent'>,
  tangent: number,
  radial: number,
  axial: number,
  radius: number,
): Pushes {
  const share = lastingShare(at);
  const push = (x: number): Push => ({
    across: x * Math.hypot(tangent, radial),
    along: x * axial,
    moment: x * axial * radius,
  });
  return { peak: push(1), lasting: push(share) };
}
