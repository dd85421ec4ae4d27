import { term, type FigureMaker, type Figure, type Term } from '../figure/index.ts';
import { HELD_HOURS } from '../gear/material-state.ts';
import { stated } from '../units/stated.ts';
import type { Spring, StageNumbers } from './contract.ts';
import { TURNS, type OutputUnits } from './output-units.ts';

/**
 * A spring of a stage.
 * @param stiffness about the output, N·m/rad; Infinity for what does not give
 * @param held share of it that is left under a load that stays (`crept`)
 */
export const spring = (name: string, stiffness: number, held = 1): Spring => ({ name, stiffness, held });

/** Stiffness of springs one after the other, N·m/rad. */
export function together(springs: readonly Spring[]): number {
  let gives = 0;
  for (let i = 0; i < springs.length; i++) gives += 1 / springs[i]!.stiffness;
  return 1 / gives;
}

/**
 * The same under a load that stays for a thousand hours, as each spring has crept by then, N·m/rad.
 * @example heldTogether([spring('teeth', 100, 0.5), spring('pins', 100)]) // 33.3333
 */
export function heldTogether(springs: readonly Spring[]): number {
  let gives = 0;
  for (let i = 0; i < springs.length; i++) gives += 1 / (springs[i]!.stiffness * springs[i]!.held);
  return 1 / gives;
}

/**
 * How much more springs give under a load that stays for a thousand hours than under one that moves; 1 where nothing creeps.
 * @example creptMore([spring('teeth', 100, 0.5), spring('pins', 100)]) // 1.5
 */
export function creptMore(springs: readonly Spring[]): number {
  let [now, then] = [0, 0];
  for (let i = 0; i < springs.length; i++) {
    const { stiffness, held } = springs[i]!;
    now += 1 / stiffness;
    then += 1 / (stiffness * held);
  }
  return now > 0 ? then / now : 1;
}

/**
 * How much of all that gives each spring gives, softest first; those that give nothing are left out.
 * @returns shares that add up to one
 */
export function springShares(springs: readonly Spring[]): { readonly name: string; readonly share: number }[] {
  const all = together(springs);
  return springs
    .filter((s) => Number.isFinite(s.stiffness))
    .map((s) => ({ name: s.name, share: all / s.stiffness }))
    .sort((a, b) => b.share - a.share);
}

/** Springs that give, the softest first. */
const softFirst = (springs: readonly Spring[]): Spring[] =>
  springs.filter((s) => Number.isFinite(s.stiffness)).sort((a, b) => a.stiffness - b.stiffness);

/** A sum over the springs that give, by their numbers. */
const counted = (springs: readonly Spring[], one: (k: number) => string): string =>
  softFirst(springs)
    .map((_, i) => one(i + 1))
    .join(' + ');

const terms = (springs: readonly Spring[], { stiffness }: OutputUnits): Term[] =>
  softFirst(springs).map((s, i) => term(`k${i + 1}`, s.name, s.stiffness, stiffness, 'computed'));

/** Share above which one spring decides how well a stiffness is known. */
const DECIDES = 0.5;

/** What decides a stiffness, and the test that finds it; nothing where no spring does. */
function softest(springs: readonly Spring[]): { readonly note?: string } {
  const first = springShares(springs)[0];
  if (!first || first.share < DECIDES || springs.length < 2) return {};
  const share = `${Math.round(100 * first.share)} %`;
  return {
    note: `${share} of what gives: ${first.name}. It is as well known as that is; a hysteresis loop on the bench finds the whole.`,
  };
}

/**
 * The figures that every kind tells of its springs: what they come to, and under a load that stays where any of them
 * creeps.
 *
 * @param source of the springs, as the kind works them out
 */
export function springFigures<M extends { readonly numbers: StageNumbers }>(
  make: FigureMaker<M>,
  { numbers }: M,
  source: string,
  units: OutputUnits = TURNS,
): Figure[] {
  const all = make.figure(
    'stiffness',
    'Stiffness',
    units.stiffness,
    (m) => m.numbers.stiffness,
    () => ({
      formula: `1/(${counted(numbers.springs, (k) => `1/k${k}`)})`,
      terms: terms(numbers.springs, units),
      source,
      ...softest(numbers.springs),
    }),
  );
  if (!numbers.springs.some((s) => s.held < 1)) return [all];
  return [
    all,
    make.figure(
      'stiffnessHeld',
      'Stiffness under a load that stays',
      units.stiffness,
      (m) => heldTogether(m.numbers.springs),
      () => ({
        formula: `1/(${counted(numbers.springs, (k) => `1/(k${k}·c${k})`)})`,
        terms: [
          ...terms(numbers.springs, units),
          ...softFirst(numbers.springs).map((s, i) =>
            term(`c${i + 1}`, `share left of ${s.name}`, s.held, 'efficiency', 'computed'),
          ),
        ],
        source: `creep of each plastic part, E(t) = E·t^−n with its own n from the shop and t of ${HELD_HOURS} hours; steel does not creep`,
        note: `After ${stated(HELD_HOURS * 3600, 'life', 2)} it has given way by as much more.`,
      }),
    ),
  ];
}
