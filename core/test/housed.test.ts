import { describe, expect, it } from 'vitest';
import { reducerChecks, stageKinds, type Reducer, type Variant } from '../src/index.ts';
import { envelopeOf } from '../src/reducer/around.ts';
import { sweptBy, type Body } from '../src/reducer/body.ts';
import { insideOf } from '../src/reducer/cut-line.ts';
import { pointIn, type Frame, type Vec } from '../src/reducer/frame.ts';
import { alongOf, radiiOf, reachOf } from '../src/reducer/reach.ts';
import { opened } from '../src/reducer/sliced.ts';
import { flatten } from '../src/shape/flatten.ts';
import { area, circle, type Outline } from '../src/shape/outline.ts';
import { solidVolume, type Prism, type Solid } from '../src/shape/solid.ts';
import { anyStages } from './any-stage.ts';
import { dice } from './helpers.ts';
import { made, ofKind } from './reducer-bench.ts';

// Whether what is made round stages is a thing at all: plates with holes that lie in them, beside one another.

const lineOf = (...stages: readonly (readonly [string, Record<string, unknown>])[]): Variant =>
  ({ ...ofKind('spur'), stages: stages.map(([kind, params], i) => ({ id: `s${i}`, kind, params })) }) as Variant;

/** A reducer, or nothing where its stages refuse. */
const reducerOrNone = (v: Variant): Reducer | undefined => {
  try {
    return made(v);
  } catch {
    return undefined;
  }
};

const points = (o: Outline): [number, number][] => {
  const p = flatten(o, 2e-6);
  return Array.from({ length: p.length / 2 }, (_, i) => [p[2 * i]!, p[2 * i + 1]!]);
};

/** What of a reducer's housing no printer could make: holes beyond an outline, or in one another; sizes that are none. */
function unsound(r: Reducer): string[] {
  const out: string[] = [];
  for (const b of r.bodies.filter((x) => x.of === 'case'))
    for (const [k, p] of b.solid().prisms.entries()) {
      const told = `${b.id}, prism ${k}`;
      if (![p.from, p.to, ...p.outer.points, ...p.holes.flatMap((h) => [...h.points])].every(Number.isFinite))
        out.push(`${told}: no number`);
      if (!(p.to > p.from)) out.push(`${told}: no height`);
      p.holes.forEach((h, j) => {
        const edge = points(h);
        if (edge.some(([x, y]) => !insideOf(p.outer, x, y))) out.push(`${told}: hole ${j} beyond its outline`);
        p.holes.forEach((other, i) => {
          if (i !== j && edge.some(([x, y]) => insideOf(other, x, y))) out.push(`${told}: hole ${j} in hole ${i}`);
        });
      });
    }
  return out;
}

/** Pieces whose middles leave what they are said to sweep, however far the motor has turned. */
function strays(r: Reducer): string[] {
  return r.bodies
    .filter((b) => b.of === 'stage' && b.places(0).every((f) => Math.abs(f.z[2]) > 0.5))
    .filter((b) => {
      const { rounds } = sweptBy(b);
      const round = b.solid().prisms.every((p) => insideOf(p.outer, 0, 0));
      return [2.9, 7.7, 31.3, 123.4].some((crank) =>
        b
          .places(crank)
          .some(({ at }) => round && !rounds.some((o) => Math.hypot(at[0] - o.x, at[1] - o.y) < o.r + 1e-7)),
      );
    })
    .map((b) => b.id);
}

describe('a housing', () => {
  for (const kind of stageKinds())
    it(`can be made round any stage that goes, and what turns in it stays in its room: ${kind.id}`, () => {
      let seen = 0;
      for (const { params } of anyStages(kind, 4, 3)) {
        const r = reducerOrNone(lineOf([kind.id, params]));
        if (!r) continue;
        seen++;
        expect(unsound(r)).toEqual([]);
        // What runs straight leaves on purpose.
        if (!kind.straight) expect(strays(r)).toEqual([]);
      }
      expect(seen).toBeGreaterThan(0);
    });

  it('of rollers that go in and out is as wide as their ring, not as a circle through three of their places', () => {
    for (const { params } of anyStages(
      stageKinds().find((k) => k.id === 'roller-wave')!,
      6,
      3,
    )) {
      const r = reducerOrNone(lineOf(['roller-wave', params]));
      if (!r) continue;
      const { across } = envelopeOf(r)!;
      const ring = r.bodies.find((b) => b.id.startsWith('stage1/ring'))!;
      const outside = Math.max(r.face.circle, 2 * radiiOf(ring.solid().prisms[0]!.outer).most);
      expect(Math.max(...across)).toBeLessThan(outside + 0.05);
    }
  });

  it('stands round the stages before one that goes across just as it does where they are alone', () => {
    const start = (id: string) => ofKind(id).stages[0]!.params as Record<string, unknown>;
    for (const first of ['planetary', 'belt', 'cycloidal', 'spur']) {
      const alone = made(lineOf([first, start(first)]));
      for (const second of ['bevel', 'worm', 'rack', 'screw']) {
        const r = made(lineOf([first, start(first)], [second, start(second)]));
        const stage = r.layout.stages[0]!;
        expect(unsound(r)).toEqual([]);
        const cases = r.bodies.filter((b) => b.of === 'case');
        expect(cases.length).toBeGreaterThan(3);
        // What hangs on a flange has a shaft to go on by, in a bearing of the cover; alone it has none.
        const hung = r.plan!.links[0]!.hub;
        expect(cases.some((b) => b.id === 'case/hub-1')).toBe(hung);
        expect(cases.some((b) => b.id.startsWith('case/bearing'))).toBe(true);
        for (const b of cases) {
          // As they would lie, and across the axis of the stage that they stand round.
          const same = alone.bodies.find((x) => x.id === b.id);
          // A shaft is as long as what it drives asks; a hub and its bearing take room.
          if (!b.id.startsWith('case/shaft') && (!hung || b.id === 'case/plate-motor'))
            expect(solidVolume(b.solid()), `${first} > ${second}, ${b.id}`).toBeCloseTo(solidVolume(same!.solid()), 12);
          for (const f of b.places(0)) {
            const [x, y, z] = stage.frame.z;
            expect(Math.abs(f.z[0] * x + f.z[1] * y + f.z[2] * z)).toBeCloseTo(1, 9);
          }
        }
        // The motor's face lies on its plate, its shaft on the stage's axis.
        const [motor, plate] = ['motor/body', 'case/plate-motor'].map(
          (id) => r.bodies.find((b) => b.id === id)!.places(0)[0]!,
        );
        const off = motor!.at.map((v, i) => v - plate!.at[i]!) as [number, number, number];
        expect(off[0] * plate!.z[0] + off[1] * plate!.z[1] + off[2] * plate!.z[2]).toBeCloseTo(0, 9);
        // The envelope is that of the points of motor, plates and walls, wherever they lie.
        const box = envelopeOf(r)!;
        const at = r.bodies
          .filter(
            (b) => /^(motor\/body|case\/(plate|cover|wall))/.test(b.id) || (b.of === 'stage' && b.turns === 'fixed'),
          )
          .flatMap((b) =>
            b
              .places(0)
              .flatMap((f) =>
                b
                  .solid()
                  .prisms.flatMap((p) =>
                    points(p.outer).flatMap(([px, py]) => [p.from, p.to].map((z) => pointIn(f, [px, py, z]))),
                  ),
              ),
          );
        const wide = [0, 1, 2].map(
          (k) => at.reduce((m, v) => Math.max(m, v[k]!), -1) - at.reduce((m, v) => Math.min(m, v[k]!), 1),
        );
        expect(box.across[0]).toBeCloseTo(wide[0]!, 5);
        expect(box.across[1]).toBeCloseTo(wide[1]!, 5);
        expect(box.to - box.from).toBeCloseTo(wide[2]!, 5);
      }
    }
  });
});

describe('what is made round a stage', () => {
  /** A point of the line in a piece's own frame. */
  const own = (f: Frame, at: Vec): Vec => {
    const d = at.map((v, i) => v - f.at[i]!);
    return [f.x, f.y, f.z].map((e) => e[0] * d[0]! + e[1] * d[1]! + e[2] * d[2]!) as unknown as Vec;
  };
  const NEAR = 3e-5;
  /** Whether a point lies in material, and not as near to a face as fits are. */
  const within = (solid: Solid, [x, y, z]: Vec): boolean => {
    const inPlane = (p: Prism, dx: number, dy: number): boolean => {
      const turn = -((p.turn ?? 0) + (p.twist * (z - p.from)) / (p.to - p.from));
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      const [a, b] = [c * x - s * y + dx, s * x + c * y + dy];
      return insideOf(p.outer, a, b) && !p.holes.some((h) => insideOf(h, a, b));
    };
    const near = (p: Prism) => z > p.from - NEAR && z < p.to + NEAR;
    const cuts = solid.prisms.filter((p) => p.cut && near(p));
    return solid.prisms.some((p) => {
      if (p.cut || z < p.from + NEAR || z > p.to - NEAR) return false;
      const inside = (dx: number, dy: number) => inPlane(p, dx, dy) && !cuts.some((k) => inPlane(k, dx, dy));
      return [
        [NEAR, 0],
        [-NEAR, 0],
        [0, NEAR],
        [0, -NEAR],
      ].every(([dx, dy]) => inside(dx!, dy!));
    });
  };
  /** The box about the axes of the line that a piece lies in. */
  const boxOf = (solid: Solid, f: Frame): [Vec, Vec] => {
    const [low, high] = alongOf(solid);
    const r = reachOf(solid);
    const corners = [-r, r].flatMap((x) => [-r, r].flatMap((y) => [low, high].map((z) => pointIn(f, [x, y, z]))));
    const of = (pick: (...v: number[]) => number) =>
      [0, 1, 2].map((k) => pick(...corners.map((c) => c[k]!))) as unknown as Vec;
    return [of(Math.min), of(Math.max)];
  };

  /** Pairs of the housing and of what turns in it that stand in one another, by points of the room that both might take. */
  function standing(r: Reducer, crank: number, of = (b: Body): boolean => b.of === 'case'): string[] {
    const roll = dice(9);
    const out = new Set<string>();
    for (const a of r.bodies.filter(of))
      for (const b of r.bodies) {
        if (of(b) || b.flexes || a.joins?.includes(b.id) || b.joins?.includes(a.id)) continue;
        for (const fa of a.places(crank).slice(0, 2))
          for (const fb of b.places(crank).slice(0, 3)) {
            const [[la, ha], [lb, hb]] = [boxOf(a.solid(), fa), boxOf(b.solid(), fb)];
            const [low, high] = [la.map((v, k) => Math.max(v, lb[k]!)), ha.map((v, k) => Math.min(v, hb[k]!))];
            if (low.some((v, k) => v >= high[k]!)) continue;
            for (let n = 0; n < 30; n++) {
              const at = low.map((v, k) => v + (roll(1e6) / 1e6) * (high[k]! - v)) as unknown as Vec;
              if (within(a.solid(), own(fa, at)) && within(b.solid(), own(fb, at))) out.add(`${a.id} in ${b.id}`);
            }
          }
      }
    return [...out];
  }

  for (const kind of stageKinds())
    it(`stands in nothing of it, nor in the motor: ${kind.id}`, () => {
      for (const { params } of anyStages(kind, 3, 17)) {
        const v = lineOf([kind.id, params]);
        const r = reducerOrNone(v);
        if (!r) continue;
        const told = reducerChecks(r, v).some((c) => c.id === 'motor-room' && c.state === 'fails');
        for (const crank of [0, 1.3])
          expect(standing(r, crank).filter((x) => !(told && x.endsWith('motor/shaft')))).toEqual([]);
      }
    });

  for (const kind of stageKinds().filter((k) => k.id !== 'unit'))
    it(`or, where nothing is, leaves the motor clear of it: ${kind.id}`, () => {
      for (const { params } of anyStages(kind, 4, 5)) {
        const { housing: _, ...v } = lineOf([kind.id, params]);
        const r = reducerOrNone(v);
        if (r) expect(standing(r, 0.4, (b) => b.id === 'motor/body')).toEqual([]);
      }
    });

  it('says where what stands still is inside of what turns, and makes no ring round it', () => {
    const turned = { ...ofKind('roller-wave').stages[0]!.params, held: 'cage' };
    const v = lineOf(['roller-wave', turned]);
    const r = made(v);
    expect(r.bodies.some((b) => b.id.startsWith('case/holder'))).toBe(false);
    const told = reducerChecks(r, v).find((c) => c.id === 'inside-1')!;
    expect(told).toMatchObject({ state: 'fails', severity: 'warn' });
    expect(told.name).toContain('cage');
    const held = lineOf(['roller-wave', ofKind('roller-wave').stages[0]!.params as Record<string, unknown>]);
    expect(reducerChecks(made(held), held).some((c) => c.id === 'inside-1')).toBe(false);
  });
});

describe('holes that meet', () => {
  const r = 5e-3;
  it('are one where one lies in the other', () => {
    expect(opened([circle(0, 0, r), circle(1e-3, 0, 2e-3)]).map((o) => Math.abs(area(o)))).toEqual([
      expect.closeTo(Math.PI * r * r, 12),
    ]);
    expect(opened([circle(1e-3, 0, 2e-3), circle(0, 0, r)])).toHaveLength(1);
  });

  it('are a slot where they overlap, and a third joins what it reaches', () => {
    const [one] = opened([circle(0, 0, r), circle(6e-3, 0, r)]);
    expect(Math.abs(area(one!))).toBeCloseTo(Math.PI * r * r + 6e-3 * 2 * r, 12);
    const three = opened([circle(0, 0, r), circle(12e-3, 0, r), circle(6e-3, 0, r)]);
    expect(three.map((o) => Math.abs(area(o)))).toEqual([expect.closeTo(Math.PI * r * r + 12e-3 * 2 * r, 12)]);
  });

  it('stay two where they stand apart', () => {
    expect(opened([circle(0, 0, r), circle(10.01e-3, 0, r)])).toHaveLength(2);
  });
});
