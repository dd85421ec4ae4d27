import { term, type Check, type Mend } from '../figure/index.ts';
import { formHolds, type Hub, type Mode, type ToothMaterial } from '../gear/index.ts';
import { steppedUp } from '../math/steps.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import type { Duty } from './contract.ts';
import { limitChecks, limitOf, type Limit } from './limits.ts';
import type { OutputUnits } from './output-units.ts';

/** A wheel on a shaft that turns it, or that it turns, by the form of its bore. */
export interface Bored {
  readonly name: string;
  /** Its bore, m, and the parameter that says it. */
  readonly bore: number;
  readonly path: string;
  readonly shape: Hub['shape'];
  /** Along the shaft, m. */
  readonly width: number;
  readonly material: ToothMaterial;
  /** Torque at the stage's output for one in the bore. */
  readonly gain: number;
  /** What is left between bore and roots, m. */
  readonly wall: number;
  /** What drives it says how wide its bore is. */
  readonly driven: boolean;
  /** The parameter that makes it longer on its shaft, where one does: its value, m, and how much longer for so much of it. */
  readonly longer?: { readonly path: string; readonly name: string; readonly value: number; readonly per?: number };
}

/** Bores of a stage with a wheel at its input and one at its output. */
interface BothBored {
  readonly bore1: number;
  readonly shape1: Hub['shape'];
  readonly bore2: number;
  readonly shape2: Hub['shape'];
  readonly bolts2: number;
}

/**
 * First and last wheel on their shafts; a last one that is screwed on is not turned by its bore.
 *
 * @param widths along the shafts, m
 * @param walls between bores and roots, m
 * @param gain torque at the output for one at the input
 * @param longer what makes either longer on its shaft
 */
export function bothBores(
  p: BothBored,
  names: readonly [string, string],
  widths: readonly [number, number],
  materials: readonly [ToothMaterial, ToothMaterial],
  walls: readonly [number, number],
  gain: number,
  longer: readonly [Bored['longer'], Bored['longer']] | readonly [],
): Bored[] {
  const of = (i: 0 | 1, bore: number, shape: Hub['shape']): Bored => ({
    name: names[i],
    bore,
    path: `bore${i + 1}`,
    shape,
    width: widths[i],
    material: materials[i],
    gain: i === 0 ? gain : 1,
    wall: walls[i],
    driven: i === 0,
    ...(longer[i] && { longer: longer[i] }),
  });
  const first = of(0, p.bore1, p.shape1);
  return p.bolts2 > 0 ? [first] : [first, of(1, p.bore2, p.shape2)];
}

const idOf = (b: Bored): string => `form-${b.path}`;

const isFormed = (b: Bored): boolean => b.material.plastic && b.shape !== 'round' && b.bore > 0;
const NONE: readonly Limit[] = [];

/** Where flats and keyways in plastic give way, as torque at the output; those of metal, and round bores, hold otherwise. */
export function boreLimits(bores: readonly Bored[], shelf: Shelf): readonly Limit[] {
  // A search asks this of thousands, nearly all of which have none.
  if (!bores.some(isFormed)) return NONE;
  return bores.filter(isFormed).map((b) => {
    const pressure = factor(shelf, 'hold.key');
    return limitOf(
      idOf(b),
      `${b.shape === 'flat' ? 'flat' : 'keyway'} of the ${b.name} gives way`,
      'static',
      formHolds(b.bore, b.width, pressure) * b.gain,
      'It bears over a fifth of the bore, in plastic: beyond, the wheel works loose on its shaft.',
      'σ·(0.2·d·b)·(0.9·d/2)·T/T_b',
      Infinity,
      undefined,
      () => ({
        formula: 'σ·(0.2·d·b)·(0.9·d/2)·T/T_b',
        terms: [
          term('σ', 'pressure that a plastic bore stands', pressure, 'stress', 'shop', 'hold.key'),
          term('d', 'bore', b.bore, 'length', 'field', b.path),
          term('b', 'width on the shaft', b.width, 'length', 'computed'),
          term('T', 'torque at the output', b.gain, 'torque', 'computed'),
          term('T_b', 'torque in the bore, for a newton metre', 1, 'torque', 'definition'),
        ],
      }),
    );
  });
}

/** Whether a limit is one of `boreLimits`. */
export const isBoreLimit = (limit: { readonly id: string }): boolean => limit.id.startsWith('form-');

/** Wall over a bore that is thought enough, m. */
const WALL = 1.5e-3;

/** Beyond so many times as long nobody would make a wheel for its bore alone. */
const LONGER = 2;

/** A wheel longer on its shaft, so that it holds so many times as much. */
function longerMend({ longer, width }: Bored, times: number): Mend | undefined {
  if (!longer || times > LONGER) return undefined;
  const value = steppedUp(longer.value + (width * (times - 1)) / (longer.per ?? 1), 5e-4);
  return { path: longer.path, value, label: `${longer.name} ${stated(value, 'length', 4)}` };
}

/**
 * What holds so many times as much: a larger bore, where its wheel has room and no shaft before says how wide it is; else a
 * longer wheel.
 */
function boreMend(bores: readonly Bored[], limit: { readonly id: string }, times: number): Mend | undefined {
  const b = bores.find((x) => idOf(x) === limit.id);
  if (!b) return undefined;
  if (b.driven) return longerMend(b, times);
  const wanted = steppedUp(b.bore * Math.sqrt(times), 5e-4);
  // A larger bore has a deeper keyway.
  const left = b.wall - (b.shape === 'keyway' ? 0.7 : 0.5) * (wanted - b.bore);
  return left >= WALL
    ? { path: b.path, value: wanted, label: `Bore ⌀ ${stated(wanted, 'length', 4)}` }
    : longerMend(b, times);
}

/** What helps where no dimension does. */
const BORE_ADVICE = 'Take a wider wheel or one of metal, screw it to a flange, or bond it to a shaft without a flat.';

/** Checks of them among all that ends a stage. */
export const boreChecks = (limits: readonly Mode[], bores: readonly Bored[], at: Duty, units?: OutputUnits): Check[] =>
  limitChecks(limits.filter(isBoreLimit), at, BORE_ADVICE, (limit, times) => boreMend(bores, limit, times), units);
