import { given } from './arriving.ts';
import { sortOf } from '../gear/material-state.ts';
import { bandFrom, check, term, worked, type Check, type Figure } from '../figure/index.ts';
import { factor, findMaterial, type Shelf } from '../shop/shelf.ts';
import type { Duty, StageNumbers } from './contract.ts';

/** What of a stage's numbers its heat comes from. */
type Heated = Pick<StageNumbers, 'ratio' | 'etaForward' | 'branched' | 'drag' | 'outside' | 'length'>;

/**
 * Power that a stage turns into heat over its cycle, W: T_rms·ω_m·(1/η − 1) and the drag at its input.
 *
 * @returns 0 where no cycle is known
 */
export const frictionHeat = (n: Heated, at: Duty): number => {
  const speed = at.meanSpeed ?? 0;
  return at.torqueRms * given(n) * speed * (1 / n.etaForward - 1) + n.drag * speed * Math.abs(n.ratio);
};

/**
 * Outside of a stage, m²: a closed can of its diameter and length.
 * @example housing({ outside: 0.08, length: 0.05 }) // 0.0226195
 */
export const housing = (n: Pick<StageNumbers, 'outside' | 'length'>): number =>
  Math.PI * n.outside * n.length + (Math.PI / 2) * n.outside ** 2;

/**
 * How much warmer than its surroundings a stage becomes, K: friction heat over k·A of its housing.
 *
 * Source: heat balance once it has settled; VDI 2736-2 has the same as its second term, the housing's.
 */
export const warmthOf = (n: Heated, at: Duty, shelf: Shelf): number =>
  frictionHeat(n, at) / (factor(shelf, 'stage.cooling') * housing(n));

/** Below this rise nobody could measure it, K. */
const FELT = 0.5;
/** What a plastic is kept away from its softening temperature, K. */
const AWAY = 10;

/** Where a stage settles, with its band; none where it stays as cold as its surroundings. */
export function warmFigure(n: Heated, at: Duty, rise: number, shelf: Shelf): Figure[] {
  if (!(rise >= FELT)) return [];
  const [ambient, cooling] = [shelf.factors['ambient']!, shelf.factors['stage.cooling']!];
  // The shelf of a warm stage has its own temperature around it.
  const now = factor(shelf, 'ambient');
  const [low, high] = bandFrom(now, [
    [ambient.low + rise, ambient.high + rise],
    [now - rise + (rise * cooling.value) / cooling.low, now - rise + (rise * cooling.value) / cooling.high],
  ]);
  return [
    worked({ id: 'warmth', name: 'Settles at', quantity: 'temperature', value: now, low, high }, () => ({
      formula: `T₀ + min(500, P/(k·π·(D·L + D²/2))); P = T_rms·${n.branched ? '(1 + branches)·' : ''}ω_m·(1/η − 1) + d·|i|·ω_m`,
      terms: [
        term('T₀', 'surroundings', now - rise, 'temperature', 'shop', 'ambient'),
        term('P', 'friction heat', frictionHeat(n, at), 'power', 'computed'),
        term('k', 'cooling of a housing, W/(m²·K)', cooling.value, 'count', 'shop', 'stage.cooling'),
        term('D', 'outside', n.outside, 'length', 'computed'),
        term('L', 'length', n.length, 'length', 'computed'),
      ],
      source:
        'heat balance in still air, met with strength and modulus at that temperature; the motor’s heat is not in it',
    })),
  ];
}

/**
 * A check where a plastic of the stage comes near its softening temperature, or passes it.
 *
 * @param materials that the stage was computed from, by identifier: one that stands in its parameters unused does not count
 */
export function warmCheck(materials: Iterable<string>, rise: number, shelf: Shelf): Check[] {
  if (!(rise >= FELT)) return [];
  const softest = [...materials]
    .flatMap((id) => findMaterial(shelf, id) ?? [])
    .filter((m) => sortOf(m) !== 'metal')
    .sort((a, b) => a.softening - b.softening)[0];
  if (!softest) return [];
  return [
    check({
      id: 'warmth',
      of: 'warmth',
      name: 'Stays colder than its plastics soften',
      figure: factor(shelf, 'ambient'),
      limit: softest.softening - AWAY,
      sense: 'max',
      quantity: 'temperature',
      near: 0.015,
      why: `Its own friction warms it, and ${softest.name} creeps within ten kelvin of its softening temperature.`,
      advice: 'Let it turn slower or less often, open its housing to air, or take a material that softens later.',
    }),
  ];
}
