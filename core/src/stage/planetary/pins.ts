/** Planet pins are of ground rod, whatever the carrier's plates are of: yield and modulus, Pa, density, kg/m³. */
export const PIN = { yield: 450e6, modulus: 210e9, density: 7850 } as const;

/** Second moment of a round pin, π·d⁴/64, m⁴. */
const secondMoment = (d: number): number => (Math.PI * d ** 4) / 64;

/**
 * Bending stress of a pin held at both ends with its load along its length, Pa: moment F·L/8 over π·d³/32.
 *
 * @param force N
 * @param span between the plates' far faces, m
 * @param d diameter, m
 * Source: fixed beam, uniform load.
 * @example pinBending(100, 0.016, 0.004) // 31830988.6
 */
export const pinBending = (force: number, span: number, d: number): number =>
  (32 * ((force * span) / 8)) / (Math.PI * d ** 3);

/**
 * Stiffness of a pin held at both ends at its middle under a load along its length, N/m: 384·E·I/L³.
 *
 * Source: fixed beam, uniform load: deflection F·L³/(384·E·I).
 * @example pinStiffness(0.016, 0.004) // 247400421
 */
export const pinStiffness = (span: number, d: number): number => (384 * PIN.modulus * secondMoment(d)) / span ** 3;

/**
 * How stiff two plates are against turning on one another that only the pins join, N·m/rad: n·12·E·I·a²/L³.
 *
 * @param n pins
 * @param d their diameter, m
 * @param centre radius of their circle, m
 * @param apart distance between the plates' middles, m
 * Source: each pin a beam whose ends stay square, side stiffness 12·E·I/L³ at radius a.
 * @example carrierTwist(3, 0.004, 0.02, 0.012) // 21991.1486
 */
export const carrierTwist = (n: number, d: number, centre: number, apart: number): number =>
  (n * 12 * PIN.modulus * secondMoment(d) * centre ** 2) / apart ** 3;
