import { describe, expect, it } from 'vitest';
import { analyseLine } from '../src/index.ts';
import { flankLimit, rootLimits, toothMaterial, type ToothMaterial } from '../src/gear/tooth-material.ts';
import { spur } from './anchors/spur.ts';
import { demo, shelf } from './helpers.ts';

const of = (id: string): ToothMaterial => {
  const made = toothMaterial(id, shelf, 'material');
  if (!made.ok) throw new Error(made.problem.what);
  return made.value;
};
const MPa = 1e6;

describe('what a tooth stands, by hand from the shop', () => {
  it('printed PA with carbon fibre: 50 MPa, three quarters by layers, nine tenths by infill, 100^−0.1 of it for ever', () => {
    const { peak, ever } = rootLimits(of('pa-cf'), 293.15, shelf);
    expect(peak / MPa).toBeCloseTo(33.75, 9);
    expect(ever / MPa).toBeCloseTo(33.75 * 0.6309573445, 6);
    expect(flankLimit(of('pa-cf'), 293.15, shelf) / MPa).toBeCloseTo(42.5, 9);
  });

  it('falls evenly to 0.35 at 150 °C, and to nothing as far beyond; no colder part is stronger', () => {
    const share = (kelvin: number) => rootLimits(of('pa-cf'), kelvin, shelf).peak / 33.75e6;
    expect([share(273.15), share(293.15), share(358.15), share(423.15)]).toEqual(
      [1, 1, 0.675, 0.35].map((x) => expect.closeTo(x, 9)),
    );
    expect([share(488.15), share(553.15), share(700)]).toEqual([0.175, 0, 0].map((x) => expect.closeTo(x, 9)));
  });

  it('steel C45: half as much again of its yield at once, three quarters for ever, whatever it is warm', () => {
    for (const kelvin of [293.15, 400]) {
      expect(rootLimits(of('c45'), kelvin, shelf)).toEqual({ peak: 555 * MPa, ever: 277.5 * MPa });
      expect(flankLimit(of('c45'), kelvin, shelf)).toBe(555 * MPa);
    }
  });
});

describe('a stage that turns its output round', () => {
  it('is told to run too fast by how fast, and not by which way', () => {
    const joint = demo();
    const variant = joint.variants[0]!;
    variant.stages = [{ id: 's', kind: 'spur', params: structuredClone(spur.params) as Record<string, never> }];
    const over = (speed: number) => {
      joint.brief = {
        ...joint.brief,
        cases: joint.brief.cases.map((c) => ({ ...c, speed, acceleration: 1e5 }) as typeof c),
      };
      return analyseLine(joint, variant, shelf).checks.find((c) => c.id === 'speed-0');
    };
    // Three to one, 500 rad/s at the input.
    expect(over(160)).toBeUndefined();
    expect(over(170)).toMatchObject({ state: 'fails', limit: expect.closeTo(500, 6) as number });
    expect(over(170)!.figure).toBeCloseTo(510, 6);
  });
});
