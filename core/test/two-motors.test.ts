import { describe, expect, it } from 'vitest';
import { demandOf, twoMotors, workingOf, type Joint, type Variant } from '../src/index.ts';
import { demo, expectBand, shelf } from './helpers.ts';

/** The demo's first variant with one stage of which everything is known: ten to one, nine tenths arrive, no drag. */
const unit = (over: Record<string, unknown> = {}): { joint: Joint; variant: Variant } => {
  const joint = demo();
  const variant: Variant = {
    ...joint.variants[0]!,
    stages: [
      {
        id: 's1',
        kind: 'unit',
        params: {
          designation: 'Planetary unit, 4 N·m',
          ratio: 10,
          form: 'inline',
          efficiency: 0.9,
          backEfficiency: 0.8,
          drag: 0,
          play: 2e-3,
          playMost: 3e-3,
          stiffness: 500,
          inertia: 1e-6,
          ratedTorque: 40,
          peakTorque: 80,
          ratedSpeed: 314,
          ratedLife: 36e6,
          maxSpeed: 628,
          outside: 0.06,
          length: 0.05,
          centre: 0,
          bore: 0,
          mass: 0.35,
          price: 57,
          ...over,
        },
      },
    ],
  };
  return { joint, variant };
};
const made = (offset?: number, over: Record<string, unknown> = {}) => {
  const { joint, variant } = unit(over);
  const r = twoMotors(joint, variant, shelf, offset);
  if (!r.ok) throw new Error(r.problem.what);
  const figure = (id: string) => r.value.figures.find((f) => f.id === id)!;
  return { ...r.value, joint, variant, figure, value: (id: string) => figure(id).value };
};

describe('two motors on one output', () => {
  const peak = demandOf(demo().brief, shelf).peak;

  it('leave no play up to 2·T_o·i·η, and each line’s own beyond', () => {
    const r = made(0.2);
    expect(r.value('pairOpens')).toBeCloseTo(2 * 0.2 * 10 * 0.9, 9);
    expect(r.figure('pairBeyond')).toMatchObject({ value: 2e-3, high: 3e-3 });
  });

  it('lose what the pushed one loses and get back what the dragged one gives', () => {
    const r = made(0.5);
    // 4.5 N·m press. One motor lifts peak/2 + 4.5 through 0.9; the other is dragged by 4.5 − peak/2, of which 0.8 arrive.
    expect(4.5).toBeGreaterThan(peak / 2);
    const [push, drag] = [(peak / 2 + 4.5) / 9, ((4.5 - peak / 2) * 0.8) / 10];
    expect(r.value('pairEfficiency')).toBeCloseTo(peak / (10 * (push - drag)), 9);
    // The rotor's acceleration comes on top of it.
    expect(r.value('motorPair')).toBeGreaterThanOrEqual(push - 1e-12);
    expect(r.value('motorPair')).toBeLessThan(1.2 * push);
  });

  it('bring less the more they press, stand twice as stiff, and heat each other at rest', () => {
    const [a, b] = [made(0.1), made(0.2)];
    expect(b.value('pairReach')).toBeLessThanOrEqual(a.value('pairReach'));
    const shaft = 1 / (1 / a.value('pairStiffness') - 1 / 1000);
    expect(shaft).toBeGreaterThan(0);
    expect(a.value('pairStiffness')).toBeLessThanOrEqual(1000 * (1 + 1e-9));
    expect(b.value('motorPairWinding')).toBeGreaterThanOrEqual(a.value('motorPairWinding'));
    expect(a.value('pairMass')).toBeCloseTo(a.variant.motor.mass + (a.variant.driver.unit?.mass ?? 0) + 0.35, 9);
  });

  it('offers the offset that keeps the peak, which then does', () => {
    const r = made(0.01);
    const fails = r.checks.find((c) => c.id === 'pairOpens')!;
    expect(fails.state).toBe('fails');
    expect(fails.mend!.path).toBe('offset');
    const mended = made(fails.mend!.value as number);
    expect(mended.checks.find((c) => c.id === 'pairOpens')!.state).toBe('holds');
    expect(mended.value('pairOpens') / peak).toBeCloseTo(1.1, 1);
    // It is also what is taken where nobody asks for one.
    expect(made().offset).toBeCloseTo(fails.mend!.value as number, 9);
  });

  it('say that a line which holds cannot be dragged', () => {
    expect(made(0.2).checks.find((c) => c.id === 'motorPairHolds')).toMatchObject({ state: 'holds', figure: 0.8 });
    expect(made(0.2, { backEfficiency: 0 }).checks.find((c) => c.id === 'motorPairHolds')!.state).toBe('fails');
  });

  it('refuse an offset that drag takes, and a line that cannot be summed', () => {
    const { joint, variant } = unit({ drag: 0.05 });
    const small = twoMotors(joint, variant, shelf, 0.02);
    expect(small.ok || small.problem.what).toContain('does not reach the output');
    const broken = { ...variant, stages: [{ id: 'x', kind: 'nothing', params: {} }] };
    expect(twoMotors(joint, broken, shelf, 1).ok).toBe(false);
  });

  it('tell nothing of where a winding settles that runs away, and that it cannot be carried', () => {
    const r = made(50);
    for (const f of r.figures) expect(Number.isFinite(f.value), f.id).toBe(true);
    expect(r.checks.find((c) => c.id === 'motorPairEver')!.state).toBe('fails');
  });

  it('add the second line up from its motor, driver and stages', () => {
    const r = made(0.2);
    for (const id of ['pairMass', 'pairMoney']) {
      const sum = workingOf(r.figure(id))!.terms.reduce((s, t) => s + t.value, 0);
      expect(r.value(id)).toBeCloseTo(sum, 9);
    }
  });

  it('has figures in their bands with workings', () => {
    const r = made(0.2);
    for (const f of r.figures) {
      expectBand(f);
      expect(workingOf(f)!.formula.length).toBeGreaterThan(2);
    }
  });
});
