import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  deadPoints,
  flatten,
  mostTorque,
  place,
  plateOutline,
  smallestHollow,
  type CrankLayout,
  type PlateDrive,
} from '../src/index.ts';
import { Chance } from './specimens/chance.ts';
import { distanceTo } from './helpers.ts';

interface Case {
  pins: number;
  eccentricity_mm: number;
  crank_distance_mm: number;
  plate_phases_deg: number[];
  crank_force_limit_N: number;
  greatest_torque_Nm: number;
  dead_point_score: number;
}
const cases = JSON.parse(readFileSync(new URL('./cases/ring-plate.json', import.meta.url), 'utf8')) as Case[];
const drive = (c: Case, layout: CrankLayout = 'one'): PlateDrive => ({
  pins: c.pins,
  throw: c.eccentricity_mm * 1e-3,
  distance: c.crank_distance_mm * 1e-3,
  layout,
  phases: c.plate_phases_deg.map((x) => (x * Math.PI) / 180),
});

describe('dead points of ring plates', () => {
  it.each(cases)('one crank, $pins pins, plates at $plate_phases_deg', (c) => {
    const r = deadPoints(drive(c), 3600);
    expect((r.greatest * c.crank_force_limit_N) / c.greatest_torque_Nm).toBeCloseTo(1, 4);
    expect(r.score).toBeCloseTo(c.dead_point_score, 4);
  });

  it.each(cases)('and from few samples: $pins pins, plates at $plate_phases_deg', (c) => {
    const r = deadPoints(drive(c), 48);
    expect((r.greatest * c.crank_force_limit_N) / c.greatest_torque_Nm).toBeCloseTo(1, 5);
    expect(r.score).toBeCloseTo(c.dead_point_score, 5);
  });

  it('two cranks that both drive pass at least twice what one does of its own; an idle one less than both', () => {
    for (const c of cases)
      for (const crank of [0.1, 1.3, 2.6, 4.4]) {
        const [one, idle, both] = (['one', 'idle', 'both'] as const).map(
          (l) => mostTorque(drive(c, l), crank).torque,
        ) as [number, number, number];
        expect(idle).toBeLessThanOrEqual(both * (1 + 1e-9));
        expect(idle).toBeGreaterThanOrEqual(one * (1 - 1e-6));
        expect(both).toBeGreaterThan(one);
      }
  });

  it('one plate between a driven and an idle crank has a dead point; three carry one another past theirs', () => {
    const c = cases[0]!;
    const score = (phases: number[]) => deadPoints({ ...drive(c, 'idle'), phases }, 360).score;
    expect(score([0])).toBeLessThan(0.02);
    // With one crank two plates opposite one another jam; an idle one lets each carry the other.
    expect(score([0, Math.PI])).toBeGreaterThan(0.2);
    expect(score([0, (2 * Math.PI) / 3, (4 * Math.PI) / 3])).toBeGreaterThan(0.3);
  });

  it('with an idle crank it is the least that any prices of its torque and the plates’ moments leave', () => {
    const least = (f: (x: number) => number, from: number, to: number): number => {
      let [lo, hi] = [from, to];
      for (let k = 0; k < 90; k++) {
        const [a, b] = [lo + (hi - lo) * 0.382, lo + (hi - lo) * 0.618];
        if (f(a) < f(b)) hi = b;
        else lo = a;
      }
      return f((lo + hi) / 2);
    };
    const c = new Chance(7);
    for (let n = 0; n < 12; n++) {
      const d: PlateDrive = {
        pins: Math.round(c.between(8, 40)),
        throw: c.between(5e-4, 2e-3),
        distance: c.between(0.02, 0.06),
        layout: 'idle',
        phases: [0, 2.1, 4.3].slice(0, 1 + (n % 3)),
      };
      const crank = n === 0 ? 0 : c.between(0, 6.28);
      const [z, l] = [d.pins * d.throw, (d.pins + 1) * d.throw];
      // Forces of one newton along P − μ·A and Q − μ·B: what they pass is the sum of both lengths.
      const plate = (a: number, price: number) => {
        const [ux, uy] = [Math.cos(a), Math.sin(a)];
        const both = (mu: number) =>
          Math.hypot(z * uy + mu * l * uy, -z * ux - mu * (d.distance + l * ux)) +
          Math.hypot(z * uy - price * uy + mu * l * uy, -z * ux + price * ux - mu * (l * ux - d.distance));
        return least(both, -50, 50);
      };
      const whole = (price: number) => d.phases.reduce((s, phase) => s + plate(crank + phase, price), 0);
      const byHand = least(whole, -200 * z, 200 * z);
      // At crank 0 one plate passes nothing: shares of what it passes elsewhere.
      expect((mostTorque(d, crank).torque - byHand) / z, `${n}`).toBeCloseTo(0, 6);
      expect(mostTorque(d, crank).torque).toBeLessThanOrEqual(byHand + 1e-9 * z);
    }
  });

  it('forces found are in equilibrium, within their limit, and make up the torque told', () => {
    const any = fc.record({
      pins: fc.integer({ min: 8, max: 40 }),
      e: fc.double({ min: 5e-4, max: 2e-3, noNaN: true }),
      far: fc.double({ min: 0.02, max: 0.06, noNaN: true }),
      layout: fc.constantFrom<CrankLayout>('one', 'both'),
      n: fc.integer({ min: 2, max: 4 }),
      crank: fc.double({ min: 0, max: 6.28, noNaN: true }),
    });
    fc.assert(
      fc.property(any, ({ pins, e, far, layout, n, crank }) => {
        const d: PlateDrive = {
          pins,
          throw: e,
          distance: far,
          layout,
          phases: Array.from({ length: n }, (_, k) => (2 * Math.PI * k) / n),
        };
        const r = mostTorque(d, crank);
        let torque = 0;
        r.plates.forEach((f, k) => {
          const a = crank + d.phases[k]!;
          const [ux, uy] = [Math.cos(a), Math.sin(a)];
          const l = (pins + 1) * e;
          const cross = (x: number, y: number, v: readonly [number, number]) => x * v[1] - y * v[0];
          const moment =
            cross(far + l * ux, l * uy, f.first) + (layout === 'one' ? 0 : cross(-far + l * ux, l * uy, f.second));
          for (const v of [f.first, f.second]) expect(Math.hypot(...v)).toBeLessThanOrEqual(1 + 1e-4);
          expect(Math.abs(moment)).toBeLessThan(2e-3 * (far + l));
          torque += -pins * e * (cross(ux, uy, f.first) + cross(ux, uy, f.second));
        });
        expect(Math.abs(torque - r.torque)).toBeLessThan(0.01 * Math.max(r.torque, 0.05 * pins * e));
      }),
      { numRuns: 60 },
    );
  });
});

describe('a ring plate’s profile', () => {
  it('touches every pin of the wheel within 0.1 µm at any crank angle', () => {
    const c = { pins: 17, circle: 0.022, pin: 1.2e-3, throw: 0.9e-3 };
    expect(c.pin).toBeLessThan(smallestHollow(c));
    for (const crank of [0, 0.4, 2.2, 5, -9]) {
      const o = flatten(
        place(plateOutline(c, 2e-8), { x: c.throw * Math.cos(crank), y: c.throw * Math.sin(crank), turn: 0 }),
        2e-8,
      );
      for (let j = 0; j < 17; j++) {
        const a = (2 * Math.PI * j) / 17 - crank / 17;
        const [x, y] = [c.circle * Math.cos(a), c.circle * Math.sin(a)];
        expect(Math.abs(distanceTo(o, x, y) - c.pin)).toBeLessThan(1e-7);
      }
    }
  });
});
