import { describe, expect, it } from 'vitest';
import cases from './cases/belts.json' with { type: 'json' };
import { loopPath, openCentre, openLength, spanStiffness } from '../src/loop/index.ts';
import { pitchRadius } from '../src/stage/belt/pulley.ts';

// The stiffnesses are worked to three decimals: half of the last one is their own error.
const close = (actual: number, expected: number, relative = 1e-6) =>
  expect(Math.abs(actual / expected - 1)).toBeLessThan(relative);

describe('worked belt cases', () => {
  for (const c of cases) {
    const p = c.pitch_mm / 1000;
    const r1 = pitchRadius(p, c.z1);
    const r2 = pitchRadius(p, c.z2);
    const centre = openCentre(c.belt_teeth * p, 2 * r1, 2 * r2)!;
    const path = loopPath([
      { x: 0, y: 0, r: r1, sense: 1 },
      { x: centre, y: 0, r: r2, sense: 1 },
    ])!;

    it(`${c.pitch_mm} mm, ${c.z1}:${c.z2}, ${c.belt_teeth} teeth`, () => {
      close(centre * 1000, c.centre_mm);
      close((path.wraps[0]! * 180) / Math.PI, c.wrap_small_deg);
      close((c.z1 * path.wraps[0]!) / (2 * Math.PI), c.teeth_in_mesh);
      close(path.runs[0]!.length * 1000, c.free_span_mm);
      close(
        spanStiffness(r2, 12000, path.runs[0]!.length, path.runs[1]!.length),
        c.stiffness_Nm_per_rad_if_EA_is_12000_N,
        0.5e-3 / c.stiffness_Nm_per_rad_if_EA_is_12000_N,
      );
    });

    it(`closes to a nanometre: ${c.z1}:${c.z2}`, () => {
      expect(Math.abs(openLength(centre, 2 * r1, 2 * r2) - c.belt_teeth * p)).toBeLessThan(1e-9);
      expect(Math.abs(path.length - c.belt_teeth * p)).toBeLessThan(1e-9);
    });
  }
});
