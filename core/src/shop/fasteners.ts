import type { ScrewId } from '../schema/housing-schema.ts';

/** A metric screw with what goes with it, by ISO coarse threads; m, and m² for its stress area. */
export interface Screw {
  readonly id: ScrewId;
  /** Nominal diameter and pitch. */
  readonly d: number;
  readonly pitch: number;
  /** Stress area. */
  readonly area: number;
  /** Socket head by ISO 4762: diameter, height, size of its key. */
  readonly head: number;
  readonly headHeight: number;
  readonly key: number;
  /** Clearance hole, ISO 273 medium. */
  readonly hole: number;
  /** Nut by ISO 4032: across flats, height. */
  readonly nut: number;
  readonly nutHeight: number;
  /** Washer by ISO 7089: outside, thickness. */
  readonly washer: number;
  readonly washerHeight: number;
  /** Lengths under the head that ISO 4762 lists. */
  readonly lengths: readonly number[];
  /** Price of a screw, of a nut with its washer, and of a metre of threaded rod, starting values. */
  readonly price: number;
  readonly nutPrice: number;
  readonly rodPrice: number;
}

const mm = 1e-3;

function screw(
  id: ScrewId,
  [d, pitch, area]: readonly [number, number, number],
  [head, headHeight, key]: readonly [number, number, number],
  hole: number,
  [nut, nutHeight]: readonly [number, number],
  [washer, washerHeight]: readonly [number, number],
  lengths: readonly number[],
  [price, nutPrice, rodPrice]: readonly [number, number, number],
): Screw {
  return {
    id,
    d: d * mm,
    pitch: pitch * mm,
    area: area * 1e-6,
    head: head * mm,
    headHeight: headHeight * mm,
    key: key * mm,
    hole: hole * mm,
    nut: nut * mm,
    nutHeight: nutHeight * mm,
    washer: washer * mm,
    washerHeight: washerHeight * mm,
    lengths: lengths.map((x) => x * mm),
    price,
    nutPrice,
    rodPrice,
  };
}

const [upTo20, upTo25, upTo30] = [
  [3, 4, 5, 6, 8, 10, 12, 16, 20],
  [4, 5, 6, 8, 10, 12, 16, 20, 25],
  [5, 6, 8, 10, 12, 16, 20, 25, 30],
];

/** Screws by size: ISO 4762 heads, ISO 273 holes, ISO 4032 nuts, ISO 7089 washers, ISO 898-1 stress areas. */
export const SCREWS: Readonly<Record<ScrewId, Screw>> = {
  M2: screw('M2', [2, 0.4, 2.07], [3.8, 2, 1.5], 2.4, [4, 1.6], [5, 0.3], upTo20, [0.06, 0.04, 1.5]),
  'M2.5': screw('M2.5', [2.5, 0.45, 3.39], [4.5, 2.5, 2], 2.9, [5, 2], [6, 0.5], upTo25, [0.06, 0.04, 1.5]),
  M3: screw('M3', [3, 0.5, 5.03], [5.5, 3, 2.5], 3.4, [5.5, 2.4], [7, 0.5], upTo30, [0.06, 0.04, 1.2]),
  M4: screw(
    'M4',
    [4, 0.7, 8.78],
    [7, 4, 3],
    4.5,
    [7, 3.2],
    [9, 0.8],
    [6, 8, 10, 12, 16, 20, 25, 30, 35, 40],
    [0.08, 0.05, 1.4],
  ),
  M5: screw(
    'M5',
    [5, 0.8, 14.2],
    [8.5, 5, 4],
    5.5,
    [8, 4.7],
    [10, 1],
    [8, 10, 12, 16, 20, 25, 30, 35, 40, 45, 50],
    [0.1, 0.06, 1.6],
  ),
  M6: screw(
    'M6',
    [6, 1, 20.1],
    [10, 6, 5],
    6.6,
    [10, 5.2],
    [12, 1.6],
    [10, 12, 16, 20, 25, 30, 35, 40, 45, 50, 55, 60],
    [0.12, 0.07, 1.9],
  ),
  M8: screw(
    'M8',
    [8, 1.25, 36.6],
    [13, 8, 6],
    9,
    [13, 6.8],
    [16, 1.6],
    [12, 16, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 80],
    [0.2, 0.1, 2.5],
  ),
};

const STEEL = 7850;

/**
 * Mass of a screw: its thread by the stress area, its head less the socket, kg.
 * @example screwMass(SCREWS.M3, 0.016) // 0.001101755
 */
export const screwMass = (s: Screw, length: number): number =>
  STEEL * (s.area * length + (Math.PI / 4) * s.head ** 2 * s.headHeight * SOCKET_LEFT);
/** Share of a cylinder head that its socket leaves. */
const SOCKET_LEFT = 0.84;

/**
 * Mass of a nut: its hexagon less the thread's core, kg.
 * @example nutMass(SCREWS.M3) // 0.000387675
 */
export const nutMass = (s: Screw): number =>
  STEEL * s.nutHeight * ((Math.sqrt(3) / 2) * s.nut ** 2 - (Math.PI / 4) * (s.d - 0.65 * s.pitch) ** 2);

/** Mass of a washer, kg. */
export const washerMass = (s: Screw): number =>
  (Math.PI / 4) * (s.washer ** 2 - (1.07 * s.d) ** 2) * s.washerHeight * STEEL;

/**
 * The shortest standard screw that holds a grip in a nut with a thread and a half to spare, m; undefined where the grip
 * is longer than the standard's screws: a threaded rod with a nut at either end does it.
 *
 * @param grip what lies between head and nut, m
 * @example lengthFor(SCREWS.M3, 0.012) // 0.016
 */
export const lengthFor = (s: Screw, grip: number): number | undefined =>
  s.lengths.find((l) => l >= grip + s.nutHeight + 1.5 * s.pitch - 1e-9);

/**
 * The longest standard screw that goes so deep into a tapped hole and no deeper, m; undefined where none bites by 0.8
 * of its diameter.
 *
 * @param grip what lies before the hole, m
 * @param deep depth of the thread in the hole, m
 * @example intoHole(SCREWS.M3, 0.005, 0.0045) // 0.008
 */
export function intoHole(s: Screw, grip: number, deep: number): number | undefined {
  const fits = s.lengths.filter((l) => l <= grip + deep + 1e-9);
  const longest = fits.at(-1);
  return longest !== undefined && longest >= grip + 0.8 * s.d - 1e-9 ? longest : undefined;
}

/**
 * Force a screw is tightened to, N: by its thread (strength class 8.8 to 70 % of its proof stress), or by the pressure
 * that what lies under its washer stands, whichever is less.
 *
 * Source: ISO 898-1, proof stress of class 8.8: 580 MPa.
 * @param stands pressure that the clamped part stands, Pa
 * @example preload(SCREWS.M3, 30e6) // 882.16
 */
export const preload = (s: Screw, stands: number): number =>
  Math.min(0.7 * 580e6 * s.area, stands * (Math.PI / 4) * (s.washer ** 2 - s.hole ** 2));

/**
 * Torque to tighten by, N·m: 0.2·F·d, as threads with a trace of oil have it.
 *
 * Source: VDI 2230 with friction of about 0.15 in thread and under the head.
 * @example tightening(SCREWS.M3, 882) // 0.5292
 */
export const tightening = (s: Screw, force: number): number => 0.2 * force * s.d;
