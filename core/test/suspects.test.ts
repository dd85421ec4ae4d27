import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  inUnits,
  TEST_KINDS,
  analyseLine,
  drawTruth,
  lineOrders,
  readJointFile,
  rigFrom,
  Specimen,
  stageKind,
  suspectsFor,
  type Joint,
  type LineOrder,
} from '../src/index.ts';
import { readFileSync } from 'node:fs';
import { shelf } from './helpers.ts';
import { kinematicsOf } from './stage-bench.ts';

const kindOf = (id: string) => TEST_KINDS.find((k) => k.id === id)!;
const joint = (name: string): Joint => {
  const r = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};

describe('orders of a line', () => {
  it('are each stage’s own times what follows it, the motor’s the whole ratio', () => {
    let stepped = 0;
    for (const name of ['body-yaw', 'neck-lift', 'wing-root', 'tide-dial']) {
      const j = joint(name);
      for (const v of j.variants) {
        const line = analyseLine(j, v, shelf);
        const orders = lineOrders(v, line);
        const ratios = line.stages.map((s) => s.report?.numbers.ratio);
        if (ratios.some((r) => r === undefined)) {
          expect(orders, `${name} ${v.name}`).toEqual([]);
          continue;
        }
        const total = Math.abs(ratios.reduce((a, b) => a! * b!, 1)!);
        expect(orders.find((o) => o.name === 'motor’s shaft')!.order).toBeCloseTo(total, 9);
        // A stepper comes round once each full step, and its windings once in four of them.
        const steps = (v.motor as { stepsPerTurn?: number }).stepsPerTurn;
        const motor = (name: string) => orders.find((o) => o.name === name)?.order;
        if (steps) {
          stepped++;
          expect(motor('motor’s full steps')).toBeCloseTo(total * steps, 6);
          expect(motor('motor’s step cycle')).toBeCloseTo((total * steps) / 4, 6);
        } else expect(motor('motor’s step cycle')).toBeUndefined();
        const last = v.stages.length - 1;
        for (const o of kinematicsOf(stageKind(v.stages[last]!.kind)!, v.stages[last]!.params).orders)
          expect(
            orders.find((x) => x.name === `${o.name}, stage ${last + 1}`)!.order,
            `${name} ${v.name} ${o.name}`,
          ).toBeCloseTo(o.perTurn, 9);
        // Run-out of e turns a stage's output by e over four tenths of its size, and the joint's by the ratio after it less.
        v.stages.forEach((_, j) => {
          const e = 1e-5;
          const own = e / (0.4 * line.stages[j]!.report!.numbers.outside);
          const seen = ratios.slice(j + 1).reduce((angle, r) => angle! / Math.abs(r!), own);
          for (const o of orders.filter((x) => x.name.endsWith(`, stage ${j + 1}`)))
            expect(e / o.lever).toBeCloseTo(seen!, 12);
        });
        for (const o of orders) expect(o.order > 0 && Number.isFinite(o.order) && o.lever >= 0, o.name).toBe(true);
      }
    }
    expect(stepped).toBeGreaterThan(0);
  });

  it('of a line that is not whole are none', () => {
    expect(lineOrders(undefined, undefined)).toEqual([]);
  });
});

describe('suspects of a peak', () => {
  const orders: LineOrder[] = [
    { name: 'input pulley, stage 2', order: 4, lever: 0.08 },
    { name: 'teeth, stage 1', order: 54, lever: 0.05 },
    { name: 'belt, stage 1', order: 6.2, lever: 0 },
    { name: 'idler, stage 2', order: 12, lever: 0.03 },
  ];
  const at = (order: number, amplitude = 1e-3, resolution = 0.3) =>
    suspectsFor(order, amplitude, 'smallAngle', orders, resolution, true);

  it('are those whose order or its double or triple is there within what the turns tell apart; the plain order first', () => {
    expect(at(4).suspects.map((s) => s.name)).toEqual(['input pulley, stage 2']);
    expect(at(12).suspects.map((s) => s.name)).toEqual(['idler, stage 2', 'input pulley, stage 2, three times']);
    expect(at(8.05).suspects[0]!.name).toBe('input pulley, stage 2, twice');
    expect(at(4.5).suspects).toEqual([]);
    expect(at(4.5, 1e-3, 1).suspects).toHaveLength(1);
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 200, noNaN: true }),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        (order, resolution) => {
          for (const s of at(order, 1e-3, resolution).suspects)
            expect(Math.abs(s.order - order)).toBeLessThanOrEqual(0.6 * resolution + 0.002 * order + 1e-12);
          // Nor is one left out that is as near; there are never more than four here.
          const near = orders.flatMap((o) =>
            [1, 2, 3].filter((h) => Math.abs(o.order * h - order) < 0.599 * resolution + 0.00199 * order),
          );
          if (near.length <= 4) expect(at(order, 1e-3, resolution).suspects.length).toBeGreaterThanOrEqual(near.length);
        },
      ),
    );
  });

  it('say what it means in the hand: off centre, oval, three high places, or a tooth', () => {
    expect(inUnits(at(4, 1e-3).suspects[0]!.means)).toMatch(/off centre by about 0\.08 mm/);
    expect(at(8, 1e-3).suspects[0]!.means).toMatch(/oval/);
    expect(at(12, 1e-3).suspects[1]!.means).toMatch(/three high places/);
    expect(inUnits(at(54, 2e-4).suspects[0]!.means)).toMatch(/each tooth is off by about 0\.01 mm/);
    expect(inUnits(at(4, 1e-5).suspects[0]!.means)).toMatch(/0\.8 µm/);
    // Without a lever an amplitude is no length.
    expect(at(6.2).suspects[0]!.means).toMatch(/each time it comes round/);
  });

  it('end in what to do next', () => {
    expect(at(4).next).toMatch(/turn it half a turn/);
    expect(at(12).next).toMatch(/ or /);
    expect(at(99).next).toMatch(/Nothing in the line/);
  });
});

describe('a specimen drawn from a variant', () => {
  const j = joint('body-yaw');
  const line = analyseLine(j, j.variants[0]!, shelf);
  const orders = lineOrders(j.variants[0], line);

  it('lies in the bands, whatever the seed, and turns as its line does', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
        const t = drawTruth(line, orders, 14, 0.3, seed);
        for (const [id, v] of [
          ['torque', t.torque],
          ['stiffness', t.stiffness[1]],
        ] as const) {
          const f = line.figures.find((x) => x.id === id)!;
          expect(v).toBeGreaterThanOrEqual(f.low - 1e-12);
          expect(v).toBeLessThanOrEqual(f.high + 1e-12);
        }
        expect(t.stiffness[0]).toBeLessThan(t.stiffness[1]);
        expect(t.friction).toBeLessThan(0.06 * t.torque);
        for (const e of t.errors) expect(orders.some((o) => o.name === e.name && o.order === e.order)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });

  it('prints whole lines of its protocol for as long as a programme lasts', () => {
    for (const program of ['play', 'hysteresis', 'torque', 'transmission', 'warming'] as const) {
      const rate = program === 'warming' ? 2 : 200;
      const s = new Specimen(drawTruth(line, orders, 14, 0.3, 2), program, rate, 2);
      const names = (JSON.parse(s.header()) as { channels: { name: string }[] }).channels.map((c) => c.name);
      let n = 0;
      let before = -1;
      for (; !s.done; n++) {
        const row = JSON.parse(s.line()) as Record<string, number>;
        expect(Object.keys(row)).toEqual(names);
        expect(Object.values(row).every(Number.isFinite)).toBe(true);
        expect(row['t']!).toBeGreaterThan(before);
        before = row['t']!;
      }
      expect(Math.abs(n - s.seconds * rate)).toBeLessThanOrEqual(1);
    }
  });
});

describe('values of a rig beside a table', () => {
  it('find their field by its name, its words or its label, with the unit in the value, in the key or the usual one', () => {
    const ladder = kindOf('torque-ladder');
    for (const head of [
      { lever: '150 mm' },
      { lever_mm: 150 },
      { Lever: '0.15 m' },
      { LEVER_M: '0.15' },
      { 'lever (mm)': '150' },
      { lever: 0.15 },
    ]) {
      const rig = rigFrom(
        ladder,
        Object.fromEntries(Object.entries(head).map(([k, v]) => [k.replace(/[()]/g, ''), v])) as Record<
          string,
          string | number
        >,
      );
      expect(rig['lever'], JSON.stringify(head)).toBeCloseTo(0.15, 12);
    }
    const warm = kindOf('temperature');
    expect(rigFrom(warm, { ambient_C: 21 })['ambient']).toBeCloseTo(294.15, 9);
  });

  it('that are not the rig’s, or cannot be read, are left out and nothing is thrown', () => {
    for (const id of ['torque-ladder', 'runout', 'play-spot', 'endurance']) {
      const kind = kindOf(id);
      expect(
        rigFrom(kind, {
          operator: 'nobody',
          date: '2026-11-25',
          lever: 'long',
          distance: '3 kg',
          '': 4,
          __proto__: 5,
        } as never),
      ).toEqual({});
      fc.assert(
        fc.property(fc.dictionary(fc.string(), fc.oneof(fc.string(), fc.double())), (head) => {
          for (const v of Object.values(rigFrom(kind, head)))
            expect(typeof v === 'string' || Number.isFinite(v)).toBe(true);
        }),
        { numRuns: 60 },
      );
    }
  });
});
