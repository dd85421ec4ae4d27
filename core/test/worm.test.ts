import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asToothMaterial, rootStrength } from '../src/gear/tooth-material.ts';
import {
  flatten,
  makeShelf,
  place,
  stageKind,
  withFactor,
  type DrawItem,
  type Part,
  type StageReport,
} from '../src/index.ts';
import { wormGeometry } from '../src/stage/worm/geometry.ts';
import type { WormParams } from '../src/stage/worm/params.ts';
import { worm } from './anchors/worm.ts';
import { analyseOf, drawingOf, figureOf, kinematicsOf, partsOf, screenOf, stageBench } from './stage-bench.ts';
import { examples } from './helpers.ts';
import { inUnits } from '../src/units/stated.ts';

const shelf = makeShelf();
const kind = stageKind('worm')!;
const duty = { torque: 2, torqueRms: 1, speed: 0.5, equivalent: 1, meanSpeed: 0.3, swing: 1 };
const deg = Math.PI / 180;
const plain: Record<string, unknown> = {
  ...(kind.defaults({ ratio: 40, torque: 8, size: Infinity, shelf }) as Record<string, unknown>),
  bore1: 5e-3,
};
const { params } = stageBench('worm', plain, duty, shelf);
const report = (over: Record<string, unknown>, at = shelf): StageReport =>
  stageBench('worm', plain, duty, at).report(over);
const figure = figureOf;
const state = (r: StageReport, id: string) => r.checks.find((c) => c.id === id)?.state;

describe('the width of a worm’s wheel', () => {
  it('carries over no more than the worm reaches round: 2·m·√(q + 1)', () => {
    const wide = (width: number) => {
      const made = wormGeometry({ ...(worm.params as unknown as WormParams), bore1: 0, width });
      if (!made.ok) throw new Error(made.problem.what);
      return made.value.carries;
    };
    const { module, quotient } = worm.params as unknown as WormParams;
    expect(wide(0.03)).toBeCloseTo(2 * module * Math.sqrt(quotient + 1), 12);
    expect(wide(0.004)).toBeCloseTo(0.004, 12);
  });
});

describe('a worm stage', () => {
  it('loses and holds as a wedge does, friction given', () => {
    // One start on q = 10: γ = 5.7106°; µ = 0.1 in a 20° flank: ρ′ = 6.0745°.
    const r = report({ starts: 1, z2: 40, quotient: 10, frictionBy: 'given', friction: 0.1 });
    const [gamma, rho] = [Math.atan(0.1), Math.atan(0.1 / Math.cos(20 * deg))];
    expect(figure(r, 'lead') / deg).toBeCloseTo(5.710593, 6);
    expect(r.numbers.etaForward).toBeCloseTo(Math.tan(gamma) / Math.tan(gamma + rho), 12);
    expect(r.numbers.etaForward).toBeCloseTo(0.4796, 3);
    expect(r.numbers.etaBackward).toBeLessThan(0);
    // At rest it holds; six tenths of its friction would let it go.
    expect(state(r, 'vibration')).toBe('fails');
    expect(state(report({ starts: 1, z2: 40, quotient: 30, frictionBy: 'given', friction: 0.14 }), 'vibration')).toBe(
      'holds',
    );
    const free = report({ starts: 4, z2: 40, quotient: 8, frictionBy: 'given', friction: 0.05 });
    expect(free.numbers.etaBackward).toBeGreaterThan(0.8);
    expect(state(free, 'vibration')).toBeUndefined();
  });

  it('mends what vibration would unlock by the quotient that holds', () => {
    const c = report({ starts: 1, quotient: 10, frictionBy: 'given', friction: 0.12 }).checks.find(
      (x) => x.id === 'vibration',
    )!;
    expect(c.state).toBe('fails');
    expect(c.mend?.path).toBe('quotient');
    expect(
      state(report({ starts: 1, quotient: c.mend!.value, frictionBy: 'given', friction: 0.12 }), 'vibration'),
    ).not.toBe('fails');
  });

  it('turns by starts into teeth, its sign by the hand', () => {
    expect(kinematicsOf(kind, params({ starts: 3, z2: 60 })).ratio).toBe(20);
    expect(kinematicsOf(kind, params({ starts: 1, z2: 40, hand: 'left' })).ratio).toBe(-40);
  });

  it('stands m(q + z₂ + 2x)/2 apart, and opens by 2Δa·tan α on the wheel’s circle', () => {
    const base = {
      module: 1e-3,
      quotient: 10,
      starts: 1,
      z2: 40,
      x2: 0.25,
      allowance1: 0,
      allowance2: 0,
      playBy: 'centre',
    };
    expect(figure(report({ ...base, centreExtra: 0 }), 'centre')).toBeCloseTo(25.25e-3, 12);
    expect(figure(report({ ...base, centreExtra: 1e-4 }), 'centre')).toBeCloseTo(25.35e-3, 12);
    const normal = (extra: number) => figure(report({ ...base, centreExtra: extra }), 'normal');
    expect(normal(1e-4) - normal(0)).toBeCloseTo(2e-4 * Math.sin(20 * deg), 12);
    expect(state(report({ ...base, centreExtra: -1e-4 }), 'bind')).toBe('fails');
  });

  it('a mended bind binds no more', () => {
    for (const over of [
      { playBy: 'centre', centreExtra: -1e-4 },
      { playBy: 'dual-lead', wormShift: 8e-3, leadDifference: 0.03 },
    ]) {
      const c = report(over).checks.find((x) => x.id === 'bind')!;
      expect(c.state).toBe('fails');
      expect(state(report({ ...over, [c.mend!.path]: c.mend!.value }), 'bind')).not.toBe('fails');
    }
  });

  it('weighs the thread and, where the shaft is one with it, the journals out to its bearings', () => {
    const params = { ...worm.params, bore1: 0 };
    const opened = stageKind('worm')!.open(params, shelf);
    if (!opened.ok) throw new Error(opened.problem.what);
    // Out of the bearing of 5 mm it reaches beyond the wheel of 80 mm, a millimetre, and half a coupling of 30 mm.
    const journals = 0.042 + 0.005 - 0.035 + (0.04 - 0.0235) + 0.001 + 0.015;
    const thread = Math.PI * (0.02 ** 2 * 0.035 + 0.004 ** 2 * journals) * 7850 + 2 * 0.004;
    const wheel = Math.PI * (0.0375 ** 2 - 0.004 ** 2) * 0.021 * 1150 * 0.85;
    const coupling = 0.8 * Math.PI * 0.01 ** 2 * 0.03 * 2700;
    const { mass, inertiaIn, stiffness } = opened.value.load(worm.duty);
    expect(mass).toBeCloseTo(thread + wheel + coupling, 9);
    const inertia = (Math.PI / 2) * 7850 * (0.02 ** 4 * 0.035 + 0.004 ** 4 * journals) + (coupling * 0.01 ** 2) / 2;
    expect(inertiaIn).toBeCloseTo(inertia, 12);
    // 45 N·m/rad at the worm are 30² times as much at the wheel, in series with the rest.
    const springs = Object.fromEntries(opened.value.load(worm.duty).springs.map((x) => [x.name, x.stiffness]));
    expect(springs['coupling']).toBeCloseTo(45 * 30 ** 2, 6);
    expect(stiffness).toBeLessThan(45 * 30 ** 2);
  });

  it('is coupled where the worm is its own shaft: beyond bearing and wheel, and not by more than it carries', () => {
    const open = (over: object) => {
      const made = stageKind('worm')!.open({ ...worm.params, bore1: 0, ...over }, shelf);
      if (!made.ok) throw new Error(made.problem.what);
      return made.value;
    };
    const parts = open({}).parts();
    if (!parts.ok) throw new Error(parts.problem.what);
    const [coupling, shaft] = ['coupling', 'worm'].map((id) => parts.value.find((p) => p.id === id)!);
    const inner = coupling!.places!(0)[0]!.at[0] + 0.03;
    expect(inner).toBeLessThanOrEqual(-0.04);
    // The worm's end and what drives it meet in its middle, a millimetre apart.
    const end = shaft!.places!(0)[0]!.at[0] + Math.min(...shaft!.solid!().prisms.map((p) => p.from));
    expect(end - (inner - 0.015)).toBeCloseTo(0.5e-3, 9);
    const input = open({}).ports().input;
    expect(end - input.at[0]).toBeCloseTo(1e-3, 12);
    expect(input.coupling).toEqual({ over: 0.015, most: 0.01 });
    const says = (torque: number) =>
      open({})
        .checks({ ...worm.duty, torque })
        .find((c) => c.id === 'coupling')!;
    // 5 N·m come in for about 5·30·0.355 at the wheel.
    expect([says(4).state, says(4).limit]).toEqual(['holds', 5]);
    expect(says(80).state).toBe('fails');
    expect(
      open({ bore1: 0.008 })
        .checks(worm.duty)
        .some((c) => c.id === 'coupling'),
    ).toBe(false);
    expect(open({ bore1: 0.008 }).ports().input.coupling).toBeUndefined();
  });

  it('a dual-lead worm moved in closes play by its lead difference; a spring leaves only end play', () => {
    const at = (s: number) =>
      figure(
        report({ playBy: 'dual-lead', leadDifference: 0.03, wormShift: s, allowance1: 1e-4, allowance2: 0 }),
        'normal',
      );
    const lead = Math.atan((plain['starts'] as number) / (plain['quotient'] as number));
    expect(at(0) - at(1e-3)).toBeCloseTo(3e-5 * Math.cos(20 * deg) * Math.cos(lead), 12);
    const sprung = report({ playBy: 'spring', springForce: 30 });
    // One that lifts is offered the spring that holds; no spring is offered beyond what one gives.
    const weak = stageBench('worm', plain, { ...duty, torque: 2 * figure(sprung, 'lifts') }, shelf);
    const lifts = (springForce: number) =>
      weak.report({ playBy: 'spring', springForce }).checks.find((c) => c.id === 'lift')!;
    expect(lifts(30)).toMatchObject({ state: 'fails', mend: { path: 'springForce' } });
    const { value, label } = lifts(30).mend!;
    expect(value).toBeGreaterThanOrEqual(60);
    expect(value).toBeLessThan(75);
    expect(inUnits(label, {})).toBe(`Spring ${String(value)} N`);
    expect(sprung.numbers.play[0]).toBeLessThan(report({ playBy: 'centre', centreExtra: 1e-4 }).numbers.play[0]);
    // What the spring holds to is a torque like every other mode, and more spring holds more.
    expect(figure(report({ playBy: 'spring', springForce: 60 }), 'lifts')).toBeCloseTo(2 * figure(sprung, 'lifts'), 9);
  });

  it('balances the wheel: thrusts and torque belong to one normal force with its friction', () => {
    const r = report({ frictionBy: 'given', friction: 0.09, quotient: 10, starts: 2, z2: 40, module: 1e-3 });
    const [t2, t1, apart] = ['thrust1', 'thrust2', 'apart'].map((id) => figure(r, id)) as [number, number, number];
    expect(t2 * 20e-3).toBeCloseTo(duty.torque, 9);
    // Work in: T1·i·η = T2 with T1 = F_t1·r1.
    expect(t1 * 5e-3 * 20 * r.numbers.etaForward).toBeCloseTo(duty.torque, 9);
    // The normal force’s share without friction across the radius.
    const normal = apart / Math.sin(20 * deg);
    expect(Math.hypot(t1, t2)).toBeCloseTo(normal * Math.hypot(Math.cos(20 * deg), 0.09), 6);
  });

  it('bands widen with the shop’s friction, and none with one given', () => {
    const eta = (over: Record<string, unknown>) => report(over).figures.find((f) => f.id === 'efficiency')!;
    const open = eta({ frictionBy: 'shop' });
    expect(open.high - open.low).toBeGreaterThan(0.1);
    const given = eta({ frictionBy: 'given', friction: 0.08 });
    expect(given.high).toBe(given.low);
    const slick = report({ frictionBy: 'shop' }, withFactor(shelf, 'worm.friction', 0.02));
    expect(figure(slick, 'efficiency')).toBeGreaterThan(open.high);
  });

  it('is drawn in mesh without overlap in the middle plane at any crank', () => {
    const any = fc.record({
      starts: fc.integer({ min: 1, max: 4 }),
      z2: fc.integer({ min: 24, max: 60 }),
      quotient: fc.double({ min: 8, max: 14, noNaN: true }),
      hand: fc.constantFrom('right', 'left'),
      crank: fc.double({ min: -30, max: 30, noNaN: true }),
    });
    fc.assert(
      fc.property(any, (q) => {
        const made = drawingOf(
          kind,
          params({
            ...q,
            module: 1e-3,
            x2: 0.2,
            length: 24e-3,
            playBy: 'centre',
            centreExtra: 1e-4,
            bore1: 0,
            bore2: 0,
            allowance1: 5e-5,
            allowance2: 5e-5,
          }),
          q.crank,
          { shelf, duty },
        );
        if (!made.ok) throw new Error(made.problem.what);
        const items = made.value
          .find((l) => l.id === 'teeth')!
          .items.filter((i): i is DrawItem & { kind: 'curve' } => i.kind === 'curve');
        const flat = (key: string) =>
          flatten(place(items.find((x) => x.key === key)!.outline, items.find((x) => x.key === key)!.at), 5e-6);
        const [a, b] = [flat('wheel'), flat('worm')];
        for (let n = 0; n < a.length; n += 2) {
          if (a[n + 1]! < 0) continue;
          let inside = false;
          for (let k = 0, j = b.length - 2; k < b.length; j = k, k += 2)
            if (
              b[j + 1]! > a[n + 1]! !== b[k + 1]! > a[n + 1]! &&
              a[n]! < ((b[k]! - b[j]!) * (a[n + 1]! - b[j + 1]!)) / (b[k + 1]! - b[j + 1]!) + b[j]!
            )
              inside = !inside;
          if (inside) throw new Error(`the wheel stands in the worm at ${a[n]}, ${a[n + 1]}`);
        }
        const contact = made.value.find((l) => l.id === 'contact')!.items.length;
        expect(contact).toBeGreaterThan(1);
      }),
      { numRuns: 20 },
    );
  });

  it('has figures and checks that are numbers, or refuses in words, for anything its schema takes', () => {
    const d = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const any = fc.record({
      starts: fc.integer({ min: 1, max: 12 }),
      z2: fc.integer({ min: 5, max: 400 }),
      module: d(1e-4, 2e-2),
      quotient: d(4, 40),
      pressure: d(0.25, 0.52),
      width: d(5e-4, 0.3),
      length: d(5e-4, 0.5),
      addendum: d(0.5, 1.5),
      dedendum: d(0.6, 2),
      fillet: d(0, 0.6),
      x2: d(-1, 1.5),
      allowance1: d(0, 2e-3),
      playBy: fc.constantFrom('centre', 'dual-lead', 'spring'),
      centreExtra: d(-1e-3, 2e-3),
      leadDifference: d(0, 0.1),
      wormShift: d(-0.05, 0.05),
      springForce: d(0, 5000),
      frictionBy: fc.constantFrom('shop', 'given'),
      friction: d(0, 1),
      material1: fc.constantFrom('c45', 'pla'),
      span: d(1e-3, 1),
      bore1: fc.constantFrom(0, 5e-3),
      hand: fc.constantFrom('left', 'right'),
    });
    fc.assert(
      fc.property(any, (q) => {
        const p = { ...plain, bore2: 0, ...q };
        const r = analyseOf(kind, p, duty, shelf);
        if (!r.ok) return void expect(r.problem.mend.length).toBeGreaterThan(5);
        for (const f of r.value.figures)
          expect(
            Number.isFinite(f.value) &&
              f.low <= f.value + 1e-9 * Math.abs(f.value) &&
              f.high >= f.value - 1e-9 * Math.abs(f.value),
            `${f.id} ${f.low} ${f.value} ${f.high}`,
          ).toBe(true);
        for (const c of r.value.checks) expect(Number.isNaN(c.figure) || Number.isNaN(c.limit), c.id).toBe(false);
        const drawn = drawingOf(kind, p, 1, { shelf, duty });
        if (drawn.ok)
          for (const l of drawn.value)
            for (const i of l.items)
              if (i.kind === 'curve')
                for (const v of i.outline.points) if (!Number.isFinite(v)) throw new Error(`${i.key} is not drawn`);
      }),
      { numRuns: examples(150) },
    );
  });

  it('refuses what cannot be, with the field that decides', () => {
    for (const [over, place] of [
      [{ starts: 12, quotient: 8 }, 'quotient'],
      [{ quotient: 4, dedendum: 2 }, 'quotient'],
      [{ bearing: 'none' }, 'bearing'],
      [{ z2: 20, module: 1e-3, bore2: 0.02 }, 'bore2'],
      [{ material2: 'cheese' }, 'material2'],
    ] as const) {
      const r = analyseOf(kind, params(over), duty, shelf);
      expect(r.ok).toBe(false);
      if (!r.ok) expect(r.problem.place).toBe(place);
    }
  });

  it('gives outlines and solids of worm and wheel; a dual-lead pair is bought to its data', () => {
    const parts = (over: Record<string, unknown>): readonly Part[] => {
      const r = partsOf(kind, params(over), shelf);
      if (!r.ok) throw new Error(r.problem.what);
      return r.value;
    };
    const made = parts({ playBy: 'centre' });
    expect(made.find((x) => x.id === 'worm')!.curves.map((c) => c.layer)).toContain('axial-section');
    // The worm cut along its axis is as long as its thread on both sides, crests half a turn apart from side to side.
    const cut = made.find((x) => x.id === 'worm')!.curves.find((c) => c.layer === 'axial-section')!.outline.points;
    const long = params({}).length as number;
    for (const side of [1, -1]) {
      const own = Array.from({ length: cut.length / 3 }, (_, i) => [cut[3 * i]!, cut[3 * i + 1]!] as const).filter(
        ([, r]) => side * r > 0,
      );
      const along = own.map(([x]) => x);
      expect(Math.min(...along)).toBeCloseTo(-long / 2, 9);
      expect(Math.max(...along)).toBeCloseTo(long / 2, 9);
    }
    expect(made.find((x) => x.id === 'wheel')!.solid).toBeTruthy();
    const bought = parts({ playBy: 'dual-lead' });
    expect(bought.filter((x) => x.made === 'bought')).toHaveLength(3);
    expect(bought[0]!.curves).toHaveLength(0);
    expect(bought[0]!.note).toMatch(/leads of the two flanks/);
  });

  it('defaults and candidates carry the wish within its size', () => {
    let n = 0;
    for (const p of kind.candidates({ ratio: 30, torque: 1, size: 0.06, shelf })) {
      const r = screenOf(kind, p, duty, shelf);
      if (r.ok) expect(r.value.outside).toBeLessThanOrEqual(0.06);
      if (++n > 30) break;
    }
    expect(n).toBeGreaterThan(5);
    const fails = report({})
      .checks.filter((c) => c.state === 'fails' && c.severity === 'stop')
      .map((c) => c.id);
    expect(fails).toEqual([]);
  });

  it('bears less at the wheel’s root by what rubbing warms it: as much of the flank’s rise as roots have of it', () => {
    const opened = kind.open(kind.starts, shelf);
    if (!opened.ok) throw new Error(opened.problem.what);
    const at = (speed: number) => ({ torque: 4, torqueRms: 3, speed });
    const breaks = (speed: number) =>
      opened.value.load(at(speed)).limits.find((l) => l.mode === 'root of the wheel breaks')!.torque;
    const value = (id: string) => shelf.factors[id]!.value;
    const flank = opened.value.report(at(3)).figures.find((f) => f.id === 'warm')!.value;
    const root = value('ambient') + ((flank - value('ambient')) * value('gear.heatRoot')) / value('gear.heatFlank');
    expect(root).toBeGreaterThan(value('ambient') + 5);
    const wheel = asToothMaterial(
      shelf.materials.find((m) => m.id === (kind.starts as { material2: string }).material2)!,
    );
    const strength = (t: number) => rootStrength(wheel, t, false, shelf).peak;
    expect(breaks(3) / breaks(0) / (strength(root) / strength(value('ambient')))).toBeCloseTo(1, 9);
  });

  it('with a shaft that yields takes a thicker one while it has room; a coarser module would not help', () => {
    const at = { ...duty, torque: 30 };
    const base = { ...worm.params, bore1: 0.006 };
    const shaft = (over: Record<string, unknown>) =>
      stageBench('worm', base, at, shelf)
        .report(over)
        .checks.find((c) => c.id === 'shaft')!;
    const thin = shaft({});
    expect(thin).toMatchObject({ state: 'fails', severity: 'stop', mend: { path: 'bore1' } });
    expect(shaft({ bore1: thin.mend!.value }).state).not.toBe('fails');
    // Forces at its circle bend it by their share of the wheel's torque, whatever the module.
    const coarse = { module: 0.003, span: 0.042 * 1.2 };
    expect(shaft(coarse).limit / thin.limit).toBeCloseTo(1, 1);
  });
});

describe('bearings of a worm', () => {
  it('that reach below the wheel’s axis are passed by the whole of it, and the mend takes them there', () => {
    // 61806 is 42 mm over its outer ring: more than twice the 18 mm between these axes.
    const huge = { ...plain, starts: 1, z2: 20, module: 1e-3, quotient: 16, bore1: 0, bearing: '61806' };
    const clear = (span: number) =>
      stageBench('worm', huge, duty, shelf)
        .report({ span })
        .checks.find((c) => c.id === 'bearing-clear')!;
    const near = clear(0.02);
    expect(near.state).toBe('fails');
    // 22 mm over the wheel’s tips, and a ring of 7.
    expect(near.mend!.value).toBeCloseTo(0.029, 9);
    expect(clear(0.029).state).toBe('holds');
    expect(clear(0.04).state).toBe('holds');
  });

  it.each([0.3, 1, 4, 12])(
    'stand clear of the wheel as proposed for %d N·m; nearer they stop, and the mend takes them back',
    (torque) => {
      for (const ratio of [20, 40]) {
        const p = kind.defaults({ ratio, torque, size: Infinity, shelf }) as unknown as WormParams;
        const bench = stageBench('worm', p as unknown as Record<string, unknown>, duty, shelf);
        expect(state(bench.report({}), 'bearing-clear')).toBe('holds');
        const near = { bearing: '608', span: p.length + 8e-3 };
        const check = bench.report(near).checks.find((c) => c.id === 'bearing-clear')!;
        if (check.state === 'holds') continue;
        expect(check.severity).toBe('stop');
        const value = check.mend!.value as number;
        expect(state(bench.report({ ...near, span: value }), 'bearing-clear')).toBe('holds');
        expect(state(bench.report({ ...near, span: value - 1.1e-3 }), 'bearing-clear')).toBe('fails');
      }
    },
  );
});
