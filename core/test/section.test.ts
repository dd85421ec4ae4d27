import { describe, expect, it } from 'vitest';
import { bestAngle, sectionOf, stageKinds, type Reducer, type Variant } from '../src/index.ts';
import { flatten } from '../src/shape/flatten.ts';
import type { Prism } from '../src/shape/solid.ts';
import { dice } from './helpers.ts';
import { active, DEMOS, keyedLine, made, ofKind } from './reducer-bench.ts';

// What a section shows, against the bodies themselves: points of its plane are carried into each piece's own frame and asked
// whether they lie in its outlines as polygons.

type Point = readonly [number, number];
const CHORD = 1e-7;
/** How near an edge a point may lie and be of either side, m. */
const NEAR = 2e-6;

const polygons = new WeakMap<object, Float64Array>();
function polygon(o: Prism['outer']): Float64Array {
  const had = polygons.get(o);
  if (had) return had;
  const made = Float64Array.from(flatten(o, CHORD));
  polygons.set(o, made);
  return made;
}

const fars = new WeakMap<Float64Array, number>();
/** How far a polygon reaches from the middle, m. */
function farOf(poly: Float64Array): number {
  let far = fars.get(poly);
  if (far === undefined) {
    far = 0;
    for (let i = 0; i < poly.length; i += 2) far = Math.max(far, Math.hypot(poly[i]!, poly[i + 1]!));
    fars.set(poly, far);
  }
  return far;
}

/** Whether a polygon goes round a point, by the crossings of a ray; and how far its nearest edge is. */
function within(poly: Float64Array, [x, y]: Point): { inside: boolean; off: number } {
  let [inside, off] = [false, Infinity];
  const reach = farOf(poly) + 1e-4;
  if (x * x + y * y > reach * reach) return { inside, off };
  const n = poly.length / 2;
  for (let i = 0, j = n - 1; i < n; j = i++) {
    const [ax, ay, bx, by] = [poly[2 * j]!, poly[2 * j + 1]!, poly[2 * i]!, poly[2 * i + 1]!];
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
    const [dx, dy] = [bx - ax, by - ay];
    const l = dx * dx + dy * dy;
    const t = l > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / l)) : 0;
    off = Math.min(off, Math.hypot(x - ax - t * dx, y - ay - t * dy));
  }
  return { inside, off };
}

/** What is at a point of a prism's own frame: its material, nothing, or an edge too near to say. */
function at(p: Prism, [x, y, z]: readonly [number, number, number]): 'in' | 'out' | 'edge' {
  if (z < p.from - NEAR || z > p.to + NEAR) return 'out';
  const turn = -((p.turn ?? 0) + p.twist / 2);
  const q: Point = [Math.cos(turn) * x - Math.sin(turn) * y, Math.sin(turn) * x + Math.cos(turn) * y];
  const outer = within(polygon(p.outer), q);
  const holes = p.holes.map((h) => within(polygon(h), q));
  if ([outer, ...holes].some((e) => e.off < NEAR)) return 'edge';
  const solid = outer.inside && !holes.some((h) => h.inside);
  if (!solid) return 'out';
  return z < p.from + NEAR || z > p.to - NEAR ? 'edge' : 'in';
}

const toothed = (p: Prism): boolean => [p.outer, ...p.holes].some((o) => o.points.length / 3 > 40);

/**
 * Points of the plane where the section and the bodies differ. Teeth are shown to their tips, and what lies across is shown
 * as wide as it is: there what is shown may be more than what is cut, and never less.
 */
function differs(r: Reducer, crank: number, angle: number, count: number, seed: number): string[] {
  const section = sectionOf(r, crank, angle);
  const roll = dice(seed);
  const next = () => roll(1e6) / 1e6;
  const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
  const out: string[] = [];
  for (const body of r.bodies) {
    const region = section.regions.find((x) => x.body === body);
    if (region?.turnedIn) continue;
    const frames = body.places(crank);
    const { prisms } = body.solid();
    // Only what lies neither in the plane nor across it is told by how wide it is.
    const lies = frames.some((f) => Math.abs(f.z[2]) < 0.5 && Math.abs(-uy * f.z[0] + ux * f.z[1]) > 1e-6);
    const more = lies || body.flexes || prisms.some((p) => (!p.cut && toothed(p)) || p.twist !== 0);
    const rects = region?.rects ?? [];
    const far = Math.max(...frames.map((f) => Math.hypot(...f.at))) + 0.03;
    for (let k = 0; k < count; k++) {
      // Near what is shown, and anywhere.
      const near = rects[Math.floor(next() * rects.length)];
      const [u, z] =
        near && k % 2 === 0
          ? [
              near.u0 + (1.3 * next() - 0.15) * (near.u1 - near.u0),
              near.z0 + (1.3 * next() - 0.15) * (near.z1 - near.z0),
            ]
          : [far * (2 * next() - 1), far * (2 * next() - 1)];
      const found = frames.flatMap((f) => {
        const d = [ux * u - f.at[0], uy * u - f.at[1], z - f.at[2]] as const;
        const own = [f.x, f.y, f.z].map((v) => v[0] * d[0] + v[1] * d[1] + v[2] * d[2]) as [number, number, number];
        const cuts = prisms.filter((p) => p.cut).map((p) => at(p, own));
        const whole = prisms.filter((p) => !p.cut).map((p) => at(p, own));
        return cuts.includes('edge') ? ['edge'] : cuts.includes('in') ? ['out'] : whole;
      });
      if (found.includes('edge')) continue;
      const is = found.includes('in');
      const shown = rects.some((x) => x.u0 < u && u < x.u1 && x.z0 < z && z < x.z1);
      if (is !== shown && !(more && shown))
        out.push(`${body.id} at ${u}, ${z}: ${is ? 'cut' : 'not cut'}, ${shown ? '' : 'not '}shown`);
    }
  }
  return out;
}

/** A housed stage, and one behind it that goes across. */
const crossing = (first: string, second: string): Variant => ({
  ...ofKind(first),
  stages: [...ofKind(first).stages, { ...ofKind(second).stages[0]!, id: 't' }],
});

describe('a section through an axis beside the output’s', () => {
  it('turns planets into the plane about their own axis, whichever way that stands off', () => {
    const planetary = ofKind('planetary').stages[0]!;
    const belt = ofKind('belt').stages[0]!;
    for (const turn of [0.6, 2.4]) {
      const v: Variant = {
        ...ofKind('planetary'),
        stages: [planetary, { ...belt, id: 'b' }, { ...belt, id: 'c', turn }],
      };
      const r = made(v);
      const [x, y] = r.layout.stages[0]!.frame.at;
      expect(Math.min(Math.abs(x), Math.abs(y))).toBeGreaterThan(0.01);
      const through = Math.atan2(y, x);
      // A little on from where planets stand, so that none is in the plane by itself.
      const seen = sectionOf(r, 0.37, through).regions.filter((g) => /stage1\/planet/.test(g.body.id));
      expect(seen.length, `${turn}`).toBeGreaterThan(0);
      expect(seen.some((g) => g.turnedIn)).toBe(true);
      const about = Math.hypot(x, y);
      for (const g of seen)
        for (const rect of g.rects) expect(Math.abs((rect.u0 + rect.u1) / 2)).toBeLessThan(about + 0.05);
    }
  });
});

describe('a section shows what its plane cuts', () => {
  const lines: readonly (readonly [string, Variant])[] = [
    ...stageKinds().map((k) => [k.id, ofKind(k.id)] as const),
    ...DEMOS.map((j) => [j.name, active(j)] as const),
    ['two spur stages on keys', keyedLine()],
    ['a belt before a bevel pair', crossing('belt', 'bevel')],
    ['planets before a worm', crossing('planetary', 'worm')],
  ];
  it.each(lines)('%s', (_, v) => {
    const r = made(v);
    // Lines whose axes cross are only ever cut along the way that shows most.
    const cuts = [
      [0, bestAngle(r)],
      [0.3, bestAngle(r)],
      [1.1, 0.7],
      [2.2, -1.9],
    ] as const;
    for (const [crank, angle] of r.layout.parallel ? cuts : cuts.slice(0, 2))
      expect(differs(r, crank, angle, 16, 5)).toEqual([]);
  });
});
