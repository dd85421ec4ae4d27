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

/**
 * Bending of a ring's wall under N even pushes from inside, Pa: M = F·R/2·(1/θ − cot θ) with θ = π/N, over b·t²/6.
 *
 * @param radial each push, N
 * @param radius of the wall's middle line, m
 * @param wall its thickness, m
 * @param width of the ring, m
 * @param loads N ≥ 2, evenly spaced
 * Source: thin ring under equal radial forces (Timoshenko, Strength of Materials II).
 * @example ringWall(100, 0.03, 0.004, 0.01, 3) // 21238840.7
 */
export function ringWall(radial: number, radius: number, wall: number, width: number, loads: number): number {
  const theta = Math.PI / loads;
  return wallStress(((radial * radius) / 2) * (1 / theta - 1 / Math.tan(theta)), wall, width);
}

/**
 * Stress of a flat section that is bent, Pa: 6M/(b·t²).
 * @example wallStress(2, 4e-3, 10e-3) // 75e6
 */
export const wallStress = (moment: number, wall: number, width: number): number => (6 * moment) / (width * wall * wall);

/**
 * Largest bending moment of a thin ring pushed at evenly spaced places, N·m, at these and half way between them:
 * M(θ) = R/π·Σ [F_r·K(θ − θᵢ) + F_t·L(θ − θᵢ)], K(x) = ½ + ¼·cos x − ½(π − x)·sin x and L its integral from nought, for x
 * from nought to a whole turn. What the pushes are together is taken as a wave of one round by what holds the ring.
 *
 * @param outward what pushes out at each place, N
 * @param round what pushes on round it, counter-clockwise like the places, N
 * @param radius of its middle line, m
 * Source: waves of two and more of an inextensible ring, M_n = R²·p_n/(n² − 1) (Timoshenko), summed.
 * @example ringBending([100, 0, 100, 0], [0, 0, 0, 0], 0.03) // 0.954930
 */
export function ringBending(outward: ArrayLike<number>, round: ArrayLike<number>, radius: number): number {
  const places = outward.length;
  const halves = 2 * places;
  const [out, on] = [new Float64Array(halves), new Float64Array(halves)];
  for (let i = 0; i < halves; i++) {
    const x = (Math.PI * i) / places;
    const [c, s] = [Math.cos(x), Math.sin(x)];
    out[i] = 0.5 + c / 4 - ((Math.PI - x) * s) / 2;
    on[i] = x / 2 + (3 * s) / 4 + ((Math.PI - x) * c - Math.PI) / 2;
  }
  let most = 0;
  for (let at = 0; at < halves; at++) {
    let sum = 0;
    for (let k = 0; k < places; k++) {
      const i = (at - 2 * k + halves) % halves;
      sum += outward[k]! * out[i]! + round[k]! * on[i]!;
    }
    most = Math.max(most, Math.abs(sum));
  }
  return (most * radius) / Math.PI;
}
