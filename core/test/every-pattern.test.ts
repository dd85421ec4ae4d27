import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PATTERNS, readCase, type AnyPattern, type LoadCase, workingOf } from '../src/index.ts';

// What a load pattern promises, held against every one that is registered.

const G = 9.80665;
const each = (name: string, hold: (p: AnyPattern) => void): void => {
  for (const p of PATTERNS) it(`${p.id} ${name}`, () => hold(p));
};
type Values = Record<string, unknown>;
const blank = (p: AnyPattern): LoadCase & Values => p.blank('c') as LoadCase & Values;

describe('every load pattern', () => {
  each('begins with what its schema takes and its form shows, in bounds', (p) => {
    const c = blank(p);
    expect(readCase(c)).toMatchObject({ ok: true });
    expect(p.wrong(c)).toBeUndefined();
    expect(new Set(p.fields.map((f) => f.path)).size).toBe(p.fields.length);
    for (const f of p.fields) {
      expect(f.help.length, f.path).toBeGreaterThan(0);
      const v = c[f.path];
      if (f.as === 'choice')
        expect(
          f.options.map((o) => o.value),
          f.path,
        ).toContain(v);
      else {
        expect(v, f.path).toBeGreaterThanOrEqual(f.min);
        expect(v, f.path).toBeLessThanOrEqual(f.max);
        expect(f.step, f.path).toBeGreaterThan(0);
      }
    }
  });

  each('refuses in words what its form would not let pass, and text or nothing in place of a number', (p) => {
    for (const f of p.fields) {
      if (f.as !== 'quantity') continue;
      for (const bad of [NaN, Infinity, 'much', null, {}, f.max < 1e300 ? f.max * 10 + 1e9 : Infinity]) {
        const r = readCase({ ...blank(p), [f.path]: bad });
        expect(r.ok, `${f.path} ${String(bad)}`).toBe(false);
        if (!r.ok) expect(r.problem.mend.length, f.path).toBeGreaterThan(3);
      }
    }
  });

  each('has figures that are its loads, each with formula, source and terms that are numbers', (p) => {
    const c = blank(p);
    const loads = p.loads(c, G);
    const figures = p.figures(c, G);
    expect(new Set(figures.map((f) => f.id)).size).toBe(figures.length);
    const of = (id: string) => figures.find((f) => f.id === `case-${id}`)?.value;
    for (const id of ['peak', 'rms', 'hold'] as const) expect(of(id), id).toBe(loads[id]);
    for (const f of figures) {
      expect(f.low).toBe(f.value);
      expect(workingOf(f)!.formula.length, f.id).toBeGreaterThan(2);
      expect(workingOf(f)!.source.length, f.id).toBeGreaterThan(2);
      for (const t of workingOf(f)!.terms) expect(Number.isFinite(t.value), `${f.id}: ${t.name}`).toBe(true);
    }
  });

  each('asks in an order that cannot be otherwise: peak above RMS above nothing, hold no more than the peak', (p) => {
    const any = fc.array(fc.double({ min: 0.2, max: 5, noNaN: true }), {
      minLength: p.fields.length,
      maxLength: p.fields.length,
    });
    fc.assert(
      fc.property(any, (scales) => {
        const c = blank(p);
        p.fields.forEach((f, i) => {
          if (f.as === 'quantity' && typeof c[f.path] === 'number')
            (c as Values)[f.path] = Math.min(f.max, Math.max(f.min, (c[f.path] as number) * scales[i]!));
        });
        if (!readCase(c).ok || p.wrong(c)) return;
        const l = p.loads(c, G);
        for (const [key, v] of Object.entries({
          peak: l.peak,
          rms: l.rms,
          hold: l.hold,
          speed: l.speed,
          cycle: l.cycle,
          swing: l.swing,
          inertia: l.inertia,
          duty: l.duty,
          equivalent: l.equivalent,
        }))
          expect(Number.isFinite(v) && v >= 0, `${key} ${v}`).toBe(true);
        expect(l.rms).toBeLessThanOrEqual(l.peak * (1 + 1e-9) + 1e-12);
        expect(l.hold).toBeLessThanOrEqual(l.peak * (1 + 1e-9) + 1e-12);
        expect(l.equivalent).toBeLessThanOrEqual(l.peak * (1 + 1e-9) + 1e-12);
        expect(l.duty).toBeLessThanOrEqual(1 + 1e-12);
        expect(Math.max(...l.points.map((x) => x.torque))).toBeCloseTo(l.peak, 6);
        // Time runs on in the trace, from the beginning to the end of the cycle.
        const t = l.trace.time;
        for (let k = 1; k < t.length; k++) expect(t[k]!).toBeGreaterThanOrEqual(t[k - 1]!);
        expect(t.at(-1)!).toBeCloseTo(l.cycle, 6);
      }),
      { numRuns: 40 },
    );
  });

  each('twice the gravity and twice the load ask for more, never for less', (p) => {
    const c = blank(p);
    const [one, two] = [p.loads(c, G), p.loads(c, 2 * G)];
    expect(two.peak).toBeGreaterThanOrEqual(one.peak);
    expect(two.hold).toBeGreaterThanOrEqual(one.hold);
    for (const key of ['load', 'mass', 'unbalance', 'friction'] as const) {
      if (typeof c[key] !== 'number') continue;
      const more = p.loads({ ...c, [key]: 2 * (c[key] as number) + 0.01 }, G);
      expect(more.peak, key).toBeGreaterThanOrEqual(one.peak);
    }
  });
});
