import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { analyseLine, envelopeOf, mended, type Check, type Reducer, type Variant } from '../src/index.ts';
import { housingChecks } from '../src/line/housing-checks.ts';
import { openLine } from '../src/line/open.ts';
import { barOf, barStiffness, barStress, blockSpring, type Bar } from '../src/reducer/block-checks.ts';
import { sweptBy } from '../src/reducer/body.ts';
import { undone } from '../src/reducer/frame.ts';
import { acrossTheWay } from '../src/reducer/in-the-way.ts';
import { bodyIn } from '../src/reducer/layout.ts';
import { wallsCarry } from '../src/reducer/sides.ts';
import { area } from '../src/shape/outline.ts';
import { solidVolume } from '../src/shape/solid.ts';
import { shelf } from './helpers.ts';
import { body, DEMOS, fitted, made, ofKind, twoOf } from './reducer-bench.ts';

const mm = 1e-3;

/** A variant with some parameters of its first stage, or of its housing, changed. */
function changed(v: Variant, params: object, housing: object = {}): Variant {
  const [stage, ...rest] = v.stages;
  const first = { ...stage!, params: { ...(stage!.params as object), ...params } };
  return { ...v, housing: { ...v.housing!, ...housing }, stages: [first, ...rest] };
}
/** A worm of module 1 and thirty teeth on bearings of 4 × 13 × 5, far enough apart that blocks hold them. */
const PLAIN = {
  module: 1 * mm,
  quotient: 8,
  z2: 30,
  x2: 0,
  width: 6 * mm,
  length: 14 * mm,
  bearing: '624',
  span: 30 * mm,
};
const worm = (params: object = {}, housing: object = {}) =>
  changed(ofKind('worm', 30), { ...PLAIN, ...params }, housing);

/** Where a body lies along the way that power comes in, from where it does, m. */
function along(r: Reducer, id: string): { from: number; to: number } {
  const { from, to } = sweptBy(bodyIn(undone(r.run.input), body(r, id)));
  return { from, to };
}

/** Checks of the housing, with strength at a torque; mends are tried. */
function checks(v: Variant, torque?: number): readonly Check[] {
  const { all } = openLine(v.stages, shelf);
  if (!all.ok) throw new Error(all.problem.what);
  const duty = { torque: torque ?? 0, torqueRms: 0, speed: 1 };
  const n =
    torque === undefined
      ? undefined
      : { stages: all.value.map((x) => x.load(duty)), duties: all.value.map(() => duty) };
  return housingChecks(made(v), v, all.value, shelf, n);
}
const check = (v: Variant, id: string, torque?: number): Check => {
  const found = checks(v, torque).find((c) => c.id === id);
  if (!found)
    throw new Error(
      `no ${id} among ${checks(v, torque)
        .map((c) => c.id)
        .join(', ')}`,
    );
  return found;
};

describe('a worm’s housing', () => {
  const r = made(worm());
  const aside = r.plan!.aside!;

  it('holds the worm’s bearings in blocks with a lip outside, and the motor on one that a coupling keeps off', () => {
    const [low, high] = [along(r, 'case/block-near'), along(r, 'case/block-far')];
    const bearings = along(r, 'stage1/bearing');
    expect(bearings.from - low.from).toBeCloseTo(5 * mm, 9);
    expect(high.to - bearings.to).toBeCloseTo(5 * mm, 9);
    // A bearing of 5 mm with what is behind it, eight millimetres beside it away from the wheel.
    for (const b of [low, high]) expect(b.to - b.from).toBeCloseTo(10 * mm, 9);
    for (const b of aside.blocks.slice(1)) expect(Math.max(b.high, -b.low)).toBeCloseTo(6.5 * mm + 8 * mm, 9);
    // What turns beside the lip leaves it free.
    expect(low.from - along(r, 'stage1/coupling').to).toBeGreaterThan(0.4 * mm);
    // The motor's shaft of 24 mm ends where the worm's own begins, a millimetre before it.
    const shaft = along(r, 'motor/shaft');
    expect(shaft.to).toBeCloseTo(0, 9);
    expect(along(r, 'stage1/worm').from).toBeCloseTo(1 * mm, 9);
    expect(along(r, 'case/block-motor').from).toBeCloseTo(-24 * mm, 9);
    expect(sweptBy(bodyIn(undone(r.run.input), body(r, 'motor/body'))).to).toBeCloseTo(-22 * mm, 9);
    // Half of a coupling of 22 mm is its own.
    expect(r.housing!.driven).toBeCloseTo(11 * mm, 9);
    expect(r.housing!.engaged).toBeCloseTo(11 * mm - 0.5 * mm, 9);
  });

  it('is as high as its motor, with pads that bring the grooves to the bearings', () => {
    const [first, cover] = r.housing!.plates;
    // A motor of 42 mm with half a millimetre on either side; the axis of the worm is in the middle.
    expect(cover!.from - first!.to).toBeCloseTo(43 * mm, 9);
    expect((cover!.from + first!.to) / 2).toBeCloseTo(r.run.input.at[2], 9);
    // A bearing of 13 mm and a lip either way.
    expect(aside.pad!.half).toBeCloseTo(7.5 * mm, 9);
    const block = body(r, 'case/block-far');
    const points = block.solid().prisms[0]!.outer.points;
    const xs = Array.from(points).filter((_, i) => i % 3 === 0);
    expect(Math.max(...xs)).toBeCloseTo(7.5 * mm, 9);
    // With its tongues it reaches into both grooves, and they are no deeper.
    const reach = Math.max(
      ...block.solid().prisms.flatMap((p) => Array.from(p.outer.points).filter((_, i) => i % 3 === 0)),
    );
    expect(reach).toBeCloseTo(9 * mm, 9);
    expect(
      aside.blocks.every((b) => b.tongue.from >= b.from && b.tongue.to <= b.to && b.tongue.low < b.tongue.high),
    ).toBe(true);
  });

  it('leaves of a block beside the wheel what its tip circle and the room round it leave, by Pythagoras', () => {
    const { span } = PLAIN;
    const tip = Math.max(...sweptBy(body(r, 'stage1/wheel')).rounds.map((c) => Math.hypot(c.x, c.y) + c.r));
    const centre = Math.abs(r.run.input.at[1]);
    const inner = span / 2 - 2.5 * mm;
    const left = centre - Math.sqrt((tip + 1 * mm) ** 2 - inner ** 2) - 6.5 * mm;
    expect(aside.wall).toBeCloseTo(left, 9);
    // A millimetre is left, as where one is proposed.
    expect(made(ofKind('worm', 30)).plan!.aside!.wall).toBeGreaterThan(1 * mm);
    expect(check(worm(), 'block-wall')).toMatchObject({ state: 'holds', figure: aside.wall, limit: 1 * mm });
    const near = worm({ span: span - 2 * mm });
    const failed = check(near, 'block-wall');
    expect(failed).toMatchObject({ state: 'fails', severity: 'warn' });
    const held = mended(near, failed.mend!, shelf);
    expect(check(held, 'block-wall').state).toBe('holds');
    // No farther apart than it must be, to half a millimetre.
    const by = (held.stages[0]!.params as { span: number }).span;
    expect(check(worm({ span: by - 0.6 * mm }), 'block-wall').state).toBe('fails');
    expect(check(worm({ span: span - 4 * mm }), 'block-wall')).toMatchObject({ severity: 'stop', figure: 0 });
  });

  it('wants a shaft through both bearings of a worm that is bored for the motor’s, or one of its own', () => {
    const bored = worm({ bore1: 0.004, quotient: 10 });
    const c = check(bored, 'motor-through');
    const s = made(bored);
    // From the motor's face to the far side of the far bearing.
    expect(c.limit).toBeCloseTo(along(s, 'stage1/bearing').to - along(s, 'motor/shaft').from, 9);
    expect(c).toMatchObject({ state: 'fails', figure: 24 * mm, mend: { path: 'stages.0.bore1', value: 0 } });
    const own = mended(bored, c.mend!, shelf);
    expect(checks(own).some((x) => x.id === 'motor-through')).toBe(false);
    expect(made(own).bodies.some((b) => b.id === 'stage1/coupling')).toBe(true);
    const long = { pilot: 0.022, screws: 4, circle: 0.0438, deep: 4.5 * mm, thread: 'M3', shaft: 0.004, reach: 0.08 };
    expect(check(worm({ bore1: 0.004, quotient: 10 }, { face: long }), 'motor-through').state).toBe('holds');
  });

  it('says how little of a coupling a short shaft reaches', () => {
    const short = { pilot: 0.022, screws: 4, circle: 0.0438, deep: 4.5 * mm, thread: 'M3', shaft: 0.005, reach: 0.01 };
    expect(check(worm(), 'motor-reach').state).toBe('holds');
    const c = check(worm({}, { face: short }), 'motor-reach');
    expect(c).toMatchObject({ state: 'fails', quantity: 'length' });
    expect(c.mend).toBeUndefined();
  });

  it('is opened for the motor: a wall of three sides, which carries half', () => {
    const wall = body(r, 'case/wall-1');
    const closed = body(made(fitted(ofKind('spur', 5))), 'case/wall-1').solid().prisms[0]!;
    expect(closed.holes.length).toBeGreaterThan(4);
    const { outer, holes } = wall.solid().prisms[0]!;
    // Only holes of screws: the room inside is open to where the motor stands.
    expect(holes).toHaveLength(r.housing!.screws.length);
    // Cut through once, it is as much less as its block is wide, as thick as the wall.
    const { low, high } = aside.blocks[0]!;
    const posts = made(worm({}, { sides: 'posts' }));
    expect(posts.bodies.some((b) => b.id === 'case/wall-1')).toBe(false);
    const ring = Math.abs(area(outer));
    expect(ring).toBeGreaterThan(0);
    expect(solidVolume(wall.solid())).toBeLessThan(r.housing!.area * 43 * mm);
    expect(high - low).toBeCloseTo(2 * (15.5 * mm + 3.05 * mm + 2 * mm), 3);
    const h = worm().housing!;
    const { limit } = check(worm(), 'sides', 1);
    expect(limit).toBeCloseTo(wallsCarry(r.housing!.area, h.wall, h.material.across!) / 2, 9);
    // Two walls across from one another, τ·t·L each, by as far as they are apart: τ·t·A, within the middle of the walls.
    const shear = (0.5 * h.material.across!) / Math.sqrt(3);
    const share = limit / (shear * h.wall * r.housing!.area);
    expect(share).toBeGreaterThan(0.8);
    expect(share).toBeLessThan(1);
  });

  it('takes up what its motor and its plates do', () => {
    const box = envelopeOf(r)!;
    // The motor stands out on one side: from its end to the cover's edge.
    const motor = sweptBy(body(r, 'motor/body'));
    const cover = sweptBy(body(r, 'case/cover'));
    const x = [...motor.rounds, ...cover.rounds].flatMap((c) => [c.x - c.r, c.x + c.r]);
    expect(Math.abs(box.across[0] - (Math.max(...x) - Math.min(...x)))).toBeLessThan(2 * mm);
    expect(box.to - box.from).toBeGreaterThanOrEqual(43 * mm + 11 * mm - 1e-9);
  });
});

describe('a bevel pair’s housing', () => {
  it('has its pinion on the motor’s shaft, right behind a block that is flush with the plates', () => {
    const v = fitted(ofKind('bevel', 2));
    const r = made(v);
    const [motor, pinion] = [along(r, 'case/block-motor'), along(r, 'stage1/pinion')];
    expect(pinion.from - motor.to).toBeCloseTo(1 * mm, 6);
    expect(r.plan!.aside!.blocks).toHaveLength(1);
    const least = Math.min(...sweptBy(body(r, 'case/cover')).rounds.map((c) => c.x - c.r));
    // Seen along the output's axis, the cover ends where the motor begins.
    expect(least).toBeCloseTo(r.run.input.at[0] + motor.from * r.run.input.z[0], 3);
    // The shaft is cut before it runs into the wheel's.
    expect(check(ofKind('bevel', 2), 'motor-room')).toMatchObject({ state: 'fails' });
    expect(check(v, 'motor-room').state).toBe('holds');
    expect(check(v, 'motor-reach').state).toBe('holds');
  });

  it('stands under wider stages: plates reach over the motor, walls beside it do not', () => {
    const r = made(twoOf('bevel', 'cycloidal'));
    const { input } = r.run;
    const plate = sweptBy(body(r, 'case/plate-motor')).rounds.map(
      (c) => (c.x - input.at[0]) * input.z[0] + (c.y - input.at[1]) * input.z[1] - c.r,
    );
    const face = (id: string) =>
      Math.min(
        ...body(r, id)
          .solid()
          .prisms.flatMap((p) => {
            const q = p.outer.points;
            return Array.from(
              { length: q.length / 3 },
              (_, i) => (q[3 * i]! - input.at[0]) * input.z[0] + (q[3 * i + 1]! - input.at[1]) * input.z[1],
            );
          }),
      );
    const at = r.plan!.aside!.face;
    expect(face('case/wall-1')).toBeCloseTo(at, 9);
    expect(Math.min(...plate)).toBeLessThan(at - 5 * mm);
    // No screw of the housing stands where the motor does.
    for (const c of r.housing!.screws)
      expect((c.x - input.at[0]) * input.z[0] + (c.y - input.at[1]) * input.z[1]).toBeGreaterThan(at);
    expect(r.housing!.screws.length).toBeGreaterThanOrEqual(3);
  });

  it('bears its wheel on one side only where the pinion comes too near', () => {
    const v = ofKind('bevel', 1);
    const { near } = made(v).plan!.aside!;
    expect(made(v).plan!.links[0]!).toMatchObject({ beside: true, diameter: 8 * mm });
    // Half of its shaft and the room round it are all that there is.
    const tight = (gap: number) => made(changed(v, {}, { gap })).plan!.links[0]!.beside;
    expect(tight(near - 4 * mm - 1e-6)).toBe(true);
    expect(tight(near - 4 * mm + 1e-6)).toBe(false);
  });

  it('is left to the maker where shafts cross at another angle', () => {
    const leant = changed(ofKind('bevel', 2), { shaft: 1.3 });
    expect(made(leant).plan).toBeUndefined();
  });
});

describe('what has no bodies', () => {
  it('has no housing made round it, since nobody knows its room: a dual-lead pair is bought to its data', () => {
    expect(made(worm({ playBy: 'dual-lead' })).plan).toBeUndefined();
    // Nor round a worm that a spring swings into its wheel: blocks would hold it fast.
    expect(made(worm({ playBy: 'spring' })).plan).toBeUndefined();
    expect(made(worm({ playBy: 'centre' })).plan).toBeDefined();
  });
});

describe('a shaft before what turns across it', () => {
  const bar = (x: number, y: number, from: number, to: number) => {
    const b = body(made(fitted(ofKind('spur', 5))), 'case/shaft-1');
    expect(Math.abs(area(b.solid().prisms[0]!.outer))).toBeCloseTo(Math.PI * (4 * mm) ** 2, 9);
    // Along x, at a height of 50 mm.
    const solid = { prisms: [{ ...b.solid().prisms[0]!, from, to }] };
    return {
      ...b,
      solid: () => solid,
      places: () => [
        { at: [x, y, 50 * mm] as const, x: [0, 0, -1] as const, y: [0, 1, 0] as const, z: [1, 0, 0] as const },
      ],
    };
  };
  it('ends at its side: at its radius in the middle, later beside it', () => {
    const shaft = { x: 0, y: 0, r: 2 * mm };
    expect(acrossTheWay([bar(0, 0, -0.1, 0.1)], shaft)).toBeCloseTo(46 * mm, 9);
    // Five millimetres off, its near side is three off: √(4² − 3²).
    expect(acrossTheWay([bar(0, 5 * mm, -0.1, 0.1)], shaft)).toBeCloseTo(50 * mm - Math.sqrt(7) * mm, 9);
    expect(acrossTheWay([bar(0, 6.1 * mm, -0.1, 0.1)], shaft)).toBe(Infinity);
    expect(acrossTheWay([bar(0, 0, 2.1 * mm, 0.1)], shaft)).toBe(Infinity);
    expect(acrossTheWay([bar(0, 0, 1.9 * mm, 0.1)], shaft)).toBeCloseTo(46 * mm, 9);
  });
});

describe('bearing blocks under the push along their shaft', () => {
  const some: Bar = { long: 18 * mm, wide: 4 * mm, thick: 6 * mm, ring: 6.5 * mm };

  /** A beam on two supports by adding up its bend in small steps: what its middle of loading gives, bending alone, m. */
  function bends(force: number, modulus: number, { long, wide, thick, ring }: Bar): { gives: number; stress: number } {
    const a = long / 2 - (2 * ring) / Math.PI;
    const moment = (x: number) => (force / 2) * Math.min(x, long - x, a);
    const steps = 4000;
    const dx = long / steps;
    let [slope, y] = [0, 0];
    const line: number[] = [0];
    for (let i = 0; i < steps; i++) {
      slope += (moment((i + 0.5) * dx) / ((modulus * wide * thick ** 3) / 12)) * dx;
      y += slope * dx;
      line.push(y);
    }
    // Both ends are held: the straight line between them is taken off.
    const at = (x: number) => line[Math.round(x / dx)]! - (y * x) / long;
    return {
      gives: -(at(a) + at(long - a)) / 2,
      stress: (moment(long / 2) * thick) / 2 / ((wide * thick ** 3) / 12),
    };
  }

  it('bend as a beam does that is added up piece by piece', () => {
    const { gives, stress } = bends(100, 2e9, some);
    expect(barStress(100, some) / stress).toBeCloseTo(1, 9);
    const shear =
      (0.5 * 100 * (some.long / 2 - (2 * some.ring) / Math.PI)) / ((5 / 6) * (2e9 / 2.7) * some.wide * some.thick);
    expect(100 / barStiffness(2e9, some) / (gives + shear)).toBeCloseTo(1, 3);
    // A ring as wide as the bar is long pushes on its supports.
    expect(barStiffness(2e9, { ...some, ring: 15 * mm })).toBe(Infinity);
    expect(barStress(100, { ...some, ring: 15 * mm })).toBe(0);
  });

  it('thicker and wider ones are never weaker or softer, longer ones never stronger', () => {
    const size = fc.double({ min: 1 * mm, max: 30 * mm, noNaN: true });
    fc.assert(
      fc.property(size, size, size, fc.double({ min: 1.01, max: 3, noNaN: true }), (long, wide, thick, by) => {
        const b: Bar = { long: 2 * long, wide, thick, ring: long / 2 };
        for (const more of [{ wide: wide * by }, { thick: thick * by }]) {
          expect(barStress(1, { ...b, ...more })).toBeLessThan(barStress(1, b));
          expect(barStiffness(1e9, { ...b, ...more })).toBeGreaterThan(barStiffness(1e9, b));
        }
        expect(barStress(1, { ...b, long: b.long * by })).toBeGreaterThan(barStress(1, b));
        expect(barStiffness(1e9, { ...b, long: b.long * by })).toBeLessThan(barStiffness(1e9, b));
      }),
    );
  });

  it('are checked with what the wheel pushes along the worm: its torque over its radius', () => {
    const v = worm();
    const aside = made(v).plan!.aside!;
    // Thirty teeth of module 1 and the worm's lead: the wheel rolls on its pitch circle.
    const centre = Math.abs(made(v).run.input.at[1]);
    expect(aside.borne!.lever).toBeCloseTo(15 * mm, 9);
    expect(aside.borne!.lever).toBeLessThan(centre);
    const m = v.housing!.material;
    const bars = aside.blocks.flatMap((b) => barOf(aside, b) ?? []);
    expect(bars).toHaveLength(2);
    const worst = Math.max(...bars.map((b) => bends(1, 1e9, b).stress));
    const c = check(v, 'block-bends', 1.2);
    expect(c.figure).toBeCloseTo(1.2 / aside.borne!.lever, 9);
    expect(c.limit).toBeCloseTo((0.5 * m.across!) / worst, 3);
    expect(c.state).toBe('holds');
    // Tongues are 2 mm narrower than their block either way, in grooves of 1.5 mm in both plates.
    const [, near] = aside.blocks;
    const wide = near!.high - near!.low - 4 * mm;
    expect(check(v, 'block-grooves', 1.2).limit).toBeCloseTo(2 * 1.5 * mm * wide * 0.5 * m.across!, 6);
    for (const id of ['block-bends', 'block-grooves']) expect(check(v, id, 40).state).toBe('fails');
    // Thicker walls make both stronger.
    for (const id of ['block-bends', 'block-grooves'])
      expect(check(worm({}, { wall: 12 * mm }), id, 40).limit).toBeGreaterThan(check(v, id, 40).limit);
    expect(checks(fitted(ofKind('bevel', 2)), 1).some((x) => x.id.startsWith('block-'))).toBe(false);
  });

  it('give at the line’s output as springs behind the worm do', () => {
    const v = worm();
    const aside = made(v).plan!.aside!;
    const modulus = v.housing!.material.modulus;
    const least = Math.min(...aside.blocks.flatMap((b) => barOf(aside, b) ?? []).map((b) => barStiffness(modulus, b)));
    expect(blockSpring(aside, modulus)).toBeCloseTo(least * aside.borne!.lever ** 2, 6);
    // Of two unlike blocks the softer tells.
    const thicker = aside.blocks.map((b) => (b.id === 'far' ? { ...b, to: b.to + 4 * mm } : b));
    expect(blockSpring({ ...aside, blocks: thicker }, modulus)).toBeCloseTo(least * aside.borne!.lever ** 2, 6);
    const { housing: _, ...bare } = v;
    const stiffness = (x: Variant) => analyseLine(DEMOS[0]!, x, shelf).figures.find((f) => f.id === 'stiffness')!.value;
    expect(1 / (1 / stiffness(v) - 1 / stiffness(bare as Variant)) / blockSpring(aside, modulus)).toBeCloseTo(1, 6);
  });
});
