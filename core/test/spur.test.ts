import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  flatten,
  makeShelf,
  place,
  readParams,
  solidVolume,
  stageKind,
  type DrawItem,
  type Part,
} from '../src/index.ts';
import { analyseOf, drawingOf, kinematicsOf, partsOf } from './stage-bench.ts';
import { examples } from './helpers.ts';

const shelf = makeShelf();
const kind = stageKind('spur')!;
const duty = { torque: 2, torqueRms: 1, speed: 4 };
const deg = Math.PI / 180;
const plain = kind.defaults({ ratio: 3, torque: 1, size: Infinity, shelf }) as Record<string, unknown>;
const params = (over: Record<string, unknown>): Record<string, unknown> => {
  const r = readParams('spur', { ...plain, bore1: 0, bore2: 0, ...over });
  if (!r.ok) throw new Error(r.problem.what);
  return r.value as Record<string, unknown>;
};
const report = (over: Record<string, unknown>) => {
  const r = analyseOf(kind, params(over), duty, shelf);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const figure = (r: ReturnType<typeof report>, id: string): number => r.figures.find((f) => f.id === id)!.value;

interface PairCase {
  module_mm: number;
  z1: number;
  z2: number;
  x1: number;
  x2: number;
  pressure_angle_deg: number;
  helix_deg: number;
  ring: boolean;
  centre_mm: number;
  working_angle_deg: number;
  contact_ratio: number;
  span_teeth_1: number;
  span_1_mm: number;
  pin_mm?: number;
  over_pins_1_mm?: number;
}
const cases = JSON.parse(readFileSync(new URL('./cases/involute-pairs.json', import.meta.url), 'utf8')) as PairCase[];

describe('undercut of a spur stage', () => {
  it('asks for as many teeth as a rack of depth one needs: 2/sin²α is 17.1', () => {
    const check = report({ form: 'outside', z1: 12, z2: 40, x1: 0, x2: 0 }).checks.find(
      (c) => c.id.startsWith('undercut') && c.figure < c.limit,
    )!;
    expect(check.advice).toContain('18 teeth');
    // Least shift of twelve: 1 − 12·sin²20°/2.
    expect(check.limit).toBeCloseTo(1 - 6 * Math.sin(20 * deg) ** 2, 4);
  });
});

describe('a spur stage against worked figures', () => {
  it.each(cases)('m $module_mm, $z1 / $z2, ring $ring', (c) => {
    const over = {
      form: c.ring ? 'ring' : 'outside',
      module: c.module_mm * 1e-3,
      z1: c.z1,
      z2: c.z2,
      x1: c.x1,
      x2: c.x2,
      pressure: c.pressure_angle_deg * deg,
      helix: c.helix_deg * deg,
      trim: 'no',
      allowance1: 0,
      allowance2: 0,
    };
    const r = report(over);
    expect(figure(r, 'centre') * 1e3).toBeCloseTo(c.centre_mm, 6);
    expect(figure(r, 'working-1') / deg).toBeCloseTo(c.working_angle_deg, 6);
    expect(figure(r, 'contact-1')).toBeCloseTo(c.contact_ratio, 6);
    expect(figure(r, 'span-1') * 1e3).toBeCloseTo(c.span_1_mm, 6);
    if (c.pin_mm) expect(figure(r, 'pins-1') * 1e3).toBeCloseTo(c.over_pins_1_mm!, 6);
    // Given the centre distance instead, the sum of shifts comes out again.
    const back = report({ ...over, setBy: 'centre', centre: c.centre_mm * 1e-3, split: 'even' });
    expect(figure(back, 'x2') + (c.ring ? -1 : 1) * figure(back, 'x1')).toBeCloseTo(
      c.ring ? c.x2 - c.x1 : c.x1 + c.x2,
      4,
    );
  });
});

describe('walls over the bores', () => {
  it('are the root radius less the bore’s: 9 − 1.25 − 2.5 and 20 − 1.25 − 4 mm by hand, and less under a keyway', () => {
    const plainBores = {
      z1: 18,
      z2: 40,
      module: 1e-3,
      x1: 0,
      x2: 0,
      setBy: 'shifts',
      shape1: 'round',
      shape2: 'round',
    };
    const wall = (id: string, over: Record<string, unknown> = {}) =>
      report({ ...plainBores, bore1: 5e-3, bore2: 8e-3, ...over }).checks.find((c) => c.id === id)!.figure;
    expect(wall('wall-1')).toBeCloseTo(5.25e-3, 9);
    expect(wall('wall-2')).toBeCloseTo(14.75e-3, 9);
    expect(wall('wall-2', { bore2: 1e-2 })).toBeCloseTo(13.75e-3, 9);
    expect(wall('wall-2', { shape2: 'keyway' })).toBeLessThan(14.75e-3);
  });
});

describe('a spur train', () => {
  it('idlers turn the direction and never the ratio; a ring keeps the direction', () => {
    for (const [form, idlers, sign] of [
      ['outside', 0, -1],
      ['outside', 1, 1],
      ['outside', 2, -1],
      ['ring', 0, 1],
      ['ring', 1, -1],
    ] as const)
      expect(kinematicsOf(kind, params({ form, idlers, z1: 20, z2: 60, zi: 18 })).ratio).toBe(3 * sign);
  });

  it('meshes with room on both sides at any turn of the crank, idlers and ring included', () => {
    const any = fc.record({
      form: fc.constantFrom('outside', 'ring'),
      idlers: fc.integer({ min: 0, max: 2 }),
      z1: fc.integer({ min: 14, max: 24 }),
      zi: fc.integer({ min: 14, max: 22 }),
      bend: fc.double({ min: -0.5, max: 0.5, noNaN: true }),
      crank: fc.double({ min: -9, max: 9, noNaN: true }),
    });
    fc.assert(
      fc.property(any, (q) => {
        const made = drawingOf(
          kind,
          params({
            ...q,
            z2: 70,
            module: 1e-3,
            x1: 0.3,
            xi: 0.3,
            x2: 0.3,
            trim: 'yes',
            allowance1: 3e-4,
            allowance2: 3e-4,
          }),
          q.crank,
          { shelf, duty },
        );
        if (!made.ok) throw new Error(made.problem.what);
        const items = made.value
          .find((l) => l.id === 'teeth')!
          .items.filter((i): i is DrawItem & { kind: 'curve' } => i.kind === 'curve');
        const flat = (i: number) =>
          flatten(
            place(items.find((x) => x.key === `wheel${i}`)!.outline, items.find((x) => x.key === `wheel${i}`)!.at),
            1e-5,
          );
        for (let i = 0; i <= q.idlers; i++) {
          const [a, b] = [flat(i), flat(i + 1)];
          const ring = q.form === 'ring' && i === q.idlers;
          for (let n = 0; n < a.length; n += 4) {
            let yes = false;
            for (let k = 0, j = b.length - 2; k < b.length; j = k, k += 2)
              if (
                b[j + 1]! > a[n + 1]! !== b[k + 1]! > a[n + 1]! &&
                a[n]! < ((b[k]! - b[j]!) * (a[n + 1]! - b[j + 1]!)) / (b[k + 1]! - b[j + 1]!) + b[j]!
              )
                yes = !yes;
            if (yes !== ring) throw new Error(`wheels ${i} and ${i + 1} overlap`);
          }
        }
      }),
      { numRuns: 15 },
    );
  });

  it('has figures and checks that are numbers for anything its schema takes', () => {
    const any = fc.record({
      form: fc.constantFrom('outside', 'ring'),
      z1: fc.integer({ min: 5, max: 60 }),
      z2: fc.integer({ min: 5, max: 200 }),
      idlers: fc.integer({ min: 0, max: 4 }),
      zi: fc.integer({ min: 5, max: 40 }),
      module: fc.double({ min: 1e-4, max: 1e-2, noNaN: true }),
      width: fc.double({ min: 5e-4, max: 0.1, noNaN: true }),
      helix: fc.double({ min: 0, max: 0.78, noNaN: true }),
      pressure: fc.double({ min: 0.25, max: 0.52, noNaN: true }),
      addendum: fc.double({ min: 0.5, max: 1.5, noNaN: true }),
      dedendum: fc.double({ min: 0.6, max: 2, noNaN: true }),
      fillet: fc.double({ min: 0, max: 0.6, noNaN: true }),
      chamfer: fc.constantFrom(0, 1e-4, 2e-3),
      trim: fc.constantFrom('no', 'yes'),
      x1: fc.double({ min: -1, max: 1.5, noNaN: true }),
      x2: fc.double({ min: -1, max: 1.5, noNaN: true }),
      setBy: fc.constantFrom('shifts', 'centre'),
      split: fc.constantFrom('sliding', 'undercut', 'even'),
      centre: fc.double({ min: 1e-3, max: 0.2, noNaN: true }),
      material2: fc.constantFrom('pla', 'c45'),
    });
    fc.assert(
      fc.property(any, (q) => {
        const r = analyseOf(kind, { ...plain, bore1: 0, bore2: 0, ...q }, duty, shelf);
        if (!r.ok) return void expect(r.problem.mend.length).toBeGreaterThan(5);
        for (const f of r.value.figures)
          expect(
            Number.isFinite(f.value) &&
              f.low <= f.value + 1e-9 * Math.abs(f.value) &&
              f.high >= f.value - 1e-9 * Math.abs(f.value),
            `${f.id} ${f.low} ${f.value} ${f.high}`,
          ).toBe(true);
        for (const c of r.value.checks) expect(Number.isNaN(c.figure) || Number.isNaN(c.limit), c.id).toBe(false);
        const drawn = drawingOf(kind, { ...plain, bore1: 0, bore2: 0, ...q }, 1, { shelf, duty });
        if (drawn.ok)
          for (const l of drawn.value)
            for (const i of l.items)
              if (i.kind === 'curve')
                for (const v of i.outline.points) if (!Number.isFinite(v)) throw new Error(`${i.key} is not drawn`);
      }),
      { numRuns: examples(150) },
    );
  });

  it('shares a shift sum as asked: roots slide alike, or the pinion just escapes undercut', () => {
    const at = { setBy: 'centre', module: 1e-3, z1: 12, z2: 40, centre: 26.4e-3 };
    const even = report({ ...at, split: 'sliding' });
    expect(figure(even, 'x1')).toBeGreaterThan(figure(even, 'x2'));
    const under = report({ ...at, split: 'undercut' });
    expect(under.checks.find((c) => c.id === 'undercut-1')!.state).toBe('holds');
  });

  it('refuses a ring smaller than its wheel, base circles out of reach and a bore through the teeth', () => {
    for (const over of [
      { form: 'ring', z1: 20, z2: 18 },
      { setBy: 'centre', z1: 20, z2: 40, module: 1e-3, centre: 20e-3 },
      { z1: 12, module: 1e-3, bore1: 10e-3 },
    ]) {
      const r = analyseOf(kind, params(over), duty, shelf);
      expect(r.ok).toBe(false);
      if (!r.ok) expect(r.problem.place).toBeTruthy();
    }
  });

  it('a plain wheel’s solid has the volume of its area times its width, holes taken out', () => {
    const made = partsOf(
      kind,
      params({ module: 1e-3, z1: 20, z2: 60, width: 8e-3, bore1: 5e-3, shape1: 'keyway' }),
      shelf,
    );
    const parts = made.ok ? made.value : ([] as readonly Part[]);
    const driver = parts.find((x) => x.id === 'driver')!;
    // Between the disc of its root circle and that of its tip circle, less the bore.
    const v = solidVolume(driver.solid!());
    const disc = (r: number) => Math.PI * r * r * 8e-3;
    expect(v).toBeGreaterThan(disc(8.75e-3) - disc(3.6e-3));
    expect(v).toBeLessThan(disc(11e-3) - disc(2.5e-3));
  });
});

describe('an idler’s neighbours', () => {
  it('clear one another by the distance of their axes less both tips', () => {
    const kind = stageKind('spur')!;
    const base = kind.defaults({ ratio: 3, torque: 1, size: Infinity, shelf: makeShelf() }) as object;
    for (const [bend, between] of [
      [0, 20 + 40],
      [Math.PI / 2, Math.hypot(20, 40)],
    ] as const) {
      const p = readParams('spur', {
        ...base,
        ...{ form: 'outside', z1: 20, zi: 20, idlers: 1, z2: 60, module: 1e-3, helix: 0, addendum: 1, trim: 'no' },
        ...{ setBy: 'shifts', x1: 0, x2: 0, xi: 0, bend, allowance1: 0, allowance2: 0 },
      });
      if (!p.ok) throw new Error(p.problem.what);
      const opened = kind.open(p.value, makeShelf());
      if (!opened.ok) throw new Error(opened.problem.what);
      const pass = opened.value
        .report({ torque: 1, torqueRms: 1, speed: 1, equivalent: 1, meanSpeed: 1 })
        .checks.find((c) => c.id === 'pass-0-2')!;
      expect(pass.figure).toBeCloseTo((between - 11 - 31) * 1e-3, 9);
    }
  });
});

describe('play taken out of a pair', () => {
  const limit = (r: ReturnType<typeof report>, mode: string) =>
    r.numbers.limits.find((l) => l.mode.includes(mode))!.torque;
  const radius = 0.03;
  const plainPair = { form: 'outside', z1: 20, z2: 60, module: 1e-3, width: 0.01, material1: 'c45', material2: 'c45' };

  it('by split halves: none until the springs’ torque, half of the strength, and drag on both flanks', () => {
    const [was, split] = [report(plainPair), report({ ...plainPair, takenOut: 'split', preload: 40 })];
    expect(was.numbers.play[0]).toBeGreaterThan(0);
    expect(split.numbers.play).toEqual([0, 0, 0]);
    expect(limit(split, 'root of the driven wheel breaks')).toBeCloseTo(
      limit(was, 'root of the driven wheel breaks') / 2 - 40 * radius,
      6,
    );
    // 80 N on both flanks lose what the mesh loses, seen at the input through the ratio.
    expect(split.numbers.drag - was.numbers.drag).toBeCloseTo((80 * (1 - split.numbers.etaForward) * radius) / 3, 9);
  });

  it('by sprung centres: until their force lifts the flanks, and there it rides over', () => {
    const r = report({ ...plainPair, takenOut: 'spring', preload: 20 });
    const opens = 20 / Math.tan(20 * deg);
    expect(figure(r, 'opens')).toBeCloseTo(opens, 9);
    expect(limit(r, 'skips')).toBeCloseTo(opens * radius, 9);
    // 2 N·m at 30 mm are 67 N: too much for 55.
    expect(r.checks.find((c) => c.id === 'opens')).toMatchObject({
      state: 'fails',
      severity: 'warn',
      mend: { path: 'preload', value: 28 },
    });
  });

  it('by hand: one to three hundredths of a millimetre on the wheel’s circle', () => {
    const r = report({ ...plainPair, takenOut: 'eccentric' });
    for (const [i, j] of [2e-5, 1e-5, 3e-5].entries()) expect(r.numbers.play[i]).toBeCloseTo(j / radius, 12);
    expect(figure(report({ ...plainPair, takenOut: 'taper', taper: 3 * deg }), 'move')).toBeGreaterThan(0);
  });

  it('idlers in mesh with one another are of unlike hands, a part for each', () => {
    const idlersOf = (over: Record<string, unknown>) => {
      const made = partsOf(kind, params({ helix: 0.3, ...over }), shelf);
      if (!made.ok) throw new Error(made.problem.what);
      return made.value.filter((p) => p.id.startsWith('idler') && p.id !== 'idler-bearings');
    };
    const hands = (over: Record<string, unknown>) =>
      idlersOf(over).map((p) => [p.quantity, Math.sign(p.solid!().prisms[0]!.twist) + 0, p.places!(0).length]);
    expect(hands({ idlers: 1 })).toEqual([[1, -1, 1]]);
    expect(hands({ idlers: 3 })).toEqual([
      [2, -1, 2],
      [1, 1, 1],
    ]);
    expect(idlersOf({ idlers: 3 }).map((p) => p.name)).toEqual(['Idler, left hand', 'Idler, right hand']);
    expect(hands({ idlers: 3, helix: 0 })).toEqual([[3, 0, 3]]);
  });
});
