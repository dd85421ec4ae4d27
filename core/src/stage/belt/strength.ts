import { crept, formHolds, hubOf, seatOf } from '../../gear/index.ts';
import { pullFor } from '../../loop/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { BeltSection } from '../../shop/section.ts';
import type { Spring } from '../contract.ts';
import { spring } from '../springs.ts';
import type { BeltParams } from './params.ts';
import { outsideRadius, pitchRadius } from './pulley.ts';
import { onShaft } from './weight.ts';

/** Share of full tooth load for teeth in mesh below six: 1 − 0.2·(6 − z_mesh), never above 1 nor below 0. */
export const meshShare = (mesh: number): number => Math.max(0, Math.min(1, 1 - 0.2 * (6 - mesh)));

/** Teeth that are counted on to share load: those in mesh, at most twelve, times the share that few teeth lose. */
export const loadedTeeth = (mesh: number): number => Math.min(mesh, 12) * meshShare(mesh);

/** Circumferential force at which the belt's teeth shear, N. */
export const beltShearForce = (p: BeltParams, s: BeltSection, mesh: number, shelf: Shelf): number =>
  factor(shelf, s.ids.shear) * p.width * loadedTeeth(mesh);

/**
 * Circumferential force at which the belt jumps a tooth of a pulley, N: the belt's own resistance to being lifted over the
 * teeth in mesh, less where those are printed and round off, plus a share of the installation tension that holds it down.
 *
 * @param mesh teeth in mesh
 */
export const jumpForce = (
  p: BeltParams,
  s: BeltSection,
  made: BeltParams['made1'],
  mesh: number,
  shelf: Shelf,
): number =>
  factor(shelf, s.ids.jump) *
    p.width *
    loadedTeeth(mesh) *
    (made === 'printed' ? factor(shelf, 'belt.printedJump') : 1) +
  factor(shelf, 'belt.jump') * p.tension;

/**
 * Circumferential force for which the tight side reaches the allowable tension, N. While the slack side carries,
 * F_t = F_i + a·F_u; once it hangs, F_t = F_u.
 *
 * @param share a, that the tight side takes
 */
export const tensionForce = (p: BeltParams, s: BeltSection, share: number, shelf: Shelf): number =>
  pullFor(factor(shelf, s.ids.tension) * p.width, p.tension, share);

/**
 * Circumferential force at which printed teeth shear at their root: root land × width × strength over the loaded teeth,
 * N.
 */
export function printedToothForce(p: BeltParams, s: BeltSection, teeth: number, mesh: number, shelf: Shelf): number {
  const rootRadius = pitchRadius(s.pitch, teeth) - s.offset - s.space.depth;
  const space = s.space.form === 'trapezoid' ? s.space.bottom : 1.4 * s.space.radius;
  const land = Math.max(0, (2 * Math.PI * rootRadius) / teeth - space);
  return factor(shelf, 'printed.shear') * land * p.width * loadedTeeth(mesh);
}

/** A pulley on what holds it; lengths in m. */
export interface Held {
  readonly hold: BeltParams['hold1'];
  readonly made: BeltParams['made1'];
  readonly bore: number;
  /** Radius over the teeth. */
  readonly outside: number;
  /** Of the belt; the bore goes through flanges and hub as well. */
  readonly width: number;
}

/** Both pulleys of a belt stage on what holds them. */
export const pulleysHeld = (p: BeltParams, s: BeltSection): readonly [Held, Held] => [
  { hold: p.hold1, made: p.made1, bore: p.bore1, outside: outsideRadius(s, p.z1), width: p.width },
  { hold: p.hold2, made: p.made2, bore: p.bore2, outside: outsideRadius(s, p.z2), width: p.width },
];

/** Screws assumed for a pulley held by screws, and for one bolted through. */
const SET_SCREWS = 2;
const BOLTS = 4;
/** How far out of its radius the screws through a pulley are. */
const SCREWED_AT = 0.6;

/** Modulus of bought pulleys, Pa: aluminium. */
const BOUGHT = 70e9;
/** Creep exponent of what pulleys are printed of, PLA. */
const PRINTED_CREEP = 0.06;

/**
 * Spring of a pulley on what holds it, N·m/rad about its own shaft; a bonded bore does not give.
 *
 * Source: as of any hub on its shaft and of any wheel on screws.
 */
export function holdSpring(name: string, { hold, made, bore, outside, width }: Held, shelf: Shelf): Spring {
  const modulus = made === 'bought' ? BOUGHT : factor(shelf, 'printed.modulus');
  const length = onShaft(made, width);
  const held = crept({ material: { creep: made === 'bought' ? 0 : PRINTED_CREEP } });
  switch (hold) {
    case 'glue':
      return spring(name, Infinity);
    case 'bolted':
      return spring(name, BOLTS * seatOf(modulus, shelf) * length * screwsAt(bore, outside) ** 2, held);
    default:
      return spring(name, hubOf(modulus, bore, length, shelf), held);
  }
}

/** Radius of the circle on which screws go through a pulley, m. */
const screwsAt = (bore: number, outside: number): number => Math.max(bore / 2, SCREWED_AT * outside);

/**
 * Torque a pulley's hold on its shaft carries, N·m.
 *
 * @example holdTorque({ hold: 'key', made: 'bought', bore: 0.008, outside: 0.02, width: 0.006 }, shelf) // 8.064
 */
export function holdTorque({ hold, made, bore, outside, width }: Held, shelf: Shelf): number {
  const r = bore / 2;
  const length = onShaft(made, width);
  switch (hold) {
    case 'screws':
      return SET_SCREWS * factor(shelf, 'hold.screw') * r;
    case 'glue':
      return factor(shelf, 'hold.glue') * Math.PI * bore * length * r;
    case 'key':
      return formHolds(bore, length, factor(shelf, made === 'bought' ? 'hold.keyMetal' : 'hold.key'));
    case 'bolted':
      return BOLTS * factor(shelf, 'hold.bolt') * screwsAt(bore, outside);
  }
}
