import { fitColumns } from './regress.ts';
import { student95, student99 } from './student.ts';

/** A chance, and the upper point of the normal distribution that it leaves. */
interface Level {
  readonly chance: number;
  readonly normal: number;
  readonly student: (dof: number) => number;
}

const AT_95: Level = { chance: 0.05, normal: 1.6449, student: student95 };
const AT_99: Level = { chance: 0.01, normal: 2.3263, student: student99 };

function fisher(a: number, b: number, { chance, normal, student }: Level): number {
  if (!(b >= 1)) return Infinity;
  if (a === 1) return student(b) ** 2;
  if (a === 2) return (b / 2) * (chance ** (-2 / b) - 1);
  const [p, q] = [2 / (9 * a), 2 / (9 * b)];
  // ((1 − q)·x − (1 − p))² = z²·(p + q·x²) for x = F^⅓, the upper root.
  const [A, B, C] = [(1 - q) ** 2 - normal * normal * q, -2 * (1 - q) * (1 - p), (1 - p) ** 2 - normal * normal * p];
  if (!(A > 0)) return Infinity;
  return ((-B + Math.sqrt(Math.max(0, B * B - 4 * A * C))) / (2 * A)) ** 3;
}

/**
 * The 95 % point of Fisher's F.
 *
 * @param a degrees of freedom of what is tested
 * @param b degrees of freedom of what is left
 * @returns Infinity where nothing is left
 * Source: Student's t squared for a = 1, b/2·(0.05^(−2/b) − 1) for a = 2, Paulson's cube roots else (Ann. Math. Stat. 13,
 * 1942), within 2 % from b = 4.
 * @example fisher95(2, 10).toFixed(2) // '4.10'
 * @example fisher95(1, 10).toFixed(2) // '4.96'
 */
export const fisher95 = (a: number, b: number): number => fisher(a, b, AT_95);

/**
 * The same for 99 %.
 * @example fisher99(2, 10).toFixed(2) // '7.56'
 * @example fisher99(1, 10).toFixed(2) // '10.04'
 */
export const fisher99 = (a: number, b: number): number => fisher(a, b, AT_99);

/** Columns that stand or fall together: the cosine and the sine of an order, a trend. */
export interface Block {
  readonly id: string;
  readonly columns: readonly Float64Array[];
}

export interface ToldFit {
  /** Blocks that the readings ask for, in the order they were taken. */
  readonly blocks: readonly Block[];
  /** Coefficients: those of the base first, then of each block. */
  readonly values: Float64Array;
  readonly covariance: readonly Float64Array[];
  readonly dof: number;
  readonly residuals: Float64Array;
  /** Where the coefficients of a block begin; −1 for one that was not taken. */
  at(id: string): number;
}

/** Degrees of freedom below which a block must tell more. */
const FEW_LEFT = 6;

/**
 * Least squares with as many blocks of columns as the readings ask for: the one that takes most out comes in first, as
 * long as chance takes as much out in fewer than five cases in a hundred.
 *
 * Where few readings would be left, in fewer than one: what is left scatters by far too little where chance was taken for
 * a cause, and what is told of the rest would be worth less than it says.
 *
 * @param base columns that are always there
 * @param blocks tried in turn
 * @returns undefined where the base is not determined
 * Source: forward selection by the partial F test (Draper and Smith, *Applied Regression Analysis*, 15).
 */
export function fitTelling(
  y: Float64Array,
  base: readonly Float64Array[],
  blocks: readonly Block[],
): ToldFit | undefined {
  const n = y.length;
  const fitOf = (taken: readonly Block[]) => fitColumns([...base, ...taken.flatMap((b) => b.columns)], y);
  let taken: readonly Block[] = [];
  let now = fitOf(taken);
  if (!now) return undefined;
  // What is smaller than the arithmetic's own noise tells nothing.
  const nothing = 1e-20 * y.reduce((s, v) => s + v * v, 0);
  for (;;) {
    let best: { margin: number; block: Block; fit: NonNullable<typeof now> } | undefined;
    for (const block of blocks) {
      if (taken.includes(block)) continue;
      const left = n - now.values.length - block.columns.length;
      const fit = left >= 1 ? fitOf([...taken, block]) : undefined;
      if (!fit || now.rss <= nothing) continue;
      const F = (now.rss - fit.rss) / block.columns.length / (Math.max(fit.rss, nothing) / left);
      const margin = F / (left < FEW_LEFT ? fisher99 : fisher95)(block.columns.length, left);
      if (margin > Math.max(1, best?.margin ?? 0)) best = { margin, block, fit };
    }
    if (!best) break;
    taken = [...taken, best.block];
    now = best.fit;
  }
  const columns = [...base, ...taken.flatMap((b) => b.columns)];
  const { values } = now;
  return {
    blocks: taken,
    values,
    covariance: now.covariance,
    dof: n - values.length,
    residuals: y.map((v, i) => v - columns.reduce((s, c, k) => s + values[k]! * c[i]!, 0)),
    at: (id) => {
      let from = base.length;
      for (const b of taken) {
        if (b.id === id) return from;
        from += b.columns.length;
      }
      return -1;
    },
  };
}

/** The two columns of what goes `order` times round. */
export const roundBlock = (id: string, order: number, angle: Float64Array): Block => ({
  id,
  columns: [angle.map((a) => Math.cos(order * a)), angle.map((a) => Math.sin(order * a))],
});

/** What grows from the first reading to the last, from −½ to ½. */
export const trendBlock = (n: number): Block => ({
  id: 'trend',
  columns: [Float64Array.from({ length: n }, (_, i) => (n > 1 ? i / (n - 1) : 0) - 0.5)],
});
