import type { StageWish } from '../contract.ts';
import { startsOf } from '../param.ts';
import { unitParams, type UnitParams } from './params.ts';

const minute = Math.PI / 10800;
/** Ratios that bought units are commonly made in. */
const RATIOS = [2, 3, 4, 5, 7, 10, 12, 15, 16, 20, 25, 28, 30, 35, 40, 50, 64, 70, 80, 100, 120, 160];
/** Rated torques of a usual row of sizes, N·m. */
const SIZES = [0.5, 1, 2, 4, 8, 15, 30, 60, 120, 250, 500, 1000, 2000, 5000];

/** A made-up unit of a size: figures grow with rated torque as a row of like sizes does. */
function unitOf(ratio: number, rated: number): UnitParams {
  const many = ratio > 12;
  const eta = ratio <= 12 ? 0.94 : ratio <= 60 ? 0.9 : 0.86;
  const outside = 0.034 * rated ** (1 / 3) + 0.01;
  const length = outside * (many ? 1.15 : 0.85);
  return {
    ...startsOf(unitParams),
    designation: `Planetary unit, ${rated} N·m`,
    ratio,
    efficiency: eta,
    backEfficiency: 2 - 1 / eta,
    drag: 0.004 * rated ** 0.7,
    play: (many ? 12 : 8) * minute,
    playMost: (many ? 18 : 12) * minute,
    stiffness: 120 * rated ** 1.05,
    inertia: 1.2e-6 * rated ** 1.2,
    ratedTorque: rated,
    peakTorque: rated * 2,
    outside,
    length,
    mass: 0.11 * rated ** 0.75 + 0.04,
    price: Math.round(24 + 11 * rated ** 0.8),
  };
}

/** Bought units near a wish, small ones first. */
export function* unitCandidates(want: StageWish): Generator<UnitParams> {
  const ratio = Math.max(1, Math.abs(want.ratio));
  const near = [...RATIOS].sort((a, b) => Math.abs(Math.log(a / ratio)) - Math.abs(Math.log(b / ratio))).slice(0, 2);
  for (const rated of SIZES) {
    if (rated * 2 < want.torque) continue;
    for (const r of near) {
      const p = unitOf(r, rated);
      if (p.outside <= want.size) yield p;
    }
  }
}

/** The smallest unit that would carry a wish, the largest made where none does: where none keeps within its size. */
export function nearestUnit(want: StageWish): UnitParams {
  const ratio = Math.max(1, Math.abs(want.ratio));
  const near = RATIOS.reduce((a, b) => (Math.abs(Math.log(b / ratio)) < Math.abs(Math.log(a / ratio)) ? b : a));
  return unitOf(near, SIZES.find((r) => r * 2 >= want.torque * 1.2) ?? SIZES[SIZES.length - 1]!);
}
