import { Chance, hanging, stepped } from './chance.ts';

const ARCMIN = Math.PI / 10800;
const TURN = 2 * Math.PI;

/** A recording of input and output with a hidden truth. */
export interface TurnSpecimen {
  readonly input: Float64Array;
  readonly output: Float64Array;
  readonly truth: {
    readonly ratio: number;
    readonly play: number;
    /** From end to end over the turns recorded, rad. */
    readonly peakToPeak: number;
    readonly rms: number;
    readonly orders: readonly { readonly order: number; readonly amplitude: number }[];
  };
}

/** What varies between families of recordings. */
export interface TurnFamily {
  readonly turns: number;
  readonly bits: number;
  readonly both: boolean;
  readonly samples?: number;
  /** Amplitude of the output sensor's own error once and twice round, arc minutes. */
  readonly sensor?: number;
  readonly dropped?: number;
  readonly jitter?: boolean;
  /** Noise hangs together over so many samples. */
  readonly hangs?: number;
  /** Samples far off, as a loose cable gives them. */
  readonly glitches?: number;
  /** Play that is not the same all round, as a share of it. */
  readonly uneven?: number;
  /** Teeth at the output, each a little off its place. */
  readonly teeth?: number;
  /** Two orders close together. */
  readonly near?: number;
}

/** Recorded sample by sample as encoders count: wrapped, in steps, noisy. */
export function turnSpecimen(family: TurnFamily, seed: number): TurnSpecimen {
  const c = new Chance(seed * 7 + 3);
  const ratio = c.pick([-1, 1]) * c.pick([9, 16.2, 25, 49 / 3, 63]);
  const orders = [
    { order: 1, amplitude: c.between(0.3, 2) * ARCMIN, phase: c.between(0, TURN) },
    { order: c.pick([2, 3, 4]), amplitude: c.between(0.1, 0.6) * ARCMIN, phase: c.between(0, TURN) },
    { order: Math.abs(ratio), amplitude: c.between(0.1, 0.8) * ARCMIN, phase: c.between(0, TURN) },
  ];
  if (family.near !== undefined)
    orders.push({
      order: Math.abs(ratio) + family.near,
      amplitude: orders[2]!.amplitude * c.between(0.15, 0.4),
      phase: c.between(0, TURN),
    });
  const teeth = Array.from({ length: family.teeth ?? 0 }, () => 0.3 * ARCMIN * c.normal());
  /** From one tooth's place to the next, as each takes over from the one before. */
  const ofTeeth = (theta: number): number => {
    if (teeth.length === 0) return 0;
    const at = (((theta / TURN) % 1) + 1) * teeth.length;
    const [k, share] = [Math.floor(at), at - Math.floor(at)];
    const over = Math.min(1, Math.max(0, (share - 0.3) / 0.4));
    return teeth[k % teeth.length]! * (1 - over) + teeth[(k + 1) % teeth.length]! * over;
  };
  const error = (theta: number): number =>
    orders.reduce((s, o) => s + o.amplitude * Math.sin(o.order * theta + o.phase), ofTeeth(theta));
  const sensorPhase = [c.between(0, TURN), c.between(0, TURN)];
  const sensor = (family.sensor ?? 0) * ARCMIN;
  const bent = (theta: number): number =>
    sensor * (0.8 * Math.sin(theta + sensorPhase[0]!) + 0.2 * Math.sin(2 * theta + sensorPhase[1]!));
  const play = c.between(1, 8) * ARCMIN;
  const playAt = (theta: number): number => play * (1 + (family.uneven ?? 0) * Math.sin(theta + sensorPhase[1]!));
  const n = family.samples ?? 12_000;
  const sd = c.between(0.05, 0.3) * ARCMIN;
  const noise = family.hangs ? hanging(c, n, family.hangs) : Float64Array.from({ length: n }, () => c.normal());
  const begin = c.between(0, TURN);
  const step = TURN / 2 ** family.bits;
  const inStep = TURN / 2 ** Math.max(12, family.bits);
  const input: number[] = [];
  const output: number[] = [];
  const wrap = (x: number): number => x - TURN * Math.floor(x / TURN);
  for (let i = 0; i < n; i++) {
    let share = i / (n - 1);
    if (family.jitter) share = Math.min(1, Math.max(0, share + (c.normal() * 0.3) / n));
    const way = !family.both || share < 0.5 ? 1 : -1;
    const turned = TURN * family.turns * (family.both ? (share < 0.5 ? 2 * share : 2 - 2 * share) : share);
    const theta = begin + turned;
    if (family.dropped && c.even() < family.dropped) continue;
    let out = theta + error(theta) + bent(theta) - (way * playAt(theta)) / 2 + sd * noise[i]!;
    if (family.glitches && c.even() < family.glitches / n) out += c.pick([-1, 1]) * c.between(0.05, 0.4);
    input.push(wrap(stepped(ratio * turned, inStep)));
    output.push(wrap(stepped(out, step)));
  }
  const grid = Array.from({ length: 8192 }, (_, i) => {
    const at = begin + (TURN * Math.max(1, Math.floor(family.turns)) * i) / 8192;
    return error(at) - (Math.sign(ratio) * (playAt(at) - play)) / 2;
  });
  const mean = grid.reduce((s, v) => s + v, 0) / grid.length;
  return {
    input: Float64Array.from(input),
    output: Float64Array.from(output),
    truth: {
      ratio,
      play,
      peakToPeak: Math.max(...grid) - Math.min(...grid),
      rms: Math.sqrt(grid.reduce((s, v) => s + (v - mean) ** 2, 0) / grid.length),
      orders,
    },
  };
}

export const TURNS: Readonly<Record<string, TurnFamily>> = {
  'two turns each way, 14 bits': { turns: 2.1, bits: 14, both: true },
  'two turns each way, 12 bits': { turns: 2.1, bits: 12, both: true },
  'one turn each way, 18 bits': { turns: 1.05, bits: 18, both: true },
  'four turns one way, 14 bits': { turns: 4.2, bits: 14, both: false },
  'a sensor with an error of its own': { turns: 2.1, bits: 16, both: true, sensor: 3 },
  'samples lost, time that jitters': { turns: 2.1, bits: 14, both: true, dropped: 0.02, jitter: true },
  'noise that hangs together': { turns: 2.1, bits: 16, both: true, hangs: 20 },
  glitches: { turns: 2.1, bits: 14, both: true, glitches: 5 },
  'play that is not even': { turns: 2.1, bits: 16, both: true, uneven: 0.4 },
  'tooth to tooth': { turns: 3.1, bits: 17, both: true, teeth: 48, samples: 24_000 },
  'two thirds of a turn': { turns: 0.67, bits: 16, both: true },
  'a third of a turn': { turns: 0.33, bits: 16, both: true },
  'orders two bins apart': { turns: 4.05, bits: 16, both: false, near: 0.5 },
};
