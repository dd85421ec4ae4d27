import type { StageWish } from '../contract.ts';
import { raceStress } from './model.ts';
import { rollersFor } from './rollers.ts';
import { factor } from '../../shop/shelf.ts';
import { nearRatio } from '../choose-candidate.ts';
import { startsOf } from '../param.ts';
import { strainWaveParams, type StrainWaveParams } from './params.ts';
import { steppedDown } from '../../math/steps.ts';

const THIN = ['61800', '61802', '61804', '61805', '61806', '61808', '61810', '61812'];

/**
 * A stage of usual proportions round a thin bearing of the shelf, or round rollers where that cannot be bent so far;
 * undefined where its teeth would be too small to make, or no roller fits.
 */
export function baseStrainWave(
  teeth: number,
  bearing: string,
  want: Pick<StageWish, 'shelf'>,
): StrainWaveParams | undefined {
  const b = want.shelf.bearings.find((x) => x.id === bearing);
  if (!b) return undefined;
  const inside = b.outside / 2;
  const wall = Math.max(0.8e-3, steppedDown(0.035 * inside, 5e-5));
  const dedendum = 0.55;
  // Roots stand a twentieth of a millimetre over the wall.
  const module = steppedDown((inside + wall + 5e-5) / (teeth / 2 - dedendum), 1e-5) + 1e-5;
  if (module < 0.4e-3 || module > 0.08 * inside * 2) return undefined;
  const width = Math.max(6e-3, b.width);
  const p: StrainWaveParams = {
    ...startsOf(strainWaveParams),
    shape: 'ellipse',
    run: 'bearing',
    teeth,
    module: Number(module.toPrecision(9)),
    dedendum,
    radius: Number((inside + wall / 2).toPrecision(9)),
    wall,
    width,
    cup: Number((Math.ceil(Math.max(0.9 * inside, 2.5 * width) * 1e3) / 1e3).toPrecision(9)),
    bearing,
    ringWall: Math.max(6e-3, steppedDown(0.16 * inside, 5e-4)),
    shaft: b.bore - 4 * module > 1.2e-2 ? 5e-3 : 0,
  };
  // Most waves are too high for a bearing that was not made to be bent: a ring of small ones carries them.
  const bends = raceStress(b, module, p.lobes, want.shelf) <= 0.9 * factor(want.shelf, 'wave.raceStress');
  return bends ? p : rollersFor(p, want.shelf);
}

/** Stages for a wish, small ones first. */
export function* strainWaveCandidates(want: StageWish): Generator<StrainWaveParams> {
  const teeth = 2 * Math.round(Math.abs(want.ratio));
  if (teeth < 24 || teeth > 400) return;
  for (const bearing of THIN) {
    const p = baseStrainWave(teeth, bearing, want);
    if (p && p.module * (teeth + 2) + 2 * p.ringWall + 2e-3 <= want.size) yield p;
  }
}

/** A wish for a ratio that a stage is started with: it can be made beyond them, but nobody would begin there. */
export const startable = (want: StageWish): StageWish => nearRatio(want, 20, 120);

/** A plain stage as near to a wish as one can be, where none that is usual can be made. */
export const nearestStrainWave = (want: StageWish): StrainWaveParams =>
  baseStrainWave(2 * Math.round(startable(want).ratio), '61808', want) ?? baseStrainWave(80, '61808', want)!;
