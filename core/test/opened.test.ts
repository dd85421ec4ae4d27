import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  editsFor,
  factor,
  findBearing,
  findMaterial,
  keepReads,
  makeShelf,
  recorded,
  rememberingOpener,
  shopMoved,
  stageKind,
  takeShop,
  withFactor,
} from '../src/index.ts';
import { carry } from '../src/lobed/index.ts';
import { Kept } from '../src/stage/kept.ts';
import { turnUnder } from '../src/stage/strain-wave/contacts.ts';
import { demo, dice, shelf } from './helpers.ts';

describe('what is read of the shop', () => {
  it('is recorded, and told to the computation around it', () => {
    const outer = recorded(shelf, (s) => {
      const inner = recorded(s, (t) => factor(t, 'gravity') * findMaterial(t, 'c45')!.density);
      expect([...inner.reads.factors]).toEqual(['gravity']);
      findBearing(s, '688');
      return inner.value;
    });
    expect(outer.reads.list()).toEqual({ factors: ['gravity'], materials: ['c45'], bearings: ['688'] });
    expect(outer.value).toBeCloseTo(9.80665 * 7850, 6);
  });
});

describe('a step that is kept', () => {
  it('runs again only when what it was given or has read changes, and forgets trials', () => {
    const kept = new Kept();
    let runs = 0;
    const ask = (given: number, on = shelf) =>
      kept.step('x', [given], on, (s) => {
        runs++;
        return given * factor(s, 'ambient');
      });
    expect(ask(2)).toBeCloseTo(2 * 293.15, 9);
    ask(2);
    ask(2, withFactor(shelf, 'gear.load', 9));
    expect(runs).toBe(1);
    expect(ask(2, withFactor(shelf, 'ambient', 300))).toBe(600);
    expect(ask(2)).toBeCloseTo(2 * 293.15, 9);
    expect(runs).toBe(2);
    expect(ask(3)).toBeCloseTo(3 * 293.15, 9);
    expect(runs).toBe(3);
  });

  it('tells who asks what it had read, also when it did not run', () => {
    const kept = new Kept();
    const ask = () => recorded(shelf, (s) => kept.step('x', [], s, (t) => factor(t, 'ambient'))).reads;
    expect([...ask().factors]).toEqual(['ambient']);
    expect([...ask().factors]).toEqual(['ambient']);
  });
});

describe('an opener that remembers', () => {
  it('opens a stage once for one shop, whoever asks, and again for another', () => {
    const open = rememberingOpener(2);
    const record = demo().variants[0]!.stages[0]!;
    const first = open(record, shelf);
    expect(open(structuredClone(record), shelf)).toBe(first);
    expect(open({ ...record, params: { ...record.params, z2: 57 } }, shelf)).not.toBe(first);
    expect(open(record, shelf)).toBe(first);
    expect(open(record, makeShelf())).not.toBe(first);
    expect(open({ ...record, kind: 'none' }, shelf)).toMatchObject({ ok: false });
  });
});

describe('a joint keeps what its stages are made of', () => {
  it('says where a material has changed in the shop, computes with its own, and takes the shop’s when asked', () => {
    const j = demo();
    const v = j.variants[0]!;
    const params = stageKind('spur')!.defaults({ ratio: 3, torque: 2, size: Infinity, shelf });
    v.stages = [{ id: 's', kind: 'spur', params: params as Record<string, unknown> }];
    const before = analyseLine(j, v, shelf);
    const kept = keepReads(j, before.reads, shelf);
    expect(kept.materials?.map((m) => m.id).sort()).toEqual([...new Set(before.reads.materials)].sort());
    const steel = shelf.materials.find((m) => m.id === before.reads.materials[0])!;
    const edits = { materials: [{ ...steel, density: 2 * steel.density }] };
    const shop = makeShelf(edits);
    expect(shopMoved(kept, shop)).toContainEqual({ kind: 'material', id: steel.id, name: steel.name });
    const mass = (on: typeof shelf) => analyseLine(kept, v, on).figures.find((f) => f.id === 'mass')!.value;
    expect(mass(makeShelf(editsFor(kept, edits)))).toBe(mass(shelf));
    expect(mass(shop)).toBeGreaterThan(mass(shelf));
    const taken = takeShop(kept, shop);
    expect(shopMoved(taken, shop).filter((m) => m.kind === 'material')).toEqual([]);
    expect(mass(makeShelf(editsFor(taken, edits)))).toBe(mass(shop));
  });
});

describe('the turn of a spline under a torque', () => {
  const set = (gaps: number[], arm: number) => {
    const none = new Float64Array(gaps.length);
    return {
      gaps: Float64Array.from(gaps).sort(),
      arms: new Float64Array(gaps.length).fill(arm),
      nx: none,
      ny: none,
      slides: none,
      curves: none,
    };
  };

  it('closes one tooth after another, by hand', () => {
    // 1 N/µm at 20 mm: alone the first tooth turns 1 N·m by 2.5 mrad, which is 50 µm; the second stands 30 µm off.
    // Both: 1e6·0.02·(2·0.02·θ − 30e-6) = 1, θ = (50e-6 + 30e-6)/0.04 = 2 mrad.
    expect(turnUnder(set([0], 0.02), 1e6, 1)).toBeCloseTo(2.5e-3, 12);
    expect(turnUnder(set([0, 30e-6], 0.02), 1e6, 1)).toBeCloseTo(2e-3, 12);
    expect(turnUnder(set([0, 60e-6], 0.02), 1e6, 1)).toBeCloseTo(2.5e-3, 12);
  });

  it('is what the general equilibrium of contacts finds', () => {
    const roll = dice(5);
    for (let k = 0; k < 60; k++) {
      const s = set(
        Array.from({ length: 1 + roll(60) }, () => roll(1000) * 1e-7),
        0.005 + roll(100) * 1e-3,
      );
      const [stiffness, torque] = [1e5 * (1 + roll(90)), 0.01 * (1 + roll(900))];
      const turn = turnUnder(s, stiffness, torque);
      expect(Math.abs(turn / carry([s], stiffness, torque).turn - 1)).toBeLessThan(1e-7);
    }
  });
});
