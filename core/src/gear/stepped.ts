/** The next multiple of a step at or above a value, without the last digits that floating point adds. */
export const steppedUp = (value: number, step: number): number =>
  Number((Math.ceil(value / step - 1e-9) * step).toPrecision(9));
