// Equilibrium of the normal force on a flank and of its friction, which runs along the thread.

/**
 * Angle of friction in the normal section, rad: tan ρ′ = µ/cos α_n.
 * @param friction coefficient µ
 * @param pressure normal pressure angle α_n, rad
 * @example frictionAngle(0.08, Math.PI / 9) // 0.0849294
 */
export const frictionAngle = (friction: number, pressure: number): number => Math.atan(friction / Math.cos(pressure));

/**
 * Efficiency with the worm driving: tan γ/tan(γ + ρ′).
 * @param lead angle γ at the reference circle, rad
 * @param rubbing angle of friction ρ′, rad
 * @example driving(0.2, 0.08492936) // 0.69208
 */
export const driving = (lead: number, rubbing: number): number => Math.tan(lead) / Math.tan(lead + rubbing);

/**
 * Efficiency with the wheel driving: tan(γ − ρ′)/tan γ; 0 or less holds itself.
 * @example drivenBack(0.2, 0.08492936) // 0.57018
 */
export const drivenBack = (lead: number, rubbing: number): number => Math.tan(lead - rubbing) / Math.tan(lead);

/**
 * Normal force for a newton along the wheel's circle: F_t2 = F_n(cos α·cos γ − µ·sin γ).
 * @example normalForce(0.2, Math.PI / 9, 0.08) // 1.10489
 */
export const normalForce = (lead: number, pressure: number, friction: number): number =>
  1 / (Math.cos(pressure) * Math.cos(lead) - friction * Math.sin(lead));

/**
 * Speed at which the thread slides along the wheel's teeth, m/s.
 * @param speed of the worm, rad/s
 * @param radius of its reference circle, m
 * @example slidingSpeed(100, 5e-3, 0.2) // 0.51017
 */
export const slidingSpeed = (speed: number, radius: number, lead: number): number => (speed * radius) / Math.cos(lead);

/**
 * Stiffness of a shaft between two bearings against a push in its middle, N/m: 48E·I/L³.
 * @param across its diameter, m
 * @param span between the bearings, m
 * @example shaftBending(206e9, 8e-3, 0.05) // 15904803
 */
export const shaftBending = (modulus: number, across: number, span: number): number =>
  (48 * modulus * (Math.PI * across ** 4)) / 64 / span ** 3;

/** Forces on a worm, N: that push it off its wheel, round about its axis, and along it. */
export interface OnWorm {
  readonly apart: number;
  readonly thrust: number;
  readonly tangent: number;
}

/**
 * Moment that bends a worm's shaft in its middle, N·m. What pushes along it does so at its circle and leans it: half of that
 * moment on either side, on top of the separating force's.
 *
 * @param radius of the worm's circle, m
 * @param span between the bearings, m
 * Source: beam on two supports, F·L/4 and M₀/2 in the plane of the contact, F·L/4 across it.
 * @example shaftMoment({ apart: 36, thrust: 15, tangent: 100 }, 0.02, 0.06) // 1.55635
 */
export const shaftMoment = (f: OnWorm, radius: number, span: number): number =>
  Math.sqrt(((f.apart * span) / 4 + (f.tangent * radius) / 2) ** 2 + ((f.thrust * span) / 4) ** 2);

/**
 * Force across the more loaded of its bearings, N: half of the forces, and the moment of what pushes along over the span.
 * @example shaftEnd({ apart: 36, thrust: 15, tangent: 100 }, 0.02, 0.06) // 51.8783
 */
export const shaftEnd = (f: OnWorm, radius: number, span: number): number =>
  Math.sqrt((f.apart / 2 + (f.tangent * radius) / span) ** 2 + (f.thrust / 2) ** 2);

/**
 * What a spring that presses the worm into its wheel costs, N·m at the worm: friction of the normal force µ·F/sin α over
 * the way of the thread.
 * @param spring its force, N
 * @example springFriction(0.08, 20, Math.PI / 9, 5e-3, 0.2) // 0.0238662
 */
export const springFriction = (
  friction: number,
  spring: number,
  pressure: number,
  radius: number,
  lead: number,
): number => friction * (spring / Math.sin(pressure)) * (radius / Math.cos(lead));
