/**
 * Standard normal draws, two from each pair of uniform ones.
 * Source: Box and Muller, Annals of Mathematical Statistics 29 (1958).
 * @example normals(seeded(1))() < 6 // true
 */
export function normals(uniform: () => number): () => number {
  let kept = NaN;
  return () => {
    if (!Number.isNaN(kept)) {
      const had = kept;
      kept = NaN;
      return had;
    }
    const r = Math.sqrt(-2 * Math.log(1 - uniform()));
    const a = 2 * Math.PI * uniform();
    kept = r * Math.sin(a);
    return r * Math.cos(a);
  };
}

/**
 * Share of a normal distribution below z.
 * Source: erfc by W. J. Cody's minimax forms as rational Chebyshev fits (Numerical Recipes, 6.2), good to 1.2e-7 of itself.
 * @example Number(normalBelow(-1.6666667).toFixed(6)) // 0.04779
 */
export function normalBelow(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 2 / (2 + x);
  const tail =
    t *
    Math.exp(
      -x * x -
        1.26551223 +
        t *
          (1.00002368 +
            t *
              (0.37409196 +
                t *
                  (0.09678418 +
                    t *
                      (-0.18628806 +
                        t *
                          (0.27886807 + t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277)))))))),
    );
  return z < 0 ? tail / 2 : 1 - tail / 2;
}
