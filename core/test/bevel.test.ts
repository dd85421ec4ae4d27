import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { area, readParams, solidVolume, stageKind, type Duty } from '../src/index.ts';
import { bevelShapes } from '../src/stage/bevel/drawing.ts';
import { buildBevel } from '../src/stage/bevel/model.ts';
import type { BevelParams } from '../src/stage/bevel/params.ts';
import { bevelGeometry, flankOf, sphericalInvolute, type Cone } from '../src/stage/bevel/geometry.ts';
import { cold } from './helpers.ts';
import { analyseOf, partsOf } from './stage-bench.ts';

interface BevelCase {
  module_outer_mm: number;
  z1: number;
  z2: number;
  face_mm: number;
  pressure_angle_deg: number;
  shaft_angle_deg: number;
  torque_1_Nm: number;
  cone_1_deg: number;
  cone_2_deg: number;
  outer_cone_distance_mm: number;
  mean_module_mm: number;
  virtual_teeth_1: number;
  virtual_teeth_2: number;
  tangential_at_mean_N: number;
  axial_1_N: number;
  radial_1_N: number;
}
const cases = JSON.parse(readFileSync(new URL('./cases/bevel.json', import.meta.url), 'utf8')) as BevelCase[];
const kind = stageKind('bevel')!;
const deg = Math.PI / 180;
const duty: Duty = { torque: 2, torqueRms: 1, speed: 2, meanSpeed: 1, equivalent: 1.2 };
const params = (over: Record<string, unknown>): Record<string, unknown> => {
  const r = readParams('bevel', { ...(kind.starts as object), ...over });
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const report = (over: Record<string, unknown>, at: Duty = duty) => {
  const r = analyseOf(kind, params(over), at, cold);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
/** Half-sections of both wheels. */
const ofShapes = (p: Record<string, unknown>) => {
  const built = buildBevel(p as unknown as BevelParams, cold);
  if (!built.ok) throw new Error(built.problem.what);
  return bevelShapes(p as unknown as BevelParams, built.value).cuts;
};
const value = (r: ReturnType<typeof report>, id: string): number => r.figures.find((f) => f.id === id)!.value;

describe('bevel pairs against an independent calculation', () => {
  for (const c of cases)
    it(`${c.z1} and ${c.z2} teeth at ${c.shaft_angle_deg}°`, () => {
      const r = report(
        {
          module: c.module_outer_mm * 1e-3,
          z1: c.z1,
          z2: c.z2,
          width: c.face_mm * 1e-3,
          pressure: c.pressure_angle_deg * deg,
          shaft: c.shaft_angle_deg * deg,
          bore1: 2e-3,
          bore2: 2e-3,
        },
        // Without loss the wheel's torque is the pinion's times the ratio.
        { ...duty, torque: (c.torque_1_Nm * c.z2) / c.z1 },
      );
      expect(value(r, 'cone1') / deg).toBeCloseTo(c.cone_1_deg, 6);
      expect(value(r, 'cone2') / deg).toBeCloseTo(c.cone_2_deg, 6);
      expect(value(r, 'distance')).toBeCloseTo(c.outer_cone_distance_mm * 1e-3, 9);
      expect(value(r, 'meanModule')).toBeCloseTo(c.mean_module_mm * 1e-3, 9);
      expect(value(r, 'virtual1')).toBeCloseTo(c.virtual_teeth_1, 5);
      expect(value(r, 'virtual2')).toBeCloseTo(c.virtual_teeth_2, 5);
      expect(value(r, 'tangent')).toBeCloseTo(c.tangential_at_mean_N, 4);
      expect(value(r, 'axial1')).toBeCloseTo(c.axial_1_N, 4);
      expect(value(r, 'radial1')).toBeCloseTo(c.radial_1_N, 4);
      // At a right angle what pushes one along pushes the other across.
      if (c.shaft_angle_deg === 90) {
        expect(value(r, 'axial2')).toBeCloseTo(c.radial_1_N, 4);
        expect(value(r, 'radial2')).toBeCloseTo(c.axial_1_N, 4);
      }
    });
});

describe('spherical involutes', () => {
  it('are what a great circle rolling on its base circle draws, worked out by turning points in space', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 1.3, noNaN: true }),
        fc.double({ min: 0.01, max: 0.5, noNaN: true }),
        (base, rolled) => {
          // The great circle touches the base circle at azimuth 0 and is rolled on by an arc: as long on both.
          const arc = rolled;
          const turned = arc / Math.sin(base);
          // The touching point at the base circle, and along the great circle from it by the arc, backwards.
          const touch = [Math.sin(base), 0, Math.cos(base)] as const;
          const tangent = [0, -1, 0] as const;
          const at = [0, 1, 2].map((k) => Math.cos(arc) * touch[k]! + Math.sin(arc) * tangent[k]!);
          const cone = Math.acos(at[2]!);
          const azimuth = Math.atan2(at[1]!, at[0]!) + turned;
          expect(sphericalInvolute(base, cone)).toBeCloseTo(azimuth, 9);
        },
      ),
    );
  });

  it('of a pair touch where both roll on, and nowhere cut into one another', () => {
    // Two cones at a right angle; flanks without play on the unit sphere, the pinion's turned by an angle.
    const pressure = 20 * deg;
    const cone = (z: number, other: number): Cone => {
      const pitch = Math.atan2(z, other);
      const outer = Math.hypot(z, other) / 2;
      return {
        teeth: z,
        pitch,
        tip: pitch + Math.atan(1 / outer),
        root: pitch - Math.atan(1.2 / outer),
        half: Math.PI / (2 * z),
      } as Cone;
    };
    const [a, b] = [cone(20, 40), cone(40, 20)];
    const [fa, fb] = [flankOf(a, pressure, 400), flankOf(b, pressure, 400)];
    // How far round the wheel its flank stands at a cone angle, between the points of its table.
    const halfOf = (table: typeof fb, at: number) => {
      const i = Math.min(
        table.length - 2,
        Math.max(0, Math.floor(((at - table[0]![0]) / (table.at(-1)![0] - table[0]![0])) * (table.length - 1))),
      );
      const [x0, y0] = table[i]!;
      const [x1, y1] = table[i + 1]!;
      return y0 + ((y1 - y0) * (at - x0)) / (x1 - x0);
    };
    for (const turn of [-0.12, -0.05, 0, 0.06, 0.11]) {
      let nearest = Infinity;
      for (const [at, half] of fa) {
        for (const side of [1, -1]) {
          // Pinion about x, its tooth towards +z at rest; wheel about z, gaps on either side of −x… seen in its own frame.
          const phi = turn + side * half;
          const p = [-Math.cos(at), Math.sin(at) * Math.sin(phi), Math.sin(at) * Math.cos(phi)] as const;
          const theta = Math.acos(p[2]);
          if (theta < b.root || theta > b.tip) continue;
          const round = Math.atan2(p[1], -p[0]);
          // The gap's middle goes along at the ratio: its edge is half a pitch less half a tooth away.
          const gap = Math.PI / b.teeth - halfOf(fb, theta);
          const off = round - (turn * a.teeth) / b.teeth;
          nearest = Math.min(nearest, (gap - Math.abs(off)) * Math.sin(theta));
        }
      }
      expect(nearest, `${turn}`).toBeGreaterThan(-2e-5);
      expect(nearest, `${turn}`).toBeLessThan(3e-4);
    }
  });
});

describe('a bevel pair', () => {
  it('has bodies of about the mass that is told, before pockets', () => {
    const made = partsOf(kind, params({}), cold);
    if (!made.ok) throw new Error(made.problem.what);
    for (const p of made.value) {
      const solid = p.solid!();
      const mass = solidVolume(solid) * 7850;
      // The shop's share of 0.85 is left by holes that the drawing has none of.
      expect(mass / (p.mass / 0.85), p.id).toBeGreaterThan(0.8);
      expect(mass / (p.mass / 0.85), p.id).toBeLessThan(1.25);
      for (const slice of solid.prisms) expect(area(slice.outer), p.id).toBeGreaterThan(0);
    }
  });

  it('is drawn through its axes as its bodies are: the rim where they have it, to the end of its hub', () => {
    const tops = (over: object) => {
      const p = params({ z1: 20, z2: 40, module: 1e-3, width: 7e-3, hub2: 6e-3, bore2: 8e-3, ...over });
      const { points } = ofShapes(p)[1];
      const at = Array.from({ length: points.length / 3 }, (_, i) => [points[3 * i]! * 1e3, points[3 * i + 1]! * 1e3]);
      const highest = (from: number) => Math.max(...at.filter(([x]) => x! > from).map(([, y]) => y!));
      return [highest(12), highest(0)] as const;
    };
    // As in the body: 22.3607·cos 60.363° + 1.2·2.2·sin 60.363°; the hub ends at 10 + 1.2·sin 63.435° + 6.
    const [rim, hub] = tops({});
    expect(rim).toBeCloseTo(13.352, 3);
    expect(hub).toBeCloseTo(17.0733, 4);
    // A hub that reaches the rim leaves no gap between, and no line there twice.
    const wide = ofShapes(params({ z1: 20, z2: 40, module: 1e-3, width: 8e-3, bore2: 0.016 }))[1];
    const narrow = ofShapes(params({ z1: 20, z2: 40, module: 1e-3, width: 8e-3, bore2: 8e-3 }))[1];
    expect(narrow.points.length - wide.points.length).toBe(6);
  });

  it('opens its play by twice the shift of a wheel times tan α and the sine of its cone', () => {
    const r = report({});
    expect(2 * value(r, 'shim1') * Math.tan(20 * deg) * Math.sin(value(r, 'cone1'))).toBeCloseTo(1e-5, 12);
    expect(2 * value(r, 'shim2') * Math.tan(20 * deg) * Math.sin(value(r, 'cone2'))).toBeCloseTo(1e-5, 12);
  });

  it('carries as much less than its virtual pair as the shop says', () => {
    const limit = (over: Record<string, unknown>) =>
      report(over).numbers.limits.find((l) => l.mode.includes('pinion breaks'))!.torque;
    const twice = limit({ width: 7e-3 }) / limit({ width: 3.5e-3 });
    // Wider teeth bear more, but for the outer end that they are thickest at.
    expect(twice).toBeGreaterThan(1.5);
    expect(twice).toBeLessThan(2);
  });

  it('takes up at 60° what its cones, hubs and shifted teeth do, reckoned apart', () => {
    const made = bevelGeometry({
      ...(params({ z1: 20, z2: 30, module: 2e-3, width: 0.01, shift: 0.2, shaft: 60 * deg }) as unknown as BevelParams),
      ...{ allowance1: 1e-4, hub1: 8e-3, hub2: 6e-3 },
    });
    if (!made.ok) throw new Error(made.problem.what);
    const { cones, outside, length } = made.value;
    // δ = 23.413° and 36.587°, R = 50.332 mm; over the tips 22.202 and 31.285 mm, pinion’s back 54.983 mm from the apex.
    expect(outside).toBeCloseTo(90.002374e-3, 9);
    expect(length).toBeCloseTo(48.08343e-3, 9);
    // π/40 + 2·0.2·tan 20°/20 − 0.1/40.
    expect(cones[0].half).toBeCloseTo(0.08331922, 8);
  });

  it('leans its pinion’s port by what the shafts are off a right angle', () => {
    for (const shaft of [60, 90, 120]) {
      const opened = kind.open(
        params({ shaft: shaft * deg, z1: 24, z2: 30, width: 4e-3, bore1: 4e-3, bore2: 4e-3 }),
        cold,
      );
      if (!opened.ok) throw new Error(opened.problem.what);
      const { input } = opened.value.ports();
      // The port looks to where the axes cross.
      const way = [Math.cos(input.lean!), 0, Math.sin(input.lean!)];
      const far = Math.hypot(...input.at);
      for (const k of [0, 1, 2]) expect(input.at[k]! + far * way[k]!).toBeCloseTo(0, 12);
      expect(Math.acos(-way[2]!) / deg).toBeCloseTo(shaft, 9);
    }
  });

  it('refuses in words cones that open inwards, and faces that reach the apex', () => {
    for (const [over, place] of [
      [{ shaft: 160 * deg, z2: 40 }, 'shaft'],
      [{ width: 0.03 }, 'width'],
      [{ bore1: 0.02 }, 'bore1'],
    ] as const) {
      const r = analyseOf(kind, params(over), duty, cold);
      expect(r.ok, place).toBe(false);
      if (!r.ok) expect(r.problem.place).toBe(place);
    }
  });

  it('warns of a face wider than a third of the cone, and mends it', () => {
    const c = report({ width: 9e-3 }).checks.find((x) => x.id === 'face')!;
    expect(c).toMatchObject({ state: 'fails', severity: 'warn', mend: { path: 'width' } });
    expect(c.mend!.value as number).toBeLessThanOrEqual(c.limit);
  });
});
