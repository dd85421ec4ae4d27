import { roundMoment } from '../../gear/index.ts';

/**
 * Bending stress of a pin that lies in the middles of two plates with its load spread between them, Pa: moment F·L/8 over
 * π·d³/32.
 *
 * @param force N
 * @param span between the plates' far faces, m
 * @param d diameter, m
 * Source: beam on two supports l apart, load spread over w: F·(2l − w)/8, and l is a plate more than w.
 * @example pinBending(100, 0.016, 0.004) // 31830988.6
 */
export const pinBending = (force: number, span: number, d: number): number =>
  (32 * ((force * span) / 8)) / (Math.PI * d ** 3);

/**
 * How stiff two plates are against turning on one another that only the pins join, N·m/rad: n·12·E·I·a²/L³.
 *
 * @param n pins
 * @param d their diameter, m
 * @param centre radius of their circle, m
 * @param apart distance between the plates' middles, m
 * @param modulus of the pins, Pa
 * Source: each pin a beam whose ends stay square, side stiffness 12·E·I/L³ at radius a.
 * @example carrierTwist(3, 0.004, 0.02, 0.012, 210e9) // 21991.1486
 */
export const carrierTwist = (n: number, d: number, centre: number, apart: number, modulus: number): number =>
  (n * 12 * modulus * roundMoment(d) * centre ** 2) / apart ** 3;
