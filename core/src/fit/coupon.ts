import { gear } from '../gear/gear.ts';
import { gearOutline } from '../gear/profile.ts';
import { spanOver, spanTeeth } from '../gear/measure.ts';
import type { FitReading, Process } from '../schema/process-schema.ts';
import { circle, OutlinePen, rectangle, type Outline } from '../shape/outline.ts';
import { cut, prism, type Solid } from '../shape/solid.ts';
import { PROCESS_STARTS } from '../shop/processes.ts';
import { stated } from '../units/stated.ts';
import { LADDER_STEP } from './reading.ts';

/** A piece of the coupon. */
export interface CouponPart {
  readonly id: string;
  readonly name: string;
  readonly curves: readonly { readonly layer: string; readonly outline: Outline }[];
  readonly solid: () => Solid;
}

/** Where the caliper goes, and what it should read. */
export interface CouponMeasure {
  readonly id: string;
  readonly name: string;
  readonly how: string;
  readonly reading: Pick<FitReading, 'feature' | 'axis' | 'drawn'> & {
    readonly gain?: number;
    readonly spread?: number;
  };
  /** Ends of its dimension line on the first piece as it lies on the bed, m; none for other pieces. */
  readonly at?: readonly [readonly [number, number], readonly [number, number]];
}

/** Something to print or cut and to measure: what a process makes of sizes. */
export interface Coupon {
  readonly parts: readonly CouponPart[];
  readonly measures: readonly CouponMeasure[];
  /** What to mind while it is made. */
  readonly notes: readonly string[];
}

/** Long side of the steps, m, and the heights of pieces. */
const LONG = 0.06;
const [THICK, THIN] = [6e-3, 4e-3];
const UNIT = LONG / 3;
/** Plug of the ladder and the steps of its holes, m. */
const PLUG = 0.01;
export const LADDER = [-1, 0, 1, 2, 3, 4, 5].map((k) => k * LADDER_STEP);
/** Toothing of the gauge. */
const GAUGE = gear({ module: 1e-3, teeth: 24 });
const CHAMFERS = [1e-4, 2e-4, 3e-4, 4e-4, 5e-4];

/** Three steps along either way, with the corner at the near left cut off to tell the ways. */
function stepsOutline(): Outline {
  const [a, b, c] = [UNIT, 2 * UNIT, LONG];
  const corner = 3e-3;
  return new OutlinePen()
    .to(corner, 0)
    .to(c, 0)
    .to(c, a)
    .to(b, a)
    .to(b, b)
    .to(a, b)
    .to(a, c)
    .to(0, c)
    .to(0, corner)
    .close();
}

const windows = { x: rectangle(0.028, 0.007, 0.044, 0.013), y: rectangle(0.007, 0.028, 0.013, 0.044) };
const rounds = { large: circle(0.0115, 0.0115, 6e-3), small: circle(0.03, 0.03, 3e-3) };

function stepsPart(): CouponPart {
  const outer = stepsOutline();
  const holes = [windows.x, windows.y, rounds.large, rounds.small];
  return {
    id: 'steps',
    name: 'Steps',
    curves: [{ layer: 'outside', outline: outer }, ...holes.map((outline) => ({ layer: 'holes', outline }))],
    solid: () => ({ prisms: [prism(outer, 0, THICK, holes)] }),
  };
}

function ladderPart(): CouponPart {
  const pitch = PLUG + 4e-3;
  const outer = rectangle(0, 0, LADDER.length * pitch + 4e-3, PLUG + 8e-3);
  const holes = LADDER.map((more, i) => circle(2e-3 + pitch * (i + 0.5), PLUG / 2 + 4e-3, (PLUG + more) / 2));
  // A notch at the end where the holes are narrowest.
  const notch = new OutlinePen().to(0, 6e-3).to(2e-3, 9e-3).to(0, 0.012).close();
  return {
    id: 'ladder',
    name: 'Fit ladder',
    curves: [
      { layer: 'outside', outline: outer },
      ...holes.map((outline) => ({ layer: 'holes', outline })),
      { layer: 'mark', outline: notch },
    ],
    solid: () => ({ prisms: [prism(outer, 0, THIN, holes), cut(notch, THIN - 1e-3, THIN)] }),
  };
}

function plugPart(): CouponPart {
  const outer = circle(0, 0, PLUG / 2);
  const grip = circle(0, 0, 8e-3);
  return {
    id: 'plug',
    name: 'Plug',
    curves: [{ layer: 'outside', outline: outer }],
    // The grip lies on the bed, so that the plug itself has no foot.
    solid: () => ({ prisms: [prism(grip, 0, 3e-3), prism(outer, 3e-3, 0.013)] }),
  };
}

function gaugePart(): CouponPart {
  const profile = gearOutline(GAUGE);
  const bore = circle(0, 0, 4e-3);
  return {
    id: 'gauge',
    name: 'Tooth gauge',
    curves: [
      { layer: 'profile', outline: profile },
      { layer: 'bore', outline: bore },
    ],
    solid: () => ({ prisms: [prism(profile, 0, THICK, [bore])] }),
  };
}

/** Pads on a rail, each with a larger chamfer at the bed: the first whose edge does not stand out tells the foot's height. */
function feetPart(): CouponPart {
  const [wide, room] = [8e-3, 2e-3];
  const total = CHAMFERS.length * (wide + room) - room;
  const rail = rectangle(0, 3e-3, total, 5e-3);
  const slab = 5e-5;
  return {
    id: 'feet',
    name: 'Feet',
    curves: CHAMFERS.map((_, i) => ({
      layer: 'outside',
      outline: rectangle(i * (wide + room), 0, i * (wide + room) + wide, wide),
    })),
    solid: () => ({
      prisms: [
        ...CHAMFERS.flatMap((chamfer, i) => {
          const x = i * (wide + room);
          const steps = Math.round(chamfer / slab);
          const at = (inset: number) => rectangle(x + inset, inset, x + wide - inset, wide - inset);
          return [
            ...Array.from({ length: steps }, (_, k) => prism(at(chamfer - (k + 0.5) * slab), k * slab, (k + 1) * slab)),
            prism(at(0), steps * slab, THIN),
          ];
        }),
        prism(rail, THIN - 1.5e-3, THIN),
      ],
    }),
  };
}

const size = (x: number): string => stated(x, 'length', 5);

function measuresOf(printed: boolean): CouponMeasure[] {
  const [a, b, c] = [UNIT, 2 * UNIT, LONG];
  const across = (axis: 'x' | 'y', long: number, at: number): CouponMeasure['at'] =>
    axis === 'x'
      ? [
          [0, at],
          [long, at],
        ]
      : [
          [at, 0],
          [at, long],
        ];
  const outside = (axis: 'x' | 'y', drawn: number, at: number): CouponMeasure => ({
    id: `${axis}${Math.round(drawn * 1e3)}`,
    name: `Step of ${size(drawn)} along ${axis}`,
    how: 'Jaws over the upper half of the edge, above the first layers',
    reading: { feature: 'outside', axis, drawn },
    at: across(axis, drawn, at),
  });
  const hole = (axis: 'x' | 'y'): CouponMeasure => ({
    id: `window-${axis}`,
    name: `Window of ${size(0.016)} along ${axis}`,
    how: 'Inner jaws, above the first layers',
    reading: { feature: 'hole', axis, drawn: 0.016 },
    at:
      axis === 'x'
        ? [
            [0.028, 0.01],
            [0.044, 0.01],
          ]
        : [
            [0.01, 0.028],
            [0.01, 0.044],
          ],
  });
  const k = spanTeeth(GAUGE);
  const list: CouponMeasure[] = [
    outside('x', c, 0.016),
    ...(printed ? [] : [outside('x', b, 0.026)]),
    outside('x', a, 0.05),
    outside('y', c, 0.016),
    outside('y', a, 0.05),
    hole('x'),
    ...(printed ? [] : [hole('y')]),
    {
      id: 'round',
      name: `Round hole ⌀ ${size(0.012)}`,
      how: 'Inner jaws crosswise, the mean of two; or the largest pin that goes in',
      reading: { feature: 'hole', axis: 'round', drawn: 0.012 },
      at: [
        [0.0055, 0.0115],
        [0.0175, 0.0115],
      ],
    },
    {
      id: 'span',
      name: `Tooth gauge, span over ${k} teeth`,
      how: 'Jaws flat on two flanks, rocked to the least reading',
      reading: { feature: 'outside', axis: 'round', drawn: spanOver(GAUGE, k) },
    },
  ];
  const ladder = LADDER.map((x) => size(PLUG + x)).join(', ');
  list.push({
    id: 'ladder',
    name: `Ladder, plug ⌀ ${size(PLUG)}`,
    how: `The narrowest hole that the plug goes into by hand, by its drawn diameter: from the notch on ${ladder}`,
    reading: { feature: 'ladder', axis: 'round', drawn: PLUG },
  });
  if (printed)
    list.push(
      {
        id: 'foot',
        name: `Step of ${size(a)} along x, at the bed`,
        how: 'The same edge, jaws at the very bottom, where the first layers stand out',
        reading: { feature: 'foot', axis: 'x', drawn: a },
        at: across('x', a, 0.056),
      },
      {
        id: 'foot-height',
        name: 'Height of the foot',
        how: `The smallest chamfer of the five pads (${CHAMFERS.map((x) => size(x)).join(', ')}) whose lower edge does not stand out`,
        reading: { feature: 'foot-height', axis: 'round', drawn: 0, spread: 5e-5 },
      },
    );
  else list.splice(4, 0, outside('y', b, 0.026));
  return list;
}

/**
 * The coupon of a process: steps along both ways with windows and holes, a fit ladder with its plug, a tooth gauge, and,
 * where layers lie on a bed, pads that show the height of the foot. Ten readings tell its fit.
 *
 * @param process its type says whether there are layers
 */
export function couponOf(process: Pick<Process, 'type' | 'compensates'>): Coupon {
  const printed = PROCESS_STARTS[process.type].prints;
  return {
    parts: [stepsPart(), ladderPart(), plugPart(), gaugePart(), ...(printed ? [feetPart()] : [])],
    measures: measuresOf(printed),
    notes: [
      printed
        ? 'Print it as the parts are printed: same plastic, nozzle, layers, speed and cooling; flat, with the cut corner at the near left of the bed and the long steps along x and y. No brim where the caliper goes.'
        : 'Cut it out of the sheet that the parts are cut from, with the cut corner at the near left.',
      process.compensates === 'slicer'
        ? 'Leave the slicer’s contour setting as it is for parts: what is measured is what it leaves. Set it to 0 first if you want to know all of it.'
        : 'The slicer’s contour and hole settings are at 0 for it, and stay there.',
      'Let it cool, take it off the bed, and do not file it. A caliper warms in the hand: close it now and then, and set it to 0.',
      'Ladder: without force, the same twist for every hole. It tells outsides and holes together, and holds the caliper to account.',
    ],
  };
}
