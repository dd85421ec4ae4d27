/**
 * How stress and the number of times that it may come belong together (Wöhler lines), for roots, flanks and walls.
 */

/** Load cycles and the share of the static strength that a plastic stands so often. */
const PLASTIC: readonly (readonly [number, number])[] = [
  [1, 1],
  [1e4, 0.6],
  [1e6, 0.35],
  [1e7, 0.28],
];

/**
 * Share of a plastic's static strength that it stands for a number of load cycles: straight in logarithms between the
 * points, and on as steeply as at the end, since plastics have no endurance limit.
 *
 * @param cycles ≥ 1; fewer count as one
 * @returns 1 to 0
 * Source: usual tooth-root curves in the manner of VDI 2736-2; starting values, ±30 % (`gear.rootFatigue`).
 * @example plasticShare(1e6) // 0.35
 * @example plasticShare(1e5) // 0.458258
 */
export function plasticShare(cycles: number): number {
  if (!(cycles > 1)) return 1;
  let k = 1;
  while (k < PLASTIC.length - 1 && cycles > PLASTIC[k]![0]) k++;
  const [n0, s0] = PLASTIC[k - 1]!;
  const [n1, s1] = PLASTIC[k]!;
  return s0 * (cycles / n0) ** (Math.log(s1 / s0) / Math.log(n1 / n0));
}

/**
 * Load cycles that a plastic stands at a share of its static strength: `plasticShare` the other way round.
 *
 * @returns 0 where it breaks at once, Infinity where nothing loads it
 * @example plasticCycles(0.35) // 1e6
 * @example plasticCycles(0.14) // 1.27727e10
 */
export function plasticCycles(share: number): number {
  if (!(share > 0)) return Infinity;
  if (share >= 1) return 0;
  let k = 1;
  while (k < PLASTIC.length - 1 && share < PLASTIC[k]![1]) k++;
  const [n0, s0] = PLASTIC[k - 1]!;
  const [n1, s1] = PLASTIC[k]!;
  return n0 * (share / s0) ** (Math.log(n1 / n0) / Math.log(s1 / s0));
}

/** A Wöhler line of a metal: cycles where its endurance begins, and how steeply it rises before. */
export interface MetalLine {
  readonly knee: number;
  readonly exponent: number;
}

/**
 * Tooth root, through-hardened: Y_NT from 2.5 at 10⁴ to 1 at 3·10⁶ load cycles, and no less beyond.
 *
 * Source: ISO 6336-3:2019, life factor; log(300)/log(2.5) = 6.225.
 */
export const METAL_ROOT: MetalLine = { knee: 3e6, exponent: Math.log(300) / Math.log(2.5) };

/**
 * Tooth flank, through-hardened: Z_NT from 1.6 at 10⁵ to 1 at 5·10⁷ load cycles, as pressure.
 *
 * Source: ISO 6336-2:2019, life factor; log(500)/log(1.6) = 13.222.
 */
export const METAL_FLANK: MetalLine = { knee: 5e7, exponent: Math.log(500) / Math.log(1.6) };

/**
 * Load cycles that a metal stands at a stress over its endurance.
 *
 * @param over stress over what it stands for ever
 * @returns Infinity at the endurance and below it
 * @example metalCycles(METAL_ROOT, 2.5) // 1e4
 * @example metalCycles(METAL_FLANK, 1.6) // 1e5
 */
export const metalCycles = (line: MetalLine, over: number): number =>
  over <= 1 ? Infinity : line.knee * over ** -line.exponent;

/**
 * Stress over its endurance that a metal stands for a number of load cycles: `metalCycles` the other way round.
 * @example metalOver(METAL_ROOT, 1e4) // 2.5
 * @example metalOver(METAL_ROOT, 1e9) // 1
 */
export const metalOver = (line: MetalLine, cycles: number): number =>
  cycles >= line.knee ? 1 : (Math.max(1, cycles) / line.knee) ** (-1 / line.exponent);
