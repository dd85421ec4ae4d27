import type { OutputShaft } from '../schema/joint.ts';
import { equivalentLoad, isNeedle, staticLoad } from '../shop/bearings.ts';

/** ISO 281: life exponent of ball bearings. */
const BALL = 3;
/** Poisson's ratio for the shear modulus G = E/2(1 + ν) of metals; plastics are near enough. */
const POISSON = 0.3;

export interface OutputNumbers {
  /** Torsional stiffness of the shaft, N·m/rad; Infinity for none. */
  readonly stiffness: number;
  /** Equivalent load on the nearer bearing, N; NaN where none is chosen. */
  readonly load: number;
  /** C0/P0; NaN where no bearing is chosen or nothing loads it, 0 where it cannot bear what is asked of it. */
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
 * Forces on two rows of bearings under a side force that overhangs them and a tilting moment, N: the nearer one carries
 * (F·(overhang + span) + M)/span, the other (F·overhang + M)/span the other way.
 *
 * Source: equilibrium of a beam on two supports.
 * @example twoRows(30, 6, 0.02, 0.015) // [470, 440]
 */
export const twoRows = (force: number, moment: number, overhang: number, span: number): [number, number] => [
  (force * (overhang + span) + moment) / span,
  (force * overhang + moment) / span,
];

/**
 * Shaft and bearings between the last stage and the load: k = G·I_p/L; the nearer of two bearings carries the most, and
 * takes the force along the shaft;
 * L10 = (C/P)³·10⁶ turns (ISO 281), static safety C0/P0 (ISO 76). Needles take no force along the shaft.
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
  const [radial] = twoRows(o.load, o.moment ?? 0, o.overhang, o.span);
  const axial = o.axial ?? 0;
  const bears = !!o.bearing && !(axial > 0 && isNeedle(o.bearing));
  const load = o.bearing ? (bears ? equivalentLoad(o.bearing, radial, axial) : radial) : NaN;
  const turns = meanSpeed / (2 * Math.PI);
  return {
    stiffness,
    load,
    safety: o.bearing && load > 0 ? (bears ? o.bearing.static / staticLoad(radial, axial) : 0) : NaN,
    life: o.bearing && load > 0 && turns > 0 ? ((o.bearing.dynamic / load) ** BALL * 1e6) / turns : Infinity,
    mass: mass + 2 * (o.bearing?.mass ?? 0),
    money: mass * o.shaftMaterial.price + 2 * (o.bearing?.price ?? 0),
  };
}
