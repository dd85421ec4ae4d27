import { reducedModulus } from '../../contact/index.ts';
import { crept, elastic, flankCrush, lobesLast } from '../../gear/index.ts';
import { roundMoment, SEAT_OF } from '../../gear/seated-pin.ts';
import { linePressure, pinContact } from '../../lobed/index.ts';
import { term } from '../../figure/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, Spring } from '../contract.ts';
import { limitOf, type Limit } from '../limits.ts';
import { spring } from '../springs.ts';
import type { RackBuild } from './model.ts';
import type { RackParams } from './params.ts';
import { flankRadius, seatLeft, type RollerRack } from './rollers.ts';

/** Rollers of a pinion under load; forces N, along the rack where nothing else is said. */
export interface RollersLoaded {
  readonly efficiency: number;
  /** How many carry at once at the least, on one side. */
  readonly carry: number;
  /** Stiffness of a roller on its flank and its pin, N/m, and what one that is set in presses with. */
  readonly one: number;
  readonly preload: number;
  /** What those that carry on one side bear at the most, along the rack: their flanks, and their pins. */
  readonly bears: { readonly crush: number; readonly pin: number };
  /** Load at which the rollers behind have let go, and how much softer those in front are alone, m/N. */
  readonly lets: number;
  readonly softer: number;
  /** What set in rollers cost at the pitch line. */
  readonly drag: number;
  readonly springs: readonly Spring[];
  readonly limits: readonly Limit[];
}

/** Diameter of a roller's pin over its own. */
const PIN = 0.6;
/** Young's modulus of steel, Pa. */
export const STEEL = 210e9;
/** What a ground pin yields at, Pa. */
const YIELD = 450e6;

/**
 * How far a pin gives in its middle for an even push, m/N: it is carried at both ends, free to lean, 5L³/(384·E·I).
 *
 * @param diameter m
 * @param length from one disc to the other, m
 * @example pinSags(1.8e-3, 0.012) // 2.07923e-7
 */
export const pinSags = (diameter: number, length: number): number =>
  (5 * length ** 3) / (384 * STEEL * roundMoment(diameter));

/**
 * Push that bends a pin to what it yields at, N: an even push bends its middle by F·L/8.
 *
 * @param stands Pa
 * @example pinBears(1.8e-3, 0.012, 450e6) // 171.767
 */
export const pinBears = (diameter: number, length: number, stands: number): number =>
  (stands * ((Math.PI * diameter ** 3) / 32) * 8) / length;

/**
 * Load that rollers carry where the worst of them bears so much, N: those that are set in press in front and behind, and
 * share the load until those behind let go.
 *
 * @param bears what all that carry on one side bear, along the rack
 * @param lets load at which those behind let go
 * @returns not below nought
 * @example sharedBehind(100, 150) // 50
 * @example sharedBehind(200, 150) // 200
 */
export const sharedBehind = (bears: number, lets: number): number =>
  Math.max(0, bears < lets ? 2 * bears - lets : bears);

/** Pressure of a roller for a newton along the rack at an angle of its contact, Pa: convex on convex. */
const pressedAt = (r: RollerRack, theta: number, width: number, modulus: number): number =>
  linePressure(1 / Math.cos(theta / 2), width, modulus, 1 / r.roller + 1 / flankRadius(r.radius, r.roller, theta));

/** Mean over a contact of tan(θ/2), from 0 to where it ends. */
export const meanLean = (reach: number): number => (-2 * Math.log(Math.cos(reach / 2))) / reach;

/**
 * Rollers on their flanks: a line of contact each, behind it a pin that bends.
 *
 * Source: Hertz on the cycloid's parallel curve; pin as a beam on two supports.
 */
export function rollersCarry(
  p: RackParams,
  { geometry: g, materials }: RackBuild,
  at: Duty,
  shelf: Shelf,
): RollersLoaded {
  const r = g.rollers!;
  const ambient = factor(shelf, 'ambient');
  const [a, b] = materials;
  const moduli = [elastic(a, ambient, shelf), elastic(b, ambient, shelf)] as const;
  const modulus = reducedModulus(moduli[0], a.poisson, moduli[1], b.poisson);
  const carry = Math.max(1, Math.floor(r.carrying));
  const friction = factor(shelf, 'lobe.roll');
  const leans = meanLean(r.reach);
  const sides = p.interference > 0 ? 2 : 1;
  const touch = pinContact(modulus, p.width, (factor(shelf, 'lobe.seat') * moduli[0]) / SEAT_OF);
  const sags = pinSags(PIN * p.roller, p.width);
  const one = 1 / (1 / touch + sags);
  const preload = one * p.interference;
  const lets = 2 * carry * preload;
  const foot = Math.min(r.reach, seatLeft(r.radius, r.roller));
  // Of all that one side carries, for the root of a newton.
  const press =
    Math.max(pressedAt(r, foot, p.width, modulus), pressedAt(r, r.reach, p.width, modulus)) / Math.sqrt(carry);
  const crush = Math.min(flankCrush(a, ambient, shelf), flankCrush(b, ambient, shelf));
  const height = r.tip + r.roller;
  const way = Math.max(g.pitch, Math.min(p.stroke, at.swing ?? p.stroke));
  const lasts = lobesLast(
    {
      lobes: b,
      pins: a,
      press,
      slide: 2 * leans,
      rolls: true,
      area: (way / g.pitch) * height * p.width,
      lift: height / 2,
      // A tooth is met once each way; a "turn" is 2π metres.
      meetings: (2 * Math.PI) / way,
      straight: true,
    },
    at,
    shelf,
  );
  const stands = YIELD * factor(shelf, 'strength.metal');
  const pins = carry * Math.cos(r.reach / 2) * pinBears(PIN * p.roller, p.width, stands);
  const told = (bears: string, force: number): string => (force < lets ? `max(0, 2·${bears} − F_v)` : bears);
  const shared = () => term('F_v', 'load at which the rollers behind let go', lets, 'force', 'computed');
  const counted = () => term('n', 'rollers that carry on one side at the least', carry, 'count', 'computed');
  return {
    efficiency: 1 - 2 * friction * leans,
    carry,
    one,
    preload,
    bears: { crush: (crush / press) ** 2, pin: pins },
    lets,
    softer: sides > 1 ? 1 / (carry * one) - 1 / (2 * carry * one) : 0,
    drag: lets * friction,
    springs: [
      spring('rollers on their flanks', carry * sides * touch, crept(b)),
      spring('pins of the rollers bend', (carry * sides) / sags),
    ],
    limits: [
      limitOf(
        'crush',
        'flanks of the rack are crushed by a roller',
        'static',
        sharedBehind((crush / press) ** 2, lets),
        'Hertzian pressure of a roller where its flank is roundest, beyond what the softer of both bears once.',
        told('n·(p/p₁)²', (crush / press) ** 2),
        Infinity,
        () => [
          counted(),
          term('p', 'pressure that the softer bears', crush, 'stress', 'computed'),
          term('p₁', 'pressure of one roller for a newton', press * Math.sqrt(carry), 'stress', 'computed'),
          shared(),
        ],
      ),
      limitOf(
        'flank',
        b.plastic ? 'flanks of the rack wear' : 'flanks of the rack pit',
        'life',
        lasts.torque,
        b.plastic
          ? 'What rollers rub off the flanks (linear wear as in VDI 2736-2).'
          : 'Hertzian pressure each time a roller goes by (pitting).',
        'passes that it stands over how often they come',
        lasts.life,
        undefined,
        lasts.told,
      ),
      limitOf(
        'pin',
        'pin of a roller bends',
        'static',
        sharedBehind(pins, lets),
        'A pin of six tenths of the roller’s diameter, ground steel, carried at both ends by the discs.',
        told('n·cos(θ/2)·R_e·π·d³/(4·b)', pins),
        Infinity,
        () => [
          counted(),
          term('θ', 'angle at the end of a contact', r.reach, 'angle', 'computed'),
          term('R_e', 'yield of the pin', stands, 'stress', 'computed'),
          term('d', 'pin', PIN * p.roller, 'length', 'computed'),
          term('b', 'face width', p.width, 'length', 'field', 'width'),
          shared(),
        ],
      ),
    ],
  };
}
