import { STARTING, type Factor } from './factor.ts';

/**
 * The tooth space of a pulley, cut as drawn: trapezoid with rounded root and tip, or a circular groove with rounded
 * tip.
 */
export type ToothSpace =
  | {
      readonly form: 'trapezoid';
      readonly bottom: number;
      readonly depth: number;
      readonly flank: number;
      readonly root: number;
      readonly tip: number;
    }
  | { readonly form: 'round'; readonly radius: number; readonly depth: number; readonly tip: number };

/** A synchronous belt section by standard designation. Lengths in metres; `stock` are tooth counts of closed belts. */
export interface BeltSection {
  readonly id: string;
  readonly name: string;
  readonly standard: string;
  readonly pitch: number;
  readonly toothHeight: number;
  readonly height: number;
  /** Distance from the pulley's outside to the pitch line, u: outside diameter = pitch diameter − 2u. */
  readonly offset: number;
  /** Belt tooth: width at its root and its form, for drawing and for tooth clearance. */
  readonly toothWidth: number;
  readonly space: ToothSpace;
  readonly widths: readonly number[];
  readonly stock: readonly number[];
  readonly minTeeth: number;
  readonly maxSpeed: number;
  /** Tooth clearance at the pitch line: zero for rounded profiles while taut. */
  readonly clearance: number;
  /**
   * Axial stiffness, allowable tension, tooth shear, tooth-jump resistance (N/m of width …) and mass per area, each
   * [value, low, high].
   */
  readonly rated: Readonly<Record<Rating, readonly [number, number, number]>>;
  /** Identifiers of the factors made from the ratings; kept ready because they are looked up in hot loops. */
  readonly ids: Readonly<Record<Rating, string>>;
}

export type Rating = 'stiffness' | 'tension' | 'shear' | 'jump' | 'mass';

const mm = 1e-3;
const deg = Math.PI / 180;
const round = (radius: number, depth: number, tip: number): ToothSpace => ({
  form: 'round',
  radius: radius * mm,
  depth: depth * mm,
  tip: tip * mm,
});
const trapezoid = (bottom: number, depth: number, flank: number, root: number, tip: number): ToothSpace => ({
  form: 'trapezoid',
  bottom: bottom * mm,
  depth: depth * mm,
  flank: flank * deg,
  root: root * mm,
  tip: tip * mm,
});

function section(
  id: string,
  name: string,
  standard: string,
  pitch: number,
  toothHeight: number,
  height: number,
  offset: number,
  toothWidth: number,
  space: ToothSpace,
  widths: number[],
  stock: number[],
  minTeeth: number,
  maxSpeed: number,
  clearance: number,
  rated: [number, number, number, number, number],
): BeltSection {
  const band = (likely: number, scale: number, low: number, high: number): readonly [number, number, number] => [
    likely * scale,
    likely * scale * low,
    likely * scale * high,
  ];
  const [stiffness, tension, shear, jump, mass] = rated;
  return {
    id,
    name,
    standard,
    pitch: pitch * mm,
    toothHeight: toothHeight * mm,
    height: height * mm,
    offset: offset * mm,
    toothWidth: toothWidth * mm,
    space,
    widths: widths.map((w) => w * mm),
    stock,
    minTeeth,
    maxSpeed,
    clearance: clearance * mm,
    ids: {
      stiffness: `belt.${id}.stiffness`,
      tension: `belt.${id}.tension`,
      shear: `belt.${id}.shear`,
      jump: `belt.${id}.jump`,
      mass: `belt.${id}.mass`,
    },
    rated: {
      stiffness: band(stiffness, 1e3, 0.7, 1.3),
      tension: band(tension, 1e3, 0.85, 1.3),
      shear: band(shear, 1e3, 0.7, 1.4),
      jump: band(jump, 1e3, 0.5, 1.6),
      mass: band(mass, 1, 0.9, 1.1),
    },
  };
}

const LENGTHS_2 = [
  55, 56, 60, 61, 65, 66, 70, 75, 79, 80, 82, 85, 90, 94, 95, 100, 101, 104, 105, 110, 116, 120, 122, 125, 126, 130,
  140, 150, 160, 164, 168, 174, 180, 200, 210, 225, 232, 250, 280, 300, 320, 345, 376, 400, 426,
];
const LENGTHS_3 = [
  50, 53, 56, 59, 60, 62, 65, 67, 70, 71, 74, 75, 80, 84, 85, 89, 90, 94, 95, 100, 105, 106, 110, 112, 117, 120, 125,
  128, 130, 133, 140, 150, 160, 167, 176, 178, 184, 190, 200, 212, 223, 240, 250,
];
const LENGTHS_5 = [
  40, 45, 50, 53, 55, 60, 65, 68, 70, 71, 75, 80, 84, 85, 90, 95, 100, 105, 107, 110, 115, 120, 127, 133, 140, 150, 160,
  170, 180, 200,
];
const LENGTHS_8 = [36, 40, 44, 48, 52, 55, 60, 65, 70, 75, 80, 85, 90, 95, 100, 105, 110, 120, 130, 140];
const LENGTHS_T = [
  33, 36, 40, 42, 43, 44, 45, 49, 50, 51, 52, 54, 55, 56, 60, 61, 64, 66, 68, 70, 71, 73, 78, 80, 82, 84, 85, 89, 90,
  91, 96, 98, 100, 102, 105, 109, 110, 115, 118, 120, 122, 124, 126, 128, 138, 140, 144, 150, 156, 160, 163, 168, 180,
  188, 198,
];
const LENGTHS_INCH = [
  36, 40, 45, 50, 55, 60, 65, 69, 70, 75, 80, 85, 90, 95, 100, 105, 110, 115, 120, 125, 130, 140, 150, 155, 160, 165,
  170, 180, 190, 200, 210,
];

/**
 * Tooth-space figures: ISO 5294 (inch trapezoidal), ISO 17396 (metric trapezoidal); the rounded ones are circular
 * grooves of
 * the usual proportions for their pitch (larger pitches: ISO 13050). Ratings are starting values for glass-cord rubber
 * (rounded, inch) and steel-cord polyurethane (T, AT); the order in each row is
 * E·A/w in N per strain per mm, allowable tension N/mm, tooth shear N/mm per tooth, jump resistance N/mm per tooth,
 * mass g/m per mm.
 */
export const SECTIONS: readonly BeltSection[] = [
  section(
    'R2',
    'Rounded, 2 mm pitch',
    'rounded profile, 2 mm',
    2,
    0.75,
    1.38,
    0.254,
    1.15,
    round(0.58, 0.78, 0.15),
    [4, 6, 9, 10],
    LENGTHS_2,
    16,
    40,
    0,
    [2000, 7, 1.2, 0.6, 1.37],
  ),
  section(
    'R3',
    'Rounded, 3 mm pitch',
    'rounded profile, 3 mm',
    3,
    1.17,
    2.4,
    0.381,
    1.9,
    round(0.95, 1.22, 0.25),
    [6, 9, 15],
    LENGTHS_3,
    14,
    40,
    0,
    [2700, 14, 2.4, 1.0, 2.5],
  ),
  section(
    'R5',
    'Rounded, 5 mm pitch',
    'rounded profile, 5 mm',
    5,
    2.06,
    3.8,
    0.5715,
    3.1,
    round(1.55, 2.12, 0.45),
    [9, 15, 25],
    LENGTHS_5,
    14,
    40,
    0,
    [4200, 24, 4.2, 1.8, 4.1],
  ),
  section(
    'R8',
    'Rounded, 8 mm pitch',
    'ISO 13050, 8 mm',
    8,
    3.36,
    5.6,
    0.686,
    5.15,
    round(2.6, 3.45, 0.7),
    [20, 30, 50],
    LENGTHS_8,
    22,
    40,
    0,
    [7000, 42, 7, 3, 6.5],
  ),
  section(
    'MXL',
    'MXL, 2.032 mm pitch',
    'ISO 5296, ISO 5294',
    2.032,
    0.51,
    1.14,
    0.254,
    1.14,
    trapezoid(0.84, 0.69, 20, 0.25, 0.13),
    [3.2, 4.8, 6.4],
    LENGTHS_INCH,
    12,
    40,
    0.08,
    [1300, 5, 0.8, 0.35, 1.3],
  ),
  section(
    'XL',
    'XL, 5.080 mm pitch',
    'ISO 5296, ISO 5294',
    5.08,
    1.27,
    2.3,
    0.254,
    2.57,
    trapezoid(1.32, 1.65, 25, 0.41, 0.64),
    [6.4, 7.9, 9.5],
    LENGTHS_INCH,
    10,
    40,
    0.2,
    [1800, 7, 1.8, 0.8, 2.4],
  ),
  section(
    'L',
    'L, 9.525 mm pitch',
    'ISO 5296, ISO 5294',
    9.525,
    1.91,
    3.6,
    0.381,
    4.65,
    trapezoid(3.05, 2.67, 20, 1.19, 1.17),
    [12.7, 19.1, 25.4],
    LENGTHS_INCH,
    12,
    40,
    0.3,
    [3000, 10, 3.2, 1.4, 3.3],
  ),
  section(
    'T2.5',
    'T2.5, 2.5 mm pitch',
    'ISO 17396',
    2.5,
    0.7,
    1.3,
    0.3,
    1.5,
    trapezoid(1.0, 0.75, 25, 0.2, 0.3),
    [4, 6, 10],
    LENGTHS_T,
    12,
    80,
    0.12,
    [1100, 6.5, 0.9, 0.4, 1.5],
  ),
  section(
    'T5',
    'T5, 5 mm pitch',
    'ISO 17396',
    5,
    1.2,
    2.2,
    0.5,
    2.65,
    trapezoid(1.78, 1.75, 25, 0.4, 0.6),
    [6, 10, 16, 25],
    LENGTHS_T,
    10,
    80,
    0.2,
    [2500, 17, 2.4, 0.9, 2.4],
  ),
  section(
    'T10',
    'T10, 10 mm pitch',
    'ISO 17396',
    10,
    2.5,
    4.5,
    1.0,
    5.3,
    trapezoid(3.9, 2.6, 25, 0.6, 0.8),
    [16, 25, 32],
    LENGTHS_T,
    12,
    60,
    0.35,
    [6000, 40, 5, 2, 4.8],
  ),
  section(
    'AT5',
    'AT5, 5 mm pitch',
    'ISO 17396',
    5,
    1.2,
    2.7,
    0.5,
    2.5,
    trapezoid(2.55, 1.25, 25, 0.5, 0.3),
    [6, 10, 16, 25],
    LENGTHS_T,
    12,
    80,
    0.1,
    [4200, 35, 3.5, 1.1, 3.4],
  ),
];

const RATED = {
  stiffness: ['axial stiffness per width, E·A/w', 'forcePerWidth'],
  tension: ['allowable tension per width', 'forcePerWidth'],
  shear: ['tooth shear per tooth and width', 'forcePerWidth'],
  jump: ['tooth-jump resistance per tooth and width', 'forcePerWidth'],
  mass: ['mass per length and width', 'massPerLengthWidth'],
} as const;

/** The factors of a section: `belt.R2.stiffness` and its like. */
export function sectionFactors(s: BeltSection): Factor[] {
  return (Object.keys(RATED) as (keyof typeof RATED)[]).map((key) => {
    const [value, low, high] = s.rated[key];
    return {
      id: s.ids[key],
      name: `${s.name}: ${RATED[key][0]}`,
      quantity: RATED[key][1],
      value,
      low,
      high,
      source: STARTING,
    };
  });
}
