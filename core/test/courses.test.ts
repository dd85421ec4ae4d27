import { describe, expect, it } from 'vitest';
import { cold } from './helpers.ts';
import { stageBench, stageOf } from './stage-bench.ts';
import { ANCHORED } from './worked-stages.ts';

// Courses by statics: a pin one pitch on meets what the one before it met a pitch of the crank earlier, so that the course of
// the first tells the push of all at once. Their moments about the middle, by levers of their own, make the torque.

/** Steps of a turn of the crank. */
const STEPS = 144;

/** The worked stage of a kind with something changed, and its courses by name. */
function bench(kind: string, more: Record<string, unknown>) {
  const { params, duty } = ANCHORED.find((a) => a.kind === kind && !a.further)!;
  const changed = stageBench(kind, { ...params, ...more }, duty, cold);
  const made = stageOf(changed.kind, changed.params({}), cold);
  const courses = new Map(made.courses!(duty).map((c) => [c.id, c.values]));
  const figures = made.report(duty).figures;
  return {
    duty,
    params: changed.params({}) as Record<string, unknown>,
    of: (id: string) => courses.get(id)!,
    map: made.map!(duty),
    figure: (id: string) => figures.find((f) => f.id === id)!.value,
  };
}

/** What all bodies feel at a step, told by the first at the steps that are pitches away. */
const atOnce = (values: ArrayLike<number>, bodies: number, step: number) =>
  Array.from({ length: bodies }, (_, j) => {
    const k = (step + (j * STEPS) / bodies) % STEPS;
    return { force: values[k]!, crank: (2 * Math.PI * k) / STEPS };
  });

interface Rolling {
  readonly kind: string;
  readonly bodies: number;
  readonly more: Record<string, unknown>;
  /** Lever of the first body about the middle for a crank angle, m; its sign is of no matter. */
  lever(crank: number): number;
  /** Radius on which a wall is pushed, m, where there are walls. */
  readonly walls?: (crank: number) => number;
}

/** Slope of a roller's path in the ring, r = e·cos u + √(c² − e²·sin² u), u the lobes' angle, and its radius. */
const path = (crank: number, lobes: number) => {
  const [e, c] = [0.4e-3, 22e-3];
  const root = Math.sqrt(c * c - (e * Math.sin(crank)) ** 2);
  const r = e * Math.cos(crank) + root;
  return { r, slope: -lobes * e * Math.sin(crank) * (1 + (e * Math.cos(crank)) / root) };
};

const ROLLING: readonly Rolling[] = [
  {
    kind: 'cycloidal',
    bodies: 24,
    more: { pins: 24, discs: 1 },
    // From the pitch point at 24·1.2 mm of the ring's middle, 23·1.2 mm of the disc's.
    lever: (crank) =>
      (23 * 1.2e-3 * 40e-3 * Math.sin(crank)) /
      Math.sqrt(40e-3 ** 2 + 28.8e-3 ** 2 - 2 * 40e-3 * 28.8e-3 * Math.cos(crank)),
  },
  {
    kind: 'roller-wave',
    bodies: 24,
    more: { rollers: 24, rows: 1 },
    // The normal of the path by its slope in the ring of 25 lobes; the cage feels 25/24 of what the ring does.
    lever: (crank) => {
      const { r, slope } = path(crank, 25);
      return ((r * slope) / Math.hypot(r, slope)) * (24 / 25);
    },
    walls: (crank) => path(crank, 25).r,
  },
];

describe('courses', () => {
  for (const { kind, bodies, more, lever, walls } of ROLLING)
    it(`${kind}: pushes of all at once carry the torque, are as many as told, and none is more than the worst`, () => {
      const { duty, of, map } = bench(kind, more);
      const pitch = STEPS / bodies;
      expect(of('one').length).toBe(STEPS + 1);
      for (let step = 0; step < pitch; step++) {
        const all = atOnce(of('one'), bodies, step);
        const moment = all.reduce((s, { force, crank }) => s + force * lever(crank), 0);
        expect(Math.abs(Math.abs(moment) - duty.torque), `moment at ${step}`).toBeLessThan(1e-4 * duty.torque);
        const pushed = all.filter((x) => x.force > 0);
        expect(of('carrying')[step]).toBe(pushed.length);
        expect(of('worst')[step]).toBeCloseTo(Math.max(...all.map((x) => x.force)), 6);
        // All push the same way round.
        for (const x of pushed) expect(Math.sign(lever(x.crank))).toBe(Math.sign(moment));
        // What carries has no gap left; the others' are what the turn has not closed.
        const left = Array.from({ length: bodies }, (_, j) => map.values[j * STEPS + step]!);
        expect(left.filter((g) => g <= map.limit).length).toBe(pushed.length);
      }
      if (walls)
        for (let step = 0; step < pitch; step++) {
          // Walls drive the cage: each push's moment over the radius that its roller stands on.
          const pushes = atOnce(of('one'), bodies, step).map(
            ({ force, crank }) => (force * Math.abs(lever(crank))) / walls(crank),
          );
          expect(Math.abs(of('wall')[step]! / Math.max(...pushes) - 1)).toBeLessThan(1e-3);
        }
      expect(map.ample).toBeCloseTo(Math.max(...map.values), 9);
    });

  for (const more of [{}, { form: 'involute' }, { held: 'spline' }])
    it(`strain wave ${Object.values(more).join('')}: one tooth’s push over a turn is what all together carry the torque with`, () => {
      const { duty, of, params } = bench('strain-wave', more);
      const { module, teeth, held } = params as { module: number; teeth: number; held: string };
      const push = of('push').slice(0, -1);
      // What goes out has 40 teeth, or the ring's 42; sides lean 30°.
      const arm = ((module * (held === 'ring' ? teeth : teeth + 2)) / 2) * Math.cos(Math.PI / 6);
      const mean = push.reduce((s, f) => s + f, 0) / push.length;
      // A tooth that only just dips in pushes nothing: up to two in a hundred are left out.
      expect(Math.abs((mean * teeth * arm) / duty.torque - 1)).toBeLessThan(0.02);
      // The figure looks at teeth where they stand, the course in between as well.
      expect(Math.max(...push) / bench('strain-wave', more).figure('toothForce')).toBeGreaterThan(0.999);
      expect(Math.max(...push) / bench('strain-wave', more).figure('toothForce')).toBeLessThan(1.04);
      // In its space it has room on both sides, out of it as much as it stands off: never a module or more.
      expect(Math.max(...of('clearance'))).toBeLessThanOrEqual(module);
      expect(Math.min(...of('clearance'))).toBeGreaterThan(0);
      // Off centre there is less room than as drawn for the tooth that has least.
      expect(Math.min(...of('off'))).toBeLessThanOrEqual(Math.min(...of('clearance')));
    });
});
