/**
 * Stiffness of a lobe on its pin, N/m: along a line the approach is all but linear, π/4·E*·b, and behind it the pin gives
 * way in its seat.
 * @param modulus reduced modulus E* of lobe and pin, Pa
 * @param width of the lobe, m
 * @param seat stiffness of the seat by its width, N/m²
 * @example pinContact(2e9, 6e-3, 5e9) // 7171717
 */
export const pinContact = (modulus: number, width: number, seat: number): number =>
  1 / (1 / ((Math.PI / 4) * modulus * width) + 1 / (seat * width));

/**
 * Largest pressure of a line contact, Pa: √(F/b·E*·(1/R₁ + 1/R₂)/π).
 * Source: Hertz; Johnson, *Contact Mechanics*, 4.2.
 * @param force N
 * @param width of the line, m
 * @param modulus reduced modulus E*, Pa
 * @param curvature both curvatures together, hollow ones negative, 1/m
 * @example linePressure(100, 6e-3, 2e9, 480) // 71364965
 */
export const linePressure = (force: number, width: number, modulus: number, curvature: number): number =>
  Math.sqrt(Math.max(0, ((force / width) * modulus * curvature) / Math.PI));
