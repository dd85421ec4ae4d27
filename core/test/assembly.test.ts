import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { strFromU8, unzipSync } from 'fflate';
import Kernel from 'manifold-3d';
import Papa from 'papaparse';
import { beforeAll, describe, expect, it } from 'vitest';
import { laidOut, onOnePlate } from '../src/assembly/laid-out.ts';
import { lineFiles, type LineFilesWish, type NamedFiles } from '../src/assembly/line-files.ts';
import {
  analyseLine,
  billCsv,
  billMarkdown,
  billOf,
  layOut,
  makeShelf,
  partsOf,
  readJointFile,
  stageKind,
  type Joint,
  type Variant,
} from '../src/index.ts';
import { meshSolid } from '../src/solid/mesh.ts';

const shelf = makeShelf();
const demo = (name: string): Joint => {
  const r = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const DEMOS = ['body-yaw', 'neck-lift', 'wing-root', 'tide-dial'].map(demo);
const bill = (variant: Variant, joints = 1, on = shelf) => {
  const b = billOf(variant, joints, on);
  if (!b.ok) throw new Error(b.problem.what);
  return b.value;
};
const neck = DEMOS[1]!;

describe('a bill of materials', () => {
  it('comes to what the line weighs and costs, for every variant of the demo', () => {
    let seen = 0;
    for (const joint of DEMOS)
      for (const variant of joint.variants) {
        const figures = analyseLine(joint, variant, shelf).figures;
        const of = (id: string) => figures.find((f) => f.id === id)?.value;
        if (of('money') === undefined) continue;
        const b = bill(variant);
        expect(b.money / of('money')!, `${joint.name} ${variant.name}`).toBeCloseTo(1, 9);
        expect(b.mass / of('mass')!, `${joint.name} ${variant.name}`).toBeCloseTo(1, 9);
        expect(b.rows[0]!.at).toEqual(['motor']);
        for (const r of b.rows) expect(r.needed).toBe(r.each);
        seen++;
      }
    expect(seen).toBeGreaterThan(6);
  });

  it('counts the output’s shaft and bearings, whichever way they are arranged', () => {
    const bearing = shelf.bearings.find((b) => b.id === '61804')!;
    const material = shelf.materials.find((m) => m.id === 'c45')!;
    const race = { diameter: 0.06, ball: 0.005, balls: 30, material };
    const output = {
      ...{ shaftDiameter: 0.02, shaftBore: 0.01, shaftLength: 0.03, shaftMaterial: material, bearing, span: 0.05 },
      ...{ overhang: 0.02, load: 30 },
    };
    for (const over of [{}, { arrangement: 'single' }, { arrangement: 'race', race }] as const) {
      const variant = { ...neck.variants[0]!, output: { ...output, ...over } } as Variant;
      const figures = analyseLine(neck, variant, shelf).figures;
      expect(bill(variant).money / figures.find((f) => f.id === 'money')!.value).toBeCloseTo(1, 9);
      expect(bill(variant).mass / figures.find((f) => f.id === 'mass')!.value).toBeCloseTo(1, 9);
    }
    // A tube of 20 by 10 mm, 80 mm long between two rows: 148 g of steel.
    const shaft = bill({ ...neck.variants[0]!, output } as Variant).rows.find((r) => r.name === 'Output shaft')!;
    expect(shaft.mass).toBeCloseTo((Math.PI / 4) * (4e-4 - 1e-4) * 0.08 * 7850, 9);
  });

  it('is of as many joints as are wanted, less what lies in the drawer; the same piece is one row', () => {
    const planetary = {
      kind: 'planetary',
      params: { ...stageKind('planetary')!.starts, pins: 'bearing', bearing: '623' },
    };
    const variant = {
      ...neck.variants[0]!,
      housing: undefined,
      stages: [
        { ...planetary, id: 'a' },
        { ...planetary, id: 'b' },
      ],
    } as Variant;
    const drawer = { bearings: { 623: 5 }, motors: { [variant.motor.id]: 1 } };
    const b = bill(variant, 3, makeShelf({ drawer }));
    const bearings = b.rows.filter((r) => r.name.startsWith('Bearing '));
    expect(bearings).toHaveLength(1);
    expect(bearings[0]).toMatchObject({ at: ['stage 1', 'stage 2'], each: 6, needed: 18, there: 5, how: 'bought' });
    expect(b.rows[0]).toMatchObject({ needed: 3, there: 1 });
    const saved = 5 * bearings[0]!.money + variant.motor.price;
    expect(b.toPay).toBeCloseTo(3 * b.money - saved, 9);
  });

  it('says of a stage that cannot be why, and leaves out what is only drawn', () => {
    const belt = stageKind('belt')!.starts as object;
    const broken = { ...neck.variants[0]!, stages: [{ id: 'x', kind: 'belt', params: { ...belt, z1: 3 } }] } as Variant;
    const r = billOf(broken, 1, shelf);
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.problem.mend.length).toBeGreaterThan(5);
    const plates = {
      ...neck.variants[0]!,
      stages: [{ id: 'x', kind: 'ring-plate', params: stageKind('ring-plate')!.starts }],
    };
    expect(bill(plates as Variant).rows.some((x) => /room/i.test(x.name))).toBe(false);
  });

  it('as CSV reads back number by number; no cell is a formula', () => {
    const named = { ...neck.variants[0]!, motor: { ...neck.variants[0]!.motor, name: '=SUM(A1), "cheap"' } } as Variant;
    const b = bill(named, 2);
    const table = Papa.parse<Record<string, string>>(billCsv(b), { header: true, skipEmptyLines: true });
    expect(table.errors).toEqual([]);
    expect(table.data).toHaveLength(b.rows.length + 1);
    expect(table.data[0]!.name).toBe('\'=SUM(A1), "cheap"');
    b.rows.forEach((r, i) => {
      const row = table.data[i]!;
      expect([row['a joint'], row.needed, row['to get']].map(Number)).toEqual([r.each, r.needed, r.needed - r.there]);
      expect(Number(row['mass each (g)']) / 1e3).toBeCloseTo(r.mass, 7);
    });
    expect(Number(table.data.at(-1)!.price)).toBeCloseTo(b.toPay, 1);
  });

  it('as Markdown is one table whose rows have as many cells as its head', () => {
    const text = billMarkdown(
      bill({ ...neck.variants[0]!, motor: { ...neck.variants[0]!.motor, name: 'A|B' } } as Variant),
      'Neck',
    );
    const rows = text.split('\n').filter((l) => l.startsWith('|'));
    const cells = (l: string) => l.replace(/\\\|/g, '').split('|').length;
    expect(new Set(rows.map(cells)).size).toBe(1);
    expect(text).toMatch(/^# Neck\n/);
    expect(text).not.toMatch(/[\uE000\uE001]|NaN|undefined/);
  });
});

describe('pieces on plates', () => {
  const size = fc.double({ min: 0.004, max: 0.26, noNaN: true });
  it('lie within the bed, apart from each other, each once or told as too large', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ width: size, depth: size }), { maxLength: 40 }),
        fc.record({ width: fc.constantFrom(0.12, 0.2, 0.256), depth: fc.constantFrom(0.12, 0.2, 0.256) }),
        fc.constantFrom(0, 2e-3, 5e-3),
        (pieces, bed, gap) => {
          const { plates, tooLarge } = layOut(pieces, bed, gap);
          const boxes = plates.map((plate) =>
            plate.map(({ piece, x, y, turned }) => {
              const { width, depth } = pieces[piece]!;
              return { x, y, w: turned ? depth : width, d: turned ? width : depth };
            }),
          );
          for (const plate of boxes)
            plate.forEach((a, i) => {
              expect(a.x).toBeGreaterThanOrEqual(gap - 1e-12);
              expect(a.x + a.w).toBeLessThanOrEqual(bed.width - gap + 1e-12);
              expect(a.y + a.d).toBeLessThanOrEqual(bed.depth - gap + 1e-12);
              for (const b of plate.slice(i + 1))
                expect(
                  a.x + a.w + gap <= b.x + 1e-12 ||
                    b.x + b.w + gap <= a.x + 1e-12 ||
                    a.y + a.d + gap <= b.y + 1e-12 ||
                    b.y + b.d + gap <= a.y + 1e-12,
                ).toBe(true);
            });
          const seen = [...plates.flat().map((q) => q.piece), ...tooLarge].sort((a, b) => a - b);
          expect(seen).toEqual(pieces.map((_, i) => i));
          for (const i of tooLarge) {
            const [long, short] = [
              Math.max(pieces[i]!.width, pieces[i]!.depth),
              Math.min(pieces[i]!.width, pieces[i]!.depth),
            ];
            const [most, least] = [Math.max(bed.width, bed.depth) - 2 * gap, Math.min(bed.width, bed.depth) - 2 * gap];
            expect(long > most || short > least).toBe(true);
          }
        },
      ),
    );
  });

  it('stand with their lowest corner on the plate, turned or not, wherever they were drawn', () => {
    // 40 by 10 by 5 mm, its corner at (−7, 3, −2); two lie side by side on a plate of 50, a third of 60 mm is too long.
    const block = (long: number) => {
      const corners = [0, 1, 2, 3, 4, 5, 6, 7].flatMap((k) => [
        -7 + (k & 1 ? long : 0),
        3 + (k & 2 ? 10 : 0),
        -2 + (k & 4 ? 5 : 0),
      ]);
      return { vertices: Float32Array.from(corners), triangles: new Uint32Array(), volume: 0 };
    };
    const { plates, tooLarge } = laidOut(
      [
        { mesh: block(40), count: 2 },
        { mesh: block(60), count: 1 },
      ],
      { width: 0.05, depth: 0.05 },
      2e-3,
    );
    expect(tooLarge).toEqual([{ part: 1, width: 0.06, depth: 0.01 }]);
    expect(plates).toHaveLength(1);
    for (const { part, at, turn } of plates[0]!) {
      expect(part).toBe(0);
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      const xyz = [0, 1, 2, 3, 4, 5, 6, 7].map((k) => {
        const v = block(40).vertices.subarray(3 * k, 3 * k + 3);
        return [at[0] + c * v[0]! - s * v[1]!, at[1] + s * v[0]! + c * v[1]!, at[2] + v[2]!];
      });
      const [xs, ys, zs] = [0, 1, 2].map((i) => xyz.map((p) => p[i]!)) as [number[], number[], number[]];
      expect(Math.min(...zs)).toBeCloseTo(0, 9);
      for (const side of [xs, ys]) {
        expect(Math.min(...side)).toBeGreaterThanOrEqual(2 - 1e-6);
        expect(Math.max(...side)).toBeLessThanOrEqual(48 + 1e-6);
      }
    }
  });

  it('take as few plates as they must where they are alike', () => {
    const square = Array.from({ length: 50 }, () => ({ width: 0.038, depth: 0.038 }));
    // Five by five of 40 mm in 205 mm, less the edges.
    expect(layOut(square, { width: 0.205, depth: 0.205 }, 2e-3).plates.map((p) => p.length)).toEqual([25, 25]);
    expect(layOut([], { width: 0.2, depth: 0.2 }, 2e-3)).toEqual({ plates: [], tooLarge: [] });
  });
});

describe('all parts of a stage as one file', () => {
  it('lie side by side in the number it takes: three planets, not one in the sun', async () => {
    const kernel = await Kernel();
    kernel.setup();
    const parts = partsOf('planetary', stageKind('planetary')!.starts, shelf);
    if (!parts.ok) throw new Error(parts.problem.what);
    const list = parts.value.flatMap((p) => {
      const mesh = p.solid && meshSolid(kernel, p.solid(), 5e-5, 0);
      return mesh ? [{ id: p.id, count: p.quantity, mesh }] : [];
    });
    const items = onOnePlate(list);
    const of = (id: string) => items.filter((x) => list[x.part]!.id === id);
    expect(of('planet')).toHaveLength(3);
    expect(items).toHaveLength(list.reduce((s, x) => s + x.count, 0));
    const size = (part: number) => {
      const x = list[part]!.mesh.vertices.filter((_, i) => i % 3 === 0);
      return x.reduce((m, v) => Math.max(m, v), 0) * 2;
    };
    // Round things: their middles are further apart than their radii and the room between.
    items.forEach((a, i) => {
      for (const b of items.slice(i + 1))
        expect(Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1])).toBeGreaterThan(
          (size(a.part) + size(b.part)) / 2 + 3.9,
        );
    });
    expect(onOnePlate([])).toEqual([]);
  });
});

describe('all files of a line', () => {
  let kernel: Awaited<ReturnType<typeof Kernel>>;
  beforeAll(async () => {
    kernel = await Kernel();
    kernel.setup();
  });
  const spur = stageKind('spur')!.defaults({ ratio: 3, torque: 1, size: 0.1, shelf }) as object;
  const planetary = stageKind('planetary')!.defaults({ ratio: 5, torque: 2, size: 0.1, shelf }) as object;
  const variant = {
    ...neck.variants[0]!,
    stages: [
      { id: 'a', kind: 'spur', params: { ...spur, material1: 'pa-cf' } },
      { id: 'b', kind: 'planetary', params: planetary },
    ],
  } as Variant;
  const wish: LineFilesWish = {
    ...{ title: 'Neck, variant A', variant, joints: 2, bed: { width: 0.22, depth: 0.22 }, gap: 4e-3 },
    ...{ reference: false, surface: 5e-5, curve: 1e-5, compensation: 0 },
  };
  const made = (over: Partial<LineFilesWish> = {}) => {
    const steps: number[] = [];
    const g = lineFiles(kernel, { ...wish, ...over }, shelf);
    let s = g.next();
    for (; !s.done; s = g.next()) steps.push(s.value.share);
    return { result: s.value, steps };
  };
  const files = (over: Partial<LineFilesWish> = {}): NamedFiles => {
    const { result } = made(over);
    if (!result.ok) throw new Error(result.problem.what);
    return result.value;
  };

  it('holds the bill, the order of assembly, a manifest, and each made part as a surface and as outlines', () => {
    const all = files();
    const names = Object.keys(all);
    for (const name of ['bill.csv', 'bill.md', 'assembly.md', 'manifest.json']) expect(names).toContain(name);
    for (const part of ['stage1-driver', 'stage1-driven', 'stage2-sun', 'stage2-planet', 'stage2-ring'])
      for (const name of [`stl/${part}.stl`, `svg/${part}.svg`, `dxf/${part}.dxf`]) expect(names).toContain(name);
    const manifest = JSON.parse(strFromU8(all['manifest.json']!)) as { files: string[]; joints: number; bed: number[] };
    expect(manifest).toMatchObject({ joints: 2, bed: [220, 220] });
    expect(manifest.files).toEqual(names.filter((n) => n !== 'manifest.json').sort());
    expect(strFromU8(all['assembly.md']!)).toMatch(/## Stage 2, planetary\n\n- \[ \] /);
    const { steps } = made();
    expect(steps.every((s, i) => i === 0 || s >= steps[i - 1]!)).toBe(true);
  });

  it('lays printed parts out in the wanted number, on the bed, apart, none of them standing in another', () => {
    const all = files();
    const plates = Object.keys(all).filter((n) => n.startsWith('plates/'));
    expect(plates.length).toBeGreaterThan(0);
    const counts = new Map<string, number>();
    for (const name of plates) {
      const model = strFromU8(unzipSync(all[name]!)['3D/3dmodel.model']!);
      const objects = [...model.matchAll(/<object id="(\d+)"[^>]*name="([^"]*)">.*?<\/object>/gs)].map(
        ([text, id, part]) => ({
          ...{ id, part: part! },
          vertices: [...text.matchAll(/<vertex x="([^"]+)" y="([^"]+)" z="([^"]+)"/g)].map((v) =>
            v.slice(1).map(Number),
          ),
        }),
      );
      const boxes = [...model.matchAll(/<item objectid="(\d+)" transform="([^"]+)"/g)].map(([, id, t]) => {
        const o = objects.find((x) => x.id === id)!;
        const m = t!.split(' ').map(Number);
        counts.set(o.part, (counts.get(o.part) ?? 0) + 1);
        // Row vectors, as the specification has them.
        const at = o.vertices.map(([x, y, z]) =>
          [0, 1, 2].map((k) => x! * m[k]! + y! * m[3 + k]! + z! * m[6 + k]! + m[9 + k]!),
        );
        const of = (k: number) => at.map((v) => v[k]!);
        return [0, 1, 2].map(
          (k) => [of(k).reduce((a, b) => Math.min(a, b)), of(k).reduce((a, b) => Math.max(a, b))] as const,
        );
      });
      boxes.forEach(([x, y, z], i) => {
        expect(z![0]).toBeCloseTo(0, 3);
        for (const side of [x!, y!]) {
          expect(side[0]).toBeGreaterThan(3.999);
          expect(side[1]).toBeLessThan(216.001);
        }
        for (const [bx, by] of boxes.slice(i + 1))
          expect(
            x![1] + 3.999 < bx![0] || bx![1] + 3.999 < x![0] || y![1] + 3.999 < by![0] || by![1] + 3.999 < y![0],
          ).toBe(true);
      });
    }
    const made = billOf(variant, 2, shelf);
    if (!made.ok) throw new Error(made.problem.what);
    const printed = made.value.rows.filter((r) => r.how === 'printed');
    expect([...counts.values()].reduce((a, b) => a + b, 0)).toBe(printed.reduce((s, r) => s + r.needed, 0));
    expect(counts.get('Stage 2, Planet')).toBe(6);
  });

  it('keeps plates of materials apart whose names come to the same in a file', () => {
    const own = (id: string, name: string) => ({ ...shelf.materials.find((m) => m.id === 'pla')!, id, name });
    const two = makeShelf({ materials: [own('own-a', 'Пластик'), own('own-b', '塑料')] });
    const stages = ['own-a', 'own-b'].map((id) => ({
      ...{ id, kind: 'spur' },
      params: { ...spur, material1: id, material2: id },
    }));
    const g = lineFiles(kernel, { ...wish, variant: { ...variant, housing: undefined, stages } as Variant }, two);
    let s = g.next();
    while (!s.done) s = g.next();
    if (!s.value.ok) throw new Error(s.value.problem.what);
    expect(Object.keys(s.value.value).filter((n) => n.startsWith('plates/'))).toHaveLength(2);
  });

  it('says print of what lies on its plates, and of nothing else: printed pins are made to their drawing', () => {
    const pins = { ...planetary, pins: 'plain', materialPins: 'pa-cf' };
    const belt = {
      ...stageKind('belt')!.defaults({ ratio: 3, torque: 1, size: 0.3, shelf }),
      made2: 'printed',
      seat2: 0.016,
    };
    const stages = [
      { id: 'a', kind: 'planetary', params: pins },
      { id: 'b', kind: 'belt', params: belt },
    ];
    const with_ = { ...variant, stages } as Variant;
    const all = files({ variant: with_, joints: 1 });
    const laid = Object.keys(all)
      .filter((n) => n.startsWith('plates/'))
      .flatMap((n) => [...strFromU8(unzipSync(all[n]!)['3D/3dmodel.model']!).matchAll(/<item /g)]).length;
    const rows = bill(with_).rows;
    expect(laid).toBe(rows.filter((r) => r.how === 'printed').reduce((s, r) => s + r.needed, 0));
    expect(rows.find((r) => r.name === 'Planet pin')).toMatchObject({
      how: 'cut',
      material: expect.stringMatching(/printed/) as string,
    });
    expect(rows.find((r) => r.name === 'Driven pulley')!.how).toBe('cut');
  });

  it('refuses a bed that is too small by the part’s name and size, and moves contours in where that is asked', () => {
    const small = made({ bed: { width: 0.03, depth: 0.03 } }).result;
    expect(small).toMatchObject({
      ok: false,
      problem: { what: expect.stringContaining('does not go on the plate') as string },
    });
    const [plain, moved] = [files(), files({ compensation: 1e-4 })].map((f) => strFromU8(f['svg/stage2-sun.svg']!));
    expect(moved).not.toBe(plain);
  });
});
