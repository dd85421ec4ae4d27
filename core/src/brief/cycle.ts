/** One smooth stretch of a load cycle. */
export interface Stretch {
  readonly duration: number;
  /** Speed and torque stay the same throughout: one look is enough, which long lists of points need. */
  readonly steady?: boolean;
  /** Joint angle (rad), speed (rad/s), torque (N·m) and acceleration (rad/s², none where left out) at a time from its start. */
  at(t: number): { position: number; speed: number; torque: number; acceleration?: number };
}

/** One cycle as it runs, for plots. */
export interface Trace {
  readonly time: Float64Array;
  readonly position: Float64Array;
  readonly speed: Float64Array;
  readonly torque: Float64Array;
}

export interface CycleSums {
  /** √(Σ T²t/Σt), N·m. */
  readonly rms: number;
  /**
   * (Σ|T|^(10/3)·|ω|t / Σ|ω|t)^(3/10): what rolling bearings and strain-wave bearings feel, N·m; 0 where nothing turns.
   */
  readonly equivalent: number;
  /** The same weighed by time alone, N·m. */
  readonly equivalentByTime: number;
  readonly rmsSpeed: number;
  /** √(Σ α²t/Σt), rad/s², and the mean of T·α, N·m·rad/s²: what a rotor's inertia adds to an RMS torque. */
  readonly rmsAcceleration: number;
  readonly torqueAcceleration: number;
  /** Angle turned in a cycle, both ways counted, over its time, rad/s. */
  readonly meanSpeed: number;
  readonly cycle: number;
  /** Share of the cycle in which it moves. */
  readonly duty: number;
  /** Largest |torque| seen, N·m. */
  readonly most: number;
  /** It pulls both ways, the weaker way with more than a quarter of the most. */
  readonly reverses: boolean;
  readonly topSpeed: number;
  readonly trace: Trace;
}

// Gauss–Legendre with five points (Abramowitz & Stegun 25.4.30): exact for constant and ramped torque, and far closer
// than any input for the rest.
const NODES = [-0.906179845938664, -0.5384693101056831, 0, 0.5384693101056831, 0.906179845938664];
const WEIGHTS = [
  0.23692688505618908, 0.47862867049936647, 0.5688888888888889, 0.47862867049936647, 0.23692688505618908,
];
const PANELS = 8;
const SHOWN = 16;
const LIFE_EXPONENT = 10 / 3;
const MOVES = 1e-12;

/** Sums a cycle of stretches: RMS, equivalent torque, mean and RMS speed, duty, and its course over time. */
export function sumCycle(stretches: readonly Stretch[]): CycleSums {
  let [squares, life, turns, lifeTime, speedSquares, cycle, moving, most, topSpeed] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  let [accelerations, crossed] = [0, 0];
  const points: number[] = [];
  let [least, greatest] = [0, 0];
  for (const s of stretches) {
    if (!(s.duration > 0)) continue;
    let turned = 0;
    const add = (t: number, w: number) => {
      const { speed, torque, acceleration = 0 } = s.at(t);
      const power = Math.abs(torque) ** LIFE_EXPONENT;
      squares += torque * torque * w;
      life += power * Math.abs(speed) * w;
      turned += Math.abs(speed) * w;
      lifeTime += power * w;
      speedSquares += speed * speed * w;
      accelerations += acceleration * acceleration * w;
      crossed += torque * acceleration * w;
    };
    const panel = s.duration / PANELS;
    if (s.steady) add(s.duration / 2, s.duration);
    else
      for (let k = 0; k < PANELS; k++)
        for (let n = 0; n < 5; n++) add((k + 0.5 + NODES[n]! / 2) * panel, (WEIGHTS[n]! * panel) / 2);
    turns += turned;
    if (turned > MOVES) moving += s.duration;
    const shown = s.steady ? 1 : SHOWN;
    for (let i = 0; i <= shown; i++) {
      const t = (s.duration * i) / shown;
      const p = s.at(t);
      most = Math.max(most, Math.abs(p.torque));
      least = Math.min(least, p.torque);
      greatest = Math.max(greatest, p.torque);
      topSpeed = Math.max(topSpeed, Math.abs(p.speed));
      points.push(cycle + t, p.position, p.speed, p.torque);
    }
    cycle += s.duration;
  }
  const n = points.length / 4;
  const column = (k: number) => {
    const out = new Float64Array(n);
    for (let i = 0; i < n; i++) out[i] = points[4 * i + k]!;
    return out;
  };
  const over = (sum: number, by: number) => (by > 0 ? sum / by : 0);
  return {
    rms: Math.sqrt(over(squares, cycle)),
    equivalent: over(life, turns) ** (1 / LIFE_EXPONENT),
    equivalentByTime: over(lifeTime, cycle) ** (1 / LIFE_EXPONENT),
    rmsSpeed: Math.sqrt(over(speedSquares, cycle)),
    rmsAcceleration: Math.sqrt(over(accelerations, cycle)),
    torqueAcceleration: over(crossed, cycle),
    meanSpeed: over(turns, cycle),
    cycle,
    duty: over(moving, cycle),
    most,
    reverses: Math.min(-least, greatest) > 0.25 * most,
    topSpeed,
    trace: { time: column(0), position: column(1), speed: column(2), torque: column(3) },
  };
}
