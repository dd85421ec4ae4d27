/**
 * Least of a function of a few variables from a start.
 *
 * @param f may be Infinity where it must not go
 * @param size first step of each variable
 * @returns where it is least, and its value there
 * Source: Nelder and Mead, 1965.
 * @example descend(([x]) => (x - 2) ** 2, [0], [1]).p[0].toFixed(3) // '2.000'
 */
export function descend(
  f: (p: number[]) => number,
  start: number[],
  size: number[],
  rounds = 160,
): { p: number[]; value: number } {
  const simplex = [start, ...start.map((_, i) => start.map((v, j) => (i === j ? v + size[i]! : v)))].map((p) => ({
    p,
    value: f(p),
  }));
  const n = start.length;
  for (let k = 0; k < rounds; k++) {
    simplex.sort((a, b) => a.value - b.value);
    const worst = simplex[n]!;
    if (simplex[0]!.p.every((v, i) => Math.abs(v - worst.p[i]!) < 1e-7 * Math.abs(size[i]!))) break;
    const centre = start.map((_, i) => simplex.slice(0, n).reduce((s, x) => s + x.p[i]! / n, 0));
    const at = (q: number) => {
      const p = centre.map((c, i) => c + q * (worst.p[i]! - c));
      return { p, value: f(p) };
    };
    const mirror = at(-1);
    if (mirror.value < simplex[0]!.value) {
      const far = at(-2);
      simplex[n] = far.value < mirror.value ? far : mirror;
    } else if (mirror.value < simplex[n - 1]!.value) simplex[n] = mirror;
    else {
      const near = at(mirror.value < worst.value ? -0.5 : 0.5);
      if (near.value < worst.value) simplex[n] = near;
      else
        for (let i = 1; i <= n; i++) {
          const p = simplex[i]!.p.map((v, j) => (v + simplex[0]!.p[j]!) / 2);
          simplex[i] = { p, value: f(p) };
        }
    }
  }
  simplex.sort((a, b) => a.value - b.value);
  return simplex[0]!;
}
