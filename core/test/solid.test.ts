import { unzipSync, strFromU8 } from 'fflate';
import Kernel, { type ManifoldToplevel } from 'manifold-3d';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  area,
  circle,
  cut,
  cutSlices,
  makeShelf,
  prism,
  readParams,
  rectangle,
  solidVolume,
  stageKind,
  type Part,
} from '../src/index.ts';
import { compensated, meshSolid, write3mf, writeStl, type TriangleMesh } from '../src/solid/index.ts';
import { partsOf } from './stage-bench.ts';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await Kernel();
  kernel.setup();
});

const shelf = makeShelf();
const planetary = (over: Record<string, unknown> = {}): readonly Part[] => {
  const kind = stageKind('planetary')!;
  const p = readParams('planetary', {
    ...(kind.defaults({ ratio: 5, torque: 2, size: Infinity, shelf }) as object),
    module: 1e-3,
    zs: 18,
    zp: 27,
    zr: 72,
    planets: 3,
    width: 8e-3,
    boltsR: 6,
    rim: 6e-3,
    nuts: 'no',
    boreS: 5e-3,
    ...over,
  });
  if (!p.ok) throw new Error(p.problem.what);
  const made = partsOf(kind, p.value, shelf);
  if (!made.ok) throw new Error(made.problem.what);
  return made.value;
};

/**
 * Volume by the divergence theorem, and whether every edge is met once each way, as another program would measure it.
 */
function measure(m: TriangleMesh): { volume: number; tight: boolean } {
  const v = m.vertices;
  let six = 0;
  const edges = new Map<number, number>();
  const n = v.length / 3;
  for (let t = 0; t < m.triangles.length; t += 3) {
    const [a, b, c] = [m.triangles[t]!, m.triangles[t + 1]!, m.triangles[t + 2]!];
    six +=
      v[3 * a]! * (v[3 * b + 1]! * v[3 * c + 2]! - v[3 * b + 2]! * v[3 * c + 1]!) -
      v[3 * a + 1]! * (v[3 * b]! * v[3 * c + 2]! - v[3 * b + 2]! * v[3 * c]!) +
      v[3 * a + 2]! * (v[3 * b]! * v[3 * c + 1]! - v[3 * b + 1]! * v[3 * c]!);
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      const key = p < q ? p * n + q : q * n + p;
      edges.set(key, (edges.get(key) ?? 0) + (p < q ? 1 : -1));
    }
  }
  return { volume: six / 6, tight: [...edges.values()].every((x) => x === 0) };
}

describe('solids', () => {
  it.each([
    ['spur', {}],
    ['helical', { helix: 0.3 }],
    ['double helix', { helix: 0.4, double: 'yes' }],
  ])('%s parts are watertight, with the volume of their outlines', (_name, over) => {
    const parts = planetary(over);
    for (const id of ['sun', 'planet', 'ring', 'plate-in', 'plate-out']) {
      const solid = parts.find((p) => p.id === id)!.solid!();
      const mesh = meshSolid(kernel, solid, 1e-5)!;
      const m = measure(mesh);
      expect(m.tight, id).toBe(true);
      expect(m.volume / (solidVolume(solid) * 1e9), id).toBeGreaterThan(0.997);
      expect(m.volume / (solidVolume(solid) * 1e9), id).toBeLessThan(1.003);
    }
  });

  it('a finer chord error comes nearer to the exact volume', () => {
    const solid = planetary({ helix: 0.3 }).find((p) => p.id === 'planet')!.solid!();
    const off = (e: number) => Math.abs(meshSolid(kernel, solid, e)!.volume / (solidVolume(solid) * 1e9) - 1);
    expect(off(2e-6)).toBeLessThan(off(5e-5));
    expect(off(2e-6)).toBeLessThan(2e-4);
  });

  it('STL says how many triangles it has and keeps its size in millimetres', () => {
    const mesh = meshSolid(kernel, planetary().find((p) => p.id === 'sun')!.solid!(), 1e-5)!;
    const stl = writeStl(mesh, 'solid? Sun');
    const view = new DataView(stl.buffer);
    expect(view.getUint32(80, true)).toBe(mesh.triangles.length / 3);
    expect(stl.length).toBe(84 + (50 * mesh.triangles.length) / 3);
    expect(String.fromCharCode(...stl.slice(0, 5))).not.toBe('solid');
    let [x, z] = [0, 0];
    for (let t = 84; t < stl.length; t += 50)
      for (let k = 1; k < 4; k++)
        [x, z] = [Math.max(x, view.getFloat32(t + 12 * k, true)), Math.max(z, view.getFloat32(t + 12 * k + 8, true))];
    expect(z).toBeCloseTo(8, 5);
    expect(x).toBeGreaterThan(9.5);
    expect(x).toBeLessThan(10.001);
  });

  it('3MF has one named object a part, in millimetres, with every corner used', () => {
    const mesh = meshSolid(kernel, planetary().find((p) => p.id === 'planet')!.solid!(), 5e-5)!;
    const files = unzipSync(
      write3mf(
        [
          { name: 'Planet & "pin"', mesh },
          { name: 'Ring', mesh },
        ],
        'Wing <root>',
      ),
    );
    const model = strFromU8(files['3D/3dmodel.model']!);
    expect(model).toContain('unit="millimeter"');
    expect(model.match(/<object /g)).toHaveLength(2);
    expect(model.match(/<triangle /g)).toHaveLength((2 * mesh.triangles.length) / 3);
    expect(model).toContain('Planet &#38; &#34;pin&#34;');
    expect(Object.keys(files)).toContain('[Content_Types].xml');
  });

  it('compensation moves every contour into the material: outside in, holes and cuts out', () => {
    const [R, r, h, by] = [20e-3, 5e-3, 4e-3, 1e-4];
    const tube = { prisms: [prism(circle(0, 0, R), 0, h, [circle(0, 0, r)]), cut(circle(12e-3, 0, 2e-3), 0, h)] };
    const v = meshSolid(kernel, tube, 1e-6, by)!.volume;
    const exact = Math.PI * ((R - by) ** 2 - (r + by) ** 2 - (2e-3 + by) ** 2) * h * 1e9;
    expect(v / exact).toBeCloseTo(1, 4);
    expect(meshSolid(kernel, tube, 1e-6, -by)!.volume).toBeGreaterThan(meshSolid(kernel, tube, 1e-6)!.volume);
  });

  it('compensated outlines shrink wheels and widen rings and bores by the way round times the move', () => {
    const by = 5e-5;
    for (const [id, sign] of [
      ['sun', -1],
      ['ring', 1],
    ] as const) {
      const part = planetary().find((p) => p.id === id)!;
      const before = part.curves.find((c) => c.layer === 'profile')!.outline;
      const after = compensated(kernel, part.curves, by, 2e-6).find((c) => c.layer === 'profile')!.outline;
      // To first order the area changes by the way round; teeth make that some two and a half times their circle's.
      const change = Math.abs(area(after)) - Math.abs(area(before));
      expect(Math.sign(change), id).toBe(sign);
      expect(Math.abs(change) / by).toBeGreaterThan(2 * Math.PI * Math.sqrt(Math.abs(area(before)) / Math.PI));
    }
    const bore = compensated(kernel, [{ layer: 'bore', outline: circle(0, 0, 4e-3) }], by, 1e-6)[0]!.outline;
    expect(Math.sqrt(Math.abs(area(bore)) / Math.PI)).toBeCloseTo(4e-3 + by, 5);
    const mark = { layer: 'mark', outline: { points: Float64Array.of(0, 0, 0, 1, 0, 0), closed: false } };
    expect(compensated(kernel, [mark], by, 1e-6)).toEqual([mark]);
  });

  it('a prism that leans keeps its volume and stands where it leans to at either end', () => {
    const square = rectangle(-2e-3, -2e-3, 2e-3, 2e-3);
    const mesh = meshSolid(kernel, { prisms: [{ ...prism(square, 1e-3, 5e-3), leans: [-1e-3, 3e-3] }] }, 1e-5)!;
    expect(mesh.volume).toBeCloseTo(4 * 4 * 4, 6);
    const at = (z: number) => {
      const xs: number[] = [];
      for (let i = 0; i < mesh.vertices.length; i += 3)
        if (Math.abs(mesh.vertices[i + 2]! - z) < 1e-6) xs.push(mesh.vertices[i]!);
      return [Math.min(...xs), Math.max(...xs)];
    };
    expect(at(1).map((x) => Number(x.toFixed(6)))).toEqual([-3, 1]);
    expect(at(5).map((x) => Number(x.toFixed(6)))).toEqual([1, 5]);
    // What is cut from half of its height leaves each half with its own share of the lean.
    const slices = cutSlices({
      prisms: [{ ...prism(square, 1e-3, 5e-3), leans: [-1e-3, 3e-3] }, cut(circle(0, 0, 1e-4), 1e-3, 3e-3)],
    });
    expect(slices.map(({ p }) => p.leans)).toEqual([
      [-1e-3, 1e-3],
      [1e-3, 3e-3],
    ]);
  });
});
