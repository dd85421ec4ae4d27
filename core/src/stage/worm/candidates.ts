import { MODULES } from '../../gear/toothing.ts';
import type { Bearing } from '../../schema/joint.ts';
import { isBall } from '../../shop/bearings.ts';
import { findBearing, type Shelf } from '../../shop/shelf.ts';
import type { StageWish } from '../contract.ts';
import { steppedUp } from '../../math/steps.ts';
import { spanPastWheel, wormOutside, wormPair } from './geometry.ts';
import { startsOf } from '../param.ts';
import { wormParams, type WormParams } from './params.ts';

const FALLBACK = '625';
/** Room round a wheel, and wall of what holds a bearing beside it, m. */
const [ROOM, HOLDS] = [1e-3, 1e-3];

/** The smallest bearing of the shelf for a shaft that stands a thrust. */
function bearingFor(shelf: Shelf, fits: (b: Bearing) => boolean, thrust: number): string {
  const some = shelf.bearings.filter((b) => fits(b) && isBall(b)).sort((a, b) => a.outside - b.outside);
  return (some.find((b) => 0.25 * b.static > 1.2 * thrust) ?? some[some.length - 1])?.id ?? FALLBACK;
}

/** A worm of usual proportions, long and wide enough for its contact. */
export const baseWorm = (...of: Parameters<typeof proportioned>): WormParams => proportioned(...of).p;

/** The same with what it takes up, m; NaN where it does not mesh. */
function proportioned(
  module: number,
  starts: number,
  z2: number,
  quotient: number,
  shelf: Shelf,
  torque = 0,
): { readonly p: WormParams; readonly outside: number } {
  const root = module * (quotient - 2.5);
  // In one with its shaft, which a coupling drives: no motor's own is so long that it goes through both bearings.
  const shift = z2 < 28 ? 0.3 : 0;
  const p: WormParams = {
    ...startsOf(wormParams),
    starts,
    z2,
    hand: 'right',
    module,
    quotient,
    width: steppedUp(2 * module * Math.sqrt(quotient + 1), 5e-4),
    length: 0.02,
    x2: shift,
    bore1: 0,
    shape1: 'round',
    bearing: bearingFor(shelf, (b) => b.bore <= root, torque / ((module * z2) / 2)),
    span: 0.03,
    bore2: Math.min(8e-3, Math.round(module * z2 * 0.4 * 1e3) * 1e-3),
  };
  const g = wormPair(p);
  const length = steppedUp(
    Math.max(g.ok ? g.value.mesh.wormReach + Math.PI * module : 0, 2.5 * module * Math.sqrt(z2 + 1)),
    1e-3,
  );
  const b = findBearing(shelf, p.bearing);
  // What holds the bearings needs a wall between them and the wheel's room.
  const held = b && { outside: b.outside + 2 * HOLDS, width: b.width };
  const past = g.ok && held ? spanPastWheel(g.value.mesh.s2.ra + ROOM, g.value.centre, held) : 0;
  const span = steppedUp(Math.max(length + (b?.width ?? 5e-3) + 2e-3, past), 1e-3);
  return { p: { ...p, length, span }, outside: g.ok ? wormOutside({ length, span }, g.value) : NaN };
}

/** Worms for a wish, small first. */
export function* wormCandidates(want: StageWish): Generator<WormParams> {
  const ratio = Math.max(1, Math.abs(want.ratio));
  const all: [number, WormParams][] = [];
  for (const module of MODULES.slice(1)) {
    for (const starts of [1, 2, 3, 4, 6]) {
      const z2 = Math.round(ratio * starts);
      if (z2 < 20 || z2 > 120) continue;
      for (const quotient of [10, 12.5, 8, 16]) {
        const { p, outside } = proportioned(module, starts, z2, quotient, want.shelf, want.torque);
        if (outside <= want.size) all.push([outside, p]);
      }
    }
  }
  yield* all.sort((a, b) => a[0] - b[0]).map(([, p]) => p);
}

/** A plain worm as near to a wish as one can be, where none that is usual can be made. */
export const nearestWorm = (want: StageWish): WormParams =>
  baseWorm(1e-3, 1, Math.max(20, Math.min(120, Math.round(Math.abs(want.ratio)))), 10, want.shelf);
