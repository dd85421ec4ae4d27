import type { Figure, FigureMaker, Term } from '../figure/index.ts';
import { term } from '../figure/index.ts';
import type { Tensioning } from '../loop/index.ts';

/** What the figures of a loop's idler are told from. */
export interface IdlerOf<M> {
  readonly ways: (m: M) => Tensioning;
  /** Most that pulls on its pin, N. */
  readonly pull: (m: M) => number;
  /** How far it presses its run aside, m. */
  readonly push: number;
  readonly wrap: number;
  readonly tight: number;
  /** What it is moved on for, and back. */
  readonly longer: { readonly formula: string; readonly terms: readonly Term[] };
  readonly shorter: { readonly formula: string; readonly terms: readonly Term[] };
}

const SOURCE = 'length of the loop round all of its wheels, its shafts where they are';

/** How far an idler is moved while the shafts stay where they are, and what is pulled on its pin. */
export const idlerFigures = <M extends object>(make: FigureMaker<M>, m: M, of: IdlerOf<M>): Figure[] => [
  make.figure(
    'idlerOn',
    'Idler’s way on',
    'length',
    (x) => of.ways(x).on,
    () => ({
      formula: `x₁ − x₀; L(x₁) = L(x₀) + ${of.longer.formula}`,
      terms: [
        term('x₁', 'push at which the loop is so much longer', of.push + of.ways(m).on, 'length', 'computed'),
        term('x₀', 'push as it runs', of.push, 'length', 'field', 'idlerPush'),
        ...of.longer.terms,
      ],
      source: SOURCE,
    }),
  ),
  make.figure(
    'idlerBack',
    'Idler’s way back',
    'length',
    (x) => of.ways(x).back,
    () => ({
      formula: `x₀ − x₂; L(x₂) = L(x₀) − ${of.shorter.formula}, or x₂ = 0`,
      terms: [
        term('x₀', 'push as it runs', of.push, 'length', 'field', 'idlerPush'),
        term('x₂', 'push at which the loop is so much shorter', of.push - of.ways(m).back, 'length', 'computed'),
        ...of.shorter.terms,
      ],
      source: SOURCE,
    }),
  ),
  make.figure('idlerPull', 'Pull on the idler’s pin', 'force', of.pull, () => ({
    formula: '2·Fₜ·sin(β/2)',
    terms: [
      term('Fₜ', 'tight side', of.tight, 'force', 'computed'),
      term('β', 'wrap on the idler', of.wrap, 'angle', 'computed'),
    ],
    source: 'equilibrium; the tight side lies there while power comes back',
  })),
];
