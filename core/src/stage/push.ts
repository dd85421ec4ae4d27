import { lastingShare } from '../gear/lasting.ts';
import type { Duty } from './contract.ts';

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

/** Where nothing pushes: forces balance, or the stage bears them itself. */
export const NO_PUSH: Push = { across: 0, along: 0, moment: 0 };

/** Runs of a belt, a chain or a cable pull across alone. */
export const pulled = (peak: number, lasting: number): Pushes => ({
  peak: { ...NO_PUSH, across: peak },
  lasting: { ...NO_PUSH, across: lasting },
});

/**
 * What an eccentric pulls the shaft across with that drives it: all of it goes with the torque.
 *
 * @param share of the load that the forces are for, at the peak
 * @param worst force over a turn, and its cubic mean, N
 * @example pulledBy({ torque: 4, torqueRms: 2 }, 1, 60, 50) // { pull: 25, pullPeak: 60 }
 */
export const pulledBy = (
  at: Pick<Duty, 'torque' | 'torqueRms' | 'equivalent'>,
  share: number,
  worst: number,
  mean: number,
): { readonly pull: number; readonly pullPeak: number } => ({
  pull: share * mean * lastingShare(at),
  pullPeak: share * worst,
});

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
