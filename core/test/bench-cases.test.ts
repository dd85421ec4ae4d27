import { describe, expect, it } from 'vitest';
import cases from './cases/bench-arithmetic.json' with { type: 'json' };
import { hungTorque } from '../src/bench/torque-ladder.ts';
import { playFromLever } from '../src/bench/play-lever.ts';
import { parseQuantity } from '../src/units/parse.ts';

const near = (actual: number, expected: number) => expect(Math.abs(actual / expected - 1)).toBeLessThan(1e-6);

describe('worked bench arithmetic', () => {
  for (const c of cases) {
    it(`${c.what} ${c.text ?? c.difference_mm ?? c.mass_kg}`, () => {
      if (c.what === 'play-lever')
        near((playFromLever(c.difference_mm! / 1000, c.lever_mm! / 1000) * 10800) / Math.PI, c.play_arcmin!);
      else if (c.what === 'unit') {
        const parsed = parseQuantity(c.text!, 'torque');
        expect(parsed.ok).toBe(true);
        if (parsed.ok) near(parsed.value.si, c.torque_Nm!);
      } else {
        const rig = {
          lever: c.lever_mm! / 1000,
          leverMass: c.lever_mass_kg!,
          leverCentre: c.lever_centre_mm! / 1000,
          basket: c.basket_kg!,
          angle: (c.lever_angle_deg! * Math.PI) / 180,
        };
        near(hungTorque(rig, c.mass_kg!, 9.80665), c.torque_Nm!);
      }
    });
  }
});
