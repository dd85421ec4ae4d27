import { factor, type Shelf } from '../shop/shelf.ts';
import type { Duty } from '../stage/contract.ts';
import { METAL_FLANK, metalCycles, metalOver } from './fatigue.ts';
import { lastingTorque, lifeAsked } from './lasting.ts';
import type { Mode } from './modes.ts';
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
}

/**
 * Lobes in the long run: of plastic they wear by the work of sliding, all round alike; of metal they pit, each time a pin
 * goes by.
 *
 * @returns torque at the output that lasts the life asked, N·m, and the life at the duty, s
 * Source: linear wear as VDI 2736-2 has it for teeth; pitting by the life factor of ISO 6336-2.
 */
export function lobesLast(on: RunningLobes, at: Duty, shelf: Shelf): { torque: number; life: number } {
  const asked = lifeAsked(at);
  const turns = ((at.meanSpeed ?? at.speed) * asked) / (2 * Math.PI);
  const torque = lastingTorque(at);
  if (!on.lobes.plastic) {
    const stands = Math.min(flankEndurance(on.lobes, shelf), flankEndurance(on.pins, shelf));
    const passes = turns * on.meetings;
    return {
      torque: ((stands * metalOver(METAL_FLANK, passes)) / on.press) ** 2,
      life:
        passes > 0 ? (asked * metalCycles(METAL_FLANK, (on.press * Math.sqrt(torque)) / stands)) / passes : Infinity,
    };
  }
  const share = on.rolls ? factor(shelf, 'lobe.roll') / factor(shelf, 'lobe.slide') : 1;
  const one = wornPerTurn(1, on.slide * share, wearRate(on.lobes, on.pins, shelf), on.area);
  const stands = (WORN_OUT * lobeModule(on.lift)) / (one * turns);
  return { torque: stands, life: (asked * stands) / torque };
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
 * @param crushes torque at the output at which the softer of both is crushed, N·m
 */
export const lobeModes = (
  lobes: ToothMaterial,
  lasts: { readonly torque: number; readonly life: number },
  crushes: number,
): Mode[] => [
  {
    id: 'flank',
    mode: lobes.plastic ? 'lobes wear at the pins' : 'lobes pit at the pins',
    torque: lasts.torque,
    life: lasts.life,
    time: 'life',
    why: lobes.plastic
      ? 'What sliding on the pins rubs off the lobes, all round alike; worn out is a fifteenth of their depth (linear wear as in VDI 2736-2).'
      : 'Hertzian pressure of the worst pin’s line contact at the equivalent torque, each time a pin goes by (pitting).',
    grows: 'width',
  },
  {
    id: 'crush',
    mode: 'lobes are crushed at the pins',
    torque: crushes,
    life: Infinity,
    time: 'static',
    why: 'Hertzian pressure of the worst pin’s line contact, with the lobe’s own curvature there, beyond what the softer of both bears once.',
    grows: 'width',
  },
];
