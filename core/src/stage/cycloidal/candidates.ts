import { steppedUp } from '../../math/steps.ts';
import { smallestConvex } from '../../lobed/index.ts';
import type { StageWish } from '../contract.ts';
import { nearRatio } from '../choose-candidate.ts';
import { startsOf } from '../param.ts';
import { cycloidalParams, type CycloidalParams } from './params.ts';
import { stepped } from '../../math/steps.ts';

const BEARINGS = ['688', '61800', '61802', '61804', '61805', '61806', '61808', '61810'];

/** A stage of usual proportions on a pin circle; undefined where its parts do not fit one another. */
export function baseCycloidal(
  lobes: number,
  circle: number,
  discs: number,
  want: Pick<StageWish, 'shelf'>,
): CycloidalParams | undefined {
  const pins = lobes + 1;
  const R = circle / 2;
  const throwOf = stepped(Math.min(2.5e-3, (0.62 * R) / pins), 5e-5);
  if (throwOf < 2e-4) return undefined;
  const convex = smallestConvex({ pins, circle: R, pin: 0, throw: throwOf });
  const pin = Math.floor(Math.min(0.62 * circle * Math.sin(Math.PI / pins), 1.2 * convex, 8e-3) * 2e3 + 1e-6) / 2e3;
  if (pin < 1e-3) return undefined;
  const small = R - pin / 2 - throwOf;
  for (const id of [...BEARINGS].reverse()) {
    const b = want.shelf.bearings.find((x) => x.id === id);
    if (!b || b.outside > 1.0 * small) continue;
    const room = small - b.outside / 2 - 3e-3;
    const outPin = Math.min(8e-3, Math.floor((room - 2 * throwOf) * 2e3 + 1e-6) / 2e3);
    if (outPin < 2e-3) continue;
    const outCircle = stepped(b.outside / 2 + small, 1e-4);
    const fit = Math.floor(Math.PI / Math.asin(Math.min(1, (outPin + 2 * throwOf + 1.5e-3) / outCircle)));
    const shaft = b.bore / 2 - throwOf - 1e-3 >= 2.5e-3 ? 5e-3 : 0;
    return {
      ...startsOf(cycloidalParams),
      pins,
      circle,
      pin,
      throw: throwOf,
      discs,
      width: Math.max(steppedUp(b.width, 5e-4), stepped(0.12 * circle, 5e-4)),
      outPins: Math.max(3, Math.min(8, fit)),
      outCircle,
      outPin,
      bearing: b.id,
      shaft,
      rim: Math.max(4e-3, pin / 2 + 2.5e-3),
    };
  }
  return undefined;
}

/** Stages for a wish, small and single first. */
export function* cycloidalCandidates(want: StageWish): Generator<CycloidalParams> {
  const lobes = Math.round(Math.abs(want.ratio));
  if (lobes < 5 || lobes > 99) return;
  for (const circle of [0.03, 0.04, 0.05, 0.06, 0.07, 0.08, 0.1, 0.12, 0.15, 0.2]) {
    for (const discs of [1, 2]) {
      const p = baseCycloidal(lobes, circle, discs, want);
      if (p && p.circle + 2 * p.rim <= want.size) yield p;
    }
  }
}

/** A wish for a ratio that a stage is started with: it can be made beyond them, but nobody would begin there. */
export const startable = (want: StageWish): StageWish => nearRatio(want, 8, 60);

/** A plain stage as near to a wish as one can be, where none that is usual can be made. */
export const nearestCycloidal = (want: StageWish): CycloidalParams =>
  baseCycloidal(Math.round(startable(want).ratio), 0.08, 1, want) ?? baseCycloidal(11, 0.08, 1, want)!;
