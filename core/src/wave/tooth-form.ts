import { inv } from '../gear/involute.ts';

/** Sides of teeth and of the spaces they run in: straight at an angle, involute, or the rounded tooth of a belt. */
export type WaveTooth =
  | { readonly form: 'straight'; readonly angle: number }
  | { readonly form: 'involute'; readonly angle: number; readonly shift: number }
  | {
      readonly form: 'round';
      readonly radius: number;
      readonly height: number;
      readonly spaceRadius: number;
      readonly spaceDepth: number;
      readonly root: number;
    };

/**
 * Half a tooth (or half a space) about its own middle: height along it against half its width, and how the side leans
 * there.
 */
export interface Side {
  /** Heights it runs between, m, along its own axis from its own origin. */
  readonly low: number;
  readonly high: number;
  /** Half the width at a height, m. */
  half(height: number): number;
  /** Cosine of the side's lean against the axis. */
  cosine(height: number): number;
}

export const straightSide = (low: number, high: number, at: number, halfThere: number, angle: number): Side => {
  const [tan, cos] = [Math.tan(angle), Math.cos(angle)];
  return { low, high, half: (y) => halfThere - (y - at) * tan, cosine: () => cos };
};

const TABLE = 96;

/**
 * An involute side about a tooth's axis, heights counted from `origin` off the wheel's middle.
 *
 * @param base base radius, m
 * @param open half the tooth's angle at the base circle, rad
 */
export function involuteSide(low: number, high: number, origin: number, base: number, open: number): Side {
  const [xs, cs] = [new Float64Array(TABLE + 1), new Float64Array(TABLE + 1)];
  for (let i = 0; i <= TABLE; i++) {
    const y = origin + low + ((high - low) * i) / TABLE;
    let rho = Math.max(base, y);
    for (let k = 0; k < 30; k++) {
      const next = Math.max(base, y / Math.cos(open - inv(Math.acos(Math.min(1, base / rho)))));
      if (Math.abs(next - rho) < 1e-14) break;
      rho = next;
    }
    const a = Math.acos(Math.min(1, base / rho));
    const eta = open - inv(a);
    xs[i] = rho * Math.sin(eta);
    // The flank leans by the pressure angle less the angle from the tooth's axis.
    cs[i] = Math.cos(a - eta);
  }
  const pick = (t: Float64Array, y: number) => {
    const u = Math.max(0, Math.min(TABLE, ((y - low) / (high - low)) * TABLE));
    const i = Math.min(TABLE - 1, Math.floor(u));
    return t[i]! + (t[i + 1]! - t[i]!) * (u - i);
  };
  return { low, high, half: (y) => pick(xs, y), cosine: (y) => pick(cs, y) };
}

/** A round-topped side: straight up to the circle's middle, then along the circle to its top. */
export const roundSide = (low: number, middle: number, radius: number): Side => ({
  low,
  high: middle + radius,
  half: (y) => (y <= middle ? radius : Math.sqrt(Math.max(0, radius * radius - (y - middle) ** 2))),
  cosine: (y) => (y <= middle ? 1 : Math.sqrt(Math.max(0, 1 - ((y - middle) / radius) ** 2))),
});
