import { beforeAll, describe, expect, it } from 'vitest';
import Kernel, { type ManifoldToplevel } from 'manifold-3d';
import { readFileSync } from 'node:fs';
import { couponOf } from '../src/fit/coupon.ts';
import { fitSheet } from '../src/fit/fit-sheet.ts';
import { isoLimits } from '../src/fit/iso286.ts';
import { changesByBody, correctionFor, fitsOf, pairMend, slicerNumbers } from '../src/fit/pair-fit.ts';
import { partAdvice } from '../src/fit/part-advice.ts';
import { hexagonAcross, matingPairs } from '../src/fit/pairs.ts';
import { partFeatures, pinGain } from '../src/fit/part-features.ts';
import { fitHistory } from '../src/fit/process-fit.ts';
import { overlayOf } from '../src/fit/overlay.ts';
import { PURPOSES, purposeWindow, type Purpose } from '../src/fit/purposes.ts';
import { attemptEntry, attemptSays } from '../src/fit/attempts.ts';
import { taughtFactors } from '../src/fit/taught-factors.ts';
import { entryFromTest } from '../src/fit/from-test.ts';
import { fitMarkdown } from '../src/fit/write-fit.ts';
import { gear, gearOutline, overPins, spanOver, spanTeeth, usualPin } from '../src/gear/index.ts';
import {
  editsFor,
  makeShelf,
  openLine,
  PROCESSES,
  readJointFile,
  reducerOf,
  type Attempt,
  type Process,
  stageKind,
} from '../src/index.ts';
import { madeBy } from './made-by.ts';
import { circle, rectangle } from '../src/shape/outline.ts';
import { roundOf } from '../src/shape/round-of.ts';
import { cut, prism } from '../src/shape/solid.ts';
import { compensated, evenly, meshSolid } from '../src/solid/index.ts';

const mm = 1e-3;
let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await Kernel();
  kernel.setup();
});

const joint = (name: string) => {
  const read = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!read.ok) throw new Error(read.problem.what);
  return read.value;
};

describe('tolerance classes', () => {
  // Values of the printed tables of ISO 286-2, µm.
  it.each([
    [25, 'H7', 0, 21],
    [25, 'h6', -13, 0],
    [25, 'g6', -20, -7],
    [25, 'f7', -41, -20],
    [25, 'p6', 22, 35],
    [25, 'k6', 2, 15],
    [25, 'N7', -28, -7],
    [25, 'P7', -35, -14],
    [25, 'K7', -15, 6],
    [25, 'M7', -21, 0],
    [8, 'H8', 0, 22],
    [8, 'js9', -18, 18],
    [8, 'JS7', -7.5, 7.5],
    [8, 'm6', 6, 15],
    [3, 'N7', -14, -4],
    [100, 'N9', -87, 0],
    [5, 'F8', 10, 28],
    [250, 'H11', 0, 290],
  ])('has %f mm %s from %f to %f', (d, name, low, high) => {
    const l = isoLimits(d * mm, name)!;
    expect(l.low * 1e6).toBeCloseTo(low, 9);
    expect(l.high * 1e6).toBeCloseTo(high, 9);
  });

  it('does not know what the tables do not have', () => {
    for (const [d, name] of [
      [0, 'H7'],
      [300, 'H7'],
      [25, 'Z7'],
      [25, 'H4'],
      [25, ''],
      [-5, 'h6'],
    ] as const)
      expect(isoLimits(d * mm, name)).toBeUndefined();
  });
});

describe('pairs of a reducer', () => {
  const all = (name: string, variant: string) => {
    const j = joint(name);
    const shelf = makeShelf();
    const v = j.variants.find((x) => x.name === variant)!;
    const opened = openLine(v.stages, shelf).all;
    if (!opened.ok) throw new Error();
    const made = reducerOf(v, opened.value, shelf);
    if (!made.ok) throw new Error();
    return { bodies: made.value.bodies, pairs: matingPairs(made.value.bodies) };
  };

  it('are found where bodies stand, with what each is there for', () => {
    const { pairs } = all('wing-root', 'B');
    const find = (hole: string, shaft: string) =>
      pairs.find((p) => p.hole.name.startsWith(hole) && p.shaft.name.startsWith(shaft));
    expect(find('Sun, set 1', 'Motor shaft')).toMatchObject({ purpose: 'hub', count: 1 });
    expect(find('Planet, set 1', 'Planet pin, set 1')).toMatchObject({ purpose: 'run', count: 3 });
    expect(find('Carrier plate, output', 'Planet pin, set 2')).toMatchObject({ purpose: 'press', count: 3 });
    expect(find('Cover', 'Bearing 6001')).toMatchObject({
      purpose: 'seat',
      hole: { diameter: expect.closeTo(0.028, 9) },
    });
    expect(find('Cover', 'Threaded rod')).toMatchObject({ purpose: 'screw' });
    // What turns at other speeds does not hold anything.
    expect(find('Planet, set 1', 'Planet pin, set 2')).toBeUndefined();
  });

  it('name no pair twice, and none of two bought things', () => {
    for (const name of ['wing-root', 'body-yaw', 'neck-lift'])
      for (const v of joint(name).variants) {
        const { pairs, bodies } = all(name, v.name);
        expect(new Set(pairs.map((p) => p.id)).size).toBe(pairs.length);
        for (const p of pairs) {
          const made = [p.hole.body, p.shaft.body].map((id) => bodies.find((b) => b.id === id)?.part);
          expect(made.some((m) => m && m.material !== 'as supplied')).toBe(true);
          expect(p.long).toBeGreaterThan(0);
          expect(p.count).toBeGreaterThan(0);
        }
      }
  });

  it('have a nut in every trap, as deep as it is cut', () => {
    const shelf = makeShelf();
    const kind = stageKind('planetary')!;
    const start = kind.defaults({ ratio: 5, torque: 2, size: Infinity, shelf }) as Record<string, unknown>;
    const params = { ...start, boltsR: 6, rim: 8e-3, boltHole: 3.4e-3, nuts: 'yes' };
    const stages = [{ id: 's', kind: 'planetary', params }];
    const opened = openLine(stages, shelf).all;
    if (!opened.ok) throw new Error(opened.problem.what);
    const v = joint('body-yaw').variants[0]!;
    const made = reducerOf({ motor: v.motor, stages }, opened.value, shelf);
    if (!made.ok) throw new Error(made.problem.what);
    const nut = matingPairs(made.value.bodies).find((p) => p.purpose === 'nut')!;
    // M3 by ISO 4032: 5.5 across, 2.4 high.
    expect(nut).toMatchObject({ count: 6, hole: { name: 'Ring', diameter: 5.5e-3 }, shaft: { name: 'Nut ISO 4032' } });
    expect(nut.long / mm).toBeCloseTo(2.4, 9);
    const [fit] = fitsOf([nut], made.value.bodies, () => madeBy(0, 0.1 * mm, { compensates: 'none' }));
    // 5.5 − 0.2 less the middle of what a nut is under size, 0.033·5.5/2.
    expect(fit!.drawn.mean / mm).toBeCloseTo(-0.2 + (0.033 * 5.5) / 2, 6);
  });

  it('tell a hexagon by its corners', () => {
    const at = (k: number) => [0.003 * Math.cos((k * Math.PI) / 3), 0.003 * Math.sin((k * Math.PI) / 3), 0];
    const points = Float64Array.from([0, 1, 2, 3, 4, 5].flatMap(at));
    expect(hexagonAcross({ points, closed: true })).toBeCloseTo(0.003 * Math.sqrt(3), 12);
    const beside = points.map((v, i) => (i % 3 === 2 ? 0 : v + (i % 3 === 0 ? 0.02 : -0.01)));
    expect(hexagonAcross({ points: beside, closed: true })).toBeCloseTo(0.003 * Math.sqrt(3), 12);
    expect(hexagonAcross({ points, closed: false })).toBeUndefined();
    expect(hexagonAcross(rectangle(0, 0, 1, 1))).toBeUndefined();
    expect(hexagonAcross(circle(0, 0, 1))).toBeUndefined();
  });

  it('come to the clearance that is drawn, less what both sides stand out, by hand', () => {
    const { pairs, bodies } = all('wing-root', 'B');
    const seat = pairs.find((p) => p.purpose === 'seat' && p.hole.name === 'Cover')!;
    const raw = madeBy(0.05 * mm, 0.08 * mm, { compensates: 'none' });
    const [fit] = fitsOf([seat], bodies, (_, printed) => (printed ? raw : undefined));
    // Hole 28 − 0.16; bearing 28 less the middle of its tolerance, 0.0045.
    expect(fit!.drawn.mean / mm).toBeCloseTo(-0.16 + 0.0045, 6);
    // 0.057 below the least, 0.02 of scatter: 2.8 of them.
    expect(fit!.drawn.tight).toBeGreaterThan(0.995);
    const [low, high] = purposeWindow('seat', 0.028);
    expect(fit!.fitted.mean).toBeCloseTo((low + high) / 2, 6);
    expect(fit!.change).toMatchObject({ hole: true, body: 'case/cover' });
    expect(fit!.change!.by).toBeCloseTo((low + high) / 2 - fit!.drawn.mean, 6);
    expect(fit!.fitted.tight + fit!.fitted.loose).toBeLessThan(0.2);
  });

  it('say what to do where they are likely to go wrong, and nothing where they are not', () => {
    const { pairs, bodies } = all('wing-root', 'B');
    const seat = pairs.filter((p) => p.purpose === 'seat' && p.hole.name === 'Cover');
    const by = (spread: number) => {
      const raw = madeBy(0.05 * mm, 0.08 * mm, { compensates: 'none' }, spread);
      return fitsOf(seat, bodies, (_, printed) => (printed ? raw : undefined))[0]!;
    };
    expect(pairMend(by(0.01 * mm), false)).toMatch(/Draw round faces/);
    expect(pairMend(by(0.01 * mm), true)).toBeUndefined();
    expect(pairMend(by(0.2 * mm), true)).toMatch(/Ream it to size and bond/);
    const nobody = fitsOf(seat, bodies, () => undefined)[0]!;
    expect(pairMend(nobody, true)).toMatch(/Choose a process/);
  });

  it('leave what nobody makes as it is', () => {
    const { pairs, bodies } = all('wing-root', 'B');
    for (const f of fitsOf(pairs, bodies, () => undefined)) {
      expect(f.change).toBeUndefined();
      expect(f.fitted).toEqual(f.drawn);
      expect(f.drawn.low).toBeLessThan(f.drawn.high);
      expect(f.drawn.tight + f.drawn.loose).toBeLessThanOrEqual(1 + 1e-9);
    }
  });

  it('keep the classes of metal where a mill makes one side, and are drawn for it', () => {
    const { pairs, bodies } = all('wing-root', 'B');
    const sun = pairs.find((p) => p.hole.name === 'Sun, set 1' && p.purpose === 'hub')!;
    const mill = madeBy(0, 0.01 * mm, { type: 'mill', compensates: 'none' });
    const [fit] = fitsOf([sun], bodies, (key) => (key === 'stage1/sun-1' ? mill : undefined));
    // H7 and h6 at 5 mm: from 0 to 12 + 8.
    expect(fit!.window[0]).toBeCloseTo(0, 9);
    expect(fit!.window[1]).toBeCloseTo(20e-6, 9);
    expect(fit!.classes).toEqual(['H7', 'h6']);
    // Holes close in by 0.01 a side; the shaft is 4 under: 16 short of the middle of the zone, 10 + 16.
    expect(fit!.change).toMatchObject({ hole: true, by: expect.closeTo(26e-6, 7) });
  });

  it('have windows that grow with the size and never turn over', () => {
    for (const p of Object.keys(PURPOSES) as Purpose[])
      for (const d of [1, 3, 10, 30, 200]) {
        const [low, high] = purposeWindow(p, d * mm);
        expect(high).toBeGreaterThan(low);
      }
    expect(purposeWindow('run', 0.08)[1]).toBeCloseTo(2 * 2.4e-4, 12);
  });
});

describe('how a part is printed', () => {
  const process = { type: 'filament', tool: 2.5e-4, layer: 1e-4, material: 'petg' } as const;
  const disc = { name: 'Disc', solid: { prisms: [prism(circle(0, 0, 0.02), 0, 5e-3)] } };
  // The same outline the other way round.
  const turned = (r: number) => ({ points: Float64Array.of(r, 0, -1, -r, 0, -1), closed: true });

  it('has teeth of solid walls, more where its stage is loaded hard, and says by how much it is', () => {
    const teeth = gear({ module: 1e-3, teeth: 24 });
    // A tooth is 1.57 mm thick, a line 0.275: three on either side.
    expect(partAdvice({ ...disc, teeth }, process, 10).walls).toMatch(/^3 walls.*25 % infill.*10\.0 times/);
    expect(partAdvice({ ...disc, teeth }, process, 1.5).walls).toMatch(/^4 walls.*60 % infill.*1\.5 times/);
    expect(partAdvice({ ...disc, teeth }, process, 3).walls).toMatch(/^3 walls.*40 % infill/);
    expect(partAdvice(disc, process, NaN).walls).toMatch(/^2 walls of .*; 15 % infill\.$/);
    expect(partAdvice({ ...disc, teeth }, process, 10).seam).toMatch(/root/);
    expect(partAdvice(disc, { ...process, type: 'resin', material: 'resin' }, 10)).toMatchObject({
      walls: 'Solid.',
      seam: '',
    });
  });

  it('lies with its axis upright, turned over where that saves supports, on its side where it would shake', () => {
    const cone = (from: number, to: number) => ({
      name: 'x',
      solid: { prisms: [prism(circle(0, 0, from), 0, 5e-3), prism(turned(to), 5e-3, 0.01)] },
    });
    expect(partAdvice(cone(0.01, 0.02), process, NaN).support).toMatch(/Turn it over/);
    expect(partAdvice(cone(0.02, 0.01), process, NaN).support).toMatch(/nothing hangs/);
    const both = {
      name: 'x',
      solid: { prisms: [...cone(0.01, 0.02).solid.prisms, prism(circle(0, 0, 0.005), 0.01, 0.012)] },
    };
    expect(partAdvice(both, process, NaN).support).toMatch(/^Supports under/);
    const rod = { name: 'Rod', solid: { prisms: [prism(circle(0, 0, 2e-3), 0, 0.05)] } };
    expect(partAdvice(rod, process, NaN).lies).toMatch(/Axis along the bed/);
    expect(partAdvice(disc, process, NaN).material).toMatch(/Dry it for 4 hours/);
  });
});

describe('a part that is drawn for its process', () => {
  const plate = {
    prisms: [prism(rectangle(0, 0, 0.03, 0.02), 0, 5e-3, [circle(0.01, 0.01, 4e-3), circle(0.02, 0.01, 2e-3)])],
  };

  it('comes out as drawn once the process has added what it adds', () => {
    // Outsides in by 0.05, holes out by 0.08, one hole wider by 0.1 in diameter, 1 % smaller throughout.
    const by = {
      out: 0.05 * mm,
      into: 0.08 * mm,
      scale: 0.01,
      rounds: [{ hole: true, diameter: 8 * mm, by: 0.1 * mm }],
    };
    const mesh = meshSolid(kernel, plate, 2e-7, by)!;
    const r1 = 4 + 0.08 + 0.05;
    const r2 = 2 + 0.08;
    const area = ((30 - 0.1) * (20 - 0.1) - Math.PI * (r1 * r1 + r2 * r2)) / 1.01 ** 2;
    expect(mesh.volume).toBeCloseTo(area * 5, 1);
  });

  it('is narrower at the bed by the foot, in three steps, and nowhere else', () => {
    const mesh = meshSolid(kernel, { prisms: [prism(rectangle(0, 0, 0.02, 0.02), 0, 5e-3)] }, 1e-6, {
      out: 0,
      into: 0,
      scale: 0,
      rounds: [],
      foot: { by: 0.3 * mm, high: 0.3 * mm },
    })!;
    const lost = [5 / 6, 3 / 6, 1 / 6].reduce((s, k) => s + (400 - (20 - 2 * 0.3 * k) ** 2) * 0.1, 0);
    expect(mesh.volume).toBeCloseTo(2000 - lost, 2);
  });

  it('has a cut that opens and is otherwise the same as being moved evenly', () => {
    const solid = { prisms: [prism(rectangle(0, 0, 0.03, 0.02), 0, 5e-3), cut(circle(0.01, 0.01, 4e-3), 2e-3, 5e-3)] };
    const even = meshSolid(kernel, solid, 1e-6, 0.1 * mm)!;
    const own = meshSolid(kernel, solid, 1e-6, evenly(0.1 * mm))!;
    expect(own.volume).toBeCloseTo(even.volume, 6);
    expect(even.volume).toBeCloseTo(29.8 * 19.8 * 5 - Math.PI * 4.1 ** 2 * 3, 0);
  });

  it('moves contours of a drawing file the way its body moves', () => {
    const curves = [
      { layer: 'outside', outline: rectangle(0, 0, 0.03, 0.02) },
      { layer: 'bore', outline: circle(0.01, 0.01, 4e-3) },
    ];
    const out = compensated(kernel, curves, { out: 0.05 * mm, into: 0.1 * mm, scale: 0, rounds: [] }, 1e-7);
    const wide = (o: (typeof out)[number]) => {
      const xs = Array.from(o.outline.points).filter((_, i) => i % 3 === 0);
      return Math.max(...xs) - Math.min(...xs);
    };
    expect(wide(out[0]!) / mm).toBeCloseTo(29.9, 4);
    expect(wide(out[1]!) / mm).toBeCloseTo(8.2, 3);
  });
});

describe('contours over one another', () => {
  const solid = { prisms: [prism(rectangle(0, 0, 0.03, 0.02), 0, 5e-3, [circle(0.01, 0.01, 4e-3)])] };
  const wide = (o: { readonly points: ArrayLike<number> }) => {
    const xs = Array.from(o.points).filter((_, i) => i % 3 === 0);
    return (Math.max(...xs) - Math.min(...xs)) / mm;
  };
  const of = (compensates: Process['compensates']) => {
    const made = madeBy(0.05 * mm, 0.08 * mm, { compensates });
    const scaled = { ...made, fit: { ...made.fit, scaleX: { value: 0.01, u: 0 }, scaleY: { value: 0.01, u: 0 } } };
    const over = overlayOf(kernel, solid, correctionFor(scaled, []), scaled);
    return { drawn: over.drawn.map(wide), forProcess: over.forProcess.map(wide), made: over.made.map(wide) };
  };

  it('come out as drawn where the outline corrects, by way of what is drawn for the process', () => {
    const { drawn, forProcess, made } = of('outline');
    expect(drawn[0]).toBeCloseTo(30, 6);
    expect(forProcess[0]).toBeCloseTo((30 - 0.1) / 1.01, 3);
    expect(forProcess[1]).toBeCloseTo((8 + 0.16) / 1.01, 2);
    expect(made[0]).toBeCloseTo(30, 2);
    expect(made[1]).toBeCloseTo(8, 2);
  });

  it('come out fat, with small holes, where nothing does; and as drawn where the slicer does', () => {
    const raw = of('none');
    expect(raw.forProcess[0]).toBeCloseTo(30, 3);
    expect(raw.made[0]).toBeCloseTo(30 * 1.01 + 0.1, 2);
    expect(raw.made[1]).toBeCloseTo(8 * 1.01 - 0.16, 2);
    const slicer = of('slicer');
    expect(slicer.forProcess[0]).toBeCloseTo(30, 3);
    expect(slicer.made[0]).toBeCloseTo(30, 3);
  });
});

describe('sizes by which a made part tells its process', () => {
  it.each([
    [gear({ module: 1e-3, teeth: 24 })],
    [gear({ module: 1e-3, teeth: 17, shift: 0.3 })],
    [gear({ module: 0.8e-3, teeth: 30, helix: 0.3 })],
    [gear({ module: 1e-3, teeth: 60, ring: true })],
  ])('gain over pins and over teeth what flanks gain along their normals', (g) => {
    const c = 1e-6;
    // A flank that stands out by c makes a tooth thicker by c/cos α on either side.
    const thicker = { ...g, allowance: g.allowance - (2 * c) / Math.cos(g.pressure) };
    const pin = usualPin(g);
    const sign = g.ring ? -1 : 1;
    expect((sign * (overPins(thicker, pin) - overPins(g, pin))) / c).toBeCloseTo(pinGain(g, pin), 2);
    if (!g.ring) {
      const k = spanTeeth(g);
      expect((spanOver(thicker, k) - spanOver(g, k)) / c).toBeCloseTo(2, 6);
    }
  });

  it('are listed of gears, rounds and lobes', () => {
    const g = gear({ module: 1e-3, teeth: 24 });
    const list = partFeatures({
      teeth: g,
      curves: [
        { layer: 'profile', outline: gearOutline(g) },
        { layer: 'bore', outline: circle(0, 0, 2.5e-3) },
      ],
    });
    expect(list.map((f) => f.feature)).toEqual(['outside', 'outside', 'hole']);
    expect(list[2]!.drawn).toBeCloseTo(5e-3, 12);
  });
});

describe('the coupon', () => {
  it.each(['filament', 'resin', 'powder', 'cutter', 'mill'] as const)(
    'of a %s can be made, and is measured in about ten readings',
    (type) => {
      const c = couponOf({ type, compensates: 'outline' });
      expect(c.measures.length).toBeGreaterThanOrEqual(10);
      expect(c.measures.length).toBeLessThanOrEqual(12);
      for (const p of c.parts) {
        const mesh = meshSolid(kernel, p.solid(), 1e-5)!;
        expect(mesh.volume).toBeGreaterThan(0);
      }
      expect(c.parts.some((p) => p.id === 'feet')).toBe(!['cutter', 'mill'].includes(type));
    },
  );

  it('has its drawn sizes where its dimension lines stand', () => {
    for (const m of couponOf({ type: 'filament', compensates: 'outline' }).measures)
      if (m.at) expect(Math.hypot(m.at[1][0] - m.at[0][0], m.at[1][1] - m.at[0][1])).toBeCloseTo(m.reading.drawn, 9);
  });

  it('has a ladder whose holes lie clear of each other, in steps of a tenth', () => {
    const ladder = couponOf({ type: 'cutter', compensates: 'outline' }).parts.find((p) => p.id === 'ladder')!;
    const holes = ladder.curves.filter((c) => c.layer === 'holes').map((c) => roundOf(c.outline)!);
    const plate = Array.from(ladder.curves[0]!.outline.points).filter((_, i) => i % 3 === 0);
    expect(holes.map((h) => Number((2 * h.r * 1e3).toFixed(6)))).toEqual([9.9, 10, 10.1, 10.2, 10.3, 10.4, 10.5]);
    holes.forEach((h, i) => {
      const next = holes[i + 1];
      expect((next ? next.x - next.r : Math.max(...plate)) - h.x - h.r).toBeGreaterThan(1.5e-3);
      expect((next ? next.x - next.r : Math.max(...plate)) - h.x - h.r).toBeLessThan(6e-3);
    });
  });

  it('has pads whose edge is cut at the bed by their own chamfer, side by side', () => {
    const feet = couponOf({ type: 'filament', compensates: 'outline' }).parts.find((p) => p.id === 'feet')!;
    const low = feet.solid().prisms.filter((p) => p.from === 0);
    const box = (p: (typeof low)[number]) => {
      const xs = Array.from(p.outer.points).filter((_, i) => i % 3 === 0);
      return [Math.min(...xs), Math.max(...xs)] as const;
    };
    expect(low).toHaveLength(5);
    low.forEach((p, i) => {
      const [a, b] = box(p);
      // Half a slab of 0.05 is left of the chamfer at the lowest one.
      const inset = (i + 1) * 0.1 - 0.025;
      expect(a / mm).toBeCloseTo(i * 10 + inset, 9);
      expect(b / mm).toBeCloseTo(i * 10 + 8 - inset, 9);
    });
  });

  it('tells a process from its own ten readings', () => {
    const truth = { s: -0.001, out: 9e-5, into: 1.3e-4, foot: 2e-4 };
    const readings = couponOf({ type: 'filament', compensates: 'outline' }).measures.map((m, i) => {
      const r = m.reading;
      const contour =
        r.feature === 'hole'
          ? -2 * truth.into
          : r.feature === 'ladder'
            ? 2 * (truth.out + truth.into) + 5e-5
            : 2 * truth.out + (r.feature === 'foot' ? 2 * truth.foot : 0);
      const made = r.feature === 'foot-height' ? 3e-4 : r.drawn * (r.feature === 'ladder' ? 1 : 1 + truth.s) + contour;
      return { id: `${i}`, ...r, made };
    });
    const made = fitHistory(
      { type: 'filament', name: 'x', fits: [{ id: 'a', day: '2026-11-01', from: 'coupon', note: '', readings }] },
      '2026-11-01',
    );
    if (!made.ok) throw new Error(made.problem.what);
    expect(made.value.steps[0]!.odd).toEqual([]);
    expect(made.value.now.out.value).toBeCloseTo(truth.out, 5);
    expect(made.value.now.into.value).toBeCloseTo(truth.into, 5);
    expect(made.value.now.foot.value).toBeCloseTo(truth.foot, 4);
    // Good enough to draw a fit by: less than 0.03 mm a side for 95 %.
    expect(1.96 * made.value.now.out.u).toBeLessThan(3e-5);
    expect(1.96 * made.value.now.into.u).toBeLessThan(3.5e-5);
  });
});

describe('the correction of a part', () => {
  it('takes what the outline corrects, the mean of both scales, and the foot where it is drawn', () => {
    const base = madeBy(4e-5, 9e-5);
    const told = (value: number) => ({ value, u: 0 });
    const fit = { ...base.fit, scaleX: told(0.004), scaleY: told(-0.001), foot: told(2e-4), footHigh: told(3e-4) };
    const rounds = [{ hole: true, diameter: 3e-3, by: 1e-4 }];
    const of = (more: Partial<Process>) => correctionFor({ process: { ...base.process, ...more }, fit }, rounds);
    expect(of({ compensates: 'outline', foot: 'chamfer' })).toEqual({
      out: 4e-5,
      into: 9e-5,
      scale: expect.closeTo(0.0015, 12),
      rounds,
      foot: { by: 2e-4, high: 3e-4 },
    });
    expect(of({ compensates: 'slicer', foot: 'raft' })).toEqual({ out: 0, into: 0, scale: 0, rounds });
    // A pulley that is drawn in by 0.05 already is not moved in twice; where nothing corrects, its own stays.
    const own = (compensates: Process['compensates']) =>
      correctionFor({ process: { ...base.process, compensates }, fit }, [], 5e-5).out;
    expect(own('outline')).toBeCloseTo(-1e-5, 12);
    expect(own('slicer')).toBeCloseTo(-5e-5, 12);
    expect(own('none')).toBe(0);
    expect(correctionFor(undefined, rounds).rounds).toEqual([]);
    const n = slicerNumbers({ process: base.process, fit });
    expect(n).toMatchObject({ outer: -4e-5, holes: 9e-5, foot: 2e-4 });
    expect(n.scale).toBeCloseTo(1 / 1.0015, 12);
  });

  it('of several things through one hole is what most of them ask for', () => {
    const pair = (count: number) => ({ count }) as never;
    const change = (by: number) => ({ body: 'a', hole: true, diameter: 3e-3, by });
    const fits = [
      { pair: pair(3), change: change(1e-4) },
      { pair: pair(1), change: change(-1e-4) },
      { pair: pair(1) },
    ] as unknown as Parameters<typeof changesByBody>[0];
    expect(changesByBody(fits).get('a')![0]!.by).toBeCloseTo((3e-4 - 1e-4) / 4, 12);
  });
});

describe('attempts at a fit', () => {
  const attempt = (more: Partial<Attempt>): Attempt => ({
    id: 'a',
    day: '2026-11-01',
    part: 'stage1/ring',
    name: 'Ring',
    process: 'filament-04',
    compensated: false,
    feature: 'hole',
    drawn: 20 * mm,
    was: 'tight',
    took: 0.1 * mm,
    ends: 'fits',
    note: '',
    ...more,
  });

  it('blame the process for what it stands out, and the drawing for the rest', () => {
    const p = madeBy(0.05 * mm, 0.1 * mm);
    expect(attemptSays(attempt({}), p).blame).toBe('process');
    expect(attemptSays(attempt({ took: 0.35 * mm }), p).blame).toBe('both');
    expect(attemptSays(attempt({ compensated: true, took: 0.2 * mm }), p).blame).toBe('design');
    expect(attemptSays(attempt({ compensated: true, took: 0.02 * mm }), p).blame).toBe('none');
    expect(attemptSays(attempt({ ends: 'tight' }), p).blame).toBe('open');
    expect(attemptSays(attempt({ took: -0.18 * mm, was: 'loose' }), p)).toMatchObject({
      blame: 'design',
      says: expect.stringMatching(/put on a side.*too much room/),
    });
    expect(attemptSays(attempt({ took: 0, was: 'fits' }), undefined).blame).toBe('none');
    // A beam takes off: what it made too loose is shimmed, and it was the beam.
    const beam = madeBy(-0.09 * mm, -0.09 * mm);
    expect(attemptSays(attempt({ was: 'loose', took: -0.09 * mm }), beam).blame).toBe('process');
    expect(attemptSays(attempt({ was: 'loose', took: -0.4 * mm }), beam).blame).toBe('both');
    expect(attemptSays(attempt({ took: 0.3 * mm }), beam).blame).toBe('design');
  });

  it('teach the process: a hole that needed 0.1 off a side was 0.2 too small', () => {
    const e = attemptEntry(attempt({}), 'e', 0)!;
    expect(e.readings[0]).toMatchObject({ feature: 'hole', drawn: 20 * mm });
    expect(e.readings[0]!.made / mm).toBeCloseTo(19.8, 9);
    expect(
      attemptEntry(attempt({ compensated: true, took: 0.02 * mm }), 'e', 0.1 * mm)!.readings[0]!.made / mm,
    ).toBeCloseTo(19.76, 9);
    expect(attemptEntry(attempt({ feature: 'outside' }), 'e', 0)!.readings[0]!.made / mm).toBeCloseTo(20.2, 9);
    expect(attemptEntry(attempt({ ends: 'loose' }), 'e', 0)).toBeUndefined();
    const before = fitHistory({ ...PROCESSES[0]!, fits: [] }, '2026-11-01');
    const after = fitHistory({ ...PROCESSES[0]!, fits: [e] }, '2026-11-01');
    if (!before.ok || !after.ok) throw new Error();
    expect(after.value.now.into.value).toBeGreaterThan(before.value.now.into.value);
    expect(after.value.now.into.u).toBeLessThan(before.value.now.into.u);
  });
});

describe('a bench test of made sizes', () => {
  it('becomes an entry of its process: spans as outsides, struck ones struck, what is no size left out', () => {
    const values = (feature: string, axis: string, drawn: number, measured: number) => ({
      feature,
      axis,
      drawn,
      measured,
    });
    const e = entryFromTest(
      {
        id: 't',
        date: '2026-10-13',
        notes: '',
        readings: [
          { id: 'a', text: '', values: values('outside', 'y', 0.02, 0.0201) },
          { id: 'b', text: '', values: values('hole', 'x', 0.01, 0.0098), struck: '' },
          { id: 'c', text: '', values: values('span', 'x', 0.0077, 0.0078) },
          { id: 'd', text: '', values: values('outside', 'x', 0, 0.0078) },
        ],
      },
      1e-5,
    );
    expect(e).toMatchObject({ id: 'test-t', day: '2026-10-13', from: 'bench' });
    expect(e.readings.map((r) => [r.feature, r.axis, r.struck])).toEqual([
      ['outside', 'y', undefined],
      ['hole', 'x', 'struck out'],
      ['outside', 'round', undefined],
    ]);
    expect(e.readings[0]!.spread).toBe(1e-5);
  });
});

describe('what a process teaches the shop', () => {
  it('is how far thickness and profiles stray, by hand', () => {
    const made = madeBy(0, 0).fit;
    const fit = { ...made, spread: { value: made.spread.value, u: 4e-6 } };
    // A size scatters by 0.02: a contour by 0.01; two flanks, along the circle: 1.96·2·0.01/cos 20°.
    const [teeth, lobes] = taughtFactors(fit, makeShelf());
    expect(teeth!.value / mm).toBeCloseTo((1.96 * 0.02) / Math.cos(Math.PI / 9), 9);
    expect(lobes!.value / mm).toBeCloseTo(1.96 * 0.01, 9);
    expect(teeth!.low).toBeLessThan(teeth!.value);
    expect(teeth!.high).toBeGreaterThan(teeth!.value);
    expect(teeth!.now).toBe(3e-5);
  });
});

describe('the fit sheet of a variant', () => {
  it('tells of every made part by which process it is made and what it is drawn like', () => {
    const j = joint('wing-root');
    const variant = j.variants.find((v) => v.name === 'B')!;
    const sheet = fitSheet(
      { ...variant, making: { process: 'filament-04', parts: { 'case/cover': 'resin-50' } } },
      makeShelf(),
      '2026-11-01',
    );
    if (!sheet.ok) throw new Error(sheet.problem.what);
    const { parts, corrections } = sheet.value;
    expect(parts.find((p) => p.key === 'case/cover')!.process).toBe('resin-50');
    expect(parts.find((p) => p.key === 'stage1/ring')!.process).toBe('filament-04');
    // A sun of steel is nothing that a filament printer makes.
    expect(parts.find((p) => p.key === 'stage1/sun-1')!.process).toBeUndefined();
    expect(corrections['stage1/ring']).toMatchObject({ out: 5e-5 });
    expect(corrections['stage1/planet-1']!.rounds[0]).toMatchObject({ hole: true, diameter: expect.closeTo(3e-3, 9) });
    for (const p of parts.filter((x) => x.printed)) expect(p.advice?.lies).toMatch(/Axis/);
    expect(parts.find((p) => p.key === 'stage1/planet-1')!.features.some((f) => /Span/.test(f.name))).toBe(true);
  });

  it('draws parts for their process where they do not stand together, and says why no pairs are known', () => {
    const variant = joint('wing-root').variants.find((v) => v.name === 'B')!;
    const stages = variant.stages.map((s, i) => (i === 1 ? { ...s, params: { ...s.params, bore1: 0.2 } } : s));
    const odd = fitSheet({ ...variant, stages, making: { process: 'filament-04' } }, makeShelf(), '2026-11-29');
    // Whatever of it can be opened is drawn for its process, or it is refused in words.
    if (odd.ok) expect(odd.value.corrections['stage1/ring']).toMatchObject({ out: 5e-5 });
    else expect(odd.problem.mend.length).toBeGreaterThan(5);
  });

  it('goes with the files as a sheet: who corrects, every pair, every part', () => {
    const j = joint('wing-root');
    const variant = j.variants.find((v) => v.name === 'B')!;
    const shelf = makeShelf(editsFor(j, {}));
    const sheet = fitSheet(variant, shelf, '2026-11-29');
    if (!sheet.ok) throw new Error(sheet.problem.what);
    const text = fitMarkdown(sheet.value, shelf.processes, 'Wing root', '2026-11-29');
    expect(text).toMatch(/### Desk printer, nozzle 0\.25/);
    expect(text).toMatch(
      /The files correct\. .* at 0, 0 and 100 %\. The lowest 0\.21 mm are drawn narrower, by 0\.14\d? mm/,
    );
    expect(text).toMatch(/### Laser-cut POM, 1 mm/);
    expect(text).toMatch(/\| Planet pin, set 1, 3 × \| Planet, set 1 \| run \| 3 mm \| 107 \(/);
    expect(text).toMatch(/### Cover\n\nPA with carbon fibre, printed; made by Desk printer/);
    expect(text).not.toMatch(/[\uE000\uE001]/);
    const slicer = fitMarkdown(
      sheet.value,
      shelf.processes.map((p) => ({ ...p, compensates: 'slicer' as const })),
      'Wing root',
      '2026-11-29',
    );
    expect(slicer).toMatch(/Type in the slicer: contour -?−?0\.05\d* mm, holes 0\.08\d* mm, scale 99\.98 %/);
  });

  it('leaves fits as drawn where that is asked, and everything where no process is chosen', () => {
    const variant = joint('wing-root').variants.find((v) => v.name === 'B')!;
    const plain = fitSheet(
      { ...variant, making: { process: 'filament-04' } },
      makeShelf(),
      '2026-11-01',
      undefined,
      false,
    );
    expect(plain.ok && Object.values(plain.value.corrections).every((c) => c.rounds.length === 0)).toBe(true);
    const none = fitSheet(variant, makeShelf(), '2026-11-01');
    expect(none.ok && none.value.corrections).toEqual({});
    const lost = fitSheet({ ...variant, making: { process: 'gone' } }, makeShelf(), '2026-11-01');
    expect(lost.ok && lost.value.corrections).toEqual({});
  });
});
