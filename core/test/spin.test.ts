import { describe, expect, it } from 'vitest';
import { analyseLine, caseLoads, type ArmCase, type Joint } from '../src/index.ts';
import { motorAsked, spinPerAcceleration } from '../src/line/spin.ts';
import { needed } from '../src/line/sum.ts';
import physics from './cases/physics.json' with { type: 'json' };
import { demo, shelf } from './helpers.ts';

const link = (ratio: number, efficiency: number, drag: number) => ({
  ratio,
  etaForward: efficiency,
  etaBackward: efficiency,
  drag,
  stiffness: 1,
});

describe('torque that speeds up what turns before the output', () => {
  it('is as an independent calculation has it', () => {
    for (const c of physics.accelerating) {
      const inertia = (c.rotor_inertia + c.stage_inertia_at_input) * c.ratio ** 2;
      const asked = motorAsked(
        [link(c.ratio, c.efficiency, c.drag_at_motor_Nm)],
        {
          name: 'peak',
          time: 'peak',
          // Their load is told apart from its inertia; here a point's torque has both.
          torque: c.load_Nm + c.load_inertia * c.output_acceleration,
          speed: 1,
          acceleration: c.output_acceleration,
        },
        spinPerAcceleration(inertia, c.ratio),
      );
      expect(asked / c.motor_torque_Nm).toBeCloseTo(1, 6);
    }
  });

  it('adds to an RMS torque as it goes through the cycle: summed in a hundred thousand steps beside it', () => {
    const arm = demo().brief.cases[0] as ArmCase;
    const G = 9.80665;
    const c: ArmCase = { ...arm, angleFrom: -0.5, angleTo: 0.9, profile: 'trapezoid', rest: 0.3 };
    const loads = caseLoads(c, G);
    const point = loads.points.find((p) => p.name === 'RMS')!;
    // Up and down with the same ramps; the arm's weight and inertia about the axis as points.
    const level = G * (c.load * c.length + c.armMass * c.armCentre);
    const J = loads.inertia;
    const way = 1.4;
    const top = Math.min(c.speed, Math.sqrt(way * c.acceleration));
    const ramp = top / c.acceleration;
    const cruise = (way - top * ramp) / top;
    const move = 2 * ramp + cruise;
    const spin = 0.02;
    const links = [link(10, 0.9, 0)];
    let [sum, steps] = [0, 100_000];
    const cycle = 2 * (move + c.rest);
    for (let i = 0; i < steps; i++) {
      let t = ((i + 0.5) * cycle) / steps;
      const down = t > move + c.rest;
      if (down) t -= move + c.rest;
      // The way down is the way up backwards in time.
      const u = t > move ? move : down ? move - t : t;
      const alpha = t > move ? 0 : u < ramp ? c.acceleration : u > move - ramp ? -c.acceleration : 0;
      const gone =
        u < ramp
          ? (c.acceleration * u * u) / 2
          : u <= move - ramp
            ? (top * ramp) / 2 + top * (u - ramp)
            : way - (c.acceleration * (move - u) ** 2) / 2;
      const at = t > move ? (down ? -0.5 : 0.9) : -0.5 + gone;
      const load = level * Math.cos(at) + J * alpha;
      sum += (load / 9 + spin * alpha) ** 2 / steps;
    }
    expect(motorAsked(links, point, spin) / Math.sqrt(sum)).toBeCloseTo(1, 3);
    // Left out it would be less than that by more than the sum's own error.
    expect(needed(links, point.torque) / Math.sqrt(sum)).toBeLessThan(0.98);
  });

  it('makes a joint that has to turn quickly fail where its rotor is what holds it back', () => {
    const joint: Joint = demo();
    const variant = joint.variants[0]!;
    const quick = (acceleration: number) => ({
      ...joint,
      brief: {
        ...joint.brief,
        cases: joint.brief.cases.map((c) => ({ ...c, given: 'limits', acceleration }) as typeof c),
      },
    });
    const of = (acceleration: number) => {
      const r = analyseLine(quick(acceleration), variant, shelf);
      const value = (id: string) => r.figures.find((f) => f.id === id)!.value;
      return { check: r.checks.find((c) => c.id === 'accelerates')!, value };
    };
    const [slow, fast] = [of(2), of(60)];
    expect(slow.check.state).toBe('holds');
    expect(fast.check).toMatchObject({ state: 'fails', limit: 60, severity: 'stop' });
    // What the motor needs has the rotor in it: 14 to one, 58 rad/s² more.
    expect(fast.value('motorNeeded') - slow.value('motorNeeded')).toBeGreaterThan(14 * 58 * variant.motor.rotorInertia);
    expect(fast.value('reach')).toBeLessThan(slow.value('reach'));
    // The share that arrives is told for a torque carried steadily.
    expect(fast.value('efficiency')).toBeGreaterThanOrEqual(slow.value('efficiency') * 0.99);
  });
});
