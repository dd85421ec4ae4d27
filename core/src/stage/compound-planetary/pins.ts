/** What presses a planet on its pin: along two ways across it, N, and what leans it in both, N·m. */
export interface OnPin {
  readonly along: readonly [force: number, leans: number];
  readonly across: readonly [force: number, leans: number];
}

/**
 * All that a bore presses its pin with, N: size of its load at every place, summed over its length.
 *
 * A force spreads evenly and what leans it in proportion to the way from the middle: p(x) = F/L + 12·C·x/L³ in both ways.
 *
 * @param long of the bore, m
 * Source: bore as an even bed; ∫√(quadratic) in closed form.
 * @example pressedInAll({ along: [30, 0], across: [40, 0] }, 0.02) // 50
 * @example pressedInAll({ along: [0, 0.1], across: [0, 0] }, 0.02) // 15
 */
export function pressedInAll({ along, across }: OnPin, long: number): number {
  const [a, c] = [along[0] / long, across[0] / long];
  const [b, d] = [(12 * along[1]) / long ** 3, (12 * across[1]) / long ** 3];
  const bends = b * b + d * d;
  const even = a * a + c * c;
  // As good as even: the roots below would cancel.
  if (bends * long * long <= 1e-16 * even) return Math.sqrt(even) * long;
  const h = (a * b + c * d) / bends;
  const rest = Math.max(0, even / bends - h * h);
  const F = (u: number): number =>
    (u * Math.sqrt(u * u + rest) + (rest > 0 ? rest * Math.asinh(u / Math.sqrt(rest)) : 0)) / 2;
  return Math.sqrt(bends) * (F(long / 2 + h) - F(h - long / 2));
}
