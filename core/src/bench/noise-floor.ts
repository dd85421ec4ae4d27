/** Bins whose middle tells the floor about them. */
const BLOCK = 32;

/** Median of a Rayleigh distribution over its scale. */
const RAYLEIGH = Math.sqrt(2 * Math.LN2);

/**
 * Standard deviation of the noise in each bin of a spectrum, one of its two parts: the median amplitude of blocks of
 * bins, straight between their middles. A line in a block hardly moves its median.
 *
 * @param a one-sided amplitudes; the first is the mean and is not looked at
 * @returns one a bin
 * Source: the amplitude of noise is Rayleigh distributed, its median √(2·ln 2) times the deviation of either part.
 */
export function noiseFloor(a: Float64Array): Float64Array {
  const blocks: { at: number; level: number }[] = [];
  for (let from = 1; from < a.length; from += BLOCK) {
    const part = a.slice(from, Math.min(a.length, from + BLOCK)).sort();
    if (part.length < BLOCK / 2 && blocks.length > 0) break;
    blocks.push({ at: from + part.length / 2, level: part[part.length >> 1]! / RAYLEIGH });
  }
  const out = new Float64Array(a.length);
  let k = 0;
  for (let i = 0; i < a.length; i++) {
    while (k + 2 < blocks.length && i > blocks[k + 1]!.at) k++;
    const [low, high] = [blocks[k], blocks[k + 1]];
    if (!low) continue;
    const share = high ? Math.min(1, Math.max(0, (i - low.at) / (high.at - low.at))) : 0;
    out[i] = low.level + share * ((high?.level ?? 0) - low.level);
  }
  return out;
}
