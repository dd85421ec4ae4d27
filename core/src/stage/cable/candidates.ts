import { steppedUp } from '../../math/steps.ts';
import { CABLES, findCable } from '../../shop/cables.ts';
import type { StageWish } from '../contract.ts';
import { startsOf } from '../param.ts';
import { cableParams, type CableParams } from './params.ts';

const DIAMETERS = [0.6, 0.8, 1, 1.2, 1.5, 2, 2.5, 3, 4].map((x) => x * 1e-3);

/** A drive of usual proportions: the smallest drum that the cable stands, a preload that keeps both runs taut. */
export function baseCable(
  sort: CableParams['sort'],
  cable: number,
  ratio: number,
  torque: number,
  range = Math.PI,
): CableParams {
  const bends = findCable(sort)!.bends;
  const radius1 = steppedUp(Math.max(((bends * 1.05 - 1) * cable) / 2, 5e-3), 5e-4);
  const middle = radius1 + cable / 2;
  const radius2 = Number((middle * ratio - cable / 2).toFixed(5));
  const needs = torque / (radius2 + cable / 2) / 2;
  const bore = [8e-3, 6e-3, 5e-3, 4e-3, 3e-3].find((b) => radius1 - b / 2 > 1.5e-3) ?? 2e-3;
  // Far enough apart that the cable leans by less than a degree and a half.
  const walk = ((range * ratio) / (2 * Math.PI)) * 1.1 * cable;
  const run = Math.max(walk / 2 / Math.tan(0.0255), 6e-3);
  return {
    ...startsOf(cableParams),
    sort,
    cable,
    radius1,
    radius2,
    centre: steppedUp(Math.max(Math.hypot(run, middle + radius2 + cable), middle + radius2 + 2.5 * cable + 1e-3), 1e-3),
    preload: steppedUp(Math.max(5, 1.2 * needs), 5),
    range,
    bore1: bore,
    bore2: Math.min(8e-3, Math.max(1e-3, Math.floor(radius2 * 1e3) * 1e-3)),
  };
}

const rangeOf = (want: StageWish): number => Math.min(60, Math.max(Math.PI, want.duty?.swing ?? 0));

/** Cable drives for a wish, thin first. */
export function* cableCandidates(want: StageWish): Generator<CableParams> {
  const ratio = Math.abs(want.ratio);
  const range = rangeOf(want);
  if (ratio > 12) return;
  for (const cable of DIAMETERS)
    for (const { id } of CABLES) {
      if (id === 'steel-7x7') continue;
      const p = baseCable(id, cable, ratio, want.torque, range);
      if (p.centre + p.radius1 + p.radius2 + 2 * cable > want.size || p.radius2 > 1 || p.centre > 5) continue;
      // What would break is not worth opening.
      if (2.4 * p.preload > findCable(id)!.breaks * cable ** 2) continue;
      yield p;
    }
}

/** A plain drive as near to a wish as one can be. */
export const nearestCable = (want: StageWish): CableParams =>
  baseCable('steel-7x19', 1e-3, Math.min(8, Math.max(1.5, Math.abs(want.ratio))), Math.min(5, want.torque));
