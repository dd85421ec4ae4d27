import { isBall } from '../../shop/bearings.ts';
import type { StageWish } from '../contract.ts';
import { nearRatio } from '../choose-candidate.ts';
import { startsOf } from '../param.ts';
import { rollerWaveParams, type RollerWaveParams } from './params.ts';
import { leastHollow } from './wave.ts';

const BEARINGS = ['688', '61800', '61802', '61804', '61805', '61806', '61808', '61810'];
const ROLLERS = [2, 2.5, 3, 4, 5, 6, 8].map((x) => x * 1e-3);

/** A stage of usual proportions whose rollers run on a circle of a radius, m; undefined where its parts do not fit. */
export function baseWave(
  rollers: number,
  middle: number,
  rows: number,
  want: Pick<StageWish, 'shelf'>,
): RollerWaveParams | undefined {
  const pitch = (2 * Math.PI * middle) / rollers;
  const roller = [...ROLLERS].reverse().find((d) => d <= pitch - 1.5e-3 && d <= 0.62 * pitch);
  if (roller === undefined) return undefined;
  const eccentric = middle - roller / 2;
  const id = [...BEARINGS]
    .reverse()
    .find((x) =>
      want.shelf.bearings.some((b) => b.id === x && isBall(b) && b.outside / 2 <= eccentric - 5e-4 && b.width <= 12e-3),
    );
  const bearing = want.shelf.bearings.find((b) => b.id === id);
  if (!bearing) return undefined;
  // As much as leaves crests that are not pointed, and a cage of some depth.
  let lift = Math.min(0.26 * roller, 0.5 * (bearing.bore / 2 - 3e-3));
  const lobes = rollers + 1;
  for (let i = 0; i < 12; i++) {
    if (leastHollow({ eccentric, roller: roller / 2, throw: lift, rollers, lobes }) > 0.72 * roller) break;
    lift *= 0.85;
  }
  lift = Math.floor(lift * 2e4) / 2e4;
  if (lift < 1.5e-4) return undefined;
  const shaft = bearing.bore / 2 - lift - 1e-3 >= 2.5e-3 ? 5e-3 : 0;
  return {
    ...startsOf(rollerWaveParams),
    rollers,
    roller,
    throw: lift,
    rows,
    bearing: bearing.id,
    sleeve: Number((eccentric - bearing.outside / 2).toFixed(5)),
    width: Math.max(8e-3, Math.ceil(bearing.width * 2e3) / 2e3),
    shaft,
  };
}

/** Stages for a wish, small and single first; the cage drives out. */
export function* rollerWaveCandidates(want: StageWish): Generator<RollerWaveParams> {
  const rollers = Math.round(Math.abs(want.ratio));
  if (rollers < 6 || rollers > 80) return;
  for (const middle of [10, 12.5, 15, 17.5, 20, 24, 28, 33, 40, 48, 60, 80].map((x) => x * 1e-3))
    for (const rows of [1, 2]) {
      const p = baseWave(rollers, middle, rows, want);
      if (!p || 2 * (middle + p.roller / 2 + p.throw + p.rim) > want.size) continue;
      yield p;
      yield { ...p, materialC: 'en-aw-6082', materialR: 'c45' };
    }
}

/** A plain stage as near to a wish as one can be. */
export function nearestWave(want: StageWish): RollerWaveParams {
  const rollers = Math.round(nearRatio(want, 8, 40).ratio);
  return baseWave(rollers, 0.028, 1, want) ?? baseWave(20, 0.024, 1, want)!;
}
