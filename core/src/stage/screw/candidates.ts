import { steppedUp } from '../../math/steps.ts';
import { isBall } from '../../shop/bearings.ts';
import type { Shelf } from '../../shop/shelf.ts';
import type { StageWish } from '../contract.ts';
import { startsOf } from '../param.ts';
import { screwParams, type ScrewParams } from './params.ts';

/** Trapezoidal threads that are rolled everywhere: diameter and pitch, mm. Source: ISO 2904. */
const TRAPEZOIDAL = [
  [8, 1.5],
  [8, 2],
  [10, 2],
  [10, 3],
  [12, 3],
  [16, 4],
  [20, 4],
  [24, 5],
] as const;
/** Ball screws with their dynamic and static ratings as catalogues have them, mm and N. */
const BALL = [
  [8, 2, 2000, 2600],
  [12, 4, 4200, 5700],
  [12, 5, 4000, 5400],
  [12, 10, 2800, 4000],
  [16, 5, 9500, 15000],
  [16, 10, 8000, 12500],
  [16, 16, 6000, 9500],
  [20, 5, 11000, 20000],
  [20, 20, 9500, 17000],
  [25, 10, 16000, 30000],
] as const;

/** The smallest bearing of the shelf for an end that stands a thrust. */
function bearingFor(shelf: Shelf, diameter: number, thrust: number): string {
  const some = shelf.bearings
    .filter((b) => isBall(b) && b.bore <= diameter * 1.001 && b.bore >= 0.5 * diameter)
    .sort((a, b) => a.outside - b.outside);
  return (some.find((b) => 0.25 * b.static > 1.2 * thrust) ?? some.at(-1))?.id ?? screwParams.bearing.start;
}

/** A screw of usual proportions for a stroke. */
export function baseScrew(over: Partial<ScrewParams>, stroke: number, shelf: Shelf, thrust = 0): ScrewParams {
  const p: ScrewParams = { ...startsOf(screwParams), ...over };
  const nutLength = steppedUp(1.8 * p.diameter, 1e-3);
  return {
    ...p,
    stroke,
    nutLength,
    nutDiameter: steppedUp(2.2 * p.diameter, 1e-3),
    free: steppedUp(stroke + nutLength, 1e-3),
    bearing: bearingFor(shelf, p.diameter, thrust),
    collarDiameter: steppedUp(1.25 * p.diameter, 5e-4),
  };
}

const strokeOf = (want: StageWish): number => Math.max(0.01, want.duty?.swing ?? screwParams.stroke.start);

/** Leads near the one that is wanted, as a share of it. */
const NEAR = 0.21;

/** Screws for a wish, thin first: single-start and multi-start trapezoidal ones, then ball screws. */
export function* screwCandidates(want: StageWish): Generator<ScrewParams> {
  const lead = (2 * Math.PI) / Math.abs(want.ratio);
  const stroke = strokeOf(want);
  if (stroke > 5) return;
  const near = (x: number) => Math.abs(Math.log(x / lead)) < NEAR;
  for (const [d, pitch] of TRAPEZOIDAL)
    for (const starts of [1, 2, 4, 8]) {
      if (!near(pitch * 1e-3 * starts) || pitch * starts > 2.2 * d) continue;
      const p = baseScrew({ diameter: d * 1e-3, pitch: pitch * 1e-3, starts }, stroke, want.shelf, want.torque);
      if (p.nutDiameter > want.size) continue;
      yield p;
      yield { ...p, material2: 'cuzn39pb3' };
      yield { ...p, nut: 'double', preload: steppedUp(Math.max(5, want.torque / 2.6), 5) };
    }
  for (const [d, pitch, dynamic, rated] of BALL) {
    if (!near(pitch * 1e-3)) continue;
    const p = baseScrew(
      {
        type: 'ball',
        diameter: d * 1e-3,
        pitch: pitch * 1e-3,
        starts: 1,
        dynamic,
        static: rated,
        play: 3e-5,
        material2: 'c45',
      },
      stroke,
      want.shelf,
      want.torque,
    );
    if (p.nutDiameter <= want.size) yield p;
  }
}

/** A plain screw as near to a wish as one can be. */
export function nearestScrew(want: StageWish): ScrewParams {
  const lead = (2 * Math.PI) / Math.abs(want.ratio);
  const starts = Math.min(4, Math.max(1, Math.round(lead / 2e-3)));
  return baseScrew({ starts }, Math.min(1, strokeOf(want)), want.shelf, want.torque);
}
