/**
 * Collects the deviations of a figure as its uncertain inputs are set to their ends one after the other, and adds them
 * as root
 * sum of squares, upwards and downwards apart (first-order propagation without a correlation term, JCGM 100:2008 5.1.2,
 * applied to finite differences so that bends in the function are felt).
 */
export class BandSum {
  private down = 0;
  private up = 0;

  constructor(private readonly value: number) {}

  /** One input at its low and at its high end; an end that could not be computed (not finite) widens nothing. */
  add(atLow: number, atHigh: number): void {
    const a = Number.isFinite(atLow) ? atLow - this.value : 0;
    const b = Number.isFinite(atHigh) ? atHigh - this.value : 0;
    const lowest = a < b ? a : b;
    const highest = a < b ? b : a;
    if (lowest < 0) this.down += lowest * lowest;
    if (highest > 0) this.up += highest * highest;
  }

  get low(): number {
    return this.value - Math.sqrt(this.down);
  }

  get high(): number {
    return this.value + Math.sqrt(this.up);
  }
}

/** How far an end may lie from a positive value: a thousandth of it, or a thousand times as much. */
const FURTHEST = Math.log(1e3);

/**
 * The same for a quantity that cannot be negative: deviations are taken of its logarithm, so that its band never reaches
 * nought.
 *
 */
export class PositiveBandSum {
  private down = 0;
  private up = 0;

  /** @param value > 0 */
  constructor(private readonly value: number) {}

  /** One input at its low and at its high end; an end that could not be computed (NaN) widens nothing. */
  add(atLow: number, atHigh: number): void {
    const a = this.way(atLow);
    const b = this.way(atHigh);
    const lowest = a < b ? a : b;
    const highest = a < b ? b : a;
    if (lowest < 0) this.down += lowest * lowest;
    if (highest > 0) this.up += highest * highest;
  }

  private way(end: number): number {
    // Most inputs do not move a figure at all: no logarithm for them.
    if (end === this.value || Number.isNaN(end)) return 0;
    if (!(end > 0)) return -FURTHEST;
    const way = Math.log(end / this.value);
    return way < -FURTHEST ? -FURTHEST : way > FURTHEST ? FURTHEST : way;
  }

  get low(): number {
    return this.value * Math.exp(-Math.sqrt(this.down));
  }

  get high(): number {
    return this.value * Math.exp(Math.sqrt(this.up));
  }
}

/**
 * Band of a figure from its values with each uncertain input at its low and high end.
 *
 * @returns `[low, high]`, never on the wrong side of `value`
 * @example bandFrom(10, [[9, 11.5], [10.2, 9.9]]) // [8.995, 11.513]
 */
export function bandFrom(value: number, ends: readonly (readonly [number, number])[]): [number, number] {
  const sum = new BandSum(value);
  for (const [a, b] of ends) sum.add(a, b);
  return [sum.low, sum.high];
}
