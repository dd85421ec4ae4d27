/**
 * A central member of an epicyclic train. `k` is its speed against the carrier's per unit of the planet's own: −z_p/z
 * for a sun, +z_p/z for a
 * ring, 0 for the carrier itself.
 */
export interface Central {
  readonly k: number;
  /** Efficiency of its mesh with the planets; 1 for the carrier. */
  readonly eta: number;
}

/** A sun's or ring's place in the train. Source: Willis, z·(ω − ω_c) = ∓z_p·(ω_p − ω_c). */
export const central = (teeth: number, planet: number, ring: boolean, eta = 1): Central => ({
  k: ((ring ? 1 : -1) * planet) / teeth,
  eta,
});

export const carrier: Central = { k: 0, eta: 1 };

/** Which members are driven, drive and stand still. */
export interface Train {
  readonly input: Central;
  readonly output: Central;
  readonly held: Central;
}

/** ω_in/ω_out = (k_in − k_held)/(k_out − k_held); infinite where the output stands still. */
export const trainRatio = (t: Train): number => (t.input.k - t.held.k) / (t.output.k - t.held.k);

/** Speeds per turn of the output: the carrier's, and the planet's about its own pin. */
export function trainSpeeds(t: Train): { carrier: number; planet: number } {
  const q = 1 / (t.output.k - t.held.k);
  return { carrier: -t.held.k * q, planet: q };
}

/** Speed of any central member per turn of the output. */
export function memberSpeed(t: Train, m: Central): number {
  const s = trainSpeeds(t);
  return s.carrier + m.k * s.planet;
}

export interface TrainTorques {
  readonly input: number;
  readonly output: number;
  readonly held: number;
  readonly efficiency: number;
}

/**
 * Torques on the members (external, with sign) while power flows, with each mesh passing η of what enters it in the
 * carrier's frame.
 * The signs of the mesh powers P = T·(ω − ω_c) are tried until they agree with the torques that follow from them.
 *
 * @param from the member that drives; its torque has magnitude 1
 * @param rubs friction that planets turn against on their pins, all of them, for a newton metre at the output
 * @returns efficiency: forwards output over input power, backwards the other way; negative where the member that is
 *   driven must be driven too, so the train holds itself
 * Source: balance of a planet in the carrier's frame, Σ P·η^{±1} = friction on its pin, and of the whole train, Σ T = 0.
 */
export function trainTorques(t: Train, from: 'input' | 'output', rubs = 0): TrainTorques {
  const q = 1 / (t.output.k - t.held.k);
  const ratio = trainRatio(t);
  const drive = from === 'input' ? Math.sign(ratio) : 1;
  const members = [t.input, t.output, t.held];
  let best: { torques: number[]; off: number } | undefined;
  for (let signs = 0; signs < 8; signs++) {
    const l = members.map((m, i) => (signs & (1 << i) ? m.eta : 1 / m.eta) * m.k);
    // Friction takes power whichever way the output's flows: it goes with the size of that torque.
    l[1]! += (from === 'input' ? 1 : -1) * Math.sign(q) * rubs;
    const known = from === 'input' ? 0 : 1;
    const [a, b] = from === 'input' ? [1, 2] : [0, 2];
    const det = l[b]! - l[a]!;
    if (det === 0) continue;
    // T_a + T_b = −T_known and l_a·T_a + l_b·T_b = −l_known·T_known.
    const torques = [0, 0, 0];
    torques[known] = drive;
    torques[a] = (-drive * l[b]! + l[known]! * drive) / det;
    torques[b] = (drive * l[a]! - l[known]! * drive) / det;
    let off = 0;
    members.forEach((m, i) => {
      const power = torques[i]! * m.k * q;
      if (m.k !== 0 && power !== 0 && power > 0 !== Boolean(signs & (1 << i))) off += Math.abs(power);
    });
    if (!best || off < best.off) best = { torques, off };
    if (off === 0) break;
  }
  const [input, output, held] = best!.torques as [number, number, number];
  return { input, output, held, efficiency: from === 'input' ? -output / (input * ratio) : (-input * ratio) / output };
}

/**
 * How much of an angle lost at each member's mesh shows at the output with the input and the held member standing
 * still.
 * Play is the sum of their sizes times j/r, compliance the sum of their squares times 1/(k·r²).
 */
export function trainShares(t: Train): { input: number; output: number; held: number } {
  const span = t.input.k - t.held.k;
  return { input: 1 / Math.abs(trainRatio(t)), output: 1, held: Math.abs((t.output.k - t.input.k) / span) };
}

/**
 * Which way planets turn against the carrier where they push what they mesh with (+1), or are pushed by it (−1), times
 * the sense of their own turning.
 */
export function pushSense(t: Train, role: 'input' | 'output' | 'held'): number {
  const q = 1 / (t.output.k - t.held.k);
  const torque = trainTorques(
    { input: { ...t.input, eta: 1 }, output: { ...t.output, eta: 1 }, held: { ...t.held, eta: 1 } },
    'input',
  )[role];
  // Power that a member puts in, in the carrier's frame: where it does, it pushes the planets.
  return Math.sign(q) * (torque * t[role].k * q > 0 ? -1 : 1);
}

/** Whether N planets fit at even spacing: (z_s + z_r) divisible by N. */
export const spacesEvenly = (sun: number, ring: number, planets: number): boolean => (sun + ring) % planets === 0;

/** Planet places nearest to even spacing that do assemble, multiples of 2π/(z_s + z_r), rad. */
export const steppedPlaces = (sun: number, ring: number, planets: number): number[] =>
  Array.from({ length: planets }, (_, i) => (Math.round((i * (sun + ring)) / planets) * 2 * Math.PI) / (sun + ring));

/**
 * Expected range of n draws from a normal distribution over its standard deviation. Source: control-chart constant d2.
 */
export const expectedRange = (n: number): number =>
  [0, 0, 1.128, 1.693, 2.059, 2.326, 2.534, 2.704, 2.847, 2.97, 3.078, 3.173, 3.258][Math.min(12, n)]!;
