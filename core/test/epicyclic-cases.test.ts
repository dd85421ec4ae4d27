import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { carrier, central, spacesEvenly, trainRatio, trainShares, trainTorques } from '../src/index.ts';

const read = <T>(name: string): T[] =>
  JSON.parse(readFileSync(new URL(`./cases/${name}.json`, import.meta.url), 'utf8')) as T[];
const minute = Math.PI / 10800;

describe('planetary trains against worked figures', () => {
  it.each(read<Record<string, number> & { equal_spacing_assembles: boolean }>('planetary'))(
    '$z_sun/$z_planet/$z_ring',
    (c) => {
      const sun = central(c['z_sun']!, c['z_planet']!, false, c['mesh_efficiency_sun']!);
      const ring = central(c['z_ring']!, c['z_planet']!, true, c['mesh_efficiency_ring']!);
      const t = { input: sun, output: carrier, held: ring };
      expect(trainRatio(t)).toBeCloseTo(c['ratio_ring_held']!, 9);
      expect(trainTorques(t, 'input').efficiency).toBeCloseTo(c['efficiency_forward']!, 6);
      expect(trainTorques(t, 'output').efficiency).toBeCloseTo(c['efficiency_backward']!, 6);
      expect(spacesEvenly(c['z_sun']!, c['z_ring']!, c['planets']!)).toBe(c.equal_spacing_assembles);
      const s = trainShares(t);
      const j = 0.1;
      expect((s.input * j) / (c['z_sun']! / 2) / minute + (s.held * j) / (c['z_ring']! / 2) / minute).toBeCloseTo(
        c['carrier_play_arcmin_if_each_mesh_has_0p1_mm_at_module_1']!,
        3,
      );
    },
  );
});

describe('shared-planet trains against worked figures', () => {
  it.each(read<Record<string, number> & { holds_itself: boolean }>('compound-planetary'))('ratio $ratio', (c) => {
    const e = c['each_mesh_efficiency']!;
    const t = {
      input: central(c['z_sun']!, c['z_planet_a']!, false, e),
      held: central(c['z_ring_1_held']!, c['z_planet_a']!, true, e),
      output: central(c['z_ring_2_out']!, c['z_planet_b']!, true, e),
    };
    expect(trainRatio(t)).toBeCloseTo(c['ratio']!, 6);
    expect(trainTorques(t, 'input').efficiency).toBeCloseTo(c['efficiency_forward']!, 6);
    const back = trainTorques(t, 'output').efficiency;
    expect(back).toBeCloseTo(c['efficiency_backward']!, 6);
    expect(back <= 0).toBe(c.holds_itself);
  });
});
