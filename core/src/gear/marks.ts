import { circle, ORIGIN, segment, type Outline, type Pose } from '../shape/outline.ts';
import type { DrawItem } from '../stage/contract.ts';
import type { GearSize } from './gear.ts';
import type { Pair } from './pair.ts';

/** Pitch, base and tip circles of a wheel. */
export function gearCircles(key: string, s: GearSize, working: number, at: Pose): DrawItem[] {
  const one = (name: string, r: number, ink: 'pitch' | 'hidden' | 'centre'): DrawItem => ({
    kind: 'curve',
    key: `${key}-${name}`,
    outline: known(r),
    at,
    ink,
    tint: 'none',
  });
  return [one('pitch', working, 'pitch'), one('base', s.rb, 'hidden'), one('tip', s.ra, 'centre')];
}

// The same radius is the same outline, so that a turning drawing keeps its paths.
const circles = new Map<number, Outline>();
function known(r: number): Outline {
  let c = circles.get(r);
  if (!c) {
    if (circles.size > 200) circles.clear();
    circles.set(r, (c = circle(0, 0, r)));
  }
  return c;
}

/**
 * The line of action of a mesh and the points where teeth touch now.
 *
 * @param at centre of wheel 1
 * @param tooth where a tooth of wheel 1 stands, from the line of centres, rad
 * @param place direction from wheel 1's centre to wheel 2's, rad
 * @param side +1 where wheel 1 pushes counter-clockwise (or holds what comes clockwise), −1 the other way
 * Source: the common normal of two involutes is the common tangent of their base circles.
 */
export function contactMarks(key: string, p: Pair, at: Pose, tooth: number, place: number, side: number): DrawItem[] {
  const { rb, halfBase } = p.s1;
  const pitch = (2 * Math.PI) / p.g1.teeth;
  const foot = -p.working;
  const [c, s] = [Math.cos(place), Math.sin(place)];
  const put = (length: number): [number, number] => {
    const x = rb * Math.cos(foot) - length * Math.sin(foot);
    const y = side * (rb * Math.sin(foot) + length * Math.cos(foot));
    return [at.x + c * x - s * y, at.y + s * x + c * y];
  };
  const [a, b] = [put(p.start), put(p.end)];
  const items: DrawItem[] = [
    {
      kind: 'curve',
      key: `${key}-line`,
      outline: segment(a[0], a[1], b[0], b[1]),
      at: ORIGIN,
      ink: 'force',
      tint: 'none',
    },
  ];
  // A tooth's front flank touches where its own involute has unrolled as far as the line: t = τ + half the base tooth +
  // α_w.
  const first = side * tooth + halfBase + p.working;
  for (let k = Math.ceil((p.start / rb - first) / pitch); first + k * pitch <= p.end / rb; k++) {
    const [x, y] = put(rb * (first + k * pitch));
    items.push({
      kind: 'curve',
      key: `${key}-c${((k % p.g1.teeth) + p.g1.teeth) % p.g1.teeth}`,
      outline: known(p.g1.module * 0.09),
      at: { x, y, turn: 0 },
      ink: 'contact',
      tint: 'none',
    });
  }
  return items;
}
