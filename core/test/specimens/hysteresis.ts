import { Chance, hanging, stepped } from './chance.ts';

const ARCMIN = Math.PI / 10800;

/** A loop with a hidden truth. */
export interface LoopSpecimen {
  readonly torque: Float64Array;
  readonly angle: Float64Array;
  readonly truth: {
    readonly play: number;
    readonly slopes: readonly number[];
    /** NaN where it has no one value. */
    readonly friction: number;
  };
}

/** What varies between families of loops. */
export interface LoopFamily {
  readonly slopes: 1 | 2 | 3;
  readonly play: boolean;
  /** Typed: some dozen readings, rounded. Streamed: many, by an encoder. */
  readonly by: 'typed' | 'streamed';
  /** Zero wanders by up to so much over the loop, in standard deviations of the noise. */
  readonly drift?: number;
  readonly uneven?: boolean;
  /** One reading slips by so many standard deviations. */
  readonly slip?: number;
  /** Bits of the encoder of a streamed loop. */
  readonly bits?: number;
  /** Noise hangs together over so many samples. */
  readonly hangs?: number;
  /** Share of its friction at which it comes to rest again once it has slipped; 1 where it slides. */
  readonly sticks?: number;
  /** Ripple on the torque, as a share of the largest: a motor that drives the load and cogs. */
  readonly cogs?: number;
}

/**
 * A loop as a bench gives it: a dead zone, springs that stiffen, Coulomb friction that holds until it is overcome. The
 * angle follows from energy-free kinematics of a sliding block in front of a spring, stepped finely, not from the
 * operator that the analysis fits.
 */
export function loopSpecimen(family: LoopFamily, seed: number): LoopSpecimen {
  const c = new Chance(seed);
  const most = c.over(1, 20);
  const k = c.over(150, 3000) * (most / 5);
  const slopes = [k];
  const bends: number[] = [];
  for (let j = 1; j < family.slopes; j++) {
    slopes.push(slopes[j - 1]! * c.between(1.5, 2.6));
    bends.push(
      most * (family.slopes === 2 ? c.between(0.25, 0.5) : j === 1 ? c.between(0.15, 0.25) : c.between(0.5, 0.6)),
    );
  }
  const windUp = (x: number): number => {
    const a = Math.abs(x);
    let w = 0;
    for (let j = 0; j < slopes.length; j++) {
      const from = j === 0 ? 0 : bends[j - 1]!;
      const to = bends[j] ?? Infinity;
      if (a > from) w += (Math.min(a, to) - from) / slopes[j]!;
    }
    return Math.sign(x) * w;
  };
  const play = family.play ? c.between(1, 8) * ARCMIN : 0;
  const friction = most * c.between(0.02, 0.08);
  const swing = windUp(most) * 2;
  const typed = family.by === 'typed';
  const perBranch = typed ? Math.floor(c.between(9, 18)) : 400;
  const torque: number[] = [0];
  for (const [a, b] of [
    [0, 1],
    [1, 0],
    [0, -1],
    [-1, 0],
  ] as const)
    for (let i = 1; i <= perBranch; i++) {
      let share = i / perBranch;
      if (family.uneven && i < perBranch) share = Math.min(1, Math.max(0.01, share + c.between(-0.4, 0.4) / perBranch));
      torque.push(most * (a + (b - a) * share));
    }
  const n = torque.length;
  const step = typed ? swing / c.between(150, 400) : (2 * Math.PI) / 2 ** (family.bits ?? 17);
  const sd = typed ? swing * c.between(0.002, 0.006) : swing * c.between(0.004, 0.01);
  const noise = family.hangs ? hanging(c, n, family.hangs) : Float64Array.from({ length: n }, () => c.normal());
  const drift = (family.drift ?? 0) * sd * c.between(-1, 1);
  const zero = c.between(-1, 1) * swing;
  // The block slides where what pulls it exceeds its friction; between readings the torque moves in small steps.
  let held = 0;
  let side = 1;
  let last = 0;
  const clean = torque.map((t) => {
    for (let s = 1; s <= 24; s++) {
      const now = last + ((t - last) * s) / 24;
      const rests = friction * (family.sticks ?? 1);
      if (now - held > friction) held = now - rests;
      if (held - now > friction) held = now + rests;
      if (held !== 0) side = Math.sign(held);
    }
    last = t;
    return side * (play / 2) + windUp(held);
  });
  const slipAt = Math.floor(c.between(0.15, 0.9) * n);
  const angle = clean.map((a, i) =>
    stepped(
      zero +
        a +
        sd * noise[i]! +
        (drift * i) / n +
        (family.slip && i === slipAt ? family.slip * sd * c.pick([-1, 1]) : 0),
      step,
    ),
  );
  const pole = swing / c.between(5, 9);
  const ripple = (i: number): number => (family.cogs ?? 0) * most * Math.sin((2 * Math.PI * clean[i]!) / pole);
  return {
    torque: Float64Array.from(torque, (t, i) =>
      typed ? stepped(t, most / 1000) : t * (1 + 0.0005 * c.normal()) + ripple(i),
    ),
    angle: Float64Array.from(angle),
    truth: { play, slopes, friction: family.sticks === undefined ? friction : NaN },
  };
}

export const LOOPS: Readonly<Record<string, LoopFamily>> = {
  'one slope, typed': { slopes: 1, play: true, by: 'typed' },
  'one slope without play, typed': { slopes: 1, play: false, by: 'typed' },
  'two slopes, typed': { slopes: 2, play: true, by: 'typed' },
  'one slope, streamed': { slopes: 1, play: true, by: 'streamed' },
  'two slopes, streamed': { slopes: 2, play: true, by: 'streamed' },
  'three slopes, streamed': { slopes: 3, play: true, by: 'streamed' },
  'no play, streamed': { slopes: 1, play: false, by: 'streamed' },
  'encoder of 14 bits': { slopes: 1, play: true, by: 'streamed', bits: 14 },
  'zero that drifts': { slopes: 1, play: true, by: 'typed', drift: 6 },
  'readings not evenly apart': { slopes: 1, play: true, by: 'typed', uneven: true },
  'one reading that slipped': { slopes: 1, play: true, by: 'typed', slip: 15 },
  'stick and slip': { slopes: 1, play: true, by: 'streamed', sticks: 0.6 },
  'a motor that cogs': { slopes: 1, play: true, by: 'streamed', cogs: 0.01 },
  'noise that hangs together': { slopes: 1, play: true, by: 'streamed', hangs: 8 },
};
