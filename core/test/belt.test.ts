import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeShelf, stageKind, type Duty, type Result, workingOf } from '../src/index.ts';
import { belt, type BeltParams } from '../src/stage/belt/index.ts';
import { centreForTeeth, layoutBelt } from '../src/stage/belt/layout.ts';
import { buildBelt, modelBelt, wrongBelt, type BeltModel } from '../src/stage/belt/model.ts';
import { loopPath, poseAt } from '../src/loop/index.ts';
import { wheelTurns } from '../src/stage/belt/drawing.ts';
import { loadedTeeth, meshShare, tensionForce } from '../src/stage/belt/strength.ts';
import { findSection } from '../src/shop/shelf.ts';
import { analyseOf, drawingOf, stageOf } from './stage-bench.ts';

const shelf = makeShelf();
const duty: Duty = { torque: 1.5, torqueRms: 1, speed: 4 };
const base: BeltParams = {
  section: 'R3',
  width: 9e-3,
  z1: 18,
  z2: 54,
  closure: 'closed',
  setBy: 'length',
  beltTeeth: 100,
  centre: 0.08,
  tension: 40,
  idler: 'none',
  idlerTeeth: 18,
  idlerDiameter: 0.03,
  idlerAlong: 0.5,
  idlerPush: 3e-3,
  made1: 'bought',
  made2: 'printed',
  bore1: 5e-3,
  bore2: 8e-3,
  hold1: 'screws',
  hold2: 'bolted',
  allowance: 5e-5,
};
/** Built, loaded, or the words of a refusal. */
const tried = (p: BeltParams, at: Duty = duty): Result<BeltModel> => {
  const built = buildBelt(p, shelf);
  if (!built.ok) return built;
  return wrongBelt(p, built.value) ?? { ok: true, value: modelBelt(p, built.value, at, shelf) };
};
const model = (change: Partial<BeltParams> = {}, at: Duty = duty) => {
  const m = tried({ ...base, ...change }, at);
  if (!m.ok) throw new Error(m.problem.what);
  return m.value;
};
const section = (id: string) => shelf.sections.find((s) => s.id === id)!;
const sizes = fc.record({
  section: fc.constantFrom(...shelf.sections.map((s) => s.id)),
  z1: fc.integer({ min: 12, max: 60 }),
  z2: fc.integer({ min: 12, max: 120 }),
  beltTeeth: fc.integer({ min: 40, max: 400 }),
  idler: fc.constantFrom('none', 'inside', 'outside'),
  idlerAlong: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
  idlerPush: fc.double({ min: 5e-4, max: 0.02, noNaN: true }),
});

describe('belt layout', () => {
  it('closes: the belt’s length is its teeth times its pitch, with and without an idler', () => {
    fc.assert(
      fc.property(sizes, (s) => {
        const p = { ...base, ...s } as BeltParams;
        const made = layoutBelt(p, section(s.section));
        if (!made.ok) return;
        expect(Math.abs(made.value.path.length - s.beltTeeth * section(s.section).pitch)).toBeLessThan(1e-9);
        expect(made.value.path.wraps.every((w) => w >= 0 && w < 2 * Math.PI)).toBe(true);
      }),
      { numRuns: 400 },
    );
  });

  it('wraps add up to a full turn, those of a back-side idler against it', () => {
    fc.assert(
      fc.property(sizes, (s) => {
        const made = layoutBelt({ ...base, ...s } as BeltParams, section(s.section));
        if (!made.ok) return;
        const { wraps, wheels } = made.value.path;
        expect(wraps.reduce((sum, w, i) => sum + w * wheels[i]!.sense, 0)).toBeCloseTo(2 * Math.PI, 9);
      }),
      { numRuns: 300 },
    );
  });

  it('never runs a span through a wheel', () => {
    const p = { ...base, idler: 'outside' } as BeltParams;
    const made = layoutBelt(p, section('R3'));
    expect(made.ok).toBe(true);
    if (!made.ok) return;
    const { path } = made.value;
    for (let i = 0; i < 2000; i++) {
      const at = poseAt(path, (i / 2000) * path.length);
      for (const w of path.wheels) expect(Math.hypot(at.x - w.x, at.y - w.y)).toBeGreaterThan(w.r - 1e-9);
    }
  });

  it('has no jump anywhere along the path', () => {
    const made = layoutBelt({ ...base, idler: 'inside' }, section('R3'));
    if (!made.ok) throw new Error(made.problem.what);
    const n = 5000;
    const step = made.value.path.length / n;
    for (let i = 0; i < n; i++) {
      const a = poseAt(made.value.path, i * step);
      const b = poseAt(made.value.path, (i + 1) * step);
      expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(step * (1 + 1e-6));
    }
  });

  it('gives the nearest stocked belt for a wanted centre distance', () => {
    const p = { ...base, setBy: 'centre', centre: 0.09 } as BeltParams;
    const made = layoutBelt(p, section('R3'));
    if (!made.ok) throw new Error(made.problem.what);
    const errors = section('R3').stock.map((t) => Math.abs((centreForTeeth(p, section('R3'), t) ?? 9) - 0.09));
    expect(Math.abs(made.value.centre - 0.09)).toBeCloseTo(Math.min(...errors), 12);
  });

  it('meets any centre distance with an open-ended belt', () => {
    expect(model({ closure: 'open', centre: 0.0777 }).layout.centre).toBe(0.0777);
  });

  it('says how far a clamped belt swings, and only of a clamped one', () => {
    const figures = (p: Partial<BeltParams>) => {
      const r = analyseOf(belt, { ...base, ...p }, duty, shelf);
      if (!r.ok) throw new Error(r.problem.what);
      return r.value.figures;
    };
    const swing = figures({ closure: 'open', centre: 0.08 }).find((f) => f.id === 'swing')!;
    expect(swing.value).toBeCloseTo(model({ closure: 'open', centre: 0.08 }).layout.wrap2, 12);
    expect(swing.value).toBeGreaterThan(Math.PI);
    expect(figures({}).some((f) => f.id === 'swing')).toBe(false);
  });

  it('explains a belt too short, with the shortest that fits', () => {
    const made = tried({ ...base, beltTeeth: 50 });
    expect(made.ok).toBe(false);
    if (made.ok) return;
    expect(made.problem.what).toBe('The belt is too short for its pulleys.');
    const fix = (made.problem as { fix?: { value: number } }).fix!;
    expect(tried({ ...base, beltTeeth: fix.value }).ok).toBe(true);
    const shorter = section('R3')
      .stock.filter((t) => t < fix.value)
      .at(-1)!;
    expect(tried({ ...base, beltTeeth: shorter }).ok).toBe(false);
  });

  it('refuses fewer than three teeth in mesh, overlapping shafts, unknown sections and a bore through the teeth', () => {
    const why = (p: Partial<BeltParams>) => {
      const r = tried({ ...base, ...p });
      return r.ok ? 'made' : r.problem.what;
    };
    expect(why({ z1: 8, z2: 120, bore1: 2e-3, closure: 'open', centre: 0.068 })).toMatch(/teeth are in mesh/);
    expect(why({ closure: 'open', centre: 0.01 })).toMatch(/overlap/);
    expect(why({ section: 'Q9' })).toMatch(/no belt section/);
    expect(why({ bore1: 0.016 })).toMatch(/bore cuts into the teeth/);
    expect(why({ idler: 'inside', idlerAlong: 0.05 })).toMatch(/idler/);
  });
});

describe('belt under load', () => {
  it('is in equilibrium: tight less slack is 2T/d while both carry, and nothing is slack below nought', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 200, noNaN: true }),
        (torque, tension) => {
          const m = model({ tension }, { ...duty, torque });
          expect(m.tight - m.slack).toBeCloseTo(torque / (m.layout.d2 / 2), 9);
          expect(m.slack).toBeGreaterThanOrEqual(0);
          // The pull of the belt turns the driver against the motor with exactly the torque over the ratio.
          expect(m.shaft1[0]).toBeGreaterThanOrEqual(0);
          expect(m.shaft2[0]).toBeLessThanOrEqual(0);
        },
      ),
    );
  });

  it('keeps wind-up continuous where the slack side begins to hang, and softer beyond', () => {
    const bend = model().slackTorque;
    const at = (t: number) => model({}, { ...duty, torque: t }).windUp;
    expect(at(bend * 1.0001) - at(bend * 0.9999)).toBeLessThan(
      ((bend * 0.0003) / model().numbers.stiffnessBeyond) * 1.01,
    );
    const below = (at(bend * 0.9) - at(bend * 0.8)) / (bend * 0.1);
    const above = (at(bend * 1.2) - at(bend * 1.1)) / (bend * 0.1);
    expect(above).toBeGreaterThan(below * 1.4);
  });

  it('halves the spans’ stiffness when one of two equal spans drops out', () => {
    const m = model();
    const rest = m.numbers.springs
      .filter((s) => s.name !== 'spans of the belt')
      .reduce((x, s) => x + 1 / s.stiffness, 0);
    expect(rest).toBeGreaterThan(1 / m.toothStiffness1 + 1 / m.toothStiffness2);
    expect(1 / m.numbers.stiffness - rest).toBeCloseTo(1 / m.spanStiffness, 12);
    expect((1 / m.numbers.stiffnessBeyond - rest) * m.spanStiffness).toBeCloseTo(2, 9);
  });

  it('shares the pull between its sides as springs of their lengths, which an idler makes unlike', () => {
    for (const torque of [0.4, 0.8]) {
      const m = model({ idler: 'outside', idlerPush: 6e-3 }, { ...duty, torque });
      const { tightSpan, slackSpan, d2 } = m.layout;
      expect(slackSpan).toBeLessThan(0.99 * tightSpan);
      expect(m.slack).toBeGreaterThan(0);
      // What the tight side is stretched by, the slack one gives back: E·A is the same.
      expect((m.tight - base.tension) * tightSpan).toBeCloseTo((base.tension - m.slack) * slackSpan, 12);
      expect(m.tight - m.slack).toBeCloseTo(torque / (d2 / 2), 9);
    }
    // It hangs where its pull is just used up: the tight side then has all, and wind-up goes on without a step.
    const { slackTorque } = model({ idler: 'outside', idlerPush: 6e-3 });
    const at = model({ idler: 'outside', idlerPush: 6e-3 }, { ...duty, torque: slackTorque });
    expect(at.slack).toBeCloseTo(0, 9);
    expect(at.neededTension).toBeCloseTo(base.tension, 9);
    expect(at.tight).toBeCloseTo(at.force, 9);
    // The belt's own limit, met from below.
    const { tensionTorque } = model({ idler: 'outside', idlerPush: 6e-3, tension: 90 });
    const full = model({ idler: 'outside', idlerPush: 6e-3, tension: 90 }, { ...duty, torque: tensionTorque });
    // 14 N on each of nine millimetres.
    expect(full.tight).toBeCloseTo(126, 9);
    expect(full.slack).toBeGreaterThan(0);
  });

  it('jumps later with more tension, and carries more with more width', () => {
    expect(model({ tension: 60 }).jumpTorque).toBeGreaterThan(model({ tension: 40 }).jumpTorque);
    for (const key of ['jumpTorque', 'shearTorque', 'tensionTorque'] as const)
      expect(model({ width: 15e-3 })[key]).toBeGreaterThan(model()[key]);
  });

  it('its tight side reaches what the belt stands: all of the force once the slack side hangs, half of it before', () => {
    const section = findSection(shelf, 'R3')!;
    const force = (tension: number) => tensionForce({ ...base, width: 6e-3, tension }, section, 0.5, shelf);
    // 14 N/mm of width, 84 N: with 30 N of tension the slack side hangs at 60 N.
    expect(force(30)).toBeCloseTo(84, 9);
    expect(force(50)).toBeCloseTo(2 * (84 - 50), 9);
    expect(force(42)).toBeCloseTo(84, 9);
    expect(force(90)).toBe(0);
  });

  it('sounds an octave higher at four times the tension', () => {
    expect(model({ tension: 80 }).pluck / model({ tension: 20 }).pluck).toBeCloseTo(2, 9);
  });

  it('loses load share below six teeth in mesh', () => {
    expect([7, 6, 5, 4, 1, 0].map(meshShare)).toEqual([1, 1, 0.8, 0.6, 0, 0]);
    expect(loadedTeeth(20)).toBe(12);
  });

  it('has play only in trapezoidal sections', () => {
    for (const s of shelf.sections) {
      const z = Math.max(s.minTeeth, 22);
      const m = tried({
        ...base,
        section: s.id,
        z1: z,
        z2: z,
        bore1: 3e-3,
        bore2: 3e-3,
        setBy: 'centre',
        centre: 0.12 * (s.pitch / 3e-3),
        width: s.widths[0]!,
      });
      if (!m.ok) throw new Error(`${s.id}: ${m.problem.what}`);
      expect(m.value.numbers.play[2] > 0).toBe(s.space.form === 'trapezoid');
    }
  });
});

describe('belt checks', () => {
  it('every mend, once taken, makes its check hold', () => {
    let mended = 0;
    fc.assert(
      fc.property(
        sizes,
        fc.double({ min: 0, max: 150, noNaN: true }),
        fc.double({ min: 0.1, max: 12, noNaN: true }),
        fc.constantFrom(...(['bought', 'printed'] as const)),
        (s, tension, torque, made1) => {
          const p = { ...base, ...s, tension, made1, width: section(s.section).widths[0]! } as BeltParams;
          const at = { ...duty, torque };
          const report = analyseOf(belt, p, at, shelf);
          if (!report.ok) return;
          for (const c of report.value.checks) {
            if (!c.mend || c.state === 'holds') continue;
            const after = analyseOf(belt, { ...p, [c.mend.path]: c.mend.value }, at, shelf);
            // Another bound may stop the changed stage; what was asked is that this check no longer fails.
            if (!after.ok) continue;
            const again = after.value.checks.find((x) => x.id === c.id);
            if (c.state === 'fails' && !/^hold/.test(c.id))
              expect(again?.state ?? 'holds', `${c.id}: ${c.mend.label}`).not.toBe('fails');
            mended++;
          }
        },
      ),
      { numRuns: 80 },
    );
    expect(mended).toBeGreaterThan(50);
  });

  it('bands hold their likely value, and figures are finite', () => {
    const report = analyseOf(belt, base, duty, shelf);
    if (!report.ok) throw new Error(report.problem.what);
    for (const f of report.value.figures) {
      expect(Number.isFinite(f.value), f.id).toBe(true);
      expect(f.low).toBeLessThanOrEqual(f.value);
      expect(f.high).toBeGreaterThanOrEqual(f.value);
      for (const t of workingOf(f)!.terms) expect(Number.isFinite(t.value), `${f.id} ${t.symbol}`).toBe(true);
      expect(workingOf(f)!.source.length).toBeGreaterThan(3);
    }
    expect(report.value.figures.find((f) => f.id === 'stiffness')!.high).toBeGreaterThan(
      report.value.numbers.stiffness * 1.1,
    );
  });
});

describe('belt drawing', () => {
  it('keeps belt teeth in pulley spaces at every crank angle', () => {
    for (const change of [{}, { idler: 'outside' }, { idler: 'inside' }] as Partial<BeltParams>[]) {
      const p = { ...base, ...change };
      const s = section(p.section);
      const made = layoutBelt(p, s);
      if (!made.ok) throw new Error(made.problem.what);
      const L = made.value;
      const step = L.path.length / L.teeth;
      for (const travel of [0, 0.37e-3, 1.9e-3, 0.0412, -0.003]) {
        const turns = wheelTurns(L, s, travel);
        for (let k = 0; k < L.teeth; k++) {
          const at = poseAt(L.path, k * step + travel);
          L.path.wheels.forEach((w, i) => {
            if (w.sense < 0 || Math.abs(Math.hypot(at.x - w.x, at.y - w.y) - w.r) > 1e-7) return;
            const teeth = i === 0 ? p.z1 : i === L.path.wheels.length - 1 ? p.z2 : p.idlerTeeth;
            const pitch = (2 * Math.PI) / teeth;
            const angle = Math.atan2(at.y - w.y, at.x - w.x) - turns[i]!;
            // A belt tooth may touch the wheel only where it meets or leaves it; then it is off by less than the
            // tangent's rounding.
            const off = angle / pitch - Math.round(angle / pitch);
            expect(Math.abs(off) * pitch * w.r).toBeLessThan(2e-6);
          });
        }
      }
    }
  });

  it('turns the driven pulley by the crank over the ratio', () => {
    const made = layoutBelt(base, section('R3'));
    if (!made.ok) throw new Error(made.problem.what);
    const crank = 0.8;
    const [a, b] = [
      wheelTurns(made.value, section('R3'), 0),
      wheelTurns(made.value, section('R3'), (crank * made.value.d1) / 2),
    ];
    expect(b[0]! - a[0]!).toBeCloseTo(crank, 9);
    expect(b[1]! - a[1]!).toBeCloseTo(crank / 3, 9);
  });

  it('gives the same outline objects while only the crank moves', () => {
    const stage = stageOf(belt, base);
    const draw = (crank: number) =>
      stage
        .drawing(crank, { duty })
        .flatMap((l) => l.items)
        .filter((i) => i.kind === 'curve');
    const [a, b] = [draw(0), draw(0.3)];
    const find = (list: typeof a, key: string) => list.find((i) => i.key === key)!;
    for (const key of ['pulley1', 'pulley2', 'back']) expect(find(a, key).outline).toBe(find(b, key).outline);
    expect(find(a, 'toothed').outline).not.toBe(find(b, 'toothed').outline);
  });
});

describe('belt defaults', () => {
  it('carry what is wished for, within the size, over a wide range', () => {
    for (const [ratio, torque] of [
      [2, 0.5],
      [3.5, 2],
      [4, 6],
      [1.5, 12],
      [5, 1],
    ] as const) {
      const p = belt.defaults({ ratio, torque, size: 0.5, shelf });
      const m = tried(p, { torque, torqueRms: torque, speed: 2 });
      if (!m.ok) throw new Error(m.problem.what);
      expect(Math.min(...m.value.numbers.limits.map((l) => l.torque)), `${ratio} ${torque}`).toBeGreaterThan(torque);
      expect(Math.abs(m.value.ratio / ratio - 1)).toBeLessThan(0.05);
      expect(section(p.section).stock).toContain(p.beltTeeth);
    }
  });

  it('start from something that can be drawn even for a wish nothing carries', () => {
    const p = stageKind('belt')!.defaults({ ratio: 3, torque: 1e5, size: 0.05, shelf });
    expect(drawingOf(stageKind('belt')!, p, 0, { shelf, duty }).ok).toBe(true);
  });
});

it('loopPath has no path for overlapping wheels', () => {
  expect(
    loopPath([
      { x: 0, y: 0, r: 2, sense: 1 },
      { x: 0.5, y: 0, r: 0.5, sense: 1 },
    ]),
  ).toBeUndefined();
});
