import Kernel, { type ManifoldToplevel } from 'manifold-3d';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  nested,
  placeFrame,
  sectionOf,
  stageKinds,
  undone,
  type Body,
  type Frame,
  type Reducer,
  type Variant,
} from '../src/index.ts';
import { clashesOf, CRANKS, endsTakenBack } from '../src/reducer/clashes.ts';
import { isRound, poseOf } from '../src/reducer/pose.ts';
import { meshSolid } from '../src/solid/index.ts';
import { cut, prism } from '../src/shape/solid.ts';
import { circle } from '../src/shape/outline.ts';
import { joint, DEMOS, active, body, ofKind, made, fitted, keyedLine, twoOf } from './reducer-bench.ts';

describe('what stands in what', () => {
  let kernel: ManifoldToplevel;
  beforeAll(async () => {
    kernel = await Kernel();
    kernel.setup();
  });

  function clashes(r: Pick<Reducer, 'bodies'>, cranks = CRANKS, within?: number) {
    const run = clashesOf(kernel, r.bodies, cranks, within);
    let step = run.next();
    while (!step.done) {
      expect(step.value.share).toBeLessThanOrEqual(1);
      step = run.next();
    }
    return step.value;
  }

  const says = (r: Reducer, cranks = CRANKS) =>
    clashes(r, cranks, 0).clashes.map((c) => `${c.a} in ${c.b}: ${c.volume.toFixed(3)} mm³ at ${c.crank.toFixed(2)}`);

  it.each(DEMOS.map((j) => [j.name, active(j)] as const))(
    'nothing does in %s, at a dozen angles and more',
    (_, v) => {
      const { clashes: found, near } = clashes(made(v));
      expect(found).toEqual([]);
      // What moves past what stands keeps half of the gap that the housing is made with; a shaft in its plate too.
      const least = v.housing ? v.housing.gap / 2 : 0;
      for (const n of near) expect(n.gap, `${n.a} to ${n.b}`).toBeGreaterThan(least - 2e-5);
      expect(near.map((n) => n.gap)).toEqual(near.map((n) => n.gap).sort((a, b) => a - b));
    },
    120_000,
  );

  it.each(stageKinds().map((k) => [k.id, ofKind(k.id)] as const))(
    'nothing does in a %s as it starts, with its motor and its housing',
    (_, v) => {
      expect(says(made(fitted(v)), CRANKS.slice(0, 4))).toEqual([]);
    },
    120_000,
  );

  it.each([
    { shaft: 0 },
    { plates: 2, layout: 'both' },
    { plates: 2, shaft: 0 },
    { plates: 4, layout: 'one', shaft: 0 },
  ])('nothing does in a ring plate with %o, its cranks borne in its housing', (more) => {
    const v = ofKind('ring-plate', 20);
    const params = { ...(v.stages[0]!.params as object), ...more };
    expect(says(made(fitted({ ...v, stages: [{ ...v.stages[0]!, params }] })), CRANKS.slice(0, 2))).toEqual([]);
  });

  it.each([
    ['cycloidal', 20, { discs: 3 }],
    ['cycloidal', 10, { discs: 3, held: 'disc' }],
    ['planetary', 25, { sets: 2, helix: 0.3 }],
    ['planetary', 5, { helix: 0.3, double: 'yes' }],
    ...['sun', 'planets', 'ring'].map(
      (takenOut) => ['planetary', 5, { helix: 0.3, double: 'yes', takenOut, preload: 5 }] as const,
    ),
    ['planetary', 5, { helix: 0.3, takenOut: 'ring', preload: 5 }],
    ['compound-planetary', 20, { helix: 0.3, double: 'yes', drive: 'carrier' }],
    ['spur', 5, { helix: 0.3, double: 'yes', takenOut: 'split', preload: 5 }],
    ['rack', 5, { helix: 0.3 }],
    ['rack', 5, { helix: 0.3, double: 'yes' }],
    ['rack', 5, { helix: 0.3, double: 'yes', takenOut: 'split', preload: 5 }],
    ['spur', 5, { helix: 0.3, idlers: 3 }],
    ['spur', 5, { helix: 0.3, idlers: 2, double: 'yes' }],
  ] as const)('nothing does in the teeth of a %s 1:%d with %o', (kind, ratio, params) => {
    const { housing: _, ...v } = ofKind(kind, ratio);
    const [stage] = v.stages;
    const r = made({ ...v, stages: [{ ...stage!, params: { ...(stage!.params as object), ...params } }] });
    expect(says({ ...r, bodies: r.bodies.filter((b) => b.of === 'stage') }, CRANKS.slice(0, 2))).toEqual([]);
  });

  it.each([
    ['planetary', 'planetary'],
    ['planetary', 'unit'],
    ['spur', 'strain-wave'],
    ['cable', 'rack'],
    ['worm', 'ring-plate'],
    ['bevel', 'roller-wave'],
    ['worm', 'strain-wave'],
    ['bevel', 'cycloidal'],
    ['bevel', 'planetary'],
  ])('nothing does in a %s with a %s behind it', (a, b) => {
    expect(says(made(twoOf(a, b)), CRANKS.slice(0, 2))).toEqual([]);
  });

  it.each([
    ['worm', 60],
    ['bevel', 1],
  ])('nothing does in a %s of %d : 1 on posts', (kind, ratio) => {
    const v = ofKind(kind, ratio);
    expect(says(made(fitted({ ...v, housing: { ...v.housing!, sides: 'posts' } })), CRANKS.slice(0, 2))).toEqual([]);
  });

  it('nothing does where a wide stage follows one that turns power aside behind a housing: it stands past that', () => {
    const [first, last] = [twoOf('planetary', 'bevel'), twoOf('bevel', 'ring-plate')];
    const three = { ...first, stages: [...first.stages, { ...last.stages[1]!, id: 'z' }] };
    const r = made(three);
    expect(says(r, CRANKS.slice(0, 1))).toEqual([]);
    // The housing is told where its own stage stands, wherever what follows has come to.
    const [wall, ring] = [body(r, 'case/wall-1').places(0)[0]!, body(r, 'stage1/ring').places(0)[0]!];
    const across = [0, 1, 2].map((i) => (wall.at[i]! - ring.at[i]!) * (1 - Math.abs(ring.z[i]!)));
    expect(Math.hypot(...across)).toBeLessThan(1e-9);
  }, 120_000);

  /** Area that a plane through the line's axis cuts of a body, by its surface, mm². */
  function cutArea(b: Body, crank: number, angle: number): number {
    const mesh = meshSolid(kernel, b.solid(), 1e-5)!;
    const own = new kernel.Manifold(
      new kernel.Mesh({ numProp: 3, vertProperties: mesh.vertices, triVerts: mesh.triangles }),
    );
    let area = 0;
    for (const f of b.places(crank)) {
      const at = f.at.map((x) => x * 1e3);
      const placed = own.transform([...f.x, 0, ...f.y, 0, ...f.z, 0, at[0]!, at[1]!, at[2]!, 1]);
      // The plane is laid flat: turned about the axis until it is upright, then tipped over.
      const flat = placed.rotate([0, 0, (-angle * 180) / Math.PI]).rotate([90, 0, 0]);
      area += flat.slice(1e-7).area();
    }
    return area;
  }

  it.each(DEMOS.map((j) => [j.name, active(j)] as const))(
    'the section of %s cuts of every body what its surface does, at any angle of crank and plane',
    (_, v) => {
      const r = made(v);
      for (const [crank, angle] of [
        [0, 0],
        [0.7, 0.4],
        [2.2, 1.9],
      ] as const) {
        const { regions } = sectionOf(r, crank, angle);
        for (const b of r.bodies) {
          // Teeth are shown to their tips, and what is turned in stands elsewhere: both on purpose.
          const region = regions.find((x) => x.body === b);
          const upright = b.places(0).every((f) => Math.abs(f.z[2]) > 0.5);
          if (!upright || b.flexes || region?.turnedIn || region?.roots.length) continue;
          const told = (region?.rects ?? []).reduce((s, x) => s + (x.u1 - x.u0) * (x.z1 - x.z0) * 1e6, 0);
          const own = cutArea(b, crank, angle);
          expect(Math.abs(told - own), `${b.id}: ${told} told, ${own} cut`).toBeLessThan(0.02 * own + 0.3);
        }
      }
    },
    60_000,
  );

  it('how near two bodies come is told at the turn at which they do', () => {
    const { bodies } = made(active(joint('wing-root')));
    const like = bodies.find((b) => b.id === 'case/hub-1')!;
    const rod = (id: string, speed: number, places: Body['places']): Body => ({
      ...like,
      ...{ id, speed, places, joins: [], solid: () => ({ prisms: [prism(circle(0, 0, 5e-3), 0, 0.02)] }) },
    });
    const up = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const;
    // One stands, one goes round it on a circle of 12 mm about a point 1 mm beside it.
    const still = rod('a', 0, () => [{ ...up, at: [0, 0, 0] }]);
    const moves = rod('b', 1, (t) => [{ ...up, at: [1e-3 + 0.012 * Math.cos(t), 0.012 * Math.sin(t), 0] }]);
    const looked = (within?: number) => clashes({ bodies: [still, moves] }, [0, 9, 9, Math.PI], within);
    const { clashes: found, near } = looked();
    expect(found).toEqual([]);
    expect(near).toHaveLength(1);
    expect(near[0]!.crank).toBe(Math.PI);
    // Nothing is nearer than what is looked within.
    expect(looked(0.9e-3).near).toEqual([]);
    // 12 − 1 − 2·5 mm, facets within 10 µm of the round.
    expect(near[0]!.gap).toBeGreaterThanOrEqual(1e-3 - 1e-9);
    expect(near[0]!.gap).toBeLessThan(1.03e-3);
  });

  it('a key lies in its wheel’s keyway and in its shaft, and stands in nothing else', () => {
    const r = made(keyedLine());
    const keys = r.bodies.filter((b) => /key-/.test(b.id));
    // One to the driven wheel of either stage, one to the second’s driver; the motor’s comes with it.
    expect(keys.map((k) => k.id)).toEqual(['case/key-1-out', 'case/key-1-in', 'case/key-2-out']);
    expect(keys[0]!.part.name).toBe('Key DIN 6885 2×2×8');
    expect(says(r, [0.05, 2.2])).toEqual([]);
    // Named by hand: 8 mm by 2 by 2 of steel, 1.2 mm sunk.
    expect(keys[0]!.part.mass).toBeCloseTo(8e-3 * 4e-6 * 7850, 9);
    const solidOf = (b: Body) => {
      const m = meshSolid(kernel, b.solid(), 1e-5)!;
      return new kernel.Manifold(new kernel.Mesh({ numProp: 3, vertProperties: m.vertices, triVerts: m.triangles }));
    };
    for (const key of keys) {
      const wheel = r.bodies.find((b) => b.id === key.joins![0])!;
      // Their places are one another’s: 0.2 mm of room at its back, sides that touch.
      expect(key.places(1.3)).toEqual(wheel.places(1.3));
      expect(key.speed).toBe(wheel.speed);
      expect(solidOf(key).intersect(solidOf(wheel)).volume()).toBeLessThan(1e-3);
      expect(solidOf(key).translate([0, 0.3, 0]).intersect(solidOf(wheel)).volume()).toBeGreaterThan(0.5);
      expect(r.bodies.some((b) => b.id === key.joins![1])).toBe(true);
    }
  });

  it('stands alike where both turned as one, or where only a round one turned', () => {
    const at = (t: number, x = 0): Frame =>
      placeFrame({ at: [x * Math.cos(t), x * Math.sin(t), 1e-3], turn: t, apart: [0, 0, 0] });
    expect(poseOf(at(0), at(0.4, 0.02), false, false)).toBe(
      poseOf(at(1), nested(at(1), nested(undone(at(0)), at(0.4, 0.02))), false, false),
    );
    // A shaft in a plate: it may turn. Two planets' pins about a round sun: only how far they stand matters.
    expect(poseOf(at(0), at(0.4), false, true)).toBe(poseOf(at(0), at(1.9), false, true));
    expect(poseOf(at(0), at(0.4), false, false)).not.toBe(poseOf(at(0), at(1.9), false, false));
    expect(poseOf(at(0), at(0.4, 0.02), true, true)).toBe(poseOf(at(0), at(2.5, 0.02), true, true));
    expect(poseOf(at(0), at(0.4, 0.02), true, true)).not.toBe(poseOf(at(0), at(0.4, 0.021), true, true));
    expect(poseOf(at(0), at(0.4, 0.02), false, true)).not.toBe(poseOf(at(0), at(2.5, 0.02), false, true));
    expect(isRound({ prisms: [prism(circle(0, 0, 5e-3), 0, 1, [circle(0, 0, 2e-3)])] })).toBe(true);
    expect(isRound({ prisms: [prism(circle(0, 0, 5e-3), 0, 1, [circle(1e-6, 0, 2e-3)])] })).toBe(false);
  });

  it('has every surface taken back: ends of layers, and cuts the other way, with their twist', () => {
    const [whole, hole] = endsTakenBack(
      { prisms: [prism(circle(0, 0, 5e-3), 0, 0.01, [], 1), cut(circle(0, 0, 1e-3), 2e-3, 4e-3)] },
      1e-3,
    ).prisms;
    [whole!.from, whole!.to, whole!.twist, whole!.turn!].forEach((x, i) =>
      expect(x).toBeCloseTo([1e-3, 9e-3, 0.8, 0.1][i]!, 12),
    );
    [hole!.from, hole!.to].forEach((x, i) => expect(x).toBeCloseTo([1e-3, 5e-3][i]!, 12));
    expect(endsTakenBack({ prisms: [prism(circle(0, 0, 5e-3), 0, 1e-3)] }, 1e-3).prisms).toEqual([]);
  });

  it('a shaft that is too thick, a motor that is too long: both are found', () => {
    const v = active(joint('wing-root'));
    const long: Variant = { ...v, housing: { ...v.housing!, face: { ...v.housing!.face!, reach: 0.03 } } };
    expect(says(made(long), [0.05]).join()).toContain('motor/shaft in stage1/plate-mid');
  });
});
