import type { OutputShaft } from '../schema/joint.ts';

/** ISO 281: life exponent of ball bearings. */
const BALL = 3;
/** Poisson's ratio for the shear modulus G = E/2(1 + ν) of metals; plastics are near enough. */
const POISSON = 0.3;

export interface OutputNumbers {
  /** Torsional stiffness of the shaft, N·m/rad; Infinity for none. */
  readonly stiffness: number;
  /** Load on the nearer bearing, N; NaN where none is chosen. */
  readonly load: number;
  /** C0/P; NaN where no bearing is chosen or nothing loads it. */
  readonly safety: number;
  /** L10 at the mean speed, s; Infinity where nothing wears. */
  readonly life: number;
  readonly mass: number;
  readonly money: number;
}

const NONE: OutputNumbers = { stiffness: Infinity, load: NaN, safety: NaN, life: Infinity, mass: 0, money: 0 };

/** Polar second moment of a hollow round shaft, π(d⁴ − d_i⁴)/32, m⁴. */
const polar = (d: number, hollow: number): number => (Math.PI * (d ** 4 - hollow ** 4)) / 32;

/**
 * Shaft and bearings between the last stage and the load: k = G·I_p/L; the nearer of two bearings carries F·(span +
 * overhang)/span;
 * L10 = (C/P)³·10⁶ turns (ISO 281), static safety C0/P (ISO 76).
 *
 * @param meanSpeed mean speed of the output over the load cycle, rad/s
 */
export function outputNumbers(o: OutputShaft | undefined, meanSpeed: number): OutputNumbers {
  if (!o) return NONE;
  const hollow = Math.min(o.shaftBore, o.shaftDiameter);
  const g = o.shaftMaterial.modulus / (2 * (1 + POISSON));
  const stiffness = o.shaftLength > 0 ? (g * polar(o.shaftDiameter, hollow)) / o.shaftLength : Infinity;
  const volume = (Math.PI / 4) * (o.shaftDiameter ** 2 - hollow ** 2) * (o.shaftLength + o.span);
  const mass = volume * o.shaftMaterial.density;
  const load = o.bearing ? (o.load * (o.span + o.overhang)) / o.span : NaN;
  const turns = meanSpeed / (2 * Math.PI);
  return {
    stiffness,
    load,
    safety: o.bearing && load > 0 ? o.bearing.static / load : NaN,
    life: o.bearing && load > 0 && turns > 0 ? ((o.bearing.dynamic / load) ** BALL * 1e6) / turns : Infinity,
    mass: mass + 2 * (o.bearing?.mass ?? 0),
    money: mass * o.shaftMaterial.price + 2 * (o.bearing?.price ?? 0),
  };
}
