import { term } from '../figure/index.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import type { Duty } from '../stage/contract.ts';
import { METAL_FLANK, metalCycles, metalOver } from './fatigue.ts';
import { lastingTorque, lifeAsked } from './lasting.ts';
import type { Mode, Told } from './modes.ts';
import { flankEndurance, type ToothMaterial } from './tooth-material.ts';
import { lobeModule, wearRate, WORN_OUT, wornPerTurn } from './wear.ts';

/** Lobes that run on pins, as their life depends on them. */
export interface RunningLobes {
  readonly lobes: ToothMaterial;
  readonly pins: ToothMaterial;
  /** Pressure of the worst pin for the root of a newton metre at the output, Pa. */
  readonly press: number;
  /** Force times way of sliding for a radian of the output, over the torque. */
  readonly slide: number;
  /** Whether the pins roll on sleeves, which leaves the lobes little to slide on. */
  readonly rolls: boolean;
  /** Area of all lobes that run, m². */
  readonly area: number;
  /** Eccentricity, m. */
  readonly lift: number;
  /** Pins that go by a lobe in a turn of the output. */
  readonly meetings: number;
  /** Whether the output runs straight: its loads are forces, a "turn" is 2π metres. */
  readonly straight?: boolean;
}

/** Load at the output that lasts the life asked, and the life at the duty, s; how that comes about. */
export interface LobesLast {
  readonly torque: number;
  readonly life: number;
  readonly told: () => Told;
}

/**
 * Lobes in the long run: of plastic they wear by the work of sliding, all round alike; of metal they pit, each time a pin
 * goes by.
 *
 * @returns torque at the output that lasts the life asked, N·m, and the life at the duty, s
 * Source: linear wear as VDI 2736-2 has it for teeth; pitting by the life factor of ISO 6336-2.
 */
export function lobesLast(on: RunningLobes, at: Duty, shelf: Shelf): LobesLast {
  const asked = lifeAsked(at);
  const speed = at.meanSpeed ?? at.speed;
  const turns = (speed * asked) / (2 * Math.PI);
  const torque = lastingTorque(at);
  const load = () => term('T_L', 'equivalent load', torque, on.straight ? 'force' : 'torque', 'computed');
  const pace = () => term('ω', 'mean speed of the output', speed, on.straight ? 'linearSpeed' : 'speed', 'brief');
  if (!on.lobes.plastic) {
    const stands = Math.min(flankEndurance(on.lobes, shelf), flankEndurance(on.pins, shelf));
    const passes = turns * on.meetings;
    return {
      torque: ((stands * metalOver(METAL_FLANK, passes)) / on.press) ** 2,
      life:
        passes > 0 ? (asked * metalCycles(METAL_FLANK, (on.press * Math.sqrt(torque)) / stands)) / passes : Infinity,
      told: () => {
        const over = (on.press * Math.sqrt(torque)) / stands;
        return {
          formula: over > 1 ? '2π·N_D·(p₁·√T_L/p_D)^(−e)/(n·ω)' : 'for ever: p₁·√T_L is below p_D',
          terms: [
            term('p₁', 'pressure of the worst for the root of one of the load', on.press, 'stress', 'computed'),
            load(),
            term('p_D', 'pressure that the softer stands for ever', stands, 'stress', 'computed'),
            term('N_D', 'load cycles at the knee', METAL_FLANK.knee, 'count', 'definition'),
            term('e', 'slope of the life', METAL_FLANK.exponent, 'count', 'definition'),
            term('n', 'meetings in a turn', on.meetings, 'count', 'computed'),
            pace(),
          ],
        };
      },
    };
  }
  const share = on.rolls ? factor(shelf, 'lobe.roll') / factor(shelf, 'lobe.slide') : 1;
  const rate = wearRate(on.lobes, on.pins, shelf);
  const one = wornPerTurn(1, on.slide * share, rate, on.area);
  const stands = (WORN_OUT * lobeModule(on.lift)) / (one * turns);
  return {
    torque: stands,
    life: (asked * stands) / torque,
    told: () => ({
      formula: 'd·A/(T_L·s·k_W·ω)',
      terms: [
        term('d', 'depth that may be worn off', WORN_OUT * lobeModule(on.lift), 'length', 'computed'),
        term('A', 'flanks that run', on.area, 'area', 'computed'),
        load(),
        term('s', 'force times way of sliding for a radian, over the load', on.slide * share, 'count', 'computed'),
        term('k_W', 'wear, m³/(N·m)', rate, 'count', 'computed'),
        pace(),
      ],
    }),
  };
}

/**
 * Lobes that are pushed off their pins ride over once they have given way by the eccentricity.
 *
 * @param torque at the output at which their bearings have given way so far, N·m
 */
export const rideOver = (torque: number): Mode => ({
  id: 'skip',
  mode: 'lobes ride over the pins (skip)',
  torque,
  life: Infinity,
  time: 'static',
  why: 'What pushes lobes off the pins is held by the eccentrics’ bearings in their seats; given way by the eccentricity, they ride over.',
  grows: 'none',
});

/**
 * How lobes fail at their pins: in the long run, and crushed at once.
 *
 * @param lasts what `lobesLast` says
 * @param crushed pressure of the worst pin at a torque, and what the softer of both bears, Pa
 */
export const lobeModes = (
  lobes: ToothMaterial,
  lasts: LobesLast,
  crushed: { readonly torque: number; readonly pressure: number; readonly bears: number },
): Mode[] => [
  {
    id: 'flank',
    mode: lobes.plastic ? 'lobes wear at the pins' : 'lobes pit at the pins',
    torque: lasts.torque,
    life: lasts.life,
    told: lasts.told,
    time: 'life',
    why: lobes.plastic
      ? 'What sliding on the pins rubs off the lobes, all round alike; worn out is a fifteenth of their depth (linear wear as in VDI 2736-2).'
      : 'Hertzian pressure of the worst pin’s line contact at the equivalent torque, each time a pin goes by (pitting).',
    grows: 'width',
  },
  {
    id: 'crush',
    mode: 'lobes are crushed at the pins',
    torque: crushed.torque * (crushed.bears / crushed.pressure) ** 2,
    life: Infinity,
    told: () => ({
      formula: 'T·(p_P/p)²',
      terms: [
        term('T', 'torque that is told for', crushed.torque, 'torque', 'computed'),
        term('p_P', 'pressure that the softer bears', crushed.bears, 'stress', 'computed'),
        term('p', 'pressure of the worst pin at it', crushed.pressure, 'stress', 'computed'),
      ],
    }),
    time: 'static',
    why: 'Hertzian pressure of the worst pin’s line contact, with the lobe’s own curvature there, beyond what the softer of both bears once.',
    grows: 'width',
  },
];
