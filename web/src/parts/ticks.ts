/**
 * Round values between two ends, about so many: steps of 1, 2 or 5 times a power of ten. None where the ends are the
 * same or not numbers.
 */
export function roundTicks(low: number, high: number, about: number): number[] {
  const span = high - low;
  if (!(span > 0) || !Number.isFinite(span)) return [];
  const decade = 10 ** Math.floor(Math.log10(span / about));
  const step = decade * [1, 2, 5, 10].find((m) => (decade * m * about) / span >= 0.75)!;
  const first = Math.ceil(low / step - 1e-9);
  return Array.from({ length: Math.floor(high / step + 1e-9) - first + 1 }, (_, k) =>
    Number(((first + k) * step).toPrecision(12)),
  );
}
