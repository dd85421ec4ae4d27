import { describe, expect, it } from 'vitest';
import { analyseLine, makeShelf, stageKind, stageKinds, withFactor, type Duty } from '../src/index.ts';
import { frictionHeat, housing, warmthOf } from '../src/stage/warmth.ts';
import { anyStages } from './any-stage.ts';
import { cold, demo, expectBand, shelf } from './helpers.ts';

// A stage warms by its own friction, and what it is made of is as soft and weak as it is warm.

const busy: Duty = { torque: 8, torqueRms: 6, speed: 12, equivalent: 6, meanSpeed: 10 };
const opened = (id: string, s = shelf) => {
  const kind = stageKind(id)!;
  const made = kind.open(kind.defaults({ ratio: 6, torque: 8, size: Infinity, shelf }), s);
  if (!made.ok) throw new Error(made.problem.what);
  return made.value;
};

describe('a stage’s own heat', () => {
  const n = { ratio: -5, etaForward: 0.8, drag: 0.02, outside: 0.08, length: 0.05 };

  it('is what friction takes of the mean power, and drag at the input', () => {
    // 6 N·m at 10 rad/s go out, a quarter of that on top goes in; 0.02 N·m at 50 rad/s turn along.
    expect(frictionHeat(n, busy)).toBeCloseTo(60 / 4 + 1, 12);
    expect(frictionHeat(n, { torque: 8, torqueRms: 6, speed: 12 })).toBe(0);
  });

  it('leaves through a can of its size: two ends and the wall', () => {
    expect(housing(n)).toBeCloseTo(Math.PI * 0.08 * 0.05 + 2 * Math.PI * 0.04 ** 2, 12);
    expect(warmthOf(n, busy, shelf)).toBeCloseTo(16 / (10 * 0.0226194671), 5);
  });

  const mild: Duty = { ...busy, torqueRms: 3, speed: 2, meanSpeed: 1.2 };
  // What loses a hundredth stays as cold as the room at this load.
  const warms = stageKinds().filter((k) =>
    opened(k.id)
      .report(mild)
      .figures.some((f) => f.id === 'warmth'),
  );
  it('is felt in what has teeth or lobes', () => expect(warms.length).toBeGreaterThan(6));
  for (const kind of warms)
    it(`${kind.id}: its numbers are those of a cold one where it is as warm as that`, () => {
      const warm = opened(kind.id);
      const figure = warm.report(mild).figures.find((f) => f.id === 'warmth')!;
      expectBand(figure);
      const { value, low, high } = figure;
      expect(value).toBeGreaterThanOrEqual(293.65);
      const around = { ...cold, factors: { ...cold.factors } };
      around.factors['ambient'] = { ...cold.factors['ambient']!, value, low, high };
      const same = opened(kind.id, around).load(mild);
      const own = warm.load(mild);
      // Met within a fifth of a kelvin, or some parts in a thousand of the modulus.
      expect(own.stiffness / same.stiffness).toBeCloseTo(1, 2);
      for (const [i, limit] of own.limits.entries())
        if (limit.time === 'static') expect(limit.torque / same.limits[i]!.torque, limit.mode).toBeCloseTo(1, 2);
      const still = opened(kind.id, cold).load(mild);
      expect(own.stiffness).toBeLessThanOrEqual(still.stiffness * (1 + 1e-9));
    });

  it('is carried off less where less air passes, and nothing gets stronger for it', () => {
    for (const kind of stageKinds())
      for (const { params, duty } of anyStages(kind, 6, 23)) {
        const made = kind.open(params, shelf);
        if (!made.ok) continue;
        const stage = made.value;
        const now = stage.load(duty);
        const stuffy = stage.moved('stage.cooling', 6)?.load(duty);
        if (!stuffy) continue;
        expect(stuffy.stiffness, kind.id).toBeLessThanOrEqual(now.stiffness * (1 + 1e-9));
        // A trial is as warm as heat over cooling has it; opened anew it is met exactly.
        const anew = kind.open(params, withFactor(shelf, 'stage.cooling', 6));
        if (anew.ok) expect(stuffy.stiffness / anew.value.load(duty).stiffness).toBeCloseTo(1, 2);
      }
  });

  it('stops a stage whose plastic softens by it, and says what helps', () => {
    const hot = { ...busy, torqueRms: 60, speed: 40, meanSpeed: 40 };
    const { checks } = opened('planetary').report(hot);
    expect(checks.find((c) => c.id === 'warmth')).toMatchObject({
      state: 'fails',
      severity: 'stop',
      quantity: 'temperature',
      advice: expect.stringMatching(/turn slower/),
    });
    expect(
      opened('planetary')
        .report({ ...busy, meanSpeed: 0 })
        .checks.some((c) => c.id === 'warmth'),
    ).toBe(false);
  });

  it('is judged by what the stage is made of, not by a material that it does not use', () => {
    const kind = stageKind('strain-wave')!;
    const start = kind.defaults({ ratio: 45, torque: 4, size: Infinity, shelf }) as Record<string, unknown>;
    const belt = { form: 'belt', body: 'belt', section: 'R3', teeth: 100, shape: 'two', bearing: '6000', depth: 0.9 };
    const of = (materialS: string) => {
      const made = kind.open({ ...start, ...belt, shaft: 0, materialS } as never, shelf);
      if (!made.ok) throw new Error(made.problem.what);
      return made.value
        .report({ ...busy, torqueRms: 3, speed: 2, meanSpeed: 1.2 })
        .checks.find((c) => c.id === 'warmth')!;
    };
    expect(of('pla').limit).toBe(of('c45').limit);
  });

  it('is in the bands of a line', () => {
    const joint = demo();
    const kind = stageKind('cycloidal')!;
    const params = kind.defaults({ ratio: 20, torque: 8, size: Infinity, shelf }) as Record<string, never>;
    joint.variants[0]!.stages = [{ id: 'c', kind: 'cycloidal', params }];
    Object.assign(joint.brief.cases[0]!, { speed: 6, acceleration: 60, holdSeconds: 0 });
    const band = (s: typeof shelf) => {
      const f = analyseLine(joint, joint.variants[0]!, s).figures.find((x) => x.id === 'stiffness')!;
      return f.value / f.low;
    };
    const sure = makeShelf({ factors: { 'stage.cooling': { value: 10, low: 10, high: 10 } } });
    expect(band(shelf)).toBeGreaterThanOrEqual(band(sure));
  });
});
