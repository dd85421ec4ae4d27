import { OutlinePen, type Outline } from '../../shape/outline.ts';
import type { ChainSize } from '../../shop/chains.ts';
import type { ChainParams } from './params.ts';

/**
 * Pitch radius of a sprocket: half of p/sin(180°/z).
 * @example pitchRadiusOf(0.00635, 11).toFixed(6) // '0.011270'
 */
export const pitchRadiusOf = (pitch: number, teeth: number): number => pitch / (2 * Math.sin(Math.PI / teeth));

/** Tooth gap of a sprocket: lengths in m, angles in rad. */
export interface ToothGap {
  readonly pitchRadius: number;
  /** Radius of the arc in which the roller sits. */
  readonly seat: number;
  /** Angle that it sits through. */
  readonly seatAngle: number;
  /** Radius of the flanks. */
  readonly flank: number;
  readonly tip: number;
  readonly root: number;
}

const between = (form: ChainParams['form'], least: number, most: number): number =>
  form === 'least' ? least : form === 'most' ? most : (least + most) / 2;

/**
 * Tooth gap of a sprocket, between the least and the most that the standard allows.
 *
 * Source: ISO 606, tooth gap forms: seating radius 0.505·d₁ to that and 0.069·∛d₁ more (mm); roller seating angle
 * 140° − 90°/z to 120° − 90°/z; flank radius 0.12·d₁(z + 2) to 0.008·d₁(z² + 180); tip d + 1.25·p − d₁ at most,
 * d + p(1 − 1.6/z) − d₁ at least.
 */
export function toothGap(chain: ChainSize, teeth: number, form: ChainParams['form']): ToothGap {
  const { pitch: p, roller: d1 } = chain;
  const d = 2 * pitchRadiusOf(p, teeth);
  const degree = Math.PI / 180;
  const seat = between(form, 0.505 * d1, 0.505 * d1 + 0.069e-3 * Math.cbrt(d1 * 1e3));
  const seatAngle = degree * (between(form, 140, 120) - 90 / teeth);
  // The least gap has the flattest flanks.
  const flank = between(form, 0.12 * d1 * (teeth + 2), 0.008 * d1 * (teeth ** 2 + 180));
  const tip = (d + between('mean', p * (1 - 1.6 / teeth), 1.25 * p) - d1) / 2;
  return { pitchRadius: d / 2, seat, seatAngle, flank, tip, root: d / 2 - seat };
}

/** Half of a gap in its own frame, from the bottom up: the gap's middle lies on +y. */
interface HalfGap {
  /** Where the seat ends and the flank begins. */
  readonly from: readonly [number, number];
  /** Where the flank ends: on the tip circle, or where it meets the next gap's. */
  readonly to: readonly [number, number];
  readonly flankSweep: number;
}

/** The flank from its seat to the tip circle, or to the middle of the tooth where that comes first. */
function halfGap(g: ToothGap, teeth: number): HalfGap {
  const half = g.seatAngle / 2;
  // Seat and flank touch where the seat ends; the flank's centre lies on the line through there, within the tooth.
  const out: [number, number] = [Math.sin(half), -Math.cos(half)];
  const from: [number, number] = [g.seat * out[0], g.pitchRadius + g.seat * out[1]];
  const cx = (g.seat + g.flank) * out[0];
  const cy = g.pitchRadius + (g.seat + g.flank) * out[1];
  const at = (turn: number): [number, number] => {
    const a = Math.atan2(-out[1], -out[0]) - turn;
    return [cx + g.flank * Math.cos(a), cy + g.flank * Math.sin(a)];
  };
  const end = Math.PI / teeth;
  const beyond = ([x, y]: readonly [number, number]) => Math.hypot(x, y) >= g.tip || Math.atan2(x, y) >= end;
  let [low, high] = [0, Math.PI / 2];
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (beyond(at(middle))) high = middle;
    else low = middle;
  }
  return { from, to: at(high), flankSweep: high };
}

/** Outline of a sprocket with its gap 0 on the positive x axis: arcs exact. */
export function sprocketOutline(g: ToothGap, teeth: number): Outline {
  const half = halfGap(g, teeth);
  const pen = new OutlinePen();
  const step = (2 * Math.PI) / teeth;
  const tipAngle = step / 2 - Math.atan2(half.to[0], half.to[1]);
  const pointed = Math.hypot(half.to[0], half.to[1]) < g.tip - 1e-9;
  const flank = Math.tan(half.flankSweep / 4);
  for (let k = 0; k < teeth; k++) {
    const c = Math.cos(k * step);
    const s = Math.sin(k * step);
    // The frame's y points along the gap's middle; going round counter-clockwise starts on its right.
    const put = ([x, y]: readonly [number, number], bulge: number) => pen.to(y * c + x * s, y * s - x * c, bulge);
    // Down the right flank, through the seat, up the left one; the land to the next gap.
    put(half.to, flank);
    put(half.from, -Math.tan(g.seatAngle / 4));
    put([-half.from[0], half.from[1]], flank);
    // Where two flanks meet in a point, the next gap begins there.
    if (!pointed) put([-half.to[0], half.to[1]], Math.tan(tipAngle / 2));
  }
  return pen.close();
}

/**
 * Stress at the weakest place of a tooth for a force on its flank across a width: the greatest of 6·h/t² over its heights
 * below the point where the roller leaves its seat, with t the tooth left between two seats.
 *
 * @returns 1/m; times force over width it is the stress
 */
export function toothBending(g: ToothGap, teeth: number): number {
  const high = g.seat * (1 - Math.cos(g.seatAngle / 2));
  let worst = 0;
  for (let i = 0; i < 24; i++) {
    const y = (high * i) / 24;
    const space = Math.sqrt(Math.max(0, g.seat ** 2 - (g.seat - y) ** 2));
    const wide = 2 * ((g.root + y) * Math.sin(Math.PI / teeth) - space * Math.cos(Math.PI / teeth));
    if (!(wide > 0)) return Infinity;
    worst = Math.max(worst, (6 * (high - y)) / wide ** 2);
  }
  return worst;
}

/**
 * Share of the chain's pull that the tooth under the first roller takes: 1 − sin φ/sin(φ + 360°/z), φ = 26° − 92°/z.
 *
 * Source: equilibrium of a roller between two links and its tooth; mean pressure angle of usual tooth forms.
 * @example firstToothShare(17).toFixed(4) // '0.4721'
 */
export function firstToothShare(teeth: number): number {
  const phi = (Math.PI / 180) * Math.max(8, 26 - 92 / teeth);
  return 1 - Math.sin(phi) / Math.sin(phi + (2 * Math.PI) / teeth);
}
