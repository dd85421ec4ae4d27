import { combined, pressedAtPoints, seriesAt, spreadApart, type CosineSeries } from './series.ts';

/**
 * One pair (or single) of a lobe's rollers: how far from the lobe's top it stands, rad, and what each pushes, in units
 * of E·I·w0/r³.
 */
export interface RollerGroup {
  readonly angle: number;
  readonly force: number;
  /** Radial gap to the spline, in units of the throw; 0 where it presses. */
  readonly gap: number;
}

export interface Pressed {
  /** Deflection per unit of throw. */
  readonly series: CosineSeries;
  readonly groups: readonly RollerGroup[];
}

const out = new Float64Array(3);
const at = (s: CosineSeries, angle: number): number => {
  seriesAt(s, angle, out);
  return out[0]!;
};

/**
 * A ring over rollers at ±`angle` from each lobe's top (0: one roller a lobe), which push it out by one unit there at
 * the top.
 */
export function fewRollers(lobes: number, angle: number): Pressed {
  const one = pressedAtPoints(lobes);
  const pressed = angle === 0 ? one : spreadApart(one, angle);
  const top = at(pressed, 0);
  return { series: combined([[pressed, 1 / top]]), groups: [{ angle, force: 1 / top, gap: 0 }] };
}

/**
 * Bending of a ring by rollers over that of cos nθ at the same throw: the greatest, and its mean square.
 *
 * Source: w″ + w = −(n/π)·P·Σ cos(jnθ)/((jn)² − 1) for one roller a lobe, the sum in closed form ½ − (π/2n)·cos(π/n −
 * θ)/sin(π/n) between rollers.
 */
export function pressedBending(lobes: number, groups: readonly RollerGroup[]): { most: number; square: number } {
  const period = (2 * Math.PI) / lobes;
  const one = (angle: number) => {
    const t = angle - period * Math.floor(angle / period);
    return (
      (lobes / Math.PI) * (0.5 - ((Math.PI / (2 * lobes)) * Math.cos(Math.PI / lobes - t)) / Math.sin(Math.PI / lobes))
    );
  };
  const single = (a: number) => a === 0 || Math.abs(a - period / 2) < 1e-9;
  const bend = (t: number) =>
    groups.reduce(
      (s, g) => s + g.force * (single(g.angle) ? one(t - g.angle) : one(t - g.angle) + one(t + g.angle)),
      0,
    );
  const n = 720;
  let [most, square] = [0, 0];
  for (let i = 0; i <= n; i++) {
    const b = bend((period * i) / n);
    most = Math.max(most, Math.abs(b));
    square += (b * b) / (i === 0 || i === n ? 2 * n : n);
  }
  // The kinks under the rollers are where it is greatest.
  for (const g of groups) if (g.force > 0) most = Math.max(most, Math.abs(bend(g.angle)));
  const plain = lobes * lobes - 1;
  return { most: most / plain, square: square / ((plain * plain) / 2) };
}

/** Solves a small dense system by elimination with pivots. */
function solve(a: number[][], b: number[]): number[] {
  const n = b.length;
  for (let i = 0; i < n; i++) {
    let p = i;
    for (let k = i + 1; k < n; k++) if (Math.abs(a[k]![i]!) > Math.abs(a[p]![i]!)) p = k;
    [a[i], a[p], b[i], b[p]] = [a[p]!, a[i]!, b[p]!, b[i]!];
    for (let k = i + 1; k < n; k++) {
      const f = a[k]![i]! / a[i]![i]!;
      for (let j = i; j < n; j++) a[k]![j]! -= f * a[i]![j]!;
      b[k]! -= f * b[i]!;
    }
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let j = i + 1; j < n; j++) b[i]! -= a[i]![j]! * b[j]!;
    b[i]! /= a[i]![i]!;
  }
  return b;
}

/**
 * A ring over `count` rollers evenly placed on the contour cos nθ, the first at a lobe's top. Rollers can only push:
 * those from which the ring lifts off have a gap instead of a force.
 *
 * @param count a multiple of the lobes, so that forces balance
 * Source: one-sided contact of a linear ring by active sets: rollers that would have to pull are let go, those that the
 * ring would run into are taken back.
 */
export function manyRollers(lobes: number, count: number): Pressed {
  const per = count / lobes;
  // By symmetry half of a lobe's rollers hold all there is.
  const angles = Array.from({ length: Math.floor(per / 2) + 1 }, (_, i) => (2 * Math.PI * i) / count);
  const one = pressedAtPoints(lobes);
  const bases = angles.map((a, i) =>
    i === 0 || (per % 2 === 0 && i === angles.length - 1)
      ? combined([[spreadApart(one, a), 0.5]])
      : spreadApart(one, a),
  );
  const wanted = angles.map((a) => Math.cos(lobes * a));
  let active = angles.map((_, i) => wanted[i]! > 0);
  let forces = angles.map(() => 0);
  for (let round = 0; round < 60; round++) {
    const on = active.flatMap((x, i) => (x ? [i] : []));
    const f = solve(
      on.map((i) => on.map((j) => at(bases[j]!, angles[i]!))),
      on.map((i) => wanted[i]!),
    );
    forces = angles.map(() => 0);
    on.forEach((i, k) => (forces[i] = f[k]!));
    const worst = on.reduce((w, i) => (forces[i]! < forces[w]! ? i : w), on[0]!);
    if (forces[worst]! < -1e-12) {
      active = active.map((x, i) => x && i !== worst);
      continue;
    }
    const series = combined(bases.map((b, i) => [b, forces[i]!] as const));
    const gaps = angles.map((a, i) => at(series, a) - wanted[i]!);
    const deepest = gaps.reduce((w, g, i) => (!active[i] && g < gaps[w]! ? i : w), 0);
    if (active[deepest] || gaps[deepest]! > -1e-9)
      return {
        series,
        groups: angles.map((angle, i) => ({
          angle,
          force: Math.max(0, forces[i]!),
          gap: active[i] ? 0 : Math.max(0, gaps[i]!),
        })),
      };
    active = active.map((x, i) => x || i === deepest);
  }
  return {
    series: combined(bases.map((b, i) => [b, Math.max(0, forces[i]!)] as const)),
    groups: angles.map((angle, i) => ({ angle, force: Math.max(0, forces[i]!), gap: 0 })),
  };
}
