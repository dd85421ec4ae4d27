import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  flatten,
  makeShelf,
  place,
  readParams,
  stageKind,
  withFactor,
  type DrawItem,
  type Outline,
  type Stage,
} from '../src/index.ts';
import { analyseOf, drawingOf, partsOf } from './stage-bench.ts';
import { examples } from './helpers.ts';

const shelf = makeShelf();
const kind = stageKind('planetary')!;
const duty = { torque: 4, torqueRms: 2, speed: 1 };
const plain = kind.defaults({ ratio: 5, torque: 2, size: Infinity, shelf }) as Record<string, unknown>;
const cases = JSON.parse(readFileSync(new URL('./cases/planetary.json', import.meta.url), 'utf8')) as (Record<
  string,
  number
> & { equal_spacing_assembles: boolean })[];

/** Parameters as the file reader takes them. */
const params = (over: Record<string, unknown>): Record<string, unknown> => {
  const r = readParams('planetary', { ...plain, boreS: 0, pin: 2e-3, ...over });
  if (!r.ok) throw new Error(r.problem.what);
  return r.value as Record<string, unknown>;
};
const report = (over: Record<string, unknown>) => {
  const r = analyseOf(kind, params(over), duty, shelf);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};

describe('a planetary stage against worked figures', () => {
  it.each(cases)('$z_sun / $z_planet / $z_ring', (c) => {
    const r = report({
      module: 1e-3,
      zs: c['z_sun'],
      zp: c['z_planet'],
      zr: c['z_ring'],
      planets: c['planets'],
      spacing: 'even',
      trim: 'no',
      xs: 0,
      xp: 0,
      meshBy: 'given',
      etaS: c['mesh_efficiency_sun'],
      etaR: c['mesh_efficiency_ring'],
      allowanceS: 5e-5,
      allowanceP: 5e-5,
      allowanceR: 5e-5,
    });
    const f = (id: string) => r.figures.find((x) => x.id === id)!.value;
    expect(f('ratio')).toBeCloseTo(c['ratio_ring_held']!, 9);
    expect(f('efficiency')).toBeCloseTo(c['efficiency_forward']!, 6);
    expect(f('efficiencyBack')).toBeCloseTo(c['efficiency_backward']!, 6);
    expect(f('gap') * 1e3).toBeCloseTo(c['neighbour_gap_module_1_mm']!, 5);
    expect((f('playOne') * 10800) / Math.PI).toBeCloseTo(
      c['carrier_play_arcmin_if_each_mesh_has_0p1_mm_at_module_1']!,
      3,
    );
    expect(r.checks.find((x) => x.id === 'assembles')!.state === 'holds').toBe(c.equal_spacing_assembles);
  });
});

const curves = (over: Record<string, unknown>, crank: number): Map<string, Outline> => {
  const made = drawingOf(kind, params(over), crank, { shelf, duty });
  if (!made.ok) throw new Error(made.problem.what);
  const items = made.value
    .find((l) => l.id === 'teeth')!
    .items.filter((i): i is DrawItem & { kind: 'curve' } => i.kind === 'curve');
  return new Map(items.map((i) => [i.key, place(i.outline, i.at)]));
};

/** Whether a point lies inside a polygon. */
function inside(p: Float64Array, x: number, y: number): boolean {
  let yes = false;
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) {
    const [x1, y1, x2, y2] = [p[j]!, p[j + 1]!, p[i]!, p[i + 1]!];
    if (y1 > y !== y2 > y && x < ((x2 - x1) * (y - y1)) / (y2 - y1) + x1) yes = !yes;
  }
  return yes;
}

describe('the drawing of a planetary stage', () => {
  const sets = fc.record({
    zs: fc.integer({ min: 12, max: 24 }),
    zp: fc.integer({ min: 14, max: 22 }),
    planets: fc.constantFrom(3, 4),
    arrangement: fc.constantFrom('sun-carrier', 'sun-ring', 'ring-carrier', 'carrier-ring'),
    crank: fc.double({ min: 0, max: 20, noNaN: true }),
  });
  it('has teeth that mesh with room on both sides at any turn of the crank', () => {
    fc.assert(
      fc.property(sets, (q) => {
        const over = {
          ...q,
          zr: q.zs + 2 * q.zp,
          spacing: 'stepped',
          module: 1e-3,
          xs: 0.3,
          xp: 0.2,
          allowanceS: 2e-4,
          allowanceP: 2e-4,
          allowanceR: 2e-4,
        };
        const drawn = curves(over, q.crank);
        const flat = new Map([...drawn].map(([k, o]) => [k, flatten(o, 5e-6)]));
        for (let i = 0; i < q.planets; i++) {
          const planet = flat.get(`planet${i}`)!;
          for (const other of ['sun', 'ring']) {
            const poly = flat.get(other)!;
            for (let n = 0; n < planet.length; n += 6) {
              const enters = inside(poly, planet[n]!, planet[n + 1]!);
              // Outside the sun's material, and inside the ring's toothed hole.
              if (enters !== (other === 'ring')) throw new Error(`planet ${i} and ${other} overlap`);
            }
          }
        }
      }),
      { numRuns: 12 },
    );
  });
});

describe('a planetary stage that cannot be', () => {
  it('says what does not assemble and the nearest counts that do', () => {
    const r = report({ zs: 17, zp: 20, zr: 57, planets: 4, spacing: 'even' });
    const c = r.checks.find((x) => x.id === 'assembles')!;
    expect(c.state).toBe('fails');
    const mend = c.mend!;
    const better = report({
      zs: 17,
      zp: 20,
      zr: 57,
      planets: 4,
      spacing: 'even',
      [mend.path]: mend.value,
      ...mend.also,
    });
    expect(better.checks.find((x) => x.id === 'assembles')!.state).toBe('holds');
  });
  it('refuses a ring smaller than its planets, with a fix that works', () => {
    const p = params({ zs: 18, zp: 27, zr: 25 });
    const r = analyseOf(kind, p, duty, shelf);
    expect(r.ok).toBe(false);
    const fix = !r.ok && (r.problem as { fix?: { path: string; value: number } }).fix;
    expect(fix && analyseOf(kind, { ...p, [fix.path]: fix.value }, duty, shelf).ok).toBe(true);
  });
  it('warns of a shift that undercuts, and the mend passes', () => {
    const r = report({ zs: 12, zp: 21, zr: 54, planets: 3, xs: -0.2 });
    const c = r.checks.find((x) => x.id === 'undercut-sun')!;
    expect(c.state).toBe('fails');
    expect(
      report({ zs: 12, zp: 21, zr: 54, planets: 3, [c.mend!.path]: c.mend!.value }).checks.find(
        (x) => x.id === 'undercut-sun',
      )!.state,
    ).not.toBe('fails');
  });
  it('takes no wheel of fewer than five teeth', () => {
    const r = readParams('planetary', { ...plain, zs: 4 });
    expect(!r.ok && r.problem.why + r.problem.what).toMatch(/5/);
  });
  it('refuses stacked sets that do not drive at the sun', () => {
    expect(analyseOf(kind, params({ sets: 2, arrangement: 'ring-carrier' }), duty, shelf).ok).toBe(false);
  });
});

describe('a planetary stage under load', () => {
  it('has figures and checks that are numbers for any counts, arrangement and material', () => {
    fc.assert(
      fc.property(
        fc.record({
          zs: fc.integer({ min: 5, max: 60 }),
          zp: fc.integer({ min: 5, max: 60 }),
          off: fc.integer({ min: -2, max: 2 }),
          planets: fc.integer({ min: 2, max: 8 }),
          module: fc.double({ min: 2e-4, max: 5e-3, noNaN: true }),
          helix: fc.double({ min: 0, max: 0.7, noNaN: true }),
          double: fc.constantFrom('no', 'yes'),
          xs: fc.double({ min: -0.4, max: 0.7, noNaN: true }),
          xp: fc.double({ min: -0.4, max: 0.7, noNaN: true }),
          materialP: fc.constantFrom('pla', 'pom', 'c45'),
          arrangement: fc.constantFrom(
            'sun-carrier',
            'sun-ring',
            'ring-carrier',
            'ring-sun',
            'carrier-sun',
            'carrier-ring',
          ),
          pins: fc.constantFrom('plain', 'ball'),
          trim: fc.constantFrom('no', 'yes'),
          spacing: fc.constantFrom('even', 'stepped'),
          chamfer: fc.constantFrom(0, 1e-4),
          torque: fc.constantFrom(0, 1, 1e4),
          speed: fc.constantFrom(0, 10),
        }),
        (q) => {
          const { off, torque, speed, ...over } = q;
          const p = { ...plain, boreS: 0, pin: 1e-3, ...over, zr: Math.max(5, q.zs + 2 * q.zp + off) };
          const r = analyseOf(kind, p, { torque, torqueRms: torque / 2, speed }, shelf);
          if (!r.ok) return void expect(r.problem.mend.length).toBeGreaterThan(5);
          for (const f of r.value.figures) {
            expect(Number.isFinite(f.value), `${f.id} ${f.value}`).toBe(true);
            expect(f.low, f.id).toBeLessThanOrEqual(f.value + 1e-9 * Math.abs(f.value));
            expect(f.high, f.id).toBeGreaterThanOrEqual(f.value - 1e-9 * Math.abs(f.value));
          }
          for (const c of r.value.checks) expect(Number.isNaN(c.figure) || Number.isNaN(c.limit), c.id).toBe(false);
          return void expect(partsOf(kind, p, shelf).ok).toBe(true);
        },
      ),
      { numRuns: examples(60) },
    );
  });
  it('a mend of strength is enough', () => {
    const weak = {
      module: 1e-3,
      zs: 18,
      zp: 18,
      zr: 54,
      width: 4e-3,
      materialP: 'pla',
      materialS: 'pla',
      materialR: 'pla',
    };
    const c = report(weak).checks.find(
      (x) => x.id.startsWith('break-') && x.state === 'fails' && x.mend?.path === 'width',
    );
    if (c) expect(report({ ...weak, width: c.mend!.value }).checks.find((x) => x.id === c.id)!.state).not.toBe('fails');
    const wide = report({ ...weak, width: 12e-3 });
    expect(wide.numbers.limits[0]!.torque).toBeGreaterThan(2.5 * report(weak).numbers.limits[0]!.torque);
  });
  it('three equal sets give the ratio to the third, the play mostly of the last', () => {
    const one = report({ zs: 18, zp: 27, zr: 72, planets: 3, sets: 1 });
    const three = report({ zs: 18, zp: 27, zr: 72, planets: 3, sets: 3 });
    expect(three.numbers.ratio).toBeCloseTo(one.numbers.ratio ** 3, 9);
    expect(three.numbers.play[0]).toBeCloseTo(one.numbers.play[0] * (1 + 1 / 5 + 1 / 25), 12);
  });
});

describe('planets on bearings, in a carrier', () => {
  const over = { module: 1e-3, zs: 18, zp: 27, zr: 72, planets: 3, width: 9e-3, pin: 4e-3 };

  it('needles run on the pin itself, live by ten thirds, and refuse a ball bearing’s name with the one that fits', () => {
    const at = { torque: 8, torqueRms: 4, speed: 4, equivalent: 4, meanSpeed: 3 };
    const on = (extra: Record<string, unknown>, torque = 4) =>
      analyseOf(kind, params({ ...over, ...extra }), { ...at, equivalent: torque }, shelf);
    const life = (r: ReturnType<Stage['report']>) => r.figures.find((f) => f.id === 'life')!.value;
    const needle = on({ pins: 'needle', bearing: 'hk0408' });
    expect(needle.ok).toBe(true);
    const half = on({ pins: 'needle', bearing: 'hk0408' }, 2);
    if (needle.ok && half.ok) expect(life(half.value) / life(needle.value)).toBeCloseTo(2 ** (10 / 3), 6);
    const wrong = on({ pins: 'needle', bearing: '624' });
    expect(wrong.ok).toBe(false);
    if (!wrong.ok) expect((wrong.problem as { fix?: { value: unknown } }).fix?.value).toBe('hk0408');
    const loose = on({ pins: 'needle', bearing: 'hk0408', pin: 5e-3 });
    expect(loose.ok && loose.value.checks.find((c) => c.id === 'bearing-bore')!.state).toBe('fails');
  });

  it('a carrier leans its pins as T, and as the fourth power of their diameter the other way', () => {
    const lean = (pin: number, torque: number) => {
      const r = analyseOf(kind, params({ ...over, pins: 'plain', pin }), { torque, torqueRms: 1, speed: 1 }, shelf);
      if (!r.ok) throw new Error(r.problem.what);
      return r.value.figures.find((f) => f.id === 'lean')!.value;
    };
    expect(lean(4e-3, 8) / lean(4e-3, 4)).toBeCloseTo(2, 9);
    expect(lean(3e-3, 4) / lean(6e-3, 4)).toBeCloseTo(16, 6);
  });

  it('places of two and three planets take from the likely play as 2/√π and 3/√π of their deviation', () => {
    // Expected range of N normal deviates: 2/√π = 1.12838 for two, 3/√π = 1.69257 for three (Tippett).
    const counts = { module: 1e-3, zs: 18, zp: 27, zr: 72, allowanceS: 4e-4, allowanceP: 4e-4, allowanceR: 4e-4 };
    const likely = (planets: number, place: number) => {
      const on = withFactor(shelf, 'planet.place', place);
      const r = analyseOf(kind, params({ ...counts, planets }), duty, on);
      if (!r.ok) throw new Error(r.problem.what);
      return r.value.numbers.play[0];
    };
    const exact = likely(3, 0);
    expect(likely(2, 0)).toBeCloseTo(exact, 15);
    const [two, three] = [exact - likely(2, 2e-5), exact - likely(3, 2e-5)];
    expect(two).toBeGreaterThan(1e-6);
    // The table has three decimals.
    expect(two / three).toBeCloseTo(2 / 3, 3);
  });
});

describe('two sets, the first of them narrow', () => {
  it('carry less where the first has less width than its share of the torque', () => {
    const kind = stageKind('planetary')!;
    const base = kind.defaults({ ratio: 3, torque: 1, size: Infinity, shelf: makeShelf() }) as object;
    const limits = (sets: number) => {
      const p = readParams('planetary', {
        ...base,
        ...{ arrangement: 'sun-carrier', zs: 36, zp: 18, zr: 72, planets: 3, sets, step: 0.3, pins: 'plain' },
        ...{ helix: 0, xs: 0, xp: 0 },
      });
      if (!p.ok) throw new Error(p.problem.what);
      const opened = kind.open(p.value, makeShelf());
      if (!opened.ok) throw new Error(opened.problem.what);
      return opened.value.load({ torque: 1, torqueRms: 0.5, speed: 0, equivalent: 1, meanSpeed: 0 });
    };
    const [one, two] = [limits(1), limits(2)];
    // A third of the torque, and what the last one loses, on three tenths of the width: nine tenths of it.
    for (const l of two.limits.filter((x) => x.time === 'static'))
      expect(l.torque / one.limits.find((x) => x.mode === l.mode)!.torque, l.mode).toBeCloseTo(0.9 * one.etaForward, 9);
  });

  it('have the play of one and what the first adds through the ratio, at least, likely and at most', () => {
    const kind = stageKind('planetary')!;
    const base = kind.defaults({ ratio: 5, torque: 1, size: Infinity, shelf: makeShelf() }) as object;
    const play = (sets: number) => {
      const opened = kind.open(
        {
          ...base,
          arrangement: 'sun-carrier',
          zs: 18,
          zp: 27,
          zr: 72,
          planets: 3,
          sets,
          step: 1,
          xs: 0,
          xp: 0,
        } as never,
        makeShelf(),
      );
      if (!opened.ok) throw new Error(opened.problem.what);
      return opened.value.load({ torque: 1, torqueRms: 0.5, speed: 1, equivalent: 1, meanSpeed: 1 }).play;
    };
    const [one, three] = [play(1), play(3)];
    for (const x of one) expect(x).toBeGreaterThan(0);
    three.forEach((x, i) => expect(x / one[i]!).toBeCloseTo(1 + 1 / 5 + 1 / 25, 9));
  });

  it('a tooth of the sun meets every planet while a planet’s meets it once, whatever their sizes', () => {
    // With bending both ways counting as bending one way, alike teeth tire alike after alike many meetings.
    const once = withFactor(shelf, 'gear.alternating', 1);
    const p = params({ zs: 21, zp: 21, zr: 63, planets: 3, materialS: 'pa-cf', materialP: 'pa-cf', xs: 0, xp: 0 });
    const r = analyseOf(kind, p, { ...duty, equivalent: 2, meanSpeed: 1, life: 1e6 }, once);
    if (!r.ok) throw new Error(r.problem.what);
    const lasts = (of: string) => r.value.checks.find((c) => c.id === of)!.figure;
    expect(lasts('tire-sun-0')).toBeGreaterThan(0);
    expect(lasts('tire-sun-1') / lasts('tire-sun-0')).toBeCloseTo(3, 6);
  });
});
