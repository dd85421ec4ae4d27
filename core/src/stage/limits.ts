import { check, term, type Check, type Figure, type FigureMaker, type Mend, type Term } from '../figure/index.ts';
import { lifeAsked } from '../gear/lasting.ts';
import type { ModeWorkings } from '../gear/mesh-figures.ts';
import { modeName, modeWhy, telling, torqueFor, type Mode } from '../gear/modes.ts';
import type { Duty } from './contract.ts';
import { TURNS, type OutputUnits } from './output-units.ts';

/** A way of failing, with the formula that its load comes from. */
export interface Limit extends Mode {
  readonly formula: string;
  /** What the formula is told with, worked out when it is looked at. */
  readonly terms?: (() => readonly Term[]) | undefined;
}

/** What a limit is made of; `life` is Infinity where it does not wear or tire. */
export const limitOf = (
  id: string,
  mode: string,
  time: Mode['time'],
  torque: number,
  why: string,
  formula: string,
  life = Infinity,
  terms?: () => readonly Term[],
  told?: Mode['told'],
): Limit => ({ id, mode, time, torque, why, formula, terms, life, told, grows: 'none' });

/** By how much a mended limit is to be over what is asked. */
export const IN_HAND = 1.15;

/**
 * Checks of what limits a stage: what is asked against what it stands, or the life at the duty against the one asked.
 *
 * @param mendOf the change that makes a limit so many times as high, where one does; Infinity where it carries nothing
 */
export function limitChecks(
  limits: readonly Mode[],
  at: Duty,
  advice: string,
  mendOf: (m: Mode, times: number) => Mend | undefined,
  units: OutputUnits = TURNS,
): Check[] {
  return telling(limits).map((m) => {
    const asked = torqueFor(at, m.time);
    const life = m.time === 'life';
    return check({
      id: m.id,
      of: m.id,
      name: modeName(m),
      figure: life ? m.life : asked,
      limit: life ? lifeAsked(at) : m.torque,
      sense: life ? 'min' : 'max',
      quantity: life ? 'life' : units.load,
      severity: m.time === 'static' ? 'stop' : 'warn',
      why: modeWhy(m),
      mend: () => mendOf(m, m.torque > 0 ? (IN_HAND * asked) / m.torque : Infinity),
      advice,
    });
  });
}

/**
 * The same as figures: the load at which each comes, or how long it lasts at the duty.
 *
 * @param how those come about that tell more than a formula
 */
export function limitFigures<M>(
  limits: readonly Limit[],
  make: FigureMaker<M>,
  pick: (m: M) => readonly Limit[],
  units: OutputUnits = TURNS,
  how: ModeWorkings = new Map(),
): Figure[] {
  return telling(limits).map((limit) => {
    const { id, formula, terms } = limit as Limit;
    const own = (m: M): Limit | undefined => pick(m).find((x) => x.id === id);
    if (limit.time === 'life')
      return make.figure(
        id,
        `${modeName(limit)} after`,
        'life',
        (m) => own(m)?.life ?? NaN,
        () => ({
          formula,
          terms: terms?.() ?? [term('T', 'load that lasts the life asked', limit.torque, units.load, 'computed')],
          ...limit.told?.(),
          ...how.get(id)?.(),
          source: modeWhy(limit),
        }),
      );
    return make.figure(
      id,
      `${modeName(limit)} at`,
      units.load,
      (m) => own(m)?.torque ?? NaN,
      () => ({ formula, terms: terms?.() ?? [], ...limit.told?.(), ...how.get(id)?.(), source: modeWhy(limit) }),
    );
  });
}
