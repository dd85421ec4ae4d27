/** Chance for specimens, seeded: apart from the generator of the product, so that neither leans on the other. */
export class Chance {
  private state: number;

  constructor(seed: number) {
    this.state = (Math.imul(seed, 2654435761) ^ 0x9e3779b9) >>> 0;
    for (let i = 0; i < 8; i++) this.even();
  }

  /** Between 0 and 1. Source: xorshift of 32 bits (Marsaglia, 2003). */
  even(): number {
    let x = this.state || 1;
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    this.state = x >>> 0;
    return (this.state + 0.5) / 4294967296;
  }

  between(low: number, high: number): number {
    return low + (high - low) * this.even();
  }

  /** Evenly in its logarithm. */
  over(low: number, high: number): number {
    return low * (high / low) ** this.even();
  }

  /** Normal, mean 0, standard deviation 1. */
  normal(): number {
    return Math.sqrt(-2 * Math.log(this.even())) * Math.cos(2 * Math.PI * this.even());
  }

  pick<T>(list: readonly T[]): T {
    return list[Math.min(list.length - 1, Math.floor(this.even() * list.length))]!;
  }
}

/** Noise that hangs together over `length` samples, standard deviation 1. */
export function hanging(chance: Chance, n: number, length: number): Float64Array {
  const rho = Math.exp(-1 / length);
  const out = new Float64Array(n);
  let x = chance.normal();
  for (let i = 0; i < n; i++) {
    out[i] = x;
    x = rho * x + Math.sqrt(1 - rho * rho) * chance.normal();
  }
  return out;
}

/** To the nearest step. */
export const stepped = (x: number, step: number): number => (step > 0 ? Math.round(x / step) * step : x);
