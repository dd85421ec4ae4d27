import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { gear, meshPair, overPins, spanOver, spanTeeth } from '../src/index.ts';

interface PairCase {
  module_mm: number;
  z1: number;
  z2: number;
  x1: number;
  x2: number;
  pressure_angle_deg: number;
  helix_deg: number;
  ring: boolean;
  centre_mm: number;
  working_angle_deg: number;
  contact_ratio: number;
  span_teeth_1: number;
  span_1_mm: number;
  pin_mm?: number;
  over_pins_1_mm?: number;
}
const cases = JSON.parse(readFileSync(new URL('./cases/involute-pairs.json', import.meta.url), 'utf8')) as PairCase[];
const deg = Math.PI / 180;

describe('involute pairs against worked figures', () => {
  it.each(cases)('m $module_mm, $z1/$z2, ring $ring', (c) => {
    const base = { module: c.module_mm * 1e-3, pressure: c.pressure_angle_deg * deg };
    const g1 = gear({ ...base, teeth: c.z1, shift: c.x1, helix: c.helix_deg * deg });
    const g2 = gear({ ...base, teeth: c.z2, shift: c.x2, helix: -c.helix_deg * deg, ring: c.ring });
    const made = meshPair(g1, g2);
    if (!made.ok) throw new Error(made.problem.what);
    const p = made.value;
    expect(p.centre * 1e3).toBeCloseTo(c.centre_mm, 6);
    expect(p.working / deg).toBeCloseTo(c.working_angle_deg, 6);
    expect(p.contact).toBeCloseTo(c.contact_ratio, 6);
    expect(spanTeeth(g1)).toBe(c.span_teeth_1);
    expect(spanOver(g1, c.span_teeth_1) * 1e3).toBeCloseTo(c.span_1_mm, 6);
    if (c.pin_mm) expect(overPins(g1, c.pin_mm * 1e-3) * 1e3).toBeCloseTo(c.over_pins_1_mm!, 6);
  });
});
