import type { ScrewParams } from './params.ts';

/** Sizes of a thread, m and rad. */
export interface Thread {
  readonly lead: number;
  /** Pitch diameter d₂ and core d₃. */
  readonly pitchDiameter: number;
  readonly core: number;
  /** Height over which nut and screw touch. */
  readonly depth: number;
  /** Lead angle λ on the pitch diameter. */
  readonly angle: number;
}

/** Clearance at the root of a trapezoidal thread by its pitch, m. Source: ISO 2901: 0.15 up to 1.5 mm, 0.25 up to 5, 0.5 above. */
const clearance = (pitch: number): number => (pitch <= 1.5e-3 ? 1.5e-4 : pitch <= 5e-3 ? 2.5e-4 : 5e-4);

/**
 * Sizes of a thread. A trapezoidal one: d₂ = d − P/2, d₃ = d − P − 2a_c (ISO 2901); a ball screw’s circle of balls is its
 * nominal diameter, its core lies two thirds of a pitch below.
 */
export function threadOf(p: Pick<ScrewParams, 'type' | 'diameter' | 'pitch' | 'starts'>): Thread {
  const lead = p.pitch * p.starts;
  const ball = p.type === 'ball';
  const pitchDiameter = ball ? p.diameter : p.diameter - p.pitch / 2;
  return {
    lead,
    pitchDiameter,
    core: ball ? p.diameter - (2 / 3) * p.pitch : p.diameter - p.pitch - 2 * clearance(p.pitch),
    depth: p.pitch / 2,
    angle: Math.atan(lead / (Math.PI * pitchDiameter)),
  };
}

/**
 * Friction angle of a thread whose flanks lean: atan(µ/cos α_n), tan α_n = tan α·cos λ.
 *
 * @param flank half the angle between the flanks, α, rad
 * @example ((180 / Math.PI) * frictionAngleOf(0.15, Math.PI / 12, 0.0906962)).toFixed(4) // '8.8247'
 */
export const frictionAngleOf = (friction: number, flank: number, leadAngle: number): number =>
  Math.atan(friction * Math.sqrt(1 + (Math.tan(flank) * Math.cos(leadAngle)) ** 2));

/** Torques and efficiencies of a screw under a force, N and m. */
export interface ScrewWork {
  /** Torque that raises a newton, and that lowers it (negative: the load drives), N·m/N. */
  readonly raise: number;
  readonly lower: number;
  /** Efficiency forward, and backward: zero or less where it holds. */
  readonly forward: number;
  readonly backward: number;
}

/**
 * What a plain thread takes: raise d₂/2·tan(λ + ρ′) + µ_c·d_c/2, lower d₂/2·tan(ρ′ − λ) + µ_c·d_c/2; what arrives over what
 * goes in, lead/2π.
 *
 * @param collar µ_c·d_c/2, m
 * Source: inclined plane wound round a cylinder.
 * @example screwWork({ pitchDiameter: 0.007, lead: 0.002, angle: 0.0906962 }, 0.1540192, 0).forward.toFixed(5) // '0.36419'
 */
export function screwWork(
  { pitchDiameter, lead, angle }: Pick<Thread, 'pitchDiameter' | 'lead' | 'angle'>,
  friction: number,
  collar: number,
): ScrewWork {
  const raise = (pitchDiameter / 2) * Math.tan(angle + friction) + collar;
  const lower = (pitchDiameter / 2) * Math.tan(friction - angle) + collar;
  const moved = lead / (2 * Math.PI);
  return { raise, lower, forward: moved / raise, backward: -lower / moved };
}

/**
 * What balls in a thread take: raise P_h/(2π·η) + µ_c·d_c/2, lower −P_h·η_b/2π + µ_c·d_c/2; a plain collar rubs as under a
 * plain thread.
 *
 * @param forward efficiency of the thread alone
 * @param alone the same when it is pushed
 * @param collar µ_c·d_c/2, m
 * @example ballWork({ lead: 0.002 }, 0.9, 0.8, 0).backward // 0.8
 */
export function ballWork({ lead }: Pick<Thread, 'lead'>, forward: number, alone: number, collar: number): ScrewWork {
  const moved = lead / (2 * Math.PI);
  const raise = moved / forward + collar;
  const lower = collar - moved * alone;
  return { raise, lower, forward: moved / raise, backward: -lower / moved };
}

/** Factors of buckling and of the first whirl by how the ends are carried. Source: Euler; beam theory, as tables print them. */
export const ENDS = {
  'fixed-free': { buckles: 0.25, whirls: 1.8751 },
  'supported-supported': { buckles: 1, whirls: Math.PI },
  'fixed-supported': { buckles: 2.046, whirls: 3.9266 },
  'fixed-fixed': { buckles: 4, whirls: 4.73 },
} as const satisfies Record<ScrewParams['ends'], object>;

/**
 * Euler’s load of a round bar, N: f·π²·E·I/L².
 * @example eulerLoad(205e9, 0.008, 0.3, 1).toFixed(2) // '4520.03'
 */
export const eulerLoad = (modulus: number, core: number, free: number, factor: number): number =>
  (factor * Math.PI ** 3 * modulus * core ** 4) / (64 * free ** 2);

/**
 * Speed at which a round bar first whirls, rad/s: λ²·√(E·I/(ρ·A·L⁴)).
 * @example ((30 / Math.PI) * whirlSpeed(205e9, 7850, 0.008, 0.3, Math.PI)).toFixed(1) // '10702.9'
 */
export const whirlSpeed = (modulus: number, density: number, core: number, free: number, root: number): number =>
  ((root ** 2 * core) / (4 * free ** 2)) * Math.sqrt(modulus / density);

/**
 * Mean fourth power of a threaded bar's diameter, m⁴, which its inertia goes with: a third of its length each at the crest,
 * at the core, and along the flanks between.
 *
 * Source: ∫d⁴ along a flank, (d⁵ − c⁵)/(5(d − c)); the thirds are those of a trapezoidal thread to a hundredth.
 * @example fourthPower(0.008, 0.0055) // 2.409958e-9
 */
export const fourthPower = (d: number, core: number): number =>
  (d ** 4 + core ** 4 + (d ** 5 - core ** 5) / (5 * (d - core))) / 3;
