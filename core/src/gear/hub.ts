import { circle, OutlinePen, type Outline } from '../shape/outline.ts';

/** What is cut into the middle of a wheel; metres. */
export interface Hub {
  readonly bore: number;
  readonly shape: 'round' | 'flat' | 'keyway';
  readonly bolts: number;
  /** Diameter of the bolt circle and of its holes. */
  readonly boltCircle: number;
  readonly boltHole: number;
  readonly nuts: boolean;
}

export const PLAIN_HUB: Hub = { bore: 0, shape: 'round', bolts: 0, boltCircle: 0, boltHole: 3.2e-3, nuts: false };

/**
 * Parallel keys by shaft diameter up to: width and height, depth in the shaft and in the hub, mm. Source: ISO/R 773 (DIN
 * 6885-1), which start at 6 mm; below it a key of 1 × 1.
 */
const KEYS: readonly (readonly [number, number, number, number, number])[] = [
  [6, 1, 1, 0.6, 0.5],
  [8, 2, 2, 1.2, 1],
  [10, 3, 3, 1.8, 1.4],
  [12, 4, 4, 2.5, 1.8],
  [17, 5, 5, 3, 2.3],
  [22, 6, 6, 3.5, 2.8],
  [30, 8, 7, 4, 3.3],
  [38, 10, 8, 5, 3.3],
  [44, 12, 8, 5, 3.3],
  [50, 14, 9, 5.5, 3.8],
  [1e9, 16, 10, 6, 4.3],
];

/** A key’s size, and how deep it lies in hub and shaft, m. */
export interface Key {
  readonly width: number;
  readonly height: number;
  /** Of its slot in the hub. */
  readonly depth: number;
  /** Of its slot in the shaft. */
  readonly sunk: number;
}

/**
 * The key for a bore, m.
 * @example keyFor(0.01) // { width: 0.003, height: 0.003, sunk: 0.0018, depth: 0.0014 }
 */
export function keyFor(bore: number): Key {
  const [, width, height, sunk, depth] = KEYS.find(([to]) => bore * 1e3 <= to)!;
  return { width: width * 1e-3, height: height * 1e-3, sunk: sunk * 1e-3, depth: depth * 1e-3 };
}

/** Lengths that keys are sold in, mm. Source: ISO/R 773. */
const KEY_LENGTHS = [6, 8, 10, 12, 14, 16, 18, 20, 22, 25, 28, 32, 36, 40, 45, 50, 56, 63, 70, 80];

/**
 * The longest standard key that lies within a hub, m; in a hub shorter than any, one cut to it.
 * @example keyLength(0.0113) // 0.01
 */
export const keyLength = (hub: number): number =>
  (KEY_LENGTHS.filter((l) => l <= hub * 1e3 + 1e-9).at(-1) ?? Math.floor(hub * 1e3 + 1e-9)) * 1e-3;

/** How much a flat takes off a shaft of a diameter, m: half a millimetre on 5 mm, a tenth above. */
export const flatDepth = (bore: number): number => Math.max(0.1 * bore, Math.min(5e-4, 0.15 * bore));

/** Hexagon nuts by the hole they are for: width across flats and height, mm. Source: ISO 4032. */
const NUTS: readonly (readonly [number, number, number])[] = [
  [2.4, 4, 1.6],
  [2.9, 5, 2],
  [3.6, 5.5, 2.4],
  [4.8, 7, 3.2],
  [5.8, 8, 4.7],
  [7, 10, 5.2],
  [1e9, 13, 6.8],
];

/** Across flats and height of the nut for a bolt hole, m. */
export function nutFor(hole: number): { across: number; height: number } {
  const n = NUTS.find(([to]) => hole * 1e3 <= to)!;
  return { across: n[1] * 1e-3, height: n[2] * 1e-3 };
}

/** The bore with its flat or keyway, as a closed curve. */
export function boreOutline(h: Hub): Outline {
  const r = h.bore / 2;
  if (h.shape === 'flat') {
    const y = r - flatDepth(h.bore);
    const a = Math.acos(y / r);
    // From one end of the flat round the back to the other; the flat lies up.
    return new OutlinePen()
      .arc(0, 0, r, Math.PI / 2 + a, 2 * Math.PI - 2 * a)
      .to(r * Math.sin(a), y)
      .close();
  }
  if (h.shape === 'keyway') {
    const { width, depth } = keyFor(h.bore);
    const a = Math.asin(Math.min(1, width / 2 / r));
    return new OutlinePen()
      .arc(0, 0, r, Math.PI / 2 + a, 2 * Math.PI - 2 * a)
      .to(width / 2, r * Math.cos(a))
      .to(width / 2, r + depth)
      .to(-width / 2, r + depth)
      .close();
  }
  return circle(0, 0, r);
}

/** Largest radius the bore reaches, m. */
export const boreReach = (h: Hub): number =>
  h.bore === 0
    ? 0
    : h.shape === 'keyway'
      ? Math.hypot(h.bore / 2 + keyFor(h.bore).depth, keyFor(h.bore).width / 2)
      : h.bore / 2;

/** Centres of the bolts. */
export const boltPlaces = (h: Hub): [number, number][] =>
  Array.from({ length: h.bolts }, (_, i) => {
    const a = (2 * Math.PI * (i + 0.5)) / h.bolts;
    return [(h.boltCircle / 2) * Math.cos(a), (h.boltCircle / 2) * Math.sin(a)];
  });

/** A hexagon of a width across flats about a point, one corner outwards. */
export function hexagon(x: number, y: number, across: number): Outline {
  const pen = new OutlinePen();
  const turn = Math.atan2(y, x);
  for (let i = 0; i < 6; i++) {
    const a = turn + (i * Math.PI) / 3;
    pen.to(x + (across / Math.sqrt(3)) * Math.cos(a), y + (across / Math.sqrt(3)) * Math.sin(a));
  }
  return pen.close();
}

/** Everything a hub cuts through the whole wheel. */
export const hubHoles = (h: Hub): Outline[] => [
  ...(h.bore > 0 ? [boreOutline(h)] : []),
  ...boltPlaces(h).map(([x, y]) => circle(x, y, h.boltHole / 2)),
];

/** Nut traps, which are cut from one face only. */
export const hubTraps = (h: Hub): Outline[] =>
  h.nuts ? boltPlaces(h).map(([x, y]) => hexagon(x, y, nutFor(h.boltHole).across)) : [];

/** Curves of a hub by layer, for drawings and outline files. */
export const hubCurves = (h: Hub): { layer: string; outline: Outline }[] => [
  ...(h.bore > 0 ? [{ layer: 'bore', outline: boreOutline(h) }] : []),
  ...boltPlaces(h).map(([x, y]) => ({ layer: 'bolts', outline: circle(x, y, h.boltHole / 2) })),
  ...hubTraps(h).map((outline) => ({ layer: 'nut-traps', outline })),
];

/**
 * Torque that a flat or a key carries, N·m: it bears over a fifth of the bore's diameter, at nine tenths of its radius.
 *
 * @param width of the wheel, m
 * @param pressure that the softer side stands, Pa
 * @example formHolds(0.008, 0.009, 30e6) // 1.5552
 */
export const formHolds = (bore: number, width: number, pressure: number): number =>
  pressure * 0.2 * bore * width * 0.9 * (bore / 2);
