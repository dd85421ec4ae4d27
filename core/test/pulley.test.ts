import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { area, flatten } from '../src/shape/index.ts';
import { SECTIONS } from '../src/shop/section.ts';
import { outsideRadius, pitchRadius, pulleyOutline } from '../src/stage/belt/pulley.ts';

/** Radii of the corners and of the middles between them, since a flat bottom is deepest in its middle. */
const radii = (points: Float64Array): number[] =>
  Array.from({ length: points.length / 2 }, (_, i) => {
    const [x, y, j] = [points[2 * i]!, points[2 * i + 1]!, (2 * i + 2) % points.length];
    return [Math.hypot(x, y), Math.hypot((x + points[j]!) / 2, (y + points[j + 1]!) / 2)];
  }).flat();

describe.each(SECTIONS.map((s) => [s.id, s] as const))('pulley of section %s', (_id, s) => {
  const z = Math.max(s.minTeeth, 16);
  const made = pulleyOutline(s, z);

  it('is cut between its root and its outside circle, and meets both', () => {
    expect(made.ok).toBe(true);
    if (!made.ok) return;
    const r = radii(flatten(made.value, 1e-7));
    const outer = outsideRadius(s, z);
    expect(Math.max(...r)).toBeLessThan(outer + 1e-9);
    expect(Math.max(...r)).toBeGreaterThan(outer - 1e-8);
    expect(Math.min(...r)).toBeGreaterThan(outer - s.space.depth - 1e-9);
    expect(Math.min(...r)).toBeLessThan(outer - s.space.depth + 2e-8);
  });

  it('has a tooth of material left at every pitch and an area between the two circles', () => {
    if (!made.ok) return;
    const outer = outsideRadius(s, z);
    const a = area(made.value);
    expect(a).toBeLessThan(Math.PI * outer ** 2);
    expect(a).toBeGreaterThan(Math.PI * (outer - s.space.depth) ** 2);
  });

  it('keeps the chord error it states', () => {
    if (!made.ok) return;
    const exact = area(made.value);
    const flat = flatten(made.value, 2e-6);
    let sum = 0;
    let around = 0;
    for (let i = 0; i < flat.length; i += 2) {
      const j = (i + 2) % flat.length;
      sum += (flat[i]! * flat[j + 1]! - flat[j]! * flat[i + 1]!) / 2;
      around += Math.hypot(flat[j]! - flat[i]!, flat[j + 1]! - flat[i + 1]!);
    }
    expect(Math.abs(sum - exact)).toBeLessThan(2e-6 * around);
  });

  it('shrinks everywhere by the allowance', () => {
    const moved = pulleyOutline(s, z, 5e-5);
    expect(made.ok && moved.ok).toBe(true);
    if (!made.ok || !moved.ok) return;
    const around = flatten(made.value, 1e-6);
    let length = 0;
    for (let i = 0; i < around.length; i += 2)
      length += Math.hypot(
        around[(i + 2) % around.length]! - around[i]!,
        around[(i + 3) % around.length]! - around[i + 1]!,
      );
    // Steiner: an inward offset of a closed curve takes about its length times the offset.
    expect((area(made.value) - area(moved.value)) / (length * 5e-5)).toBeCloseTo(1, 1);
  });
});

describe('pulley invariants', () => {
  it('repeats after one tooth', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SECTIONS), fc.integer({ min: 14, max: 90 }), (s, z) => {
        const made = pulleyOutline(s, z);
        if (!made.ok) return;
        const per = made.value.points.length / 3 / z;
        expect(Number.isInteger(per)).toBe(true);
        const turn = (2 * Math.PI) / z;
        for (let i = 0; i < per; i++) {
          const [x, y] = [made.value.points[3 * i]!, made.value.points[3 * i + 1]!];
          const k = 3 * (i + per);
          expect(
            Math.hypot(
              made.value.points[k % made.value.points.length]! - (x * Math.cos(turn) - y * Math.sin(turn)),
              made.value.points[(k + 1) % made.value.points.length]! - (x * Math.sin(turn) + y * Math.cos(turn)),
            ),
          ).toBeLessThan(1e-12 + pitchRadius(s.pitch, z) * 1e-9);
        }
      }),
    );
  });

  it('refuses teeth that cannot be cut, in words', () => {
    const made = pulleyOutline(
      SECTIONS.find((s) => s.id === 'L')!,
      3,
    );
    expect(made.ok).toBe(false);
    if (!made.ok) expect(made.problem.mend).toMatch(/teeth/);
  });
});
