import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  area,
  flatten,
  makeShelf,
  place,
  solidVolume,
  stageKind,
  type DrawItem,
  type StageReport,
} from '../src/index.ts';
import { analyseOf, coursesOf, drawingOf, figureOf, kinematicsOf, mapOf, partsOf, stageBench } from './stage-bench.ts';
import { examples } from './helpers.ts';

const shelf = makeShelf();
const kind = stageKind('cycloidal')!;
const duty = { torque: 3, torqueRms: 1.5, speed: 2, equivalent: 1.5, meanSpeed: 1, swing: 1 };
const plain = kind.defaults({ ratio: 13, torque: 3, size: Infinity, shelf }) as Record<string, unknown>;
const { params, analyse, report } = stageBench('cycloidal', plain, duty, shelf);
const figure = figureOf;
const state = (r: StageReport, id: string) => r.checks.find((c) => c.id === id)?.state;
/** A stage whose parts all fit, to change one thing at a time. */
const roomy = {
  pins: 14,
  circle: 0.08,
  pin: 6e-3,
  throw: 1.4e-3,
  discs: 2,
  width: 8e-3,
  offset: 5e-5,
  ringChange: 0,
  outPins: 6,
  outCircle: 0.05,
  outPin: 5e-3,
  outGap: 0,
  bearing: '61802',
  shaft: 5e-3,
};
/** The same with twice the pins and two lobes less. */
const two2 = { ...roomy, pins: 28, pin: 4e-3, difference: 2 };

describe('a cycloidal stage', () => {
  it('turns back by a lobe a turn with the ring held, and on by a pin with the disc held', () => {
    expect(kinematicsOf(kind, params({ ...roomy, held: 'ring' })).ratio).toBe(-13);
    expect(kinematicsOf(kind, params({ ...roomy, held: 'disc' })).ratio).toBe(14);
  });

  it('plays as the worked figure says when the holes are exact', () => {
    // Case of the oracle: R 40, r 3, e 1.4, Z 14, 0.05 off: 19.1′; the likely figure takes off what misplaced pins take
    // and adds the crank’s own.
    const r = report({ ...roomy, outGap: 0 });
    const alone = figure(r, 'playDisc') + (2 / (13 * 1.4e-3)) * (2e-5 - 1e-5);
    expect((alone * 10800) / Math.PI).toBeGreaterThan(19.0);
    expect((alone * 10800) / Math.PI).toBeLessThan(19.25);
    // Holes in series: a diametral clearance over the longest lever.
    expect(figure(report({ ...roomy, outGap: 1e-4 }), 'playOut')).toBeGreaterThan(1e-4 / 0.025);
    expect(report({ ...roomy, held: 'disc' }).numbers.play[0] / r.numbers.play[0]).toBeCloseTo(13 / 14, 9);
  });

  it('loses less on sleeves, and turns back the harder the more it loses', () => {
    const eta = (over: Record<string, unknown>) => report({ ...roomy, ...over }).numbers;
    const [fixed, sleeves] = [
      eta({ pinsRun: 'fixed', outRun: 'fixed' }),
      eta({ pinsRun: 'sleeves', outRun: 'sleeves' }),
    ];
    expect(sleeves.etaForward).toBeGreaterThan(fixed.etaForward);
    for (const n of [fixed, sleeves]) {
      expect(n.etaForward).toBeGreaterThan(0.3);
      expect(n.etaForward).toBeLessThan(1);
      // The same loss, once over what comes out and once over what comes in.
      expect(n.etaBackward).toBeCloseTo(2 - 1 / n.etaForward, 9);
    }
  });

  it('shares its torque among more pins as it grows and among more discs', () => {
    const worst = (over: Record<string, unknown>, torque: number) =>
      figure(report({ ...roomy, ...over }, { ...duty, torque }), 'pinForce');
    expect(worst({}, 6) / worst({}, 3)).toBeLessThan(2);
    expect(worst({ discs: 1, outPin: 5e-3 }, 5)).toBeGreaterThan(1.3 * worst({ discs: 2 }, 5));
    expect(figure(report(roomy, { ...duty, torque: 30 }), 'carrying')).toBeGreaterThan(
      figure(report(roomy, { ...duty, torque: 1 }), 'carrying'),
    );
  });

  it('one disc shakes, two are a couple, three are still', () => {
    const at = { ...duty, speed: 30 };
    const of = (discs: number) => report({ ...roomy, discs }, at);
    expect(figure(of(1), 'shaking')).toBeGreaterThan(0);
    expect(figure(of(2), 'shaking')).toBe(0);
    expect(figure(of(2), 'couple')).toBeGreaterThan(0);
    const c = of(1).checks.find((x) => x.id === 'balance')!;
    expect(c.state).toBe('fails');
    expect(state(report({ ...roomy, discs: c.mend!.value }, at), 'balance')).toBe('holds');
  });

  it('mends take: bind, webs, pins, bearings', () => {
    for (const [over, id] of [
      [{ offset: 0 }, 'bind'],
      [{ outCircle: 0.0625 }, 'web-rim'],
      [{ outCircle: 0.0318, outPin: 4e-3, outPins: 5 }, 'web-bearing'],
      [{ pin: 17.5e-3, throw: 4e-4, outCircle: 0.045, rim: 12e-3 }, 'pins'],
    ] as const) {
      const p = { ...roomy, ...over };
      const c = report(p).checks.find((x) => x.id === id)!;
      expect(c.state, id).toBe('fails');
      expect(state(report({ ...p, [c.mend!.path]: c.mend!.value }), id), id).not.toBe('fails');
    }
  });

  it('refuses what cannot be, with a mend that makes it possible', () => {
    for (const [over, place] of [
      [{ throw: 3e-3 }, 'throw'],
      [{ pin: 19e-3 }, 'pin'],
      [{ throw: 2.6e-3, pin: 12e-3 }, 'pin'],
      [{ outCircle: 0.03 }, 'outCircle'],
      [{ outCircle: 0.066 }, 'outCircle'],
      [{ outPins: 24 }, 'outPins'],
      [{ shaft: 13e-3 }, 'shaft'],
      [{ bearing: 'none' }, 'bearing'],
    ] as const) {
      const r = analyse({ ...roomy, ...over });
      expect(r.ok, JSON.stringify(over)).toBe(false);
      if (r.ok) continue;
      expect(r.problem.place, JSON.stringify(over)).toBe(place);
      const fix = (r.problem as { fix?: { path: string; value: number } }).fix;
      if (fix) {
        const again = analyse({ ...roomy, ...over, [fix.path]: fix.value });
        if (!again.ok) expect(again.problem.what).not.toBe(r.problem.what);
      }
    }
  });

  it('of two lobes less with hardly any eccentricity is numbers as long as a pin holds it, and refused with the field once none does', () => {
    let [held, refused] = [0, 0];
    for (let change = -2e-4; change <= 2e-4; change += 1e-5) {
      const r = analyseOf(
        kind,
        {
          ...plain,
          pins: 34,
          difference: 2,
          circle: 0.087,
          pin: 5e-4,
          throw: 5e-5,
          discs: 1,
          width: 5e-4,
          offset: 0,
          ringChange: change,
          outPins: 3,
          outCircle: 0.087 * 0.3,
          outPin: 5e-4,
          outGap: 0,
          pinsRun: 'fixed',
          carriedBy: 'plate',
          bearing: '688',
          shaft: 0,
        },
        { ...duty, torque: 0 },
        shelf,
      );
      if (r.ok) {
        held++;
        for (const f of r.value.figures)
          expect([f.value, f.low, f.high].every(Number.isFinite), `${f.id} at ${change}`).toBe(true);
      } else {
        refused++;
        expect(['ringChange', 'pin', 'throw'], r.problem.what).toContain(r.problem.place);
      }
    }
    expect(held).toBeGreaterThan(5);
    expect(held + refused).toBe(41);
  });

  it('has figures and checks that are numbers, or refuses in words, for anything its schema takes', () => {
    const d = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const any = fc.record({
      held: fc.constantFrom('ring', 'disc'),
      pins: fc.integer({ min: 4, max: 60 }),
      difference: fc.constantFrom(1, 1, 2),
      circle: d(0.02, 0.3),
      pin: d(5e-4, 0.02),
      throw: d(5e-5, 4e-3),
      discs: fc.integer({ min: 1, max: 3 }),
      width: d(5e-4, 0.03),
      offset: d(-1e-4, 3e-4),
      ringChange: d(-2e-4, 2e-4),
      outPins: fc.integer({ min: 3, max: 12 }),
      share: d(0.3, 0.9),
      outPin: d(5e-4, 0.01),
      outGap: d(0, 3e-4),
      pinsRun: fc.constantFrom('fixed', 'sleeves'),
      carriedBy: fc.constantFrom('plate', 'both'),
      bearing: fc.constantFrom('688', '61802', '61805', 'hk1212'),
      shaft: d(0, 5e-3),
      materialD: fc.constantFrom('pla', 'c45'),
      torque: fc.constantFrom(0, 3, 1e4),
    });
    let made = 0;
    fc.assert(
      fc.property(any, ({ share, torque, ...q }) => {
        const p = { ...plain, ...q, outCircle: q.circle * share };
        const r = analyseOf(kind, p, { ...duty, torque }, shelf);
        if (!r.ok) return void expect(r.problem.mend.length).toBeGreaterThan(5);
        made++;
        for (const f of r.value.figures)
          expect(
            Number.isFinite(f.value) &&
              f.low <= f.value + 1e-9 * Math.abs(f.value) &&
              f.high >= f.value - 1e-9 * Math.abs(f.value),
            `${f.id} ${f.low} ${f.value} ${f.high}`,
          ).toBe(true);
        for (const c of r.value.checks) expect(Number.isNaN(c.figure) || Number.isNaN(c.limit), c.id).toBe(false);
        const drawn = drawingOf(kind, p, 1, { shelf, duty });
        if (!drawn.ok) throw new Error(drawn.problem.what);
        for (const l of drawn.value)
          for (const i of l.items)
            if (i.kind === 'curve')
              for (const v of i.outline.points) if (!Number.isFinite(v)) throw new Error(`${i.key} is not drawn`);
        const courses = coursesOf(kind, p, { ...duty, torque }, shelf);
        if (courses.ok)
          for (const c of courses.value)
            for (const v of c.values) if (!Number.isFinite(v)) throw new Error(`${c.id} is not a number`);
      }),
      { numRuns: examples(120, 20) },
    );
    expect(made).toBeGreaterThan(0);
  });

  it('is drawn without any disc standing in a pin, and with output pins inside their holes, at any crank', () => {
    for (const held of ['ring', 'disc'])
      for (const crank of [0, 0.7, 2.9, 11, -4]) {
        const made = drawingOf(kind, params({ ...roomy, held, outGap: 5e-5 }), crank, { shelf, duty });
        if (!made.ok) throw new Error(made.problem.what);
        const items = new Map(
          made.value
            .flatMap((l) => l.items)
            .filter((i): i is DrawItem & { kind: 'curve' } => i.kind === 'curve')
            .map((i) => [i.key, i]),
        );
        for (const disc of ['disc0', 'disc1']) {
          const o = flatten(place(items.get(disc)!.outline, items.get(disc)!.at), 1e-6);
          for (let j = 0; j < 14; j++) {
            const pin = items.get(`pin${j}`)!.at;
            let least = Infinity;
            for (let i = 0; i < o.length; i += 2) least = Math.min(least, Math.hypot(o[i]! - pin.x, o[i + 1]! - pin.y));
            expect(least).toBeGreaterThan(3e-3 + 4e-5);
          }
        }
        for (let i = 0; i < 6; i++) {
          const [hole, out] = [items.get(`hole${i}`)!.at, items.get(`out${i}`)!.at];
          expect(Math.hypot(hole.x - out.x, hole.y - out.y)).toBeCloseTo(1.4e-3, 9);
        }
      }
  });

  it('with two lobes less has half the ratio, and needs an even number of pins', () => {
    expect(kinematicsOf(kind, params(two2)).ratio).toBe(-13);
    expect(kinematicsOf(kind, params({ ...two2, held: 'disc' })).ratio).toBe(14);
    const odd = analyse({ ...two2, pins: 27 });
    expect(odd.ok || odd.problem.what).toContain('two lobes less');
    expect(!odd.ok && (odd.problem as { fix?: object }).fix).toMatchObject({ path: 'pins', value: 28 });
    const few = analyse({ ...two2, pins: 6 });
    expect(few.ok).toBe(false);
    // Files from before have no such field: one lobe less.
    const { difference: _, ...before } = params(roomy) as Record<string, unknown>;
    expect(kinematicsOf(kind, params(before)).ratio).toBe(-13);
  });

  it('cut for two lobes less no disc stands in a pin at any crank, some pins touch, and those whose lobe is cut off stand clear', () => {
    for (const [crank, held] of [
      [0.3, 'ring'],
      [1.1, 'disc'],
      [4, 'ring'],
      [-37, 'disc'],
    ] as const) {
      const made = drawingOf(kind, params({ ...two2, held }), crank, { shelf, duty });
      if (!made.ok) throw new Error(made.problem.what);
      const items = new Map(
        made.value
          .flatMap((l) => l.items)
          .filter((i): i is DrawItem & { kind: 'curve' } => i.kind === 'curve')
          .map((i) => [i.key, i]),
      );
      for (const d of ['disc0', 'disc1']) {
        const o = flatten(place(items.get(d)!.outline, items.get(d)!.at), 2e-8);
        let touching = 0;
        for (let j = 0; j < 28; j++) {
          const pin = items.get(`pin${j}`)!.at;
          let least = Infinity;
          for (let i = 0; i < o.length; i += 2) least = Math.min(least, Math.hypot(o[i]! - pin.x, o[i + 1]! - pin.y));
          expect(least - two2.pin / 2 - two2.offset, `${d} pin ${j}`).toBeGreaterThan(-8e-6);
          if (least - two2.pin / 2 - two2.offset < 8e-6) touching++;
        }
        expect(touching).toBeGreaterThan(8);
        expect(touching).toBeLessThan(28);
      }
    }
  });

  it('with two lobes less plays as a disc of one lobe less for each branch, and carries on pins of both', () => {
    const one = report({ ...two2, difference: 1, pins: 14 });
    const two = report(two2);
    // Both branches hold the same disc, so there is no more play than with either alone; levers are those of a branch.
    expect(figure(two, 'playDisc')).toBeLessThan(1.15 * figure(one, 'playDisc'));
    expect(figure(two, 'playDisc')).toBeGreaterThan(0.5 * figure(one, 'playDisc'));
    expect(figure(two, 'cutOff')).toBeGreaterThan(0);
    const parts = partsOf(kind, params(two2), shelf);
    expect(parts.ok && parts.value.find((x) => x.id.startsWith('disc'))!.note).toContain('26 lobes cut for 28 pins');
  });

  it('courses run over one turn and come back to where they began', () => {
    const r = coursesOf(kind, params({ ...roomy, discs: 1 }), duty, shelf);
    if (!r.ok) throw new Error(r.problem.what);
    for (const c of r.value) expect(c.values[0]!).toBeCloseTo(c.values[c.values.length - 1]!, 6);
    expect(Math.max(...r.value.find((c) => c.id === 'one')!.values)).toBeGreaterThan(0);
  });

  it('discs are one part where lobes and holes allow, and otherwise told apart by their turn', () => {
    const parts = (over: Record<string, unknown>) => {
      const r = partsOf(kind, params({ ...roomy, ...over }), shelf);
      if (!r.ok) throw new Error(r.problem.what);
      return r.value;
    };
    // 12 lobes and 6 holes share a divisor so that half a lobe is no whole number of finest steps; 13 and 6 do not.
    const unlike = parts({ pins: 13 }).filter((x) => x.id.startsWith('disc'));
    const alike = parts({ pins: 14 }).filter((x) => x.id.startsWith('disc'));
    expect(alike).toHaveLength(1);
    expect(alike[0]!.quantity).toBe(2);
    expect(unlike.length).toBe(2);
    for (const p of [...alike, ...unlike]) expect(solidVolume(p.solid!())).toBeGreaterThan(0);
  });

  it('defaults carry what was wished, at the ratio wished', () => {
    for (const [ratio, torque] of [
      [10, 2],
      [20, 6],
      [35, 3],
    ] as const) {
      const p = kind.defaults({ ratio, torque, size: Infinity, shelf });
      expect(Math.abs(kinematicsOf(kind, p).ratio)).toBe(ratio);
      const r = analyseOf(kind, p, { ...duty, torque, torqueRms: torque / 2 }, shelf);
      expect(
        r.ok && r.value.checks.filter((c) => c.state === 'fails' && c.severity === 'stop').map((c) => c.id),
      ).toEqual([]);
    }
  });

  it('maps what is left of every pin’s gap: those that carry have none, and they are as many as the course says', () => {
    const m = mapOf(kind, params(roomy), duty, shelf);
    const c = coursesOf(kind, params({ ...roomy, discs: 1 }), duty, shelf);
    const one = mapOf(kind, params({ ...roomy, discs: 1 }), duty, shelf);
    if (!m.ok || !c.ok || !one.ok) throw new Error('no map');
    expect([m.value.rows, m.value.columns, m.value.low]).toEqual([14, 144, 'carries']);
    const two = mapOf(kind, params(two2), duty, shelf);
    expect(two.ok && two.value.ample).toBeLessThan(1e-3);
    expect(two.ok && two.value.values.some((v) => v === Infinity) && two.value.values.some((v) => v < 0)).toBe(true);
    const carrying = c.value.find((x) => x.id === 'carrying')!.values;
    for (let k = 0; k < 144; k += 7)
      expect(Array.from({ length: 14 }, (_, j) => one.value.values[j * 144 + k]!).filter((v) => v < 0).length).toBe(
        carrying[k],
      );
  });

  it('lets the motor’s shaft turn in the output plates: half a millimetre all round', () => {
    const made = partsOf(kind, params({ ...roomy, carriedBy: 'both' }), shelf);
    if (!made.ok) throw new Error(made.problem.what);
    const through = made.value.find((p) => p.id === 'plate')!.curves.find((c) => c.layer === 'passage')!.outline;
    expect(Math.sqrt(Math.abs(area(through)) / Math.PI)).toBeCloseTo(3e-3, 8);
  });
});
