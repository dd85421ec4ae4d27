import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flatten, makeShelf, place, stageKind, type DrawItem } from '../src/index.ts';
import { analyseOf, checkOf, coursesOf, drawingOf, figureOf, kinematicsOf, stageBench } from './stage-bench.ts';
import { examples } from './helpers.ts';

const shelf = makeShelf();
const kind = stageKind('ring-plate')!;
const duty = { torque: 1.5, torqueRms: 0.7, speed: 2, equivalent: 0.7, meanSpeed: 1, swing: 1 };
const plain = kind.defaults({ ratio: 17, torque: 1.5, size: Infinity, shelf }) as Record<string, unknown>;
const roomy = {
  pins: 17,
  circle: 0.044,
  pin: 2.4e-3,
  throw: 0.8e-3,
  plates: 3,
  spread: 'even',
  layout: 'one',
  distance: 0.038,
  width: 6e-3,
  offset: 7e-5,
  bearing: '688',
  wall: 3e-3,
  bore: 8e-3,
};
const { params, analyse, report } = stageBench('ring-plate', { ...plain, ...roomy }, duty, shelf);
const [figure, found] = [figureOf, checkOf];

interface Case {
  pins: number;
  eccentricity_mm: number;
  crank_distance_mm: number;
  plate_phases_deg: number[];
  dead_point_score: number;
  ratio: number;
}
const cases = JSON.parse(readFileSync(new URL('./cases/ring-plate.json', import.meta.url), 'utf8')) as Case[];

describe('a ring-plate stage', () => {
  it.each(cases)('scores as worked out: $pins pins, plates at $plate_phases_deg', (c) => {
    const over = {
      pins: c.pins,
      circle: c.pins === 17 ? 0.044 : 0.05,
      throw: c.eccentricity_mm * 1e-3,
      distance: c.crank_distance_mm * 1e-3,
      plates: c.plate_phases_deg.length,
      spread: c.plate_phases_deg[1] === 90 ? 'quarter' : 'even',
      pin: 1.6e-3,
      shaft: 0,
    };
    const r = report(over);
    expect(r.numbers.ratio).toBe(c.ratio);
    // A turn is looked at every five degrees, which finds the least to a thousandth.
    expect(figure(r, 'score')).toBeCloseTo(c.dead_point_score, 2);
  });

  it('jams with two opposite plates on one crank, and the mend frees it', () => {
    const r = report({ plates: 2 });
    const c = found(r, 'score');
    expect([c.state, c.severity]).toEqual(['fails', 'stop']);
    const mended = report({ plates: c.mend!.value, ...c.mend!.also });
    expect(found(mended, 'score').state).not.toBe('fails');
  });

  it('losses are the same either way; sleeves lose less; force grows with torque', () => {
    const [a, b] = [report({ pinsRun: 'fixed' }), report({ pinsRun: 'sleeves' })];
    expect(a.numbers.etaBackward).toBeCloseTo(2 - 1 / a.numbers.etaForward, 9);
    expect(b.numbers.etaForward).toBeGreaterThan(a.numbers.etaForward);
    expect(figure(report({}, { ...duty, torque: 3 }), 'crankForce')).toBeCloseTo(
      2 * figure(report({}, { ...duty, torque: 1.5 }), 'crankForce'),
      6,
    );
    // Power balance of a turn without loss: the crank's torque is the wheel's over Z; its force times e cannot be less.
    expect(figure(report({}, { ...duty, torque: 1.5 }), 'crankForce') * 3 * 0.8e-3).toBeGreaterThan(1.5 / 17);
  });

  it('mends take: gap, wall, phases', () => {
    for (const [over, id] of [
      [{ offset: 0 }, 'bind'],
      [{ distance: 0.0325 }, 'wall'],
    ] as const) {
      const c = found(report(over), id);
      expect(c.state, id).toBe('fails');
      expect(found(report({ ...over, [c.mend!.path]: c.mend!.value, ...c.mend!.also }), id).state, id).not.toBe(
        'fails',
      );
    }
    const shaken = found(report({ plates: 2, spread: 'quarter' }, { ...duty, speed: 60 }), 'balance');
    expect(shaken.state).toBe('fails');
    expect(figure(report({ spread: shaken.mend!.value, ...shaken.mend!.also }), 'shaking')).toBe(0);
  });

  it('refuses what cannot be, with the field that decides', () => {
    for (const [over, at] of [
      [{ throw: 1.3e-3 }, 'throw'],
      [{ pin: 9e-3 }, 'pin'],
      [{ throw: 1.2e-3, pin: 6e-3 }, 'pin'],
      [{ distance: 0.028 }, 'distance'],
      [{ bore: 0.043 }, 'bore'],
      [{ bearing: 'none' }, 'bearing'],
    ] as const) {
      const r = analyse(over);
      expect(r.ok, JSON.stringify(over)).toBe(false);
      if (!r.ok) expect(r.problem.place, JSON.stringify(over)).toBe(at);
    }
  });

  it('has figures and checks that are numbers, or refuses in words, for anything its schema takes', () => {
    const d = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const any = fc.record({
      pins: fc.integer({ min: 5, max: 60 }),
      circle: d(0.01, 0.2),
      pin: d(5e-4, 0.01),
      share: d(0.05, 1.05),
      plates: fc.integer({ min: 1, max: 4 }),
      spread: fc.constantFrom('even', 'quarter'),
      layout: fc.constantFrom('one', 'idle', 'both'),
      far: d(0.6, 3),
      width: d(5e-4, 0.03),
      offset: d(0, 3e-4),
      pinsRun: fc.constantFrom('fixed', 'sleeves'),
      bearing: fc.constantFrom('688', '61800', 'hk0810'),
      materialP: fc.constantFrom('pla', 'c45'),
      bore: fc.constantFrom(0, 5e-3),
      torque: fc.constantFrom(0, 1, 1e4),
    });
    let made = 0;
    fc.assert(
      fc.property(any, ({ share, far, torque, ...q }) => {
        const p = { ...plain, ...q, throw: Math.max(5e-5, (share * q.circle) / 2 / q.pins), distance: far * q.circle };
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
        if (drawn.ok)
          for (const l of drawn.value)
            for (const i of l.items)
              if (i.kind === 'curve')
                for (const v of i.outline.points) if (!Number.isFinite(v)) throw new Error(`${i.key} is not drawn`);
      }),
      { numRuns: examples(60, 10) },
    );
    expect(made).toBeGreaterThan(0);
  });

  it('is drawn with every pin its gap off the lobes of every plate, at any crank', () => {
    for (const crank of [0, 0.9, 3.3, 20, -5]) {
      const made = drawingOf(kind, params({}), crank, { shelf, duty });
      if (!made.ok) throw new Error(made.problem.what);
      const items = new Map(
        made.value
          .flatMap((l) => l.items)
          .filter((i): i is DrawItem & { kind: 'curve' } => i.kind === 'curve')
          .map((i) => [i.key, i]),
      );
      for (const key of ['window', 'lobes1', 'lobes2']) {
        const o = flatten(place(items.get(key)!.outline, items.get(key)!.at), 2e-8);
        for (let j = 0; j < 17; j++) {
          const pin = items.get(`pin${j}`)!.at;
          let least = Infinity;
          for (let i = 0; i < o.length; i += 2) least = Math.min(least, Math.hypot(o[i]! - pin.x, o[i + 1]! - pin.y));
          expect(Math.abs(least - 1.2e-3 - 7e-5), `${key} ${j}`).toBeLessThan(8e-6);
        }
      }
    }
  });

  it('defaults pass their dead points and carry what was wished', () => {
    for (const [ratio, torque] of [
      [12, 1],
      [20, 2],
    ] as const) {
      const p = kind.defaults({ ratio, torque, size: Infinity, shelf });
      expect(kinematicsOf(kind, p).ratio).toBe(-ratio);
      const r = analyseOf(kind, p, { ...duty, torque, torqueRms: torque / 2 }, shelf);
      expect(
        r.ok && r.value.checks.filter((c) => c.state === 'fails' && c.severity === 'stop').map((c) => c.id),
      ).toEqual([]);
    }
  });

  it('courses: what the plates pass adds up to the whole', () => {
    const r = coursesOf(kind, params({ layout: 'one' }), duty, shelf);
    if (!r.ok) throw new Error(r.problem.what);
    const [whole, ...plates] = r.value;
    whole!.values.forEach((v, i) => expect(plates.reduce((s, x) => s + x.values[i]!, 0)).toBeCloseTo(v, 6));
  });
});
