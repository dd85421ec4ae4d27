/** A retaining ring for a shaft, by DIN 471; m. */
export interface RetainingRing {
  readonly shaft: number;
  /** Its thickness, and how wide its lugs and its back are. */
  readonly thick: number;
  readonly lug: number;
  readonly back: number;
  /** Diameter and width of its groove, and least length of shaft beyond that. */
  readonly groove: number;
  readonly wide: number;
  readonly beyond: number;
}

const mm = 1e-3;

const r = (
  shaft: number,
  thick: number,
  lug: number,
  back: number,
  groove: number,
  wide: number,
  beyond: number,
): RetainingRing => ({
  shaft: shaft * mm,
  thick: thick * mm,
  lug: lug * mm,
  back: back * mm,
  groove: groove * mm,
  wide: wide * mm,
  beyond: beyond * mm,
});

/** Rings by the shaft's diameter, mm: d₁, s, a, b, d₂, m, n. Source: DIN 471, normal type. */
export const RETAINING_RINGS: readonly RetainingRing[] = [
  r(3, 0.4, 1.9, 0.8, 2.8, 0.5, 0.3),
  r(4, 0.4, 2.2, 0.9, 3.8, 0.5, 0.3),
  r(5, 0.6, 2.5, 1.1, 4.8, 0.7, 0.3),
  r(6, 0.7, 2.7, 1.3, 5.7, 0.8, 0.5),
  r(7, 0.8, 3.1, 1.4, 6.7, 0.9, 0.5),
  r(8, 0.8, 3.2, 1.5, 7.6, 0.9, 0.6),
  r(9, 1, 3.3, 1.7, 8.6, 1.1, 0.6),
  r(10, 1, 3.3, 1.8, 9.6, 1.1, 0.6),
  r(11, 1, 3.3, 1.8, 10.5, 1.1, 0.8),
  r(12, 1, 3.3, 1.8, 11.5, 1.1, 0.8),
  r(13, 1, 3.4, 2, 12.4, 1.1, 0.9),
  r(14, 1, 3.5, 2.1, 13.4, 1.1, 0.9),
  r(15, 1, 3.6, 2.2, 14.3, 1.1, 1.1),
  r(16, 1, 3.7, 2.2, 15.2, 1.1, 1.2),
  r(17, 1, 3.8, 2.3, 16.2, 1.1, 1.2),
  r(18, 1.2, 3.9, 2.4, 17, 1.3, 1.5),
  r(20, 1.2, 4, 2.6, 19, 1.3, 1.5),
  r(22, 1.2, 4.2, 2.8, 21, 1.3, 1.5),
  r(25, 1.2, 4.4, 3, 23.9, 1.3, 1.7),
  r(28, 1.5, 4.7, 3.2, 26.6, 1.6, 2.1),
  r(30, 1.5, 5, 3.5, 28.6, 1.6, 2.1),
];

/** Shafts nearer to a ring's than this take it, m. */
const FITS = 5e-5;

/**
 * The ring of a shaft's diameter; undefined where there is none.
 *
 * @param shaft m
 * @example ringFor(0.008).thick // 0.0008
 */
export const ringFor = (shaft: number): RetainingRing | undefined =>
  RETAINING_RINGS.find((x) => Math.abs(x.shaft - shaft) < FITS);

/**
 * Force along a shaft at which the side of a ring's groove gives way, N: σ·π(d₁² − d₂²)/4 over 1.2.
 *
 * Source: DIN 471, load of the groove; its tables are for a yield of 200 MPa.
 * @param yields of the shaft, Pa
 * @example grooveCarries(ringFor(0.008), 200e6).toFixed(0) // '817'
 */
export const grooveCarries = ({ shaft, groove }: RetainingRing, yields: number): number =>
  (yields * Math.PI * (shaft * shaft - groove * groove)) / 4 / 1.2;
