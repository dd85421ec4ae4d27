import { describe, expect, it } from 'vitest';
import { resolutionNumbers } from '../src/line/resolution.ts';
import { stepperHold } from '../src/motor/stepper.ts';
import type { Variant } from '../src/index.ts';
import { shelf } from './helpers.ts';
import { active, DEMOS } from './reducer-bench.ts';

const TURN = 2 * Math.PI;
const base = DEMOS.map((j) => active(j)).find((v) => v.motor.type === 'stepper')!;
const motor = base.motor as Extract<Variant['motor'], { type: 'stepper' }>;

/** The demo's stepper in 16 microsteps of its 200 steps, a sensor of 1024 counts, behind 50 : 1. */
const line = (place: Variant['sensor']['place'], more: Partial<Variant['sensor']> = {}): Variant => ({
  ...base,
  motor: { ...motor, stepsPerTurn: 200 },
  driver: { ...base.driver, microsteps: 16 },
  sensor: { ...base.sensor, place, counts: 1024, outputCounts: 8192, error: 1e-3, noise: 2e-4, ...more },
});
const holds = stepperHold(motor, { ...base.driver, microsteps: 16 });
const numbers = (v: Variant, drag: number, stick = 1e-4) => resolutionNumbers(v, shelf, 50, drag, stick);

describe('what a line with a stepper resolves', () => {
  it('is a microstep at the output, and as many of them as beat the drag', () => {
    const one = TURN / (200 * 16 * 50);
    // Half of what it holds is reached 30° into a quarter of 90°: a third of 16 microsteps, six whole ones.
    expect(numbers(line('none'), 0.5 * holds)).toMatchObject({ commanded: one, gathered: 6, moved: 6 * one });
    // Exactly four of them; a hair more is five; all of it sixteen; more than it holds moves nothing.
    const of = (k: number) => holds * Math.sin((Math.PI * k) / 32);
    expect(numbers(line('none'), of(4)).gathered).toBe(4);
    expect(numbers(line('none'), of(4) * 1.001).gathered).toBe(5);
    expect(numbers(line('none'), of(15.5)).gathered).toBe(16);
    expect(numbers(line('none'), of(1) * 0.999).gathered).toBe(1);
    expect(numbers(line('none'), holds * 1.01).gathered).toBeNaN();
  });

  it('keeps the coarsest of what moves and what is seen, with what sticks and what the loop errs by', () => {
    const one = TURN / (200 * 16 * 50);
    const [atMotor, atOutput] = [TURN / (1024 * 50), TURN / 8192];
    const seen = numbers(line('motor'), 0.5 * holds);
    expect(seen.sensedMotor).toBeCloseTo(atMotor, 15);
    expect(seen.sensorError).toBeCloseTo(1.2e-3 / 50, 15);
    // 1024 counts of a turn are coarser than one microstep and finer than six.
    expect(seen.keptMotor).toBeCloseTo(6 * one + 1e-4 + 1.2e-3 / 50, 15);
    expect(numbers(line('motor'), 0).keptMotor).toBeCloseTo(Math.max(one, atMotor) + 1e-4 + 1.2e-3 / 50, 15);
    const both = numbers(line('both'), 0.5 * holds);
    expect(both.sensedMotor).toBeCloseTo(atMotor, 15);
    expect(both.sensedOutput).toBeCloseTo(atOutput, 15);
    expect(both.sensorError).toBeCloseTo(1.2e-3, 15);
    expect(both.keptOutput).toBeCloseTo(Math.max(6 * one, atOutput) + 1e-4 + 1.2e-3, 15);
    // On the output alone its own counts are what is seen; without any, the step's own error is left.
    expect(numbers(line('output'), 0).sensedOutput).toBeCloseTo(TURN / 1024, 15);
    const open = numbers(line('none'), 0);
    expect(open.keptMotor).toBeCloseTo(one + 1e-4 + open.stepError, 15);
    expect(open.stepError).toBeGreaterThan(0);
    expect(open.keptOutput).toBeNaN();
  });
});
