import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  areaMoments,
  balanceOf,
  circle,
  cut,
  linkInertias,
  openLine,
  prism,
  readJointFile,
  rectangle,
  reducerOf,
  solidMoments,
  type Reducer,
  type Variant,
} from '../src/index.ts';
import { shelf } from './helpers.ts';

const joint = (name: string) => {
  const r = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};

function made(variant: Variant): Reducer {
  const all = openLine(variant.stages, shelf).all;
  if (!all.ok) throw new Error(all.problem.what);
  const r = reducerOf(variant, all.value, shelf);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
}

describe('moments', () => {
  it('of a circle beside the origin: π·r², by its middle, π·r⁴/2 + A·d²', () => {
    const m = areaMoments(circle(3, 4, 2));
    expect(m.area).toBeCloseTo(Math.PI * 4, 5);
    expect(m.x / m.area).toBeCloseTo(3, 9);
    expect(m.y / m.area).toBeCloseTo(4, 9);
    expect(m.polar).toBeCloseTo((Math.PI * 16) / 2 + Math.PI * 4 * 25, 4);
  });
  it('of a rectangle either way round: b·h·(b² + h²)/3 about its corner', () => {
    const r = rectangle(0, 0, 2, 3);
    expect(areaMoments(r).polar).toBeCloseTo((6 * (4 + 9)) / 3, 12);
    const back = { ...r, points: Float64Array.of(0, 3, 0, 2, 3, 0, 2, 0, 0, 0, 0, 0) };
    expect(areaMoments(back)).toEqual(areaMoments(r));
  });
  it('of a solid: a shaft with a collar, a block with a hole beside its middle', () => {
    const shaft = { prisms: [prism(circle(0, 0, 1), 0, 2), prism(circle(0, 0, 2), 2, 3)] };
    const m = solidMoments(shaft);
    expect(m.volume).toBeCloseTo(2 * Math.PI + 4 * Math.PI, 5);
    // (2·1 + 4·2.5)/6
    expect(m.centre[2]).toBeCloseTo(2, 6);
    expect(m.polar).toBeCloseTo(Math.PI * (2 * 0.5 + 8), 4);
    const block = { prisms: [prism(rectangle(0, 0, 2, 2), 0, 1), cut(rectangle(0, 0, 1, 2), 0.5, 1)] };
    const b = solidMoments(block);
    expect(b.volume).toBeCloseTo(3, 12);
    // (4·1 − 1·0.5)/3, (4·0.5 − 1·0.75)/3
    expect(b.centre[0]).toBeCloseTo(3.5 / 3, 12);
    expect(b.centre[2]).toBeCloseTo(1.25 / 3, 12);
  });
});

describe('a line as one mass', () => {
  it('has its motor, its housing and its stages in it, near what the line weighs', () => {
    for (const name of ['wing-root', 'body-yaw', 'neck-lift']) {
      const j = joint(name);
      const v = j.variants.find((x) => x.id === j.activeVariant)!;
      const b = balanceOf(made(v), v.output);
      const report = analyseLine(j, v, shelf);
      const mass =
        report.figures.find((f) => f.id === 'mass')!.value - report.beside!.driveMass - report.beside!.sensorMass;
      expect(b.mass / mass).toBeGreaterThan(0.95);
      expect(b.mass / mass).toBeLessThan(1.001);
    }
  });
  it('is drawn towards its motor, and moves with it', () => {
    const j = joint('body-yaw');
    const v = j.variants.find((x) => x.id === j.activeVariant)!;
    const light = balanceOf(made(v), v.output);
    const heavy = balanceOf(made({ ...v, motor: { ...v.motor, mass: v.motor.mass + 1 } }), v.output);
    expect(heavy.mass - light.mass).toBeCloseTo(1, 9);
    // A kilogram more at the motor’s middle moves the centre by the lever rule.
    const motor = made(v).bodies.find((b) => b.id === 'motor/body')!;
    const { centre } = solidMoments(motor.solid());
    const at = motor.places(0)[0]!;
    for (const k of [0, 1, 2]) {
      const middle = at.at[k]! + at.x[k]! * centre[0] + at.y[k]! * centre[1] + at.z[k]! * centre[2];
      expect(heavy.centre[k]).toBeCloseTo((light.mass * light.centre[k]! + middle) / heavy.mass, 9);
    }
  });
  it('counts hubs and shafts in the line’s inertia, through the square of the ratio that follows', () => {
    const j = joint('wing-root');
    const v = j.variants.find((x) => x.id === j.activeVariant)!;
    const r = made(v);
    const [first, second] = linkInertias(r);
    const hub = r.bodies.find((b) => b.id === 'case/hub-1')!;
    expect(first).toBeCloseTo(7850 * solidMoments(hub.solid()).polar, 12);
    expect(second).toBe(0);
    const { housing: _, ...bare } = v;
    const figure = (w: Variant) => analyseLine(j, w, shelf).figures.find((f) => f.id === 'inertia')!.value;
    const ratio = analyseLine(j, v, shelf).attribution[1]!.ratio;
    expect(figure(v) - figure(bare)).toBeCloseTo(first! * ratio ** 2, 12);
    expect(analyseLine(j, v, shelf).beside!.linkInertia).toBeCloseTo(first! * ratio ** 2, 12);
  });
});
