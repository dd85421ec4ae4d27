import { arrivingShare } from '../stage/arriving.ts';

/** What one stage brings to a sum: the part of `StageNumbers` that needs no duty. */
export interface Link {
  readonly ratio: number;
  readonly etaForward: number;
  readonly branched?: number;
  readonly etaBackward: number;
  readonly drag: number;
  readonly stiffness: number;
}

/** What follows each stage: D_j = Π of the ratios after it, signed. */
export function ratiosAfter(links: readonly { readonly ratio: number }[]): Float64Array {
  const out = new Float64Array(links.length);
  let after = 1;
  for (let j = links.length - 1; j >= 0; j--) {
    out[j] = after;
    after *= links[j]!.ratio;
  }
  return out;
}

export const totalRatio = (links: readonly { readonly ratio: number }[]): number =>
  links.reduce((product, s) => product * s.ratio, 1);

/** Torque at the output from a torque at the motor: T_j = (T_{j−1} − d_j)·|i_j|·η_j, never below zero, N·m. */
export function forward(links: readonly Link[], motorTorque: number, from = 0): number {
  let t = motorTorque;
  for (let j = from; j < links.length; j++) {
    const s = links[j]!;
    t = Math.max(0, t - s.drag) * Math.abs(s.ratio) * arrivingShare(s);
  }
  return t;
}

/** Motor torque that gives a torque at the output: the forward recursion undone, N·m. */
export function needed(links: readonly Link[], outputTorque: number, from = 0): number {
  let t = outputTorque;
  for (let j = links.length - 1; j >= from; j--) {
    const s = links[j]!;
    t = t / (Math.abs(s.ratio) * arrivingShare(s)) + s.drag;
  }
  return t;
}

/**
 * Torque at the output that turns the line back: T_j = (T_{j−1} + d_j)·|i_j|/η_b,j from the unpowered motor's torque.
 * `holder` is the first stage that cannot be driven back.
 */
export function turnBack(links: readonly Link[], idleTorque: number): { torque: number; holder: number } {
  let t = idleTorque;
  for (let j = 0; j < links.length; j++) {
    const s = links[j]!;
    if (s.etaBackward <= 0) return { torque: Infinity, holder: j };
    t = ((t + s.drag) * Math.abs(s.ratio)) / s.etaBackward;
  }
  return { torque: t, holder: -1 };
}

/**
 * Torque at the motor that a load drives it with: T_{j−1} = T_j·η_b,j/|i_j| − d_j from the output back, N·m; 0 where a stage
 * holds or drag takes it all. What `turnBack` undoes.
 */
export function backward(links: readonly Link[], outputTorque: number): number {
  let t = outputTorque;
  for (let j = links.length - 1; j >= 0; j--) {
    const s = links[j]!;
    t = Math.max(0, (t * Math.max(0, s.etaBackward)) / Math.abs(s.ratio) - s.drag);
  }
  return t;
}

/** Stiffness at the output: 1/k = Σ 1/(k_j·D_j²), N·m/rad; Infinity for no stages. */
export function stiffnessAtOutput(links: readonly { readonly ratio: number; readonly stiffness: number }[]): number {
  const after = ratiosAfter(links);
  let compliance = 0;
  for (let j = 0; j < links.length; j++) compliance += 1 / (links[j]!.stiffness * after[j]! ** 2);
  return compliance > 0 ? 1 / compliance : Infinity;
}

/** Play at the output in the worst case: Σ b_j/|D_j|, rad. */
export function playAtOutput(links: readonly { readonly ratio: number }[], play: readonly number[]): number {
  const after = ratiosAfter(links);
  return play.reduce((sum, b, j) => sum + b / Math.abs(after[j]!), 0);
}
