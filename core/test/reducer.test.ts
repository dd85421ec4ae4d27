import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  aroundOf,
  billOf,
  housingParts,
  inUnits,
  crossings,
  envelopeOf,
  faceOf,
  materialAlong,
  motionsOf,
  placedAt,
  mended,
  nested,
  openLine,
  placeFrame,
  pointIn,
  readRecord,
  SCREWS,
  repairJoint,
  reducerChecks,
  reducerOf,
  roomsIn,
  sectionOf,
  sectionSheet,
  shaftCarries,
  stageKind,
  strengthChecks,
  solidVolume,
  stageKinds,
  sweptBy,
  undone,
  usualHousing,
  type Variant,
} from '../src/index.ts';
import { radiiOf } from '../src/reducer/reach.ts';
import { bendingOf, linkChecks, onSupports, type Working } from '../src/reducer/link-loads.ts';
import { linkSprings, shaftTwist } from '../src/reducer/link-springs.ts';
import { flangeCarries } from '../src/reducer/strength.ts';
import { facesOf } from '../src/fit/pairs.ts';
import { faceHolds, postsCarry, wallsCarry } from '../src/reducer/sides.ts';
import { edgesOf } from '../src/reducer/section.ts';
import { sliced } from '../src/reducer/sliced.ts';
import { area, circle, OutlinePen, rectangle } from '../src/shape/outline.ts';
import { shelf } from './helpers.ts';
import { joint, DEMOS, active, ofKind, keyedLine, made, body, twoOf } from './reducer-bench.ts';

describe('frames', () => {
  it('undo themselves, and nest as points do', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: 8, maxLength: 8 }), (x) => {
        const f = placeFrame({
          at: [x[0]!, x[1]!, x[2]!],
          turn: x[3]!,
          along: x[7]! > 0 ? 'x' : 'z',
          apart: [0, 0, 0],
        });
        const g = placeFrame({ at: [x[4]!, x[5]!, x[6]!], turn: x[7]!, apart: [0, 0, 0] });
        const p = [x[1]!, x[4]!, x[6]!] as const;
        expect(pointIn(undone(f), pointIn(f, p)).every((v, i) => Math.abs(v - p[i]!) < 1e-12)).toBe(true);
        const [a, b] = [pointIn(nested(f, g), p), pointIn(f, pointIn(g, p))];
        expect(a.every((v, i) => Math.abs(v - b[i]!) < 1e-12)).toBe(true);
      }),
    );
  });

  it('a body along x has its own z there, and its own x down', () => {
    const f = placeFrame({ at: [1, 2, 3], turn: 0, along: 'x', apart: [0, 0, 0] });
    expect(pointIn(f, [0, 0, 10])).toEqual([11, 2, 3]);
    expect(pointIn(f, [10, 0, 0]).map((v) => v + 0)).toEqual([1, 2, -7]);
  });
});

describe('a line through an outline', () => {
  it('goes through a ring from rim to hole and on, by Pythagoras', () => {
    const ring = { outer: circle(0, 0, 5), holes: [circle(0, 0, 3)] };
    const at = materialAlong(ring, 0, 1.4, 1, 0);
    const [far, near] = [Math.sqrt(25 - 1.96), Math.sqrt(9 - 1.96)];
    expect(at.flat().map((x) => Number(x.toFixed(9)))).toEqual(
      [-far, -near, near, far].map((x) => Number(x.toFixed(9))),
    );
  });

  it('crosses a slot at its straight sides and at its round ends', () => {
    const slot = new OutlinePen().to(-2, -1).to(2, -1, 1).to(2, 1).to(-2, 1, 1).close();
    expect(crossings(slot, 0, 0, 1, 0).map((x) => Number(x.toFixed(9)))).toEqual([-3, 3]);
    expect(crossings(slot, 1, 0, 0, 1).map((x) => Number(x.toFixed(9)))).toEqual([-1, 1]);
    expect(crossings(slot, 0, 2, 1, 0)).toEqual([]);
  });

  it('has material as long as the area says, summed over many lines', () => {
    const plate = { outer: circle(0.3, -0.2, 2), holes: [circle(1, 0, 0.4), rectangle(-0.9, -0.9, -0.2, -0.1)] };
    let sum = 0;
    const n = 4000;
    for (let k = 0; k < n; k++)
      for (const [a, b] of materialAlong(plate, 0, -2.2 + (4 * (k + 0.5)) / n, 1, 0)) sum += ((b - a) * 4) / n;
    expect(sum).toBeCloseTo(Math.PI * 4 - Math.PI * 0.16 - 0.7 * 0.8, 4);
  });

  it('knows the farthest and the nearest of an outline that is not about its own origin', () => {
    expect(radiiOf(circle(3, 4, 2))).toEqual({ most: 7, least: 3 });
    const r = radiiOf(rectangle(1, -2, 4, 2));
    expect([r.most, r.least]).toEqual([Math.hypot(4, 2), 1]);
  });
});

describe('rectangles of one body', () => {
  it('show the edge round all of them, and none between', () => {
    const edges = edgesOf([
      { u0: 0, u1: 2, z0: 0, z1: 1 },
      { u0: 0, u1: 2, z0: 1, z1: 3 },
    ]);
    expect(edges.length / 4).toBe(4);
    let round = 0;
    for (let i = 0; i < edges.length; i += 4)
      round += Math.hypot(edges[i]! - edges[i + 2]!, edges[i + 1]! - edges[i + 3]!);
    expect(round).toBe(10);
  });

  it('of a plate with holes of two depths add up to its volume', () => {
    const slices = sliced(rectangle(0, 0, 10, 10), 0, 6, [
      { outline: circle(3, 3, 1), from: 0, to: 6 },
      { outline: circle(7, 7, 2), from: 0, to: 4 },
      { outline: circle(7, 7, 1), from: 4, to: 6 },
    ]);
    expect(slices).toHaveLength(2);
    expect(solidVolume({ prisms: slices })).toBeCloseTo(600 - 6 * Math.PI - 16 * Math.PI - 2 * Math.PI, 9);
  });
});

describe('a line that stands', () => {
  it('turns every member at its own speed: the output of Wing root once in 75 turns of the motor', () => {
    const r = made(active(joint('wing-root')));
    const driven = body(r, 'stage2/driven');
    expect(driven.speed).toBeCloseTo(1 / 75, 12);
    const [a, b] = [driven.places(0)[0]!, driven.places(7)[0]!];
    expect(Math.atan2(b.x[1], b.x[0]) - Math.atan2(a.x[1], a.x[0])).toBeCloseTo(7 / 75, 9);
    // Motor, sun and shaft turn as one; so do the second sun's carrier and the belt's driver.
    const shaft = body(r, 'motor/shaft').places(1.1)[0]!;
    expect(Math.atan2(shaft.x[1], shaft.x[0])).toBeCloseTo(1.1, 12);
    expect(body(r, 'stage2/driver').speed).toBeCloseTo(1 / 25, 12);
    expect(body(r, 'case/hub-1').speed).toBeCloseTo(1 / 25, 12);
  });

  it('has its output on the line’s axis, and each stage’s input where the one before gives its power', () => {
    for (const v of DEMOS.flatMap((j) => j.variants)) {
      const { layout } = made(v);
      const last = layout.stages.at(-1)!;
      expect(
        pointIn(last.frame, last.ports.output.at)
          .slice(0, 2)
          .every((x) => Math.abs(x) < 1e-12),
      ).toBe(true);
      layout.stages.slice(1).forEach((s, i) => {
        const before = layout.stages[i]!;
        const from = pointIn(before.frame, before.ports.output.at);
        const to = pointIn(s.frame, s.ports.input.at);
        expect(Math.hypot(from[0] - to[0], from[1] - to[1])).toBeLessThan(1e-12);
        expect(to[2]).toBeGreaterThan(from[2]);
      });
    }
  });

  it('folds a second belt back over the first, or turns it as far as it is told to', () => {
    const v = active(joint('body-yaw'));
    const centre = (w: Variant) => {
      const [, second] = made(w).layout.stages;
      return second!;
    };
    const input = (w: Variant) => made(w).layout.input.at;
    const [c1, c2] = made(v).layout.stages.map((s) => s.ports.output.at[0]);
    expect(Math.hypot(...input(v).slice(0, 2))).toBeCloseTo(Math.abs(c1! - c2!), 9);
    const square = { ...v, stages: [v.stages[0]!, { ...v.stages[1]!, turn: Math.PI / 2 }] };
    expect(Math.hypot(...input(square).slice(0, 2))).toBeCloseTo(Math.hypot(c1!, c2!), 9);
    expect(centre(v).bought).toBe(false);
  });

  it('takes a worm’s motor across the output’s axis', () => {
    const r = made(ofKind('worm'));
    expect(Math.abs(r.layout.input.z[2])).toBeLessThan(1e-12);
    // A housing made here holds it.
    expect(r.plan).toMatchObject({ first: 0, last: 0, direct: false });
    expect(r.layout.parallel).toBe(false);
  });
});

describe('a kind without bodies', () => {
  it('takes no room, and puts no number out of order', () => {
    const v = active(joint('body-yaw'));
    const all = openLine(v.stages, shelf).all;
    if (!all.ok) throw new Error(all.problem.what);
    const bare = all.value.map((s, i) =>
      i === 0 ? Object.assign(Object.create(s) as typeof s, { parts: () => ({ ok: true, value: [] }) as const }) : s,
    );
    const r = reducerOf({ ...v, housing: undefined }, bare, shelf);
    if (!r.ok) throw new Error(r.problem.what);
    for (const b of r.value.bodies)
      for (const f of b.places(0.4)) for (const x of f.at) expect(Number.isFinite(x)).toBe(true);
    expect(r.value.layout.stages[0]!.to - r.value.layout.stages[0]!.from).toBe(0);
  });
});

describe('a housing', () => {
  it('leaves the room that is asked between what moves and plates and walls', () => {
    for (const gap of [6e-4, 2e-3]) {
      const v = active(joint('neck-lift'));
      const r = made({ ...v, housing: { ...v.housing!, gap } });
      const moving = r.bodies.filter((b) => b.of === 'stage' && b.turns !== 'fixed').map(sweptBy);
      const { plates } = r.housing!;
      expect(Math.min(...moving.map((s) => s.from)) - plates[0]!.to).toBeCloseTo(gap, 12);
      expect(plates[1]!.from - Math.max(...moving.map((s) => s.to))).toBeCloseTo(gap, 12);
      const rooms = roomsIn(sectionOf(r), 5e-3).filter((x) => x.b.id === 'case/wall-1' || x.a.id === 'case/wall-1');
      expect(rooms.length).toBeGreaterThan(0);
      for (const x of rooms) expect(x.distance).toBeGreaterThanOrEqual(gap - 1e-9);
    }
  });

  it('has walls as thick as they are asked to be, where the plane cuts them square', () => {
    const v = active(joint('neck-lift'));
    for (const wall of [2.4e-3, 6e-3]) {
      const { regions } = sectionOf(made({ ...v, housing: { ...v.housing!, wall } }));
      const { rects } = regions.find((x) => x.body.id === 'case/wall-1')!;
      for (const x of rects) expect(x.u1 - x.u0).toBeCloseTo(wall, 6);
    }
  });

  it('is as wide as its plates are where the plane cuts them, at least', () => {
    for (const j of DEMOS.slice(0, 3)) {
      const r = made(active(j));
      const { regions } = sectionOf(r, 0, 0);
      const { rects } = regions.find((x) => x.body.id === 'case/cover')!;
      const wide = Math.max(...rects.map((x) => x.u1)) - Math.min(...rects.map((x) => x.u0));
      expect(envelopeOf(r)!.across[0]).toBeGreaterThanOrEqual(wide - 3e-6);
    }
  });

  it('weighs and costs what its parts do, and the line counts it', () => {
    for (const j of DEMOS.slice(0, 3)) {
      const v = active(j);
      const { housing: _, ...bare } = v;
      const all = openLine(v.stages, shelf).all;
      if (!all.ok) throw new Error(all.problem.what);
      const around = aroundOf(v, all.value, shelf)!;
      const [one, other] = [analyseLine(j, v, shelf), analyseLine(j, bare as Variant, shelf)];
      const of = (r: typeof one, id: string) => r.figures.find((f) => f.id === id)!;
      for (const id of ['mass', 'money'] as const) {
        expect(of(one, id).value - of(other, id).value, id).toBeCloseTo(around[id], 9);
        expect(around[id]).toBeGreaterThan(0);
      }
      expect(of(one, 'length').value).toBeCloseTo(around.length, 12);
      expect(of(one, 'size').value).toBeCloseTo(around.size, 12);
      // More infill weighs more: its band is as wide as the shop's.
      expect(of(one, 'mass').high).toBeGreaterThan(of(one, 'mass').value);
    }
  });

  it('of posts weighs less than of walls, and has as many posts as screws in every bay', () => {
    const v = active(joint('body-yaw'));
    const open = { ...v, housing: { ...v.housing!, sides: 'posts' as const } };
    const r = made(open);
    expect(body(r, 'case/post-1').places(0)).toHaveLength(r.housing!.screws.length);
    const mass = (w: Variant) =>
      made(w).housing!.bodies.reduce((s, b) => s + (/wall|post/.test(b.id) ? b.part.mass * b.part.quantity : 0), 0);
    expect(mass(open)).toBeLessThan(mass({ ...v, housing: { ...v.housing!, sides: 'walls' as const } }));
  });

  it('holds the motor by the standard screw that bites and does not bottom', () => {
    const r = made(active(joint('body-yaw')));
    const screw = body(r, 'case/screw-motor');
    expect(screw.part.name).toMatch(/M3×6$/);
    const face = faceOf({ type: 'stepper', frame: 0.042 });
    const tip = screw.places(0)[0]!.at[2] - 6e-3;
    const depth = r.housing!.plates[0]!.from - tip;
    expect(depth).toBeGreaterThanOrEqual(0.8 * 3e-3);
    expect(depth).toBeLessThanOrEqual(face.deep);
    // On the square of the frame: 31 mm from hole to hole.
    const [a, b] = screw.places(0);
    expect(Math.hypot(a!.at[0] - b!.at[0], a!.at[1] - b!.at[1])).toBeCloseTo(31e-3, 9);
  });

  it('hangs a shaft on a carrier by a flange round its screws, and stands still where it does not turn', () => {
    const v = active(joint('wing-root'));
    const r = made(v);
    const hub = body(r, 'case/hub-1');
    const [flange, sunk, rod] = hub.solid().prisms;
    const { boltsC, boltCircleC, plate } = v.stages[0]!.params as Record<string, number>;
    // Heads of M2.5 are 4.5 mm across and 2.5 high, with 0.6 and 0.2 mm of room; two millimetres of metal are left round
    // them; the shaft has the next pulley's bore.
    expect(2 * radiiOf(flange!.outer).most).toBeCloseTo(boltCircleC! + 5.1e-3 + 4e-3, 12);
    expect(2 * radiiOf(sunk!.holes[0]!).most).toBeCloseTo(boltCircleC! + 5.1e-3, 9);
    expect(flange!.to).toBeCloseTo(5e-3 - 2.7e-3, 12);
    expect(2 * radiiOf(rod!.outer).most).toBeCloseTo(8e-3, 12);
    expect(flange!.holes).toHaveLength(boltsC!);
    const middles = flange!.holes.map((h) => [(h.points[0]! + h.points[3]!) / 2, (h.points[1]! + h.points[4]!) / 2]);
    const [p, q] = middles as [number[], number[]];
    expect(Math.hypot(p[0]! - q[0]!, p[1]! - q[1]!)).toBeCloseTo(boltCircleC! * Math.sin(Math.PI / boltsC!), 12);
    for (const b of r.bodies) if (b.turns === 'fixed') expect(b.speed, b.id).toBe(0);
    // Its screws stand in those holes at any turn of the motor, and end within the carrier's plate.
    const screws = body(r, 'case/screw-hub-1');
    for (const crank of [0, 1.3, 40]) {
      const [h] = hub.places(crank);
      screws.places(crank).forEach((s, i) => {
        const hole = pointIn(h!, [middles[i]![0]!, middles[i]![1]!, 0]);
        expect(s.at[0]).toBeCloseTo(hole[0], 9);
        expect(s.at[1]).toBeCloseTo(hole[1], 9);
      });
    }
    const length = Number(/×([\d.]+)$/.exec(screws.part.name)![1]) / 1e3;
    expect(length - 2.3e-3).toBeGreaterThanOrEqual(0.8 * 2.5e-3);
    expect(length - 2.3e-3).toBeLessThanOrEqual(plate! + 1e-9);
  });

  it('counts the shafts between stages among what gives, each through the ratio that follows', () => {
    // G·π·d⁴/(32·L) by hand: 80.77 GPa, 8 mm, 40 mm.
    expect(shaftTwist(8e-3, 0.04)).toBeCloseTo(811.99, 1);
    const v = active(joint('wing-root'));
    const j = joint('wing-root');
    const r = made(v);
    const [first, second] = linkSprings(r);
    const [a, b] = r.layout.stages;
    const face = pointIn(a!.frame, a!.ports.output.at)[2];
    expect(first).toBeCloseTo(shaftTwist(8e-3, (b!.from + b!.to) / 2 - face), 6);
    expect(second).toBe(Infinity);
    const { housing: _, ...bare } = v;
    const k = (w: Variant) => analyseLine(j, w, shelf).figures.find((f) => f.id === 'stiffness')!.value;
    const { ratio } = b!.ports ? analyseLine(j, v, shelf).attribution[1]! : { ratio: NaN };
    expect(1 / k(v)).toBeCloseTo(1 / k(bare) + 1 / (first! * ratio ** 2), 12);
    expect(k(v)).toBeLessThan(k(bare));
    const beside = analyseLine(j, v, shelf).beside!;
    const hold = analyseLine(j, v, shelf).demand.hold;
    expect(beside.linkWindUp).toBeCloseTo(hold / (first! * ratio ** 2), 12);
  });

  it('carries the peak by the friction of a flange’s screws, or says where none finds a thread', () => {
    // Four screws of M3 at 350 N on a radius of 12 mm.
    expect(flangeCarries(4, SCREWS.M3, 0.012, shelf)).toBeCloseTo(16.8, 9);
    expect(flangeCarries(3, SCREWS['M2.5'], 0.01, shelf)).toBeCloseTo((3 * 350 * 0.01 * 3.39) / 5.03, 9);
    const v = active(joint('wing-root'));
    const checks = (w: Variant) => analyseLine(joint('wing-root'), w, shelf).checks.filter((c) => /flange/.test(c.id));
    // Hub and screws stand where the plate has its holes, at any turn.
    const { bodies } = made(v);
    const [plate0, screws0, hub0] = ['stage1/plate-out', 'case/screw-hub-1', 'case/hub-1'].map((id) =>
      bodies.find((b) => b.id === id)!,
    );
    for (const crank of [0, 11.3]) {
      const holes = (b: (typeof bodies)[number], diameter: number) =>
        facesOf(b.solid())
          .filter((x) => x.hole && Math.abs(2 * x.r - diameter) < 1e-6)
          .map((x) => pointIn(b.places(crank)[0]!, [x.x, x.y, 0]));
      const at = screws0!.places(crank).map((x) => x.at);
      for (const list of [holes(plate0!, 3.2e-3), holes(hub0!, 3.2e-3)]) {
        expect(list).toHaveLength(6);
        for (const [x, y] of at)
          expect(Math.min(...list.map((q) => Math.hypot(q[0] - x, q[1] - y)))).toBeLessThan(1e-9);
      }
    }
    // Printed plates hold screws by inserts: by friction no more than they stay in, then by leaning on their holes.
    expect(checks(v).map((c) => c.id)).toEqual(['flange-1', 'flange-bears-1']);
    const p = v.stages[0]!.params as Record<string, number>;
    const [n, radius, hole, deep] = [p['boltsC']!, p['boltCircleC']! / 2, p['boltHole']!, p['plate']!];
    const inside = Math.PI * hole * deep * (35e6 / Math.sqrt(3) / 2);
    expect(checks(v)[0]!.limit).toBeCloseTo(n * 0.2 * 0.5 * inside * radius, 6);
    expect(checks(v)[1]!.limit).toBeCloseTo(n * hole * deep * 35e6 * radius, 6);
    // A plate of metal takes a tapped thread: friction of bolted screws as before.
    const metal = {
      ...v,
      stages: [{ ...v.stages[0]!, params: { ...p, materialR: 'en-aw-6082' } }, ...v.stages.slice(1)],
    };
    const bolted = checks(metal);
    expect(bolted.map((c) => c.id)).toEqual(['flange-1']);
    expect(bolted[0]!.limit).toBeCloseTo(flangeCarries(n, SCREWS['M2.5'], radius, shelf), 9);
    expect(bolted[0]!.limit).toBeGreaterThan(3 * checks(v)[0]!.limit);
    const params = { ...v.stages[0]!.params, boltHole: 2e-3 };
    const thin = { ...v, stages: [{ ...v.stages[0]!, params }, ...v.stages.slice(1)] };
    expect(checks(thin).map((c) => [c.id, c.state])).toEqual([['flange-thread-1', 'fails']]);
    // A plate of 1.5 mm: M2.5×5 behind 2.3 mm of hub would need 2.7.
    const plate = { ...v.stages[0]!.params, plate: 1.5e-3 };
    const flat = checks({ ...v, stages: [{ ...v.stages[0]!, params: plate }, ...v.stages.slice(1)] });
    expect(flat.map((c) => [c.id, c.state])).toEqual([['flange-thread-1', 'fails']]);
    expect(flat[0]!.limit).toBeCloseTo(2.7e-3, 12);
  });

  it('has every screw on the axis of the holes of what it holds', () => {
    let seen = 0;
    for (const j of DEMOS)
      for (const v of j.variants.map((x) => ({ ...x, housing: x.housing ?? usualHousing(shelf) }))) {
        const opened = openLine(v.stages, shelf).all;
        const r = opened.ok ? reducerOf(v, opened.value, shelf) : opened;
        if (!r.ok) continue;
        const { bodies } = r.value;
        const holes = bodies
          .filter((b) => !b.flexes && !/^(Washer|Nut)/.test(b.part.name))
          .flatMap((b) =>
            b.places(0).flatMap((f) =>
              facesOf(b.solid())
                .filter((x) => x.hole)
                .map((x) => ({
                  id: b.id,
                  ends: [x.from, x.to].map((z) => pointIn(f, [x.x, x.y, z])),
                })),
            ),
          );
        for (const s of bodies.filter((b) => /^(Screw|Threaded)/.test(b.part.name)))
          for (const f of s.places(0)) {
            const long = Math.max(5e-3, ...s.solid().prisms.map((p) => -p.from));
            const [low, high] = [-long, 5e-3];
            const own = undone(f);
            const through = new Set(
              holes
                .map((h) => ({ id: h.id, ends: h.ends.map((e) => pointIn(own, e)) }))
                .filter((h) => h.ends.every(([x, y]) => Math.hypot(x, y) < 1e-6))
                .filter(
                  (h) => Math.max(...h.ends.map((e) => e[2])) > low && Math.min(...h.ends.map((e) => e[2])) < high,
                )
                .map((h) => h.id),
            );
            // Where a belt is tensioned, the motor's screws pass slots: only the motor's own holes are round.
            expect([v.name, s.id, through.size > 1 || through.has('motor/body') || s.id === 'case/tie']).toEqual([
              v.name,
              s.id,
              true,
            ]);
            seen++;
          }
      }
    expect(seen).toBeGreaterThan(50);
  });

  it('is held together by screws of the standard’s lengths, or by threaded rod', () => {
    const v = active(joint('neck-lift'));
    const tie = (screw: 'M3' | 'M5') => body(made({ ...v, housing: { ...v.housing!, screw } }), 'case/tie').part.name;
    expect(tie('M3')).toMatch(/^Threaded rod M3×\d+$/);
    expect(tie('M5')).toMatch(/^Screw ISO 4762 M5×(40|45|50)$/);
    // A rod goes through both nuts and a thread and a half beyond either.
    const r = made({ ...v, housing: { ...v.housing!, screw: 'M3' } });
    const [rod, nut] = [body(r, 'case/tie'), body(r, 'case/nut')];
    const at = rod.places(0)[0]!;
    const [low, high] = nut
      .places(0)
      .filter((f) => Math.hypot(f.at[0] - at.at[0], f.at[1] - at.at[1]) < 1e-9)
      .map((f) => f.at[2])
      .sort((a, b) => a - b);
    const long = rod.solid().prisms[0]!.to;
    expect(low! - at.at[2]).toBeCloseTo(1.5 * 0.5e-3, 9);
    // An M3's nut is 2.4 mm high (ISO 4032).
    expect(at.at[2] + long - (high! + 2.4e-3)).toBeCloseTo(1.5 * 0.5e-3, 9);
  });

  it('bears a shaft in the smallest bearing of its bore, sunk flush', () => {
    const r = made(active(joint('body-yaw')));
    const b = body(r, 'case/bearing-688');
    expect(b.places(0)).toHaveLength(2);
    const heights = b.places(0).map((f) => f.at[2]);
    const [first, second] = r.housing!.plates;
    expect(heights[0]! + 5e-3).toBeCloseTo(first!.to, 9);
    expect(heights[1]!).toBeCloseTo(second!.from, 9);
  });

  it('sinks the motor’s screws in its plate, with room round their heads', () => {
    const plate = body(made(ofKind('planetary')), 'case/plate-motor');
    // Holes of a screw on the standard's square of 31 mm, by radius, and how deep each radius goes, mm.
    const deep = new Map<string, number>();
    for (const f of facesOf(plate.solid()))
      if (f.hole && Math.hypot(f.x - 15.5e-3, f.y - 15.5e-3) < 1e-6)
        deep.set((f.r * 1e3).toFixed(3), (deep.get((f.r * 1e3).toFixed(3)) ?? 0) + (f.to - f.from) * 1e3);
    // ISO 273 for M3, medium; a head of 5.5 by 3 mm with room of 0.6 and 0.2.
    expect([...deep.keys()]).toEqual(['1.700', '3.050']);
    expect(deep.get('3.050')).toBeCloseTo(3.2, 9);
  });

  it('keeps a ring between a shelf and a clamp, clear of what turns beside it', () => {
    const r = made(active(joint('wing-root')));
    const [ring] = r.housing!.rings;
    expect([ring!.shelf, ring!.clamp]).toEqual([true, true]);
    const holder = body(r, 'case/holder-1');
    const clamp = body(r, 'case/clamp-1');
    expect(clamp.places(0)[0]!.at[2]).toBeCloseTo(ring!.to, 12);
    expect(sweptBy(holder).from).toBeCloseTo(r.housing!.plates[0]!.to, 12);
  });

  it('is left to the maker where a stage goes across behind it, or where it is the maker’s own', () => {
    const worm = sectionSheet(ofKind('worm'), 0, shelf);
    expect(worm.ok && worm.value.unhoused).toEqual([]);
    const behind = sectionSheet(twoOf('worm', 'bevel'), 0, shelf);
    expect(behind.ok && behind.value.unhoused).toEqual([1]);
    const v = active(joint('body-yaw'));
    const own = { ...v, housing: { ...v.housing!, by: 'own' as const } };
    expect(made(own).bodies.some((b) => b.of === 'case')).toBe(false);
    const sheet = sectionSheet(own, 0, shelf);
    expect(sheet.ok && sheet.value.unhoused).toEqual([]);
  });
});

describe('what decides whether a housing goes together', () => {
  const checksOf = (v: Variant) => reducerChecks(made(v), v);
  const state = (v: Variant, id: string) => checksOf(v).find((c) => c.id === id)?.state;

  it('holds for every active variant of the demo', () => {
    for (const j of DEMOS) for (const c of checksOf(active(j))) expect(c.state, `${j.name}: ${c.name}`).toBe('holds');
  });

  it('a motor’s shaft that runs into the next carrier is cut by its mend, and then holds', () => {
    const v = active(joint('wing-root'));
    const long: Variant = { ...v, housing: { ...v.housing!, face: { ...v.housing!.face!, reach: 0.03 } } };
    const c = checksOf(long).find((x) => x.id === 'motor-room')!;
    expect(c.state).toBe('fails');
    const cut = mended(long, c.mend!, shelf);
    expect(state(cut, 'motor-room')).toBe('holds');
    expect(state(cut, 'motor-reach')).toBe('holds');
  });

  it('an output shaft of another diameter than the bore fails, and one that is too short is made longer', () => {
    const v = active(joint('wing-root'));
    expect(state({ ...v, output: { ...v.output!, shaftDiameter: 0.01 } }, 'output-bore')).toBe('fails');
    const short: Variant = { ...v, output: { ...v.output!, shaftLength: 0.01 } };
    const c = checksOf(short).find((x) => x.id === 'output-reach')!;
    expect(c.state).toBe('fails');
    expect(state(mended(short, c.mend!, shelf), 'output-reach')).toBe('holds');
  });

  it('a bore that no bearing is made for is told', () => {
    const v = active(joint('neck-lift'));
    const odd = { ...v, stages: [{ ...v.stages[0]!, params: { ...v.stages[0]!.params, bore2: 0.0093 } }] };
    expect(state(odd, 'bearing-1')).toBe('fails');
  });

  it('a shaft that does not reach into its wheel asks for thinner plates', () => {
    const v = active(joint('neck-lift'));
    const deep: Variant = { ...v, housing: { ...v.housing!, plate: 0.03 } };
    const c = checksOf(deep).find((x) => x.id === 'motor-reach')!;
    expect(c.state).toBe('fails');
    expect(state(mended(deep, c.mend!, shelf), 'motor-reach')).toBe('holds');
  });
});

describe('a section', () => {
  it('shows every body where it is: a sun between its plates, its teeth to their tips', () => {
    const r = made(ofKind('planetary'));
    const { regions } = sectionOf(r);
    const ids = regions.map((x) => x.body.id);
    for (const id of ['stage1/sun', 'stage1/planet', 'stage1/ring', 'stage1/pin', 'case/cover', 'motor/body'])
      expect(ids).toContain(id);
    const sun = regions.find((x) => x.body.id === 'stage1/sun')!;
    const top = Math.max(...sun.rects.map((x) => x.u1));
    expect(top).toBeCloseTo(radiiOf(sun.body.solid().prisms[0]!.outer).most, 12);
    expect(sun.roots.length).toBeGreaterThan(0);
  });

  it('does not change what it shows of a sun as the crank turns, and turns a planet into the plane', () => {
    const r = made(ofKind('planetary'));
    const at = (crank: number, id: string) => sectionOf(r, crank).regions.find((x) => x.body.id === id)!;
    expect(at(0.4, 'stage1/sun').rects).toEqual(at(2.9, 'stage1/sun').rects);
    const planet = at(0.4, 'stage1/planet');
    expect(planet.turnedIn).toBe(true);
    // It stands as far off the axis as on its pin, half above and half below that.
    const { at: place } = planet.body.places(0)[0]!;
    const [low, high] = [Math.min(...planet.rects.map((x) => x.u0)), Math.max(...planet.rects.map((x) => x.u1))];
    expect((low + high) / 2).toBeCloseTo(Math.hypot(place[0], place[1]), 9);
  });

  it('leaves nothing out and nothing without a size, for every kind and every variant of the demo', () => {
    for (const v of [...stageKinds().map((k) => ofKind(k.id)), ...DEMOS.flatMap((j) => j.variants)]) {
      const sheet = sectionSheet(v, 0.3, shelf);
      if (!sheet.ok) throw new Error(sheet.problem.what);
      expect(sheet.value.regions.length).toBeGreaterThan(1);
      for (const region of sheet.value.regions) {
        expect(region.rects.length).toBeGreaterThan(0);
        for (const x of [...region.rects, ...region.edges, ...region.roots]) expect(Number.isFinite(x)).toBe(true);
      }
      const { bounds } = sheet.value;
      expect(bounds.u1).toBeGreaterThan(bounds.u0);
      expect(bounds.z1).toBeGreaterThan(bounds.z0);
    }
  });

  it('refuses an empty line in words', () => {
    const v = active(joint('body-yaw'));
    const sheet = sectionSheet({ ...v, stages: [] }, 0, shelf);
    expect(!sheet.ok && sheet.problem.what).toBe('There is nothing to cut.');
  });
});

describe('what a housing stands', () => {
  const strength = (v: Variant, carries: readonly { output: number; held: number }[]) =>
    strengthChecks(made(v), v, carries, shelf);

  it('is by hand: torsion of a rod, friction of a ring between two faces', () => {
    // 450 MPa/√3 · 0.75 · π·(12 mm)³/16
    expect(shaftCarries(0.012)).toBeCloseTo(((450e6 / Math.sqrt(3)) * 0.75 * Math.PI * 1.728e-6) / 16, 9);
    const v = active(joint('wing-root'));
    const r = made(v);
    const [ring] = r.housing!.rings;
    // Four M3 in PA with carbon fibre, 35 MPa across its layers: half of that under a washer of 7 mm round a hole of 3.4.
    const each = 17.5e6 * (Math.PI / 4) * (7e-3 ** 2 - 3.4e-3 ** 2);
    const radius = (ring!.radius + Math.max(ring!.before, ring!.behind)) / 2;
    const check = strength(v, [
      { output: 9, held: 3 },
      { output: 26, held: 0 },
    ]).find((c) => c.id === 'ring-1')!;
    expect(check.limit).toBeCloseTo(0.2 * 0.5 * r.housing!.screws.length * each * radius, 9);
    expect(check.state).toBe('holds');
  });

  it('is by hand: walls sheared, posts bent, a face held by friction', () => {
    // A tube of 60 mm with walls of 3: area within its middle π·28.5², 2·A·t·τ with half of 25 MPa over √3.
    const middle = Math.PI * 0.0285 ** 2;
    expect(wallsCarry(Math.PI * 0.03 ** 2, 3e-3, 25e6)).toBeCloseTo((2 * middle * 3e-3 * 12.5e6) / Math.sqrt(3), 9);
    // One post of 8 mm with a hole of 3.4, 20 mm long, 80 mm off: W = 48.6 mm³, 12.5 MPa·W·2/L = 60.8 N.
    const w = (Math.PI * (8 ** 4 - 3.4 ** 4)) / (32 * 8);
    expect(w).toBeCloseTo(48.625, 2);
    const post = { diameter: 8e-3, hole: 3.4e-3, length: 0.02 };
    expect(postsCarry([0.08], post, 25e6)).toBeCloseTo(((12.5 * w * 2) / 20) * 0.08, 9);
    // One nearer to the axis carries by its lever, squared over the farthest.
    expect(postsCarry([0.08, 0.04], post, 25e6)).toBeCloseTo(1.25 * postsCarry([0.08], post, 25e6), 9);
    expect(postsCarry([], post, 25e6)).toBe(Infinity);
    expect(faceHolds([0.05, 0.03], 400, 0.2)).toBeCloseTo(6.4, 12);
  });

  it('tells walls, posts and what it is mounted by, and a thread that holds', () => {
    const v = active(joint('body-yaw'));
    const carries = [
      { output: 1, held: 0 },
      { output: 6, held: 0 },
    ];
    const ids = (w: Variant) => strength(w, carries).map((c) => c.id);
    expect(ids(v)).toContain('sides');
    expect(ids(v)).not.toContain('mounted');
    const name = (w: Variant) => strength(w, carries).find((c) => c.id === 'sides')!.name;
    expect(name(v)).toBe('Posts carry the peak');
    expect(name({ ...v, housing: { ...v.housing!, sides: 'walls' } })).toBe('Walls carry the peak');
    const out: Variant = { ...v, housing: { ...v.housing!, stands: 0.012 } };
    const held = strength(out, carries).find((c) => c.id === 'mounted')!;
    const each = 12.5e6 * (Math.PI / 4) * (7e-3 ** 2 - 3.4e-3 ** 2);
    const radii = made(out).housing!.screws.map((c) => Math.hypot(c.x, c.y));
    expect(held.limit).toBeCloseTo(0.2 * 0.5 * each * radii.reduce((s, x) => s + x, 0), 9);
    const heavy = [carries[0]!, { output: 30, held: 0 }];
    const fails = strength(out, heavy).find((c) => c.id === 'mounted')!;
    expect(fails.state).toBe('fails');
    const next = mended(out, fails.mend!, shelf);
    expect(strength(next, heavy).find((c) => c.id === 'mounted')!.state).not.toBe('fails');
    // The rods are longer by as much, and stand out of the cover's nuts.
    const rod = (w: Variant) => Number(/×(\d+)$/.exec(body(made(w), 'case/tie').part.name)![1]);
    expect(rod(out) - rod(v)).toBe(12);
  });

  it('asks of the bearings between two belts what both pull them with: beams written out, either way round', () => {
    const j = joint('body-yaw');
    const v = active(j);
    const line = analyseLine(j, v, shelf);
    const r = made(v);
    const bearing = shelf.bearings.find((b) => b.id === '688')!;
    const middle = (id: string) => {
      const { from, to } = sweptBy(body(r, id));
      return (from + to) / 2;
    };
    const [za, zb] = body(r, 'case/bearing-688')
      .places(0)
      .map((f) => f.at[2] + bearing.width / 2) as [number, number];
    const [z1, z2] = [middle('stage1/driven'), middle('stage2/driver')];
    const [one, two] = line.stages.map((s) => s.report!.numbers);
    const most = (f1: number, f2: number) =>
      Math.max(
        ...[f2, -f2].flatMap((f) => {
          const above = (f1 * (z1 - za) + f * (z2 - za)) / (zb - za);
          return [above, f1 + f - above].map(Math.abs);
        }),
      );
    const found = (id: string) => line.checks.find((c) => c.id === id)!;
    expect(found('bears-1').figure / (bearing.static / most(one!.pushes!.peak.across, two!.pullPeak!))).toBeCloseTo(
      1,
      9,
    );
    const meanSpeed = line.demand.meanSpeed * two!.ratio;
    const life = ((bearing.dynamic / most(one!.pushes!.lasting.across, two!.pull!)) ** 3 * 2e6 * Math.PI) / meanSpeed;
    expect(found('bears-life-1').figure / life).toBeCloseTo(1, 9);
    // Bent most where the belt pulls it between its bearings, the other belt's lever added, or at the bearing before that.
    const [f1, f2] = [one!.pushes!.peak.across, two!.pullPeak!];
    const arm = f2 * (z2 - zb);
    const bent = Math.max(arm, (f1 * (z1 - za) * (zb - z1) + arm * (z1 - za)) / (zb - za));
    const torque = line.demand.peak / (two!.ratio * two!.etaForward);
    expect(found('shaft-1').figure).toBeCloseTo(Math.sqrt(torque ** 2 + (4 / 3) * bent ** 2), 1);
    expect(found('shaft-1').figure).toBeGreaterThan(1.5 * torque);
    expect(onSupports([{ force: 90, at: 1 }], 0, 3)).toEqual([60, 30]);
  });

  it('asks of the one bearing of a shaft on a carrier what the belt behind it pulls with, by the lever from its flange', () => {
    const j = joint('wing-root');
    const v = active(j);
    const line = analyseLine(j, v, shelf);
    const r = made(v);
    const bearing = shelf.bearings.find((b) => b.id === '688')!;
    const flange = Math.max(...r.bodies.filter((b) => b.id.startsWith('stage1/')).map((b) => sweptBy(b).to));
    const seat = body(r, 'case/bearing-688').places(0)[0]!.at[2] + bearing.width / 2;
    const belt = sweptBy(body(r, 'stage2/driver'));
    const lever = ((belt.from + belt.to) / 2 - flange) / (seat - flange);
    expect(lever).toBeGreaterThan(1.5);
    const { pullPeak } = line.stages[1]!.report!.numbers;
    const told = line.checks.find((c) => c.id === 'bears-1')!;
    expect(told.figure / (bearing.static / (pullPeak! * lever))).toBeCloseTo(1, 9);
  });

  it('bends a shaft between stages by both of its wheels, each in the middle of what turns with it', () => {
    const v = active(joint('body-yaw'));
    const r = made(v);
    const [link] = r.plan!.links;
    const half = link!.bearing!.width / 2;
    const [below, above] = [r.housing!.plates[0]!.to - half, r.housing!.plates[1]!.from + half];
    const middle = (stage: number, turns: string) => {
      const ends = r.run.stages[stage]!.bodies.filter((x) => x.turns === turns).map(sweptBy);
      return (Math.min(...ends.map((x) => x.from)) + Math.max(...ends.map((x) => x.to))) / 2;
    };
    const numbers = (more: object) => ({ numbers: more as Working['numbers'], duty: {} as Working['duty'] });
    const bent = (across: number, moment: number, pull: number, tilt?: number) =>
      bendingOf(r, 0, [
        numbers({ pushes: { peak: { across, along: 0, moment }, lasting: { across: 0, along: 0, moment: 0 } } }),
        numbers({ pullPeak: pull, tiltPeak: tilt }),
      ]);
    // What tilts it is a couple on its two bearings, by how far they are apart.
    const couple = { across: 0, along: 0, moment: 0.3 };
    const duty = { torque: 1, torqueRms: 1, speed: 1, meanSpeed: 1 };
    const works = (more: object) => ({ numbers: more, duty }) as unknown as Working;
    const tilted = linkChecks(r, v, [
      works({ ratio: 3, pushes: { peak: couple, lasting: couple } }),
      works({ ratio: 3 }),
    ]);
    expect(tilted.find((c) => c.id === 'bears-1')!.figure).toBeCloseTo(
      (link!.bearing!.static * (above - below)) / 0.3,
      6,
    );
    const [own, next] = [middle(0, 'output'), middle(1, 'input')];
    expect([below < own, own < above, above < next]).toEqual([true, true, true]);
    // 90 N between the bearings: F·x·y/L; a pull beyond the upper one by its lever there; what is tilted comes on top.
    const between = (90 * (own - below) * (above - own)) / (above - below);
    expect(bent(90, 0, 0)).toBeCloseTo(between, 12);
    expect(bent(0, 0, 40)).toBeCloseTo(40 * (next - above), 12);
    expect(bent(90, 0.3, 0)).toBeCloseTo(between + 0.3, 12);
    // Eccentrics of the next stage that hold each other tilt it as well.
    expect(bent(90, 0.3, 0, 0.2)).toBeCloseTo(between + 0.5, 12);
    expect(bent(90, 0, 4)).toBeCloseTo(
      Math.max(4 * (next - above), between + (4 * (next - above) * (own - below)) / (above - below)),
      12,
    );
  });

  it('leaves what a keyway or a flat in a printed wheel carries to its stage, which tells it by hand', () => {
    const v = keyedLine();
    const carries = v.stages.map((_, k) => ({ output: 1 + k, held: 0 }));
    expect(strength(v, carries).filter((c) => /form|key|flat/i.test(c.id))).toEqual([]);
    // Pinions are of steel; both driven wheels are printed: 30 MPa on a fifth of 8 mm by 9 mm, at nine tenths of 4 mm.
    v.stages.forEach((s, k) => {
      const opened = stageKind(s.kind)!.open(s.params, shelf);
      if (!opened.ok) throw new Error(opened.problem.what);
      const told = opened.value
        .report({ torque: 1 + k, torqueRms: 1, speed: 1 })
        .checks.filter((c) => /^form-/.test(c.id));
      expect(told.map((c) => [c.id, c.figure, c.state])).toEqual([['form-bore2', 1 + k, k === 0 ? 'holds' : 'fails']]);
      expect(told[0]!.limit).toBeCloseTo(30e6 * 0.2 * 8e-3 * 9e-3 * 0.9 * 4e-3, 9);
    });
  });

  it('a ring that would turn is held by the next thread that does', () => {
    const v = active(joint('wing-root'));
    const carries = [
      { output: 40, held: 14 },
      { output: 120, held: 0 },
    ];
    const c = strength(v, carries).find((x) => x.id === 'ring-1')!;
    expect(c.state).toBe('fails');
    const next = mended(v, c.mend!, shelf);
    expect(next.housing!.screw).not.toBe(v.housing!.screw);
    expect(strength(next, carries).find((x) => x.id === 'ring-1')!.state).not.toBe('fails');
  });

  it('a ring beside one as large is said to be held by nothing along the axis', () => {
    const v = { ...joint('wing-root').variants.find((x) => x.name === 'C')!, housing: usualHousing(shelf) };
    expect(strength(v, [{ output: 4, held: 3.9 }]).find((c) => c.id === 'ring-1')).toMatchObject({
      state: 'fails',
      severity: 'note',
    });
  });

  it('gives of a plate with a boss what is its outside, what steps back from it, and what goes through', () => {
    const v = DEMOS[2]!.variants.find((x) => x.id === 'b')!;
    const cover = housingParts(v, shelf).find((p) => p.id === 'cover')!;
    const layers = (name: string) => cover.curves.filter((c) => c.layer === name);
    // Its boss begins on the plate and ends at the top: a round that is neither at the bottom nor, where it begins, at the top.
    const boss = made(v).housing!.plates.at(-1)!;
    expect(boss.to).toBeGreaterThan(boss.from);
    expect(layers('outside').length).toBe(1);
    expect(layers('steps').length).toBeGreaterThan(0);
    const round = (v.output!.bearing!.outside / 2 + v.housing!.wall) ** 2 * Math.PI;
    expect(layers('steps').some((c) => Math.abs(Math.abs(area(c.outline)) / round - 1) < 1e-6)).toBe(true);
  });

  it('leaves the maker of an own housing the room that is swept, and its file', () => {
    const v = active(joint('neck-lift'));
    const own: Variant = { ...v, housing: { ...v.housing!, by: 'own', gap: 2e-3 } };
    const sheet = sectionSheet(own, 0, shelf);
    if (!sheet.ok) throw new Error(sheet.problem.what);
    const [u0, z0, u1, z1] = sheet.value.free!;
    const inner = sheet.value.regions.filter((x) => x.of === 'stage').flatMap((x) => [...x.rects]);
    const across = inner.filter((_, i) => i % 2 === 0);
    const along = inner.filter((_, i) => i % 2 === 1);
    // The belt's driver has a flange that reaches no farther than the plane shows.
    expect(u0).toBeCloseTo(Math.min(...across) - 2e-3, 6);
    expect(u1).toBeCloseTo(Math.max(...across) + 2e-3, 6);
    expect([z0, z1].map((z) => z.toFixed(9))).toEqual(
      [Math.min(...along) - 2e-3, Math.max(...along) + 2e-3].map((z) => z.toFixed(9)),
    );
    const [room] = housingParts(own, shelf);
    expect(room).toMatchObject({ id: 'room', reference: true, mass: 0 });
    const bill = billOf(own, 1, shelf);
    expect(bill.ok && bill.value.rows.some((r) => r.name.startsWith('Room'))).toBe(false);
  });
});

describe('a motion told as data', () => {
  it('puts every piece of every kind where the stage itself does, however far the motor has turned', () => {
    for (const v of [...stageKinds().map((k) => ofKind(k.id)), ...DEMOS.map(active)])
      for (const b of made(v).bodies) {
        const motions = motionsOf(b);
        for (const crank of [0.8, 31.4]) {
          const places = b.places(crank);
          motions.forEach((m, i) => {
            const [told, own] = [placedAt(m, crank), places[i]!];
            for (const key of ['at', 'x', 'y', 'z'] as const)
              for (let k = 0; k < 3; k++) expect(told[key][k], `${b.id} ${key}`).toBeCloseTo(own[key][k]!, 5);
          });
        }
      }
  });
});

describe('a housing in a file', () => {
  const stamp = { id: 'new', now: '2026-11-29T12:00:00Z' };
  const damaged = (change: (h: Record<string, unknown>) => void) => {
    const raw = structuredClone(joint('neck-lift')) as unknown as { variants: { housing?: Record<string, unknown> }[] };
    change(raw.variants[0]!.housing!);
    return raw;
  };

  it.each([
    ['a wall below nothing', (h: Record<string, unknown>) => (h['wall'] = -1), /wall.*at least/],
    ['a wall of text', (h: Record<string, unknown>) => (h['wall'] = 'thick'), /wall/],
    ['no gap', (h: Record<string, unknown>) => delete h['gap'], /gap/],
    ['a thread of its own', (h: Record<string, unknown>) => (h['screw'] = 'M99'), /metric thread from M2 to M8/],
    ['no plate at all', (h: Record<string, unknown>) => (h['plate'] = 0), /plate.*at least/],
  ])('is refused in words with %s, and mended without losing the variant', (_, change, says) => {
    const raw = damaged(change);
    const read = readRecord(raw);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(inUnits(`${read.problem.what} ${read.problem.why}`)).toMatch(says);
    const mendedOne = repairJoint(raw, stamp);
    if (!mendedOne.ok) throw new Error(mendedOne.problem.what);
    const { joint: whole } = mendedOne.value;
    expect(whole.variants.map((v) => v.name)).toEqual(joint('neck-lift').variants.map((v) => v.name));
    expect(whole.variants[0]!.stages).toEqual(joint('neck-lift').variants[0]!.stages);
  });

  it('that is not there is none: files of before open, and stand free', () => {
    const raw = structuredClone(joint('neck-lift')) as unknown as { variants: { housing?: unknown }[] };
    delete raw.variants[0]!.housing;
    const read = readRecord(raw);
    expect(read.ok && read.value.variants[0]!.housing).toBeUndefined();
    if (read.ok) expect(made(read.value.variants[0]!).housing).toBeUndefined();
  });
});
