import type { ScrewParams } from './params.ts';

/** Two nuts that press against one another, or one alone, without preload. */
export interface Nuts {
  /** Force between them, N; nought for one. */
  readonly preload: number;
  /** Balls, whose contacts stiffen as they are pressed; else threads that give in proportion. */
  readonly balls: boolean;
}

/** What nuts a stage has. */
export const nutsOf = (p: Pick<ScrewParams, 'type' | 'nut' | 'preload'>): Nuts => ({
  preload: p.nut === 'double' ? p.preload : 0,
  balls: p.type === 'ball',
});

/**
 * Exponent of force over deflection: Hertz’s for balls.
 *
 * @example exponent({ preload: 20, balls: true }) // 1.5
 */
export const exponent = ({ balls }: Nuts): number => (balls ? 3 / 2 : 1);

/**
 * Force over preload that takes the preload off one of two like nuts: 2^(3/2) of balls, 2 of threads.
 *
 * Source: as ISO 3408-5 has it of preloaded ball screws: the load adds to one nut's deflection what it takes off the other's,
 * which is nought where the one's is twice that at rest.
 * @example opensOver({ preload: 20, balls: true }).toFixed(4) // '2.8284'
 */
export const opensOver = (nuts: Nuts): number => 2 ** exponent(nuts);

/**
 * Load of the nut that carries more under a force along the axis, N: F_v·(1 + F/(c·F_v))^n until the other lets go at c·F_v,
 * then all of it.
 *
 * @example nutLoad({ preload: 100, balls: true }, 100).toFixed(2) // '157.48'
 * @example nutLoad({ preload: 100, balls: false }, 100) // 150
 */
export const nutLoad = (nuts: Nuts, force: number): number => {
  const opens = opensOver(nuts) * nuts.preload;
  return force < opens ? nuts.preload * (1 + force / opens) ** exponent(nuts) : force;
};

/**
 * Force along the axis under which a nut carries a load, N: the inverse of `nutLoad`; nought where the preload alone is
 * more.
 *
 * @example forceOn({ preload: 100, balls: false }, 150) // 100
 * @example forceOn({ preload: 100, balls: true }, 50) // 0
 */
export const forceOn = (nuts: Nuts, load: number): number => {
  const opens = opensOver(nuts) * nuts.preload;
  if (load >= opens) return load;
  return Math.max(0, opens * ((load / nuts.preload) ** (1 / exponent(nuts)) - 1));
};
