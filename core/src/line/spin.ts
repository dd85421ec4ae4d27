import type { OperatingPoint } from '../brief/pattern.ts';
import { needed, type Link } from './sum.ts';

/**
 * Torque at the motor that speeding up rotor and stages takes for a radian a second squared of the output, N·m·s²/rad:
 * i·(J_rotor + Σ J_j reflected to the motor).
 *
 * @param inertia of rotor and stages, reflected to the output, kg·m²
 * @param ratio total, without its sign
 * @example spinPerAcceleration(0.012, 100) // 1.2e-4
 */
export const spinPerAcceleration = (inertia: number, ratio: number): number => inertia / ratio;

/**
 * Motor torque through a point of the load cycle, N·m: load/(i·η) with drags, and i·α·J of what turns before the output.
 *
 * An RMS point adds them as they go through the cycle: the root of the mean of (T_load + J·α)².
 *
 * @param spin `spinPerAcceleration`
 * Source: Newton on the motor's shaft; the mean of a square opened out.
 */
export function motorAsked(links: readonly Link[], p: OperatingPoint, spin: number): number {
  const load = needed(links, p.torque);
  const own = spin * (p.acceleration ?? 0);
  if (p.time === 'peak') return load + own;
  const along = p.torque > 0 ? (spin * (p.torqueAcceleration ?? 0) * load) / p.torque : 0;
  return Math.sqrt(Math.max(0, load * load + own * own + 2 * along));
}
