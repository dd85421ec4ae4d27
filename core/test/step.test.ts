import * as kit from 'replicad';
import kernel from 'replicad-opencascadejs';
import { fileURLToPath } from 'node:url';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  area,
  drawnFrom,
  exactContour,
  flatten,
  gear,
  gearOutline,
  makeShelf,
  prism,
  circle,
  readParams,
  rectangle,
  solidVolume,
  stageKind,
  type Part,
  type Solid,
} from '../src/index.ts';
import { exactBody, namedBody, writeStep } from '../src/solid/step.ts';
import { partsOf } from './stage-bench.ts';

beforeAll(async () => {
  kit.setOC(
    await kernel({
      locateFile: () => fileURLToPath(import.meta.resolve('replicad-opencascadejs/wasm')),
      print: () => undefined,
    }),
  );
}, 30_000);

const shelf = makeShelf();
const madeParts = (
  id: string,
  over: Record<string, unknown>,
  wish = { ratio: 5, torque: 1, size: Infinity, shelf },
): readonly Part[] => {
  const kind = stageKind(id)!;
  const p = readParams(id, { ...(kind.defaults(wish) as object), ...over });
  if (!p.ok) throw new Error(p.problem.what);
  const made = partsOf(kind, p.value, shelf);
  if (!made.ok) throw new Error(made.problem.what);
  return made.value;
};
const set = {
  module: 1e-3,
  // Few teeth: the kernel's time grows with its faces.
  zs: 9,
  zp: 9,
  zr: 27,
  xs: 0.5,
  planets: 3,
  width: 6e-3,
  boreS: 3e-3,
  shapeS: 'flat',
  boltsR: 3,
  rim: 6e-3,
  nuts: 'no',
};

describe('exact contours', () => {
  it('run head to tail and close, for a wheel as for lines and arcs', () => {
    for (const o of [
      gearOutline(gear({ module: 1e-3, teeth: 9 })),
      gearOutline(gear({ module: 1e-3, teeth: 30, ring: true, chamfer: 1e-4 })),
      circle(1e-3, 2e-3, 5e-3),
      rectangle(0, 0, 2e-3, 1e-3),
    ]) {
      const { pieces, repeat } = exactContour(o);
      const turn = (2 * Math.PI) / repeat;
      pieces.forEach((q, i) => {
        const next = pieces[(i + 1) % pieces.length]!.points;
        const [x, y] = [q.points[q.points.length - 2]!, q.points[q.points.length - 1]!];
        const a = i === pieces.length - 1 && repeat > 1 ? turn : 0;
        expect(
          Math.hypot(
            next[0]! * Math.cos(a) - next[1]! * Math.sin(a) - x,
            next[0]! * Math.sin(a) + next[1]! * Math.cos(a) - y,
          ),
        ).toBeLessThan(1e-10);
      });
    }
  });

  it('pass through the middle of an arc on its right side', () => {
    const o = { points: Float64Array.of(1e-2, 0, 1, -1e-2, 0, 0), closed: true };
    const arc = exactContour(o).pieces[0]!;
    expect([...arc.points.slice(2, 4)].map((v) => Math.round(v * 1e9))).toEqual([0, 1e7]);
  });

  it('keep what an outline was drawn from', () => {
    const o = circle(0, 0, 1);
    const own = { pieces: [], repeat: 7 };
    expect(exactContour(drawnFrom(o, () => own))).toBe(own);
  });
});

describe('exact bodies', () => {
  it.each([
    ['straight wheels, ring and plates', {}, undefined],
    // What is not toothed is the same once more.
    ['helical wheels', { helix: 0.3 }, ['sun']],
    ['double-helical wheels and ring', { helix: 0.35, double: 'yes' }, ['sun', 'ring']],
  ])(
    '%s have the volume of their outlines',
    (_name, over, only) => {
      const made = madeParts('planetary', { ...set, ...over }).filter(
        (p) => p.solid && (only ?? [p.id]).includes(p.id),
      );
      expect(made.length).toBeGreaterThanOrEqual(only?.length ?? 4);
      for (const part of made) {
        const solid = part.solid!();
        expect(kit.measureVolume(exactBody(kit, solid)) / (solidVolume(solid) * 1e9), part.id).toBeCloseTo(1, 4);
      }
    },
    60_000,
  );

  it.each([
    ['right, one with its shaft', 'right', 0],
    ['left, bored', 'left', 3e-3],
  ])(
    'a worm comes out whole: %s',
    (_name, hand, bore1) => {
      const worm = madeParts(
        'worm',
        { bore1, hand, bearing: '683', starts: 2, z2: 40, module: 1e-3, quotient: 10, length: 0.016, span: 0.024 },
        { ratio: 20, torque: 0.5, size: Infinity, shelf },
      ).find((p) => p.id === 'worm')!;
      const solid = worm.solid!();
      const made = namedBody(kit, worm.name, solid);
      expect(made.ok && made.value.volume / (solidVolume(solid) * 1e9)).toBeCloseTo(1, 4);
    },
    60_000,
  );

  it('two toothings on one planet are joined', () => {
    // Few teeth: the kernel's boolean takes its time.
    const two: Solid = {
      prisms: [
        prism(gearOutline(gear({ module: 1e-3, teeth: 4, shift: 0.7 })), 0, 3e-3),
        prism(gearOutline(gear({ module: 1e-3, teeth: 5, shift: 0.7 })), 3e-3, 6e-3),
      ],
    };
    const made = namedBody(kit, 'Planet', two);
    expect(made.ok && made.value.volume / (solidVolume(two) * 1e9)).toBeCloseTo(1, 5);
  }, 60_000);

  it('nut traps are cut from one face only', () => {
    const ring = (nuts: string) =>
      kit.measureVolume(
        exactBody(kit, madeParts('planetary', { ...set, nuts }).find((p) => p.id === 'ring')!.solid!()),
      );
    const [plain, trapped] = [ring('no'), ring('yes')];
    // ISO 4032 M3: 5.5 mm across, 2.4 mm deep, less the hole that was there.
    const one = ((5.5 ** 2 * Math.sqrt(3)) / 2 - (Math.PI * 3.2 ** 2) / 4) * 2.4;
    expect(plain - trapped).toBeGreaterThan(0.5 * 3 * one);
    expect(plain - trapped).toBeLessThanOrEqual(3 * one * 1.001);
  }, 60_000);

  it('a file says its schema and unit, names its bodies, and reads back with their volume', async () => {
    const parts = madeParts('spur', {
      z1: 9,
      z2: 13,
      x1: 0.5,
      module: 1e-3,
      width: 4e-3,
      bore1: 3e-3,
      bore2: 5e-3,
      shape2: 'keyway',
    });
    const bodies = parts
      .filter((p) => p.solid)
      .map((p) => {
        const made = namedBody(kit, p.name, p.solid!());
        if (!made.ok) throw new Error(made.problem.what);
        return made.value;
      });
    const bytes = await writeStep(kit, bodies);
    const text = new TextDecoder().decode(bytes);
    expect(text).toMatch(/^ISO-10303-21;/);
    expect(text).toMatch(/SI_UNIT\(\s*\.MILLI\.\s*,\s*\.METRE\.\s*\)/);
    expect(text.match(/MANIFOLD_SOLID_BREP/g)).toHaveLength(bodies.length);
    expect(text).toMatch(/B_SPLINE_CURVE_WITH_KNOTS/);
    for (const b of bodies) expect(text).toContain(`'${b.name}'`);
    const back = (await kit.importSTEP(new Blob([bytes as BlobPart]))) as kit.Shape3D;
    expect(kit.measureVolume(back)).toBeCloseTo(
      bodies.reduce((s, b) => s + b.volume, 0),
      2,
    );
  }, 60_000);

  it('refuses in words a body that cannot be made', () => {
    const crossed = { points: Float64Array.of(0, 0, 0, 1e-2, 1e-2, 0, 1e-2, 0, 0, 0, 1e-2, 0), closed: true };
    const made = namedBody(kit, 'Bow', { prisms: [prism(crossed, 0, 1e-3)] });
    expect(made.ok).toBe(false);
    if (!made.ok) expect(made.problem.mend).toMatch(/STL/);
    expect(Math.abs(area(crossed))).toBeLessThan(1e-12);
  });

  it('a rack’s slant teeth lean along it, by tan β over its width, and keep their volume', () => {
    for (const double of ['no', 'yes'] as const) {
      const rack = madeParts('rack', { helix: 0.25, double, stroke: 0.02 }).find((p) => p.id === 'rack')!;
      const solid = rack.solid!();
      const width = Math.max(...solid.prisms.map((p) => p.to));
      const made = namedBody(kit, 'Rack', solid);
      expect(made.ok && made.value.volume / (solidVolume(solid) * 1e9)).toBeCloseTo(1, 6);
      if (!made.ok) return;
      const [[x0], [x1]] = made.value.shape.boundingBox.bounds;
      const xs = flatten(rack.curves[0]!.outline, 1e-5).filter((_, i) => i % 2 === 0);
      const long = Math.max(...xs) - Math.min(...xs);
      const leans = (double === 'yes' ? width / 2 : width) * Math.tan(0.25);
      expect(x1 - x0).toBeCloseTo(1e3 * (long + leans), 1);
      expect(rack.note).toMatch(double === 'yes' ? /helix .* double/ : /helix .* left/);
    }
  });
});
