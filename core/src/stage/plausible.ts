import type { Material } from '../schema/joint.ts';
import { check, type Check } from '../figure/index.ts';
import { sortOf } from '../gear/material-state.ts';
import { findMaterial, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import type { StageNumbers } from './contract.ts';
import { springShares } from './springs.ts';

/** Whether a stage is of plastic in what carries, or of metal throughout. */
export type MaterialClass = 'plastic' | 'metal';

type Range = readonly [low: number, high: number];

/** What benches usually find of a kind, by material class. */
export interface Usual {
  /** Under load, drag left out. */
  readonly efficiency: Readonly<Record<MaterialClass, Range>>;
  /** At its output, rad. */
  readonly play: Readonly<Record<MaterialClass, Range>>;
  /** What makes a stage of this kind lose or play more, or less, than usual. */
  readonly because: { readonly efficiency: string; readonly play: string };
}

const minute = Math.PI / 10800;
const degree = Math.PI / 180;

/** Minutes of arc as a range of play. */
export const minutes = (low: number, high: number): Range => [low * minute, high * minute];

/** Torsional stiffness that stages 90 mm across usually have, N·m/rad; it grows with the square of the size, since small ones have coarser teeth for it. */
const STIFF: Readonly<Record<MaterialClass, Range>> = {
  plastic: [5 / degree, 150 / degree],
  metal: [60 / degree, 2000 / degree],
};
const ACROSS = 0.09;

/** What a stage's fields of material name. */
const materialsOf = (p: object, shelf: Shelf): Material[] =>
  Object.entries(p)
    .filter(([path]) => path.startsWith('material'))
    .flatMap(([, id]) => (typeof id === 'string' ? (findMaterial(shelf, id) ?? []) : []));

/** The class of what a stage's fields of material say. */
export const classOf = (p: object, shelf: Shelf): MaterialClass =>
  materialsOf(p, shelf).some((m) => sortOf(m) !== 'metal') ? 'plastic' : 'metal';

/** Whether a design takes the play out, by what its kind has for it: benches do not find the usual one then. */
const takesOut = (p: { readonly takenOut?: string; readonly tension?: number }): boolean =>
  (p.takenOut ?? 'none') !== 'none' || (p.tension ?? 0) > 0;

/** A note for each figure that lies outside of what benches usually find, with what makes it so; none where all do. */
export function plausibleNotes(p: object, n: StageNumbers, usual: Usual, shelf: Shelf): Check[] {
  const sort = classOf(p, shelf);
  const of = sort === 'plastic' ? 'a stage with plastic in it' : 'a stage of metal';
  const softest = springShares(n.springs)[0];
  const grown = (n.outside / ACROSS) ** 2;
  const note = (
    id: string,
    name: string,
    quantity: 'stiffness' | 'efficiency' | 'smallAngle',
    value: number,
    [low, high]: Range,
    because: string,
  ): Check[] => {
    if (!(value < low) && !(value > high)) return [];
    const little = value < low;
    return [
      check({
        id: `usual-${id}`,
        of: id,
        name: `${name}: ${little ? 'less' : 'more'} than usual`,
        figure: value,
        limit: little ? low : high,
        sense: little ? 'min' : 'max',
        quantity,
        severity: 'note',
        near: 0,
        why: `Benches usually find ${stated(low, quantity, 2)} to ${stated(high, quantity, 2)} of ${of} this size. ${because}`,
        advice: 'Look for a slip in the parameters, or measure one.',
      }),
    ];
  };
  return [
    ...note(
      'stiffness',
      'Stiffness',
      'stiffness',
      n.stiffness,
      [STIFF[sort][0] * grown, STIFF[sort][1] * grown],
      softest ? `Most of what gives here: ${softest.name}, ${Math.round(100 * softest.share)} %.` : '',
    ),
    ...note('efficiency', 'Efficiency', 'efficiency', n.etaForward, usual.efficiency[sort], usual.because.efficiency),
    ...(takesOut(p) ? [] : note('play', 'Play', 'smallAngle', n.play[0], usual.play[sort], usual.because.play)),
  ];
}
