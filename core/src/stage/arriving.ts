import type { StageNumbers } from './contract.ts';

/** What of a stage's numbers tells how much of its torque arrives. */
export type Arriving = Pick<StageNumbers, 'etaForward' | 'branched'>;

/** Torque that a stage gives away at its output's and its branches' together, over that at the output. */
export const given = (n: Pick<StageNumbers, 'branched'>): number => 1 + (n.branched ?? 0);

/**
 * Share of the power put in under load that arrives at the output: what rubs away is lost, and what branches take off goes
 * elsewhere.
 *
 * @example arrivingShare({ etaForward: 0.96, branched: 0.2 }).toFixed(2) // '0.80'
 */
export const arrivingShare = (n: Arriving): number => n.etaForward / given(n);
