import { Chance, hanging, stepped } from './chance.ts';

/** A course of warming with a hidden truth. */
export interface WarmingSpecimen {
  readonly time: Float64Array;
  readonly temperature: Float64Array;
  readonly truth: { readonly settles: number };
}

export interface WarmingFamily {
  readonly readings: number;
  /** Slow time constants that are read over. */
  readonly over: number;
  /** A second body inside the first. */
  readonly two?: boolean;
  readonly hangs?: number;
  /** Step of the thermometer, K. */
  readonly step: number;
}

/** Stepped through time body by body: a source warms a motor, the motor a housing, the housing the room. */
export function warmingSpecimen(family: WarmingFamily, seed: number): WarmingSpecimen {
  const c = new Chance(seed * 13 + 1);
  const room = c.between(288, 298);
  const rise = c.between(10, 40);
  const slow = c.over(600, 3000);
  const share = family.two ? c.between(0.25, 0.5) : 0;
  const fast = slow / c.between(6, 12);
  const end = family.over * slow;
  const n = family.readings;
  const noise = family.hangs ? hanging(c, n, family.hangs) : Float64Array.from({ length: n }, () => c.normal());
  const sd = c.between(0.1, 0.3);
  // Housing over the room and motor over the housing, in small steps.
  const housing = rise * (1 - share);
  const motor = rise * share;
  const time: number[] = [];
  const temperature: number[] = [];
  let [h, m, now] = [0, 0, 0];
  const dt = Math.min(fast, slow) / 200;
  for (let i = 0; i < n; i++) {
    const at = (end * i) / (n - 1);
    while (now + dt <= at) {
      h += (dt * (housing - h)) / slow;
      m += share > 0 ? (dt * (motor - m)) / fast : 0;
      now += dt;
    }
    time.push(at);
    temperature.push(stepped(room + h + m + sd * noise[i]!, family.step));
  }
  return {
    time: Float64Array.from(time),
    temperature: Float64Array.from(temperature),
    truth: { settles: room + rise },
  };
}

export const WARMINGS: Readonly<Record<string, WarmingFamily>> = {
  'one body, fourteen readings': { readings: 14, over: 3, step: 0.1 },
  'one body, recorded': { readings: 300, over: 2.5, step: 0.1 },
  'motor in a housing, recorded': { readings: 300, over: 2.5, step: 0.1, two: true },
  'motor in a housing, twenty readings': { readings: 20, over: 3, step: 0.1, two: true },
  'noise that hangs together': { readings: 300, over: 2.5, step: 0.1, hangs: 6 },
};
