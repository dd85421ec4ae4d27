import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flatten, makeShelf, place, readParams, stageKind, type DrawItem } from '../src/index.ts';
import { analyseOf, drawingOf, kinematicsOf, partsOf, stageOf } from './stage-bench.ts';
import { examples } from './helpers.ts';

const shelf = makeShelf();
const kind = stageKind('compound-planetary')!;
const duty = { torque: 4, torqueRms: 2, speed: 1 };
const plain = {
  ...(kind.defaults({ ratio: 60, torque: 2, size: Infinity, shelf }) as Record<string, unknown>),
  boreS: 0,
  pin: 1e-3,
};
const report = (over: Record<string, unknown>) => {
  const p = readParams('compound-planetary', { ...plain, ...over });
  if (!p.ok) throw new Error(p.problem.what);
  const r = analyseOf(kind, p.value, duty, shelf);
  if (!r.ok) throw new Error(`${r.problem.what} ${r.problem.why}`);
  return r.value;
};
const cases = JSON.parse(readFileSync(new URL('./cases/compound-planetary.json', import.meta.url), 'utf8')) as (Record<
  string,
  number
> & { holds_itself: boolean })[];

describe('a shared-planet stage against worked figures', () => {
  it.each(cases)('ratio $ratio', (c) => {
    const counts = {
      zs: c['z_sun'],
      zpA: c['z_planet_a'],
      zr1: c['z_ring_1_held'],
      zpB: c['z_planet_b'],
      zr2: c['z_ring_2_out'],
    };
    // Toothing B takes the module that gives it the centre distance of A.
    const moduleB = (1e-3 * (c['z_ring_1_held']! - c['z_planet_a']!)) / (c['z_ring_2_out']! - c['z_planet_b']!);
    const r = report({ ...counts, module: 1e-3, moduleB, planets: 3, meshBy: 'given', eta: c['each_mesh_efficiency'] });
    expect(r.numbers.ratio).toBeCloseTo(c['ratio']!, 6);
    expect(r.numbers.etaForward).toBeCloseTo(c['efficiency_forward']!, 6);
    expect(r.numbers.etaBackward).toBeCloseTo(c['efficiency_backward']!, 6);
    expect(r.numbers.etaBackward <= 0).toBe(c.holds_itself);
  });
});

describe('a shared-planet stage', () => {
  it('gives its rings the shift of its planets where the centres are as they would be without', () => {
    const counts = { drive: 'sun', zs: 12, zpA: 18, zr1: 48, zpB: 15, zr2: 45, module: 1e-3, moduleB: 1e-3 };
    const r = report({ ...counts, xs: -0.2, xpA: 0.2, xpB: 0.15 });
    const of = (id: string) => r.figures.find((f) => f.id === id)!.value;
    expect(of('centre')).toBeCloseTo(0.015, 9);
    expect(of('shift1')).toBeCloseTo(0.2, 6);
    expect(of('shift2')).toBeCloseTo(0.15, 6);
  });

  it('holds itself where friction is large enough, and says so by an efficiency of nought or less', () => {
    expect(
      report({ zs: 12, zpA: 18, zr1: 48, zpB: 17, zr2: 47, module: 1e-3, moduleB: 1e-3, meshBy: 'given', eta: 0.96 })
        .numbers.etaBackward,
    ).toBeLessThan(0);
  });

  it('drives from its carrier without a sun', () => {
    expect(
      report({ drive: 'carrier', zpA: 18, zr1: 48, zpB: 17, zr2: 47, module: 1e-3, moduleB: 1e-3 }).numbers.ratio,
    ).toBeCloseTo(1 / (1 - (48 * 17) / (18 * 47)), 9);
  });

  it('both toothings of every planet find their rings at any turn, and marks agree with whether planets are alike', () => {
    const any = fc.record({
      set: fc.constantFrom([15, 24, 63, 21, 60], [12, 18, 48, 15, 45], [18, 24, 66, 21, 63], [12, 21, 54, 20, 53]),
      planets: fc.constantFrom(3, 6),
      crank: fc.double({ min: -40, max: 40, noNaN: true }),
    });
    fc.assert(
      fc.property(any, ({ set, planets, crank }) => {
        const p = {
          ...plain,
          zs: set[0],
          zpA: set[1],
          zr1: set[2],
          zpB: set[3],
          zr2: set[4],
          planets,
          module: 1e-3,
          moduleB: 1e-3,
          allowanceA: 2e-4,
          allowanceB: 2e-4,
          trim: 'yes',
        };
        const made = drawingOf(kind, p, crank, { shelf, duty });
        if (!made.ok) throw new Error(made.problem.what);
        const items = new Map(
          made.value
            .flatMap((l) => l.items)
            .filter((i): i is DrawItem & { kind: 'curve' } => i.kind === 'curve')
            .map((i) => [i.key, i]),
        );
        const flat = (key: string) => flatten(place(items.get(key)!.outline, items.get(key)!.at), 1e-5);
        const inside = (b: Float64Array, x: number, y: number) => {
          let yes = false;
          for (let k = 0, j = b.length - 2; k < b.length; j = k, k += 2)
            if (
              b[j + 1]! > y !== b[k + 1]! > y &&
              x < ((b[k]! - b[j]!) * (y - b[j + 1]!)) / (b[k + 1]! - b[j + 1]!) + b[j]!
            )
              yes = !yes;
          return yes;
        };
        for (const [planet, other, within] of [
          ['planetA', 'ring1', true],
          ['planetB', 'ring2', true],
          ['planetA', 'sun', false],
        ] as const) {
          const b = flat(other);
          for (let i = 0; i < planets; i++) {
            // Only where the sun lets planets stand evenly is its mesh asked for.
            if (other === 'sun' && (set[0]! + set[2]!) % planets !== 0) continue;
            const a = flat(`${planet}${i}`);
            for (let n = 0; n < a.length; n += 6)
              if (inside(b, a[n]!, a[n + 1]!) !== within) throw new Error(`${planet} ${i} and ${other}`);
          }
        }
        const r = report(p);
        const marks = stageOf(kind, p)
          .tables()[0]!
          .rows.map((x) => x.cells[2] as number);
        const step = (2 * Math.PI) / ((set[1]! * set[3]!) / gcd(set[1]!, set[3]!));
        const alike = marks.every((x) => Math.abs((x - marks[0]!) / step - Math.round((x - marks[0]!) / step)) < 1e-6);
        expect(r.checks.find((c) => c.id === 'alike')!.state === 'holds').toBe(alike);
      }),
      { numRuns: 10 },
    );
  });

  it('has figures and checks that are numbers, or says in words why it cannot be', () => {
    const any = fc.record({
      drive: fc.constantFrom('sun', 'carrier'),
      zs: fc.integer({ min: 5, max: 40 }),
      zpA: fc.integer({ min: 5, max: 40 }),
      zpB: fc.integer({ min: 5, max: 40 }),
      off1: fc.integer({ min: -2, max: 2 }),
      off2: fc.integer({ min: -2, max: 2 }),
      planets: fc.integer({ min: 2, max: 8 }),
      moduleB: fc.double({ min: 7e-4, max: 1.4e-3, noNaN: true }),
      helix: fc.constantFrom(0, 0.3),
      double: fc.constantFrom('no', 'yes'),
      trim: fc.constantFrom('no', 'yes'),
      torque: fc.constantFrom(0, 3, 1e4),
    });
    fc.assert(
      fc.property(any, ({ off1, off2, torque, ...q }) => {
        const p = {
          ...plain,
          module: 1e-3,
          ...q,
          zr1: Math.max(5, q.zs + 2 * q.zpA + off1),
          zr2: Math.max(5, q.zpB + q.zs + q.zpA + off2),
        };
        const r = analyseOf(kind, p, { torque, torqueRms: torque / 2, speed: 2 }, shelf);
        if (!r.ok) return void expect(r.problem.mend.length).toBeGreaterThan(5);
        for (const f of r.value.figures)
          expect(
            Number.isFinite(f.value) &&
              f.low <= f.value + 1e-9 * Math.abs(f.value) &&
              f.high >= f.value - 1e-9 * Math.abs(f.value),
            `${f.id} ${f.low} ${f.value} ${f.high}`,
          ).toBe(true);
        for (const c of r.value.checks) expect(Number.isNaN(c.figure) || Number.isNaN(c.limit), c.id).toBe(false);
        expect(partsOf(kind, p, shelf).ok).toBe(true);
      }),
      { numRuns: examples(150) },
    );
  });

  it('refuses counts that stand still and modules that do not share a centre distance, with fixes that work', () => {
    for (const over of [
      { zs: 12, zpA: 18, zr1: 48, zpB: 18, zr2: 48, module: 1e-3, moduleB: 1e-3 },
      { zs: 12, zpA: 18, zr1: 48, zpB: 17, zr2: 47, module: 1e-3, moduleB: 2e-3 },
    ]) {
      const r = analyseOf(kind, { ...plain, ...over }, duty, shelf);
      expect(r.ok).toBe(false);
      const fix = !r.ok && (r.problem as { fix?: { path: string; value: number } }).fix;
      expect(fix && analyseOf(kind, { ...plain, ...over, [fix.path]: fix.value }, duty, shelf).ok).toBe(true);
    }
  });
});

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

describe('the desk of counts of shared planets', () => {
  const wish = { ratio: 60, size: 0.09, tolerance: 0.08 };
  const p = { ...plain, drive: 'sun', module: 1e-3, moduleB: 1e-3, planets: 3 };

  it('lays out sets whose ratio is the stage’s own, within the wish', () => {
    const desk = kind.counts!(p, wish);
    expect(desk.sets.length).toBeGreaterThan(20);
    for (const s of desk.sets) {
      expect(kinematicsOf(kind, { ...p, ...s.values }).ratio / s.ratio).toBeCloseTo(1, 9);
      expect(Math.abs(Math.abs(s.ratio) / wish.ratio - 1)).toBeLessThanOrEqual(wish.tolerance);
      expect(s.size).toBeLessThanOrEqual(wish.size);
    }
    // One set a place, so that each can be pressed.
    expect(new Set(desk.sets.map((s) => `${s.x} ${s.y}`)).size).toBe(desk.sets.length);
  });

  it('what it says assembles has no check against its places', () => {
    const sets = kind.counts!(p, wish)
      .sets.filter((s) => s.assembles)
      .slice(0, 12);
    expect(sets.length).toBeGreaterThan(3);
    for (const s of sets) {
      const r = analyseOf(kind, { ...p, ...s.values }, duty, shelf);
      if (!r.ok) throw new Error(`${s.label}: ${r.problem.what}`);
      expect(
        r.value.checks.filter((c) => ['assembles', 'gap'].includes(c.id) && c.state === 'fails'),
        s.label,
      ).toEqual([]);
    }
  });

  it('finds sets for a carrier drive too, and none where the size forbids all', () => {
    expect(
      kind.counts!({ ...p, drive: 'carrier' }, { ratio: 20, size: 0.1, tolerance: 0.05 }).sets.length,
    ).toBeGreaterThan(3);
    expect(kind.counts!(p, { ...wish, size: 0.01 }).sets).toEqual([]);
  });
});
