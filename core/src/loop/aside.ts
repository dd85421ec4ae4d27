import type { Wheel } from './path.ts';

/**
 * A wheel that presses a run between two others aside, from inside the loop or on its outside.
 *
 * @param r1 radius of the wheel at the origin, m
 * @param r2 radius of the one at (c, 0), m
 * @param r its own radius, m
 * @param along where it stands, from the first wheel, as a share of the run
 * @param push how far the run is moved, m
 * @param run the lower (−1) or the upper one (1)
 * @example asideOf(0.01, 0.01, 0.1, 0.005, 'inside', 0.5, 0.001, -1) // { x: 0.05, y: -0.006, r: 0.005, sense: 1 }
 */
export function asideOf(
  r1: number,
  r2: number,
  c: number,
  r: number,
  from: 'inside' | 'outside',
  along: number,
  push: number,
  run: 1 | -1,
): Wheel {
  const lean = (r1 - r2) / c;
  const heading = Math.asin(Math.max(-1, Math.min(1, lean)));
  const length = c * Math.sqrt(Math.max(0, 1 - lean * lean));
  // From the straight run's point to the wheel's centre: an inside one sits within the loop and presses outwards.
  const side = from === 'inside' ? 1 : -1;
  const off = side * (r - push);
  const x = r1 * Math.sin(heading) + along * length * Math.cos(heading) - off * Math.sin(heading);
  const y = -r1 * Math.cos(heading) + along * length * Math.sin(heading) + off * Math.cos(heading);
  return { x, y: run < 0 ? y : -y, r, sense: side };
}

/**
 * The way in which such a wheel presses its run, as a unit.
 *
 * @example asideWay(0.01, 0.01, 0.1, 'inside', -1) // [0, -1]
 */
export function asideWay(
  r1: number,
  r2: number,
  c: number,
  from: 'inside' | 'outside',
  run: 1 | -1,
): readonly [number, number] {
  const lean = Math.max(-1, Math.min(1, (r1 - r2) / c));
  const side = from === 'inside' ? 1 : -1;
  return [side * lean || 0, side * run * Math.sqrt(1 - lean * lean)];
}
