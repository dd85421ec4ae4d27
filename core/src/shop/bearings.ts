import type { Bearing } from '../schema/joint.ts';

const b = (
  name: string,
  bore: number,
  outside: number,
  width: number,
  dynamic: number,
  fixed: number,
  mass: number,
  price: number,
): Bearing => ({
  id: name.toLowerCase().replace(' ', ''),
  name,
  bore: bore * 1e-3,
  outside: outside * 1e-3,
  width: width * 1e-3,
  dynamic: dynamic * 1e3,
  static: fixed * 1e3,
  mass: mass * 1e-3,
  price,
  source: 'ISO 15 dimensions; ratings usual for the size, starting values',
});

/**
 * Deep-groove ball bearings, drawn-cup needle bearings by ISO 3245 and crossed rollers, by designation: d, D, B in mm; C and C0 in kN;
 * mass in g.
 */
export const BEARINGS: readonly Bearing[] = [
  b('623', 3, 10, 4, 0.63, 0.22, 1.6, 0.6),
  b('624', 4, 13, 5, 1.3, 0.49, 3.1, 0.6),
  b('625', 5, 16, 5, 1.14, 0.38, 5, 0.6),
  b('626', 6, 19, 6, 2.34, 0.95, 8.4, 0.7),
  b('608', 8, 22, 7, 3.45, 1.37, 12, 0.6),
  b('683', 3, 7, 3, 0.31, 0.11, 0.45, 0.8),
  b('685', 5, 11, 5, 0.64, 0.26, 1.9, 0.8),
  b('688', 8, 16, 5, 1.33, 0.57, 4, 0.9),
  b('61800', 10, 19, 5, 1.38, 0.59, 5.5, 1.6),
  b('61802', 15, 24, 5, 1.56, 0.8, 7.4, 1.9),
  b('61804', 20, 32, 7, 4.03, 2.32, 18, 2.6),
  b('61805', 25, 37, 7, 4.36, 2.6, 22, 2.9),
  b('61806', 30, 42, 7, 4.49, 2.9, 26, 3.2),
  b('61808', 40, 52, 7, 4.94, 3.45, 33, 4.2),
  b('61810', 50, 65, 7, 6.76, 5.1, 52, 5.5),
  b('61812', 60, 78, 10, 11.9, 9.2, 106, 7.5),
  b('61900', 10, 22, 6, 2.7, 1.27, 10, 1.8),
  b('61902', 15, 28, 7, 4.36, 2.24, 16, 2.1),
  b('61904', 20, 37, 9, 6.37, 3.65, 38, 2.9),
  b('61906', 30, 47, 9, 7.28, 4.55, 51, 3.8),
  b('6000', 10, 26, 8, 4.75, 1.96, 19, 1.1),
  b('6001', 12, 28, 8, 5.4, 2.36, 22, 1.2),
  b('6002', 15, 32, 9, 5.85, 2.85, 30, 1.4),
  b('6003', 17, 35, 10, 6.37, 3.25, 39, 1.6),
  b('6004', 20, 42, 12, 9.95, 5, 69, 1.9),
  b('6005', 25, 47, 12, 11.9, 6.55, 80, 2.3),
  b('6006', 30, 55, 13, 13.8, 8.3, 120, 2.9),
  b('6200', 10, 30, 9, 5.4, 2.36, 32, 1.2),
  b('6201', 12, 32, 10, 7.28, 3.1, 37, 1.3),
  b('6202', 15, 35, 11, 8.06, 3.75, 45, 1.5),
  b('6204', 20, 47, 14, 13.5, 6.55, 110, 2.2),
  // Drawn-cup needle bearings: the rollers run on the pin itself.
  b('HK 0306', 3, 6.5, 6, 1.23, 0.84, 1, 1.6),
  b('HK 0408', 4, 8, 8, 1.78, 1.31, 1.6, 1.5),
  b('HK 0509', 5, 9, 9, 2.4, 2, 2, 1.4),
  b('HK 0608', 6, 10, 8, 2.01, 1.73, 2.1, 1.3),
  b('HK 0810', 8, 12, 10, 3.8, 3.95, 3, 1.3),
  b('HK 1010', 10, 14, 10, 4.3, 5.1, 4.1, 1.4),
  b('HK 1212', 12, 18, 12, 6.5, 7.3, 9.2, 1.6),
  // Crossed rollers: one row that carries force and tilting moment alike, for an output.
  b('XR 20', 20, 36, 8, 3.2, 3.1, 40, 34),
  b('XR 30', 30, 55, 10, 7.3, 8.3, 120, 45),
  b('XR 50', 50, 80, 13, 16.5, 20.5, 270, 68),
  b('XR 80', 80, 120, 16, 30, 42, 700, 110),
];

/** Whether a bearing's rollers run on the pin itself. */
export const isNeedle = (bearing: Pick<Bearing, 'id'>): boolean => bearing.id.startsWith('hk');

/** Whether a bearing's rollers stand crosswise, one axis against the next. */
export const isCrossed = (bearing: Pick<Bearing, 'id'>): boolean => bearing.id.startsWith('xr');

/** Whether a bearing is a deep-groove ball bearing. */
export const isBall = (bearing: Pick<Bearing, 'id'>): boolean => !isNeedle(bearing) && !isCrossed(bearing);

/** Life exponent by ISO 281: 3 for balls, 10/3 for rollers. */
export const lifeExponent = (bearing: Pick<Bearing, 'id'>): number => (isBall(bearing) ? 3 : 10 / 3);

/** Diameter on which the balls or rollers run, m. */
export const pitchDiameter = (b: Pick<Bearing, 'bore' | 'outside'>): number => (b.bore + b.outside) / 2;

/**
 * Rated life of a rolling bearing, s: L10 = (C/P)^p·10⁶ turns, p = 3 for balls and 10/3 for needles and rollers (ISO 281).
 * @param load equivalent load P, N
 * @param speed of its rings against one another, rad/s
 * @example ratedLife({ dynamic: 2000, id: '6000' }, 150, 132) // 112829366
 */
export const ratedLife = (b: Pick<Bearing, 'dynamic' | 'id'>, load: number, speed: number): number =>
  ((b.dynamic / load) ** lifeExponent(b) * 1e6 * 2 * Math.PI) / speed;

/**
 * Equivalent dynamic load of a deep-groove ball bearing under radial and axial force, N.
 *
 * Source: ISO 281:2007, table 3, f₀ = 13, read as steps: between two rows the one with the greater relative load counts.
 * @example equivalentLoad({ static: 570 }, 40, 66.6666667) // 109.733333
 */
export function equivalentLoad(b: Pick<Bearing, 'static'>, radial: number, axial: number): number {
  const rows = [
    [0.172, 0.19, 2.3],
    [0.345, 0.22, 1.99],
    [0.689, 0.26, 1.71],
    [1.03, 0.28, 1.55],
    [1.38, 0.3, 1.45],
    [2.07, 0.34, 1.31],
    [3.45, 0.38, 1.15],
    [5.17, 0.42, 1.04],
    [6.89, 0.44, 1],
  ] as const;
  const relative = (13 * axial) / b.static;
  const [, e, y] = rows.find((r) => relative <= r[0]) ?? rows[rows.length - 1]!;
  return axial <= e * radial ? radial : Math.max(radial, 0.56 * radial + y * axial);
}

/**
 * Equivalent static load of a deep-groove ball bearing under radial and axial force, N.
 *
 * Source: ISO 76: 0.6·F_r + 0.5·F_a, no less than F_r.
 * @example staticLoad(100, 200) // 160
 */
export const staticLoad = (radial: number, axial: number): number => Math.max(radial, 0.6 * radial + 0.5 * axial);

/**
 * Equivalent dynamic load of crossed rollers, N: P = X·(F_r + 2M/d_pw) + Y·F_a, X = 1 and Y = 0.45 up to 1.5 times as much
 * along the axis as across it, beyond that 0.67 both.
 *
 * Source: usual for the type; the moment is a pair of forces at the rollers' circle.
 * @example crossedLoad({ bore: 0.05, outside: 0.08 }, 100, 50, 13) // 522.5
 */
export function crossedLoad(
  b: Pick<Bearing, 'bore' | 'outside'>,
  radial: number,
  axial: number,
  moment: number,
): number {
  const across = radial + (2 * moment) / pitchDiameter(b);
  return axial <= 1.5 * across ? across + 0.45 * axial : 0.67 * (across + axial);
}

/**
 * Equivalent static load of crossed rollers, N: F_r + 2M/d_pw + 0.44·F_a.
 * @example crossedStatic({ bore: 0.05, outside: 0.08 }, 100, 50, 13) // 522
 */
export const crossedStatic = (
  b: Pick<Bearing, 'bore' | 'outside'>,
  radial: number,
  axial: number,
  moment: number,
): number => radial + (2 * moment) / pitchDiameter(b) + 0.44 * axial;
