import Kernel, { type ManifoldToplevel } from 'manifold-3d';
import * as kit from 'replicad';
import exactKernel from 'replicad-opencascadejs';
import { fileURLToPath } from 'node:url';
import { beforeAll, describe, expect, it } from 'vitest';
import { circle, rectangle, readParams, solidVolume, stageKind, type Solid } from '../src/index.ts';
import { endsTakenBack } from '../src/reducer/clashes.ts';
import { moved } from '../src/reducer/drawn.ts';
import { NO_CORRECTION, type Correction } from '../src/solid/correction.ts';
import { meshSolid, solidKey } from '../src/solid/mesh.ts';
import { namedBody, writeStep } from '../src/solid/step.ts';
import type { Taper } from '../src/shape/solid.ts';
import { partsOf } from './stage-bench.ts';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await Kernel();
  kernel.setup();
  kit.setOC(
    await exactKernel({
      locateFile: () => fileURLToPath(import.meta.resolve('replicad-opencascadejs/wasm')),
      print: () => undefined,
    }),
  );
}, 30_000);

const MM = 1e-3;
/** A pyramid's frustum: half its width is half of its distance from an apex in the ground. */
const frustum: Taper = {
  ...{ outer: rectangle(-0.5, -0.5, 0.5, 0.5), holes: [], apex: 0 },
  ...{ from: 10 * MM, to: 20 * MM, within: 1 },
};
const alone = (t: Taper): Solid => ({ prisms: [], tapers: [t] });
const meshed = (s: Solid, by = 0) => meshSolid(kernel, s, 2e-6, by)!;
const exact = (s: Solid): number => {
  const body = namedBody(kit, 'it', s);
  if (!body.ok) throw new Error(body.problem.why);
  return body.value.volume;
};
const upsideDown = (t: Taper): Taper => ({ ...t, from: -t.to, to: -t.from });
/** Furthest corners of a mesh along each axis, mm. */
const bounds = ({ vertices }: { vertices: Float32Array }) =>
  [0, 1, 2].map((k) => {
    const of = [...vertices].filter((_, i) => i % 3 === k);
    return [Math.min(...of), Math.max(...of)] as const;
  });

describe('a taper', () => {
  it('is as large as a pyramid without its top', () => {
    // z² over 10 to 20 mm: (20³ − 10³)/3.
    expect(meshed(alone(frustum)).volume).toBeCloseTo(7000 / 3, 2);
    expect(meshed(alone(upsideDown(frustum))).volume).toBeCloseTo(7000 / 3, 2);
    const [x, , z] = bounds(meshed(alone(upsideDown(frustum))));
    expect(x![1]).toBeCloseTo(10, 4);
    expect(z).toEqual([-20, -10]);
  });

  it('ends in a sphere about its apex', () => {
    // Wider than the sphere all along, it is a slice of the ball: π·(R²·10 − 7000/3).
    const ball: Taper = { ...frustum, outer: circle(0, 0, 40), within: 25 * MM };
    const worth = Math.PI * (625 * 10 - 7000 / 3);
    for (const t of [ball, upsideDown(ball)]) {
      const { volume, vertices } = meshed(alone(t));
      expect(volume / worth).toBeGreaterThan(0.9995);
      expect(volume / worth).toBeLessThan(1);
      for (let i = 0; i < vertices.length; i += 3)
        expect(Math.hypot(vertices[i]!, vertices[i + 1]!, vertices[i + 2]!)).toBeLessThan(25 + 1e-4);
    }
  });

  it('is bored straight through, its hole opened and its sides drawn in by what the process adds', () => {
    const bored: Taper = { ...frustum, holes: [rectangle(-1 * MM, -1 * MM, 1 * MM, 1 * MM)] };
    expect(meshed(alone(bored)).volume).toBeCloseTo(7000 / 3 - 40, 2);
    // 0.1 mm at 15 mm from the apex is 1 : 150 of its width all along: (1 − 2·0.1/15)² of it; the hole is 2.2 mm wide.
    expect(meshed(alone(bored), 1e-4).volume).toBeCloseTo((7000 / 3) * (1 - 0.2 / 15) ** 2 - 48.4, 2);
  });

  it('is drawn smaller across by what it comes out larger by, its sphere too', () => {
    const grows: Correction = { ...NO_CORRECTION, scale: 0.01 };
    for (const t of [frustum, { ...frustum, outer: circle(0, 0, 40), within: 25 * MM }]) {
      const [plain, drawn] = [meshed(alone(t)), meshSolid(kernel, alone(t), 2e-6, grows)!];
      expect(plain.volume / drawn.volume).toBeCloseTo(1.01 ** 2, 4);
    }
  });

  it('goes with its solid where that is moved, and is taken back at its ends', () => {
    const up = moved(alone(frustum), 5 * MM);
    expect(meshed(up).volume).toBeCloseTo(7000 / 3, 2);
    expect(bounds(meshed(up))[2]).toEqual([15, 25]);
    // An apex that stays, and ends at 11 and 19 mm.
    expect(meshed(endsTakenBack(alone(frustum), 1 * MM)).volume).toBeCloseTo((6859 - 1331) / 3, 2);
    expect(solidKey(up)).not.toBe(solidKey(alone(frustum)));
    expect(solidKey(alone({ ...frustum, within: 0.5 }))).not.toBe(solidKey(alone(frustum)));
    expect(solidKey(alone({ ...frustum, outer: rectangle(-0.5, -0.5, 0.5, 0.6) }))).not.toBe(solidKey(alone(frustum)));
  });

  it('is as large as an exact body', () => {
    const bored: Taper = { ...frustum, holes: [circle(0, 0, 2 * MM)] };
    const steps = (t: Taper): Solid => ({
      tapers: [t],
      // What it is trusted by: three steps, of the section half way up each.
      prisms: [0, 1, 2].map((k) => {
        const [from, to] = [t.from + ((t.to - t.from) * k) / 3, t.from + ((t.to - t.from) * (k + 1)) / 3];
        const half = Math.abs(from + to) / 4;
        return { outer: rectangle(-half, -half, half, half), holes: t.holes, from, to, twist: 0, step: true };
      }),
    });
    expect(exact(steps(frustum))).toBeCloseTo(7000 / 3, 4);
    expect(exact(steps(bored))).toBeCloseTo(7000 / 3 - 40 * Math.PI, 4);
    expect(exact(steps(upsideDown(bored)))).toBeCloseTo(7000 / 3 - 40 * Math.PI, 4);
    // Corners of 20 mm up stand 24.5 mm from the apex: a sphere of 22 takes them off.
    const off = 7000 / 3 - exact(steps({ ...frustum, within: 22 * MM }));
    expect(off).toBeGreaterThan(10);
    expect(off).toBeCloseTo(7000 / 3 - meshed(alone({ ...frustum, within: 22 * MM })).volume, 0);
  });
});

describe('the teeth of a bevel', () => {
  const kind = stageKind('bevel')!;
  const parts = (over: object) => {
    const params = readParams('bevel', { ...(kind.starts as object), ...over });
    if (!params.ok) throw new Error(params.problem.what);
    const made = partsOf(kind, params.value);
    if (!made.ok) throw new Error(made.problem.what);
    return made.value;
  };

  it('are as large as their sections added up, drawn as a surface and as an exact body', async () => {
    const [pinion, wheel] = parts({ z1: 13, z2: 14, width: 3 * MM, bore1: 2 * MM, bore2: 2 * MM });
    for (const part of [pinion!, wheel!]) {
      const solid = part.solid!();
      // Thirty steps, each true in its middle.
      const added = solidVolume(solid) * 1e9;
      expect(meshed(solid).volume / added, part.id).toBeGreaterThan(0.998);
      expect(meshed(solid).volume / added, part.id).toBeLessThan(1.002);
    }
    const body = namedBody(kit, 'Pinion', pinion!.solid!());
    if (!body.ok) throw new Error(body.problem.why);
    // Twelve chords of a flank lie inside it.
    const share = body.value.volume / meshed(pinion!.solid!()).volume;
    expect(share).toBeGreaterThan(0.998);
    expect(share).toBeLessThan(1.002);
    // Ruled splines: a pinion made of steps took forty megabytes.
    const file = await writeStep(kit, [body.value]);
    expect(file.length).toBeLessThan(2e6);
  }, 120_000);

  it('have nothing counted twice where the hub reaches the rim', () => {
    // A bore of 16 mm wants a hub of 25.6, more than the 24.96 under the inner end's roots.
    const [, wheel] = parts({ z1: 20, z2: 40, module: 1 * MM, width: 8 * MM, bore1: 5 * MM, bore2: 16 * MM });
    const solid = wheel!.solid!();
    expect(Math.abs(meshed(solid).volume / (solidVolume(solid) * 1e9) - 1)).toBeLessThan(0.003);
  });

  it('stand on a rim where their roots come out at the back, no longer than the hub', () => {
    const back = (hub2: number) => {
      const [, wheel] = parts({ z1: 20, z2: 40, module: 1 * MM, width: 7 * MM, bore1: 5 * MM, bore2: 8 * MM, hub2 });
      const { vertices } = meshSolid(kernel, wheel!.solid!(), 1e-5)!;
      let most = 0;
      // The hub reaches 6.5 mm, the rim from 13 to 19.4.
      for (let i = 0; i < vertices.length; i += 3)
        if (Math.hypot(vertices[i]!, vertices[i + 1]!) > 12) most = Math.max(most, vertices[i + 2]!);
      return most;
    };
    // Roots at 60.363° end at 22.3607·cos 60.363° = 11.0574 mm; 1.2 times 2.2 mm, times sin 60.363°, is 2.2946 mm.
    expect(back(6 * MM)).toBeCloseTo(13.352, 3);
    expect(back(1 * MM)).toBeCloseTo(12.0574, 3);
  });

  it('are a surface of a few thousand triangles, whichever way they look', () => {
    const made = parts({ z1: 20, z2: 40 }).map((p) => meshSolid(kernel, p.solid!(), 1e-5)!);
    const sides = made.map((m) => bounds(m)[2]!);
    expect(sides[0]![1]).toBeLessThan(0);
    expect(sides[1]![0]).toBeGreaterThan(0);
    for (const m of made) expect(m.triangles.length / 3).toBeLessThan(3e4);
  });
});
