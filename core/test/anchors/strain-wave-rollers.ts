import type { Anchored } from './anchor.ts';
import { strainWave } from './strain-wave.ts';

/** The same cup over one small ball bearing a lobe: a ring under two forces that face each other. */
export const strainWaveRollers: Anchored = {
  kind: 'strain-wave',
  further: true,
  params: { ...strainWave.params, shape: 'two', bearing: '683', shaft: 0.004 },
  duty: strainWave.duty,
  worked: {
    strain: [0.00745817, 'P·r/π bends it most, P = w₀/(π/8 − 1/π)·E·I/r³: 4.27897·w₀/r² over half of 0.8 mm', 1e-5],
    preload: [7.0744994, 'the same P: 1.3·4.5 GPa·6·0.8³/12 mm⁴', 1e-5],
    leastPreload: [7.0744994, 'there is no other', 1e-5],
    bore: [0.00934, '12 + 0.67 − 3.5 mm to the middles, 3.5 and 1 mm inside them, twice'],
    presses: [29.7944675, '√(30² + 50²) µm less the 12.3375 of the teeth, on 988 425 N/m, half of it', 1e-5],
    dent: [3.7230575, '(110 − 29.7945) N·2·13.4 mm/tan 30°', 1e-5],
    life: [11219192, '(310/(29.7945 + 51.703·1.3/2.4))³·10⁶ turns at 25.2 rad/s·24/7', 3e-5],
  },
  numbers: {
    inertiaIn: [
      ((4 * Math.PI * (9.17 ** 2 - 2 ** 2) * 1.15e-6 + 0.9e-3) * 9.17e-3 ** 2) / 2,
      'half of two plates of 2 mm, out to the balls’ middles, and two balls’ bearings, there',
    ],
  },
};
