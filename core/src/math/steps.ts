/** A number without the last digits that floating point adds. */
const tidy = (x: number): number => Number(x.toPrecision(9));

/**
 * The next multiple of a step at or above a value.
 *
 * @example steppedUp(0.0123, 0.0005) // 0.0125
 */
export const steppedUp = (value: number, step: number): number => tidy(Math.ceil(value / step - 1e-9) * step);

/**
 * The next multiple of a step at or below a value.
 *
 * @example steppedDown(0.0123, 0.0005) // 0.012
 */
export const steppedDown = (value: number, step: number): number => tidy(Math.floor(value / step + 1e-9) * step);

/**
 * The multiple of a step that is nearest to a value.
 *
 * @example stepped(0.0123, 0.0005) // 0.0125
 */
export const stepped = (value: number, step: number): number => tidy(Math.round(value / step) * step);
