/**
 * How stiff a thin ring is against N equal forces that push it outwards, N/m at each: E·I over
 * R³/4·[(θ + sin θ·cos θ)/sin²θ − 2/θ] with θ = π/N.
 *
 * @param bending E·I of its section, N·m²
 * @param radius of its middle line, m
 * @param loads N ≥ 2, evenly spaced
 * Source: thin ring under equal radial forces (Timoshenko, Strength of Materials II; Roark, rings).
 * @example ovalStiffness(2.8e9 * 120e-12, 33e-3, 3) // 586607.487
 */
export function ovalStiffness(bending: number, radius: number, loads: number): number {
  const a = Math.PI / loads;
  const sin = Math.sin(a);
  return (4 * bending) / (radius ** 3 * ((a + sin * Math.cos(a)) / (sin * sin) - 2 / a));
}

/**
 * How stiff a plate is against turning between an inner and an outer circle, N·m/rad: 4π·G·t/(1/r² − 1/R²).
 *
 * @param shear modulus G, Pa
 * @param thick of the plate, m
 * Source: shear flow τ = T/(2π·r²·t) in a ring plate.
 * @example plateTwist(1e9, 3e-3, 5e-3, 20e-3) // 1005.30965
 */
export const plateTwist = (shear: number, thick: number, inner: number, outer: number): number =>
  outer <= inner ? Infinity : (4 * Math.PI * shear * thick) / (1 / inner ** 2 - 1 / outer ** 2);

/**
 * Radial stiffness of a toothed ring at each of n equal pushes from inside, N/m: a thin ring where its wall bends.
 * @param modulus of the ring, Pa
 * @param width of the ring, m
 * @param outside its outer radius, m
 * @param root radius of its roots, m
 * @example ringStiffness(5e9, 6e-3, 0.0205, 0.0145, 2) // 1354471
 */
export const ringStiffness = (modulus: number, width: number, outside: number, root: number, loads: number): number =>
  ovalStiffness((modulus * width * (outside - root) ** 3) / 12, (outside + root) / 2, loads);
