// The spline's wall as a thin ring, and as a cup where it is one: what bending it into a wave takes, strains and costs.

/**
 * Bending stiffness of the wall, N·m²: E·b·t³/12, stiffer by the teeth that stand on it.
 * @param modulus of the spline, Pa
 * @param width of the teeth, m
 * @param wall under the teeth, m
 * @param teeth how much stiffer the teeth make it
 * @example wallBending(5e9, 6e-3, 8e-4, 1.4) // 1.792e-3
 */
export const wallBending = (modulus: number, width: number, wall: number, teeth: number): number =>
  (teeth * modulus * width * wall ** 3) / 12;

/**
 * What a contour presses on the wall over one lobe, N: 2(n² − 1)²/n·E·I·w₀/r³, a thin ring's load q = E·I/r⁴·(n² − 1)²·w
 * summed over half a wave.
 * @param lobes n
 * @param bending E·I, N·m²
 * @param lift throw w₀ at a lobe's top, m
 * @param radius of the neutral line, m
 * @example contourPush(2, 1.792e-3, 6.7e-4, 0.0124) // 5.6675
 */
export const contourPush = (lobes: number, bending: number, lift: number, radius: number): number =>
  (((2 * (lobes * lobes - 1) ** 2) / lobes) * bending * lift) / radius ** 3;

/**
 * What presses over one pitch of the spline's teeth at an angle from a lobe's top, N.
 * @param angle from a lobe's top, rad
 * @param teeth of the spline
 * @example pitchPush(2, 1.792e-3, 6.7e-4, 0.0124, Math.PI / 6, 40) // 0.44512
 */
export const pitchPush = (
  lobes: number,
  bending: number,
  lift: number,
  radius: number,
  angle: number,
  teeth: number,
): number =>
  ((lobes * lobes - 1) ** 2 * bending * lift * Math.cos(lobes * angle) * ((2 * Math.PI) / teeth)) / radius ** 3;

/**
 * Strain of the wall's surface at a lobe's top: half the wall times the change of curvature, (n² − 1)/2·t·w₀/r².
 * @param shape bending of this form over that of a cosine wave
 * @example wallStrain(2, 8e-4, 6.7e-4, 0.0124, 1) // 5.22893e-3
 */
export const wallStrain = (lobes: number, wall: number, lift: number, radius: number, shape: number): number =>
  (((lobes * lobes - 1) / 2) * wall * lift * shape) / (radius * radius);

/**
 * How much of the tooth ring's bending the wall behind it takes on: it falls evenly to the closed end.
 * @param cup length of the spline from its closed end, m
 * @param width of the teeth, m
 * @example behindTeeth(0.015, 0.006) // 1.75
 */
export const behindTeeth = (cup: number, width: number): number => 1 + 0.5 * Math.min(2, (cup - width) / width);

/**
 * Energy of bending in the wave, J: ½·E·I·∫κ²·r·dθ with κ = (n² − 1)·w₀/r²·cos nθ.
 * @param bendSquare mean square of the form's bending over that of a cosine wave
 * @param along how much of the wall bends with the tooth ring
 * @example flexEnergy(2, 1.792e-3, 6.7e-4, 0.0124, 1, 1) // 5.96465e-3
 */
export const flexEnergy = (
  lobes: number,
  bending: number,
  lift: number,
  radius: number,
  bendSquare: number,
  along: number,
): number =>
  0.5 *
  bending *
  (((lobes * lobes - 1) * lift) / (radius * radius)) ** 2 *
  0.5 *
  bendSquare *
  2 *
  Math.PI *
  radius *
  along;

/**
 * Torque at the generator that flexing costs, N·m: every element goes through n waves a turn and loses 2π·tan δ of the
 * energy at its peak, which summed over the ring is twice the energy of the wave.
 * @param loss tan δ of the wall's material
 * @param stored energy of the wave, J
 * @example flexTorque(2, 0.03, 5.96465e-3) // 7.15758e-4
 */
export const flexTorque = (lobes: number, loss: number, stored: number): number => 2 * lobes * loss * stored;

/**
 * A cup twisted along its length, N·m/rad: thin tube, 2π·G·r³·t/L.
 * @param shear modulus G, Pa
 * @param length of the cup, m
 * @example cupTorsion(5e9 / 2.76, 0.0124, 8e-4, 0.015) // 1157.456
 */
export const cupTorsion = (shear: number, radius: number, wall: number, length: number): number =>
  (2 * Math.PI * shear * radius ** 3 * wall) / length;

/**
 * Torque at which a thin tube folds, N·m: 0.747·γ·E·(t/r)^1.25·(r/L)^0.5 over its section 2π·r²·t (NASA SP-8007).
 * @param knockdown γ, what real tubes stand of the ideal one
 * @example cupBuckling(5e9, 0.0124, 8e-4, 0.015, 0.65) // 55.4712
 */
export const cupBuckling = (modulus: number, radius: number, wall: number, length: number, knockdown: number): number =>
  0.747 * knockdown * modulus * (wall / radius) ** 1.25 * (radius / length) ** 0.5 * twistSection(radius, wall);

/**
 * What a tube's wall carries in shear a unit of stress, m³: 2π·r²·t.
 * @example twistSection(0.0124, 8e-4) // 7.72882e-7
 */
export const twistSection = (radius: number, wall: number): number => 2 * Math.PI * radius * radius * wall;

/**
 * How far from the open end teeth of a cup clear the ring between the lobes, m: the wave falls evenly to the closed end.
 * @param room between tips where the wave is drawn in furthest, at the open end, m
 * @param drawnIn how far the wave is drawn in there, m
 * @example clearWidth(0.015, 0.3e-3, 0.65e-3) // 6.92308e-3
 */
export const clearWidth = (cup: number, room: number, drawnIn: number): number =>
  drawnIn > 0 ? cup * Math.min(1, Math.max(0, room) / drawnIn) : 0;
