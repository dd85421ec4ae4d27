/**
 * A small seeded generator, uniform in [0, 1): the same seed gives the same numbers on every machine.
 * Source: mulberry32, a 32-bit mixing generator in the public domain.
 */
export function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A draw from the triangle between `low` and `high` with its peak at `likely`. */
export function triangular(u: number, low: number, likely: number, high: number): number {
  if (!(high > low)) return likely;
  const split = (likely - low) / (high - low);
  return u < split
    ? low + Math.sqrt(u * (high - low) * (likely - low))
    : high - Math.sqrt((1 - u) * (high - low) * (high - likely));
}
