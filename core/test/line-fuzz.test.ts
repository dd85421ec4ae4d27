import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  blankLimit,
  LIMIT_IDS,
  MOTORS,
  PATTERNS,
  ratioDesk,
  readCase,
  stageKind,
  waysOut,
  type LoadCase,
  type Variant,
} from '../src/index.ts';
import { examples, demo, expectBand, shelf } from './helpers.ts';

/** A load case of any pattern with every number anywhere in its bounds, ends and nought included. */
const anyCase = fc.constantFrom(...PATTERNS).chain((p) => {
  const fields = p.fields.filter((f) => f.as === 'quantity');
  const choices = p.fields.filter((f) => f.as === 'choice');
  return fc
    .tuple(
      fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: fields.length, maxLength: fields.length }),
      fc.array(fc.nat(3), { minLength: choices.length, maxLength: choices.length }),
      fc.nat(4),
    )
    .map(([at, pick, mode]) => {
      const c = { ...p.blank('x') } as Record<string, unknown>;
      fields.forEach((f, i) => {
        if (f.as !== 'quantity') return;
        const usual = Math.abs(Number(c[f.path])) || f.step;
        const value =
          mode === 0
            ? f.min
            : mode === 1
              ? f.max
              : mode === 2
                ? f.min + (f.max - f.min) * at[i]! ** 6
                : usual * 100 ** (2 * at[i]! - 1);
        c[f.path] = Math.min(f.max, Math.max(f.min, value));
      });
      choices.forEach(
        (f, i) => void (c[f.path] = f.as === 'choice' ? f.options[pick[i]! % f.options.length]!.value : c[f.path]),
      );
      return c as unknown as LoadCase;
    });
});

const nothingBroken = (value: unknown, path: string): void => {
  if (typeof value === 'number') expect(Number.isNaN(value), path).toBe(false);
  else if (ArrayBuffer.isView(value)) expect((value as Float64Array).some(Number.isNaN), path).toBe(false);
  else if (typeof value === 'object' && value !== null)
    for (const [k, v] of Object.entries(value)) nothingBroken(v, `${path}.${k}`);
};

describe('a line under any brief', () => {
  it('either says in words why it cannot be, or has figures that are numbers', () => {
    fc.assert(
      fc.property(
        anyCase,
        fc.constantFrom(...MOTORS),
        fc.constantFrom('belts', 'bought', 'none'),
        (c, motor, stages) => {
          if (!readCase(c).ok) return;
          const j = demo();
          j.brief = {
            cases: [c],
            limits: LIMIT_IDS.map((id) => ({ ...blankLimit(id), ...(id === 'turnBack' ? { value: 1 } : {}) })),
          };
          const v: Variant = { ...j.variants[0]!, motor: motor as Variant['motor'] };
          if (stages === 'none') v.stages = [];
          if (stages === 'bought')
            v.stages = [
              {
                id: 'u',
                kind: 'unit',
                params: stageKind('unit')!.defaults({ ratio: 10, torque: 5, size: Infinity, shelf }),
              },
            ];
          const report = analyseLine(j, v, shelf);
          nothingBroken(report.demand, 'demand');
          if (report.problem) return expect(report.problem.mend.length).toBeGreaterThan(0);
          for (const f of report.figures) {
            expect(Number.isFinite(f.value), f.id).toBe(true);
            expectBand(f);
          }
          nothingBroken(report.motor.points, 'points');
          nothingBroken(report.map, 'map');
          nothingBroken(report.load, 'load');
          for (const x of report.checks) expect(Number.isNaN(x.figure), x.id).toBe(false);
          return undefined;
        },
      ),
      { numRuns: examples(120) },
    );
  });

  it('the desk and the ways out answer whatever is asked', () => {
    fc.assert(
      fc.property(
        anyCase,
        fc.constantFrom(...MOTORS),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        (c, motor, each) => {
          if (!readCase(c).ok) return;
          const j = demo();
          j.brief.cases = [c];
          const v: Variant = { ...j.variants[0]!, motor: motor as Variant['motor'] };
          for (const row of ratioDesk(j, v, shelf, each)) {
            if (row.both) expect(row.both[0]).toBeLessThanOrEqual(row.both[1]);
            expect(row.suggested).toBeGreaterThanOrEqual(1);
          }
          const reach = waysOut(j, v, shelf, each);
          expect(reach.ways.length).toBeLessThanOrEqual(2);
          expect(Number.isNaN(reach.margin)).toBe(false);
        },
      ),
      { numRuns: 30 },
    );
  });
});
