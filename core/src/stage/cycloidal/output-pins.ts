import {
  elastic,
  pinBetween,
  pinStanding,
  seatHoldsOut,
  seatsHold,
  seatStands,
  seatStiffness,
  type SeatedPin,
  type ToothMaterial,
} from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { phaseOf, STEPS } from './geometry.ts';
import type { CycloidalParams } from './params.ts';

/** How the output pins of one disc share a moment of one newton metre: pushes together and the most, N; longest lever, m. */
export interface OutShare {
  readonly sum: number;
  readonly most: number;
  readonly lever: number;
}

/**
 * Pushes at right angles to the crank's arm, in proportion to their levers; only pins on the driving side push.
 * @param crank angle of the eccentric against the pins, rad
 * @example outShare({ outPins: 6, outCircle: 0.05 }, 0.4) // { sum: 52.92647, most: 26.46324, lever: 0.0248093 }
 */
export function outShare(p: Pick<CycloidalParams, 'outPins' | 'outCircle'>, crank: number): OutShare {
  let [sum, squares, most] = [0, 0, 0];
  for (let i = 0; i < p.outPins; i++) {
    const s = Math.max(0, Math.sin(crank - (2 * Math.PI * i) / p.outPins));
    sum += s;
    squares += s * s;
    most = Math.max(most, s);
  }
  const each = 1 / ((p.outCircle / 2) * squares);
  return { sum: each * sum, most: each * most, lever: (p.outCircle / 2) * most };
}

/** Thickness of a plate that output pins stand in, m. */
export const outPlate = (p: Pick<CycloidalParams, 'outPin'>): number => Math.max(3e-3, p.outPin);

/** Free of the plate's face, m, before the first disc. */
const FREE = 1e-3;

/** How far from the plate's face each disc pushes, at its middle, m; the plate stands behind the last disc. */
export const reaches = (p: Pick<CycloidalParams, 'discs' | 'width'>): number[] =>
  Array.from({ length: p.discs }, (_, d) => FREE + (p.discs - d - 0.5) * p.width);

/** Length of a pin between plates on either side, from middle to middle, m. */
const between = (p: CycloidalParams): number => p.discs * p.width + FREE + outPlate(p);

/** How the discs push the output pins for a newton metre at the output: their shares do not depend on any stiffness. */
export interface OutPushes {
  /** Mean over a pitch of the crank of what disc d and disc e push on the same pin, summed over pins, (N/(N·m))², row by row. */
  readonly squares: Float64Array;
  /** Most that one pin is pushed with by all discs, N/(N·m), and bent by at its plate, N·m/(N·m). */
  readonly most: number;
  readonly bent: number;
}

/**
 * Pushes of the discs on the output pins over a pitch of the crank; each disc pushes its own half of them.
 *
 * @param reach from the plate's face to each disc's middle, m
 * @example outPushes({ outPins: 6, outCircle: 0.05, discs: 1 }, [0.01]).most // 26.6666667
 * @example outPushes({ outPins: 6, outCircle: 0.05, discs: 1 }, [0.01]).squares[0] // 1066.66667
 */
export function outPushes(
  p: Pick<CycloidalParams, 'outPins' | 'outCircle' | 'discs'>,
  reach: readonly number[],
): OutPushes {
  const n = reach.length;
  const squares = new Float64Array(n * n);
  let [most, bent] = [0, 0];
  const pushes = new Float64Array(n);
  for (let k = 0; k < STEPS; k++) {
    const crank = (2 * Math.PI * k) / p.outPins / STEPS;
    const shares = reach.map((_, d) => 1 / outLevers(p, crank + phaseOf(p, d)) / n);
    for (let i = 0; i < p.outPins; i++) {
      let [sum, moment] = [0, 0];
      for (let d = 0; d < n; d++) {
        const s = Math.sin(crank + phaseOf(p, d) - (2 * Math.PI * i) / p.outPins);
        pushes[d] = s > 0 ? s * shares[d]! : 0;
        sum += pushes[d]!;
        moment += pushes[d]! * reach[d]!;
      }
      for (let d = 0; d < n; d++) for (let e = 0; e < n; e++) squares[d * n + e]! += (pushes[d]! * pushes[e]!) / STEPS;
      most = Math.max(most, sum);
      bent = Math.max(bent, moment);
    }
  }
  return { squares, most, bent };
}

/** What all pins give, where each gives `each[d]` for a newton of disc d: pushes on one pin add as the roots of it. */
function gives(o: OutPushes, each: readonly number[]): number {
  let sum = 0;
  for (let d = 0; d < each.length; d++)
    for (let e = 0; e < each.length; e++) sum += o.squares[d * each.length + e]! * Math.sqrt(each[d]! * each[e]!);
  return sum;
}

/** What holes at the pins give for a newton metre where one gives a newton a metre: each disc has its own holes. */
export const holesGive = (o: OutPushes, discs: number): number => {
  let sum = 0;
  for (let d = 0; d < discs; d++) sum += o.squares[d * discs + d]!;
  return sum;
};

/** Sum of the squares of the levers on the driving side, over their radius, m. */
function outLevers(p: Pick<CycloidalParams, 'outPins' | 'outCircle'>, crank: number): number {
  let squares = 0;
  for (let i = 0; i < p.outPins; i++) {
    const s = Math.sin(crank - (2 * Math.PI * i) / p.outPins);
    if (s > 0) squares += s * s;
  }
  return (p.outCircle / 2) * squares;
}

/** An output pin with its seats, of the materials of pins and plates. */
export const outPinOf = (p: CycloidalParams, pin: ToothMaterial, plate: ToothMaterial, shelf: Shelf): SeatedPin => ({
  diameter: p.outPin,
  modulus: elastic(pin, factor(shelf, 'ambient'), shelf),
  seat: seatStiffness(plate, shelf),
  depth: outPlate(p),
});

/**
 * How the output pins give for a newton metre at the output, rad: by bending, and in their seats.
 * Source: energy of all pins, each a cantilever out of one plate or a beam between two (`seated-pin.ts`).
 */
export function outPinsGive(
  p: CycloidalParams,
  pushes: OutPushes,
  pin: SeatedPin,
): { readonly bends: number; readonly seats: number } {
  const each = reaches(p).map((out) =>
    p.carriedBy === 'plate' ? pinStanding(pin, out) : pinBetween(pin, between(p), 'middle'),
  );
  const sum = (of: 'bends' | 'seats') =>
    gives(
      pushes,
      each.map((x) => x[of]),
    );
  return { bends: sum('bends'), seats: sum('seats') };
}

/**
 * Equivalent stress of the worst output pin for a newton metre at the output, Pa: √(σ² + 3τ²), σ where it is bent most,
 * at its plate or in the middle between two, τ in the middle of a round section 4/3 of the mean.
 *
 * Source: cantilever F·x; beam between leaning ends F·L/4 − M with M = F·L/8·β/(β + 2) at either end.
 */
export function outPinStress(
  p: CycloidalParams,
  pushes: OutPushes,
  pin: SeatedPin,
): { readonly bending: number; readonly all: number } {
  const d = pin.diameter;
  const L = between(p);
  const beta = (((pin.seat * pin.depth ** 3) / 12) * L) / ((pin.modulus * Math.PI * d ** 4) / 64);
  const end = (L / 8) * (beta / (beta + 2));
  const moment = p.carriedBy === 'plate' ? pushes.bent : pushes.most * Math.max(end, L / 4 - end);
  const bending = (32 * moment) / (Math.PI * d ** 3);
  return { bending, all: Math.hypot(bending, Math.sqrt(3) * (4 / 3) * (pushes.most / ((Math.PI / 4) * d ** 2))) };
}

/** Torque at the output at which the worst output pin presses its seats wide, N·m. */
export function outSeatsHold(p: CycloidalParams, pushes: OutPushes, plate: ToothMaterial, shelf: Shelf): number {
  const seat = { diameter: p.outPin, depth: outPlate(p) };
  const stands = seatStands(plate, shelf);
  return (
    (p.carriedBy === 'both' ? seatsHold(seat, stands) : seatHoldsOut(seat, pushes.bent / pushes.most, stands)) /
    pushes.most
  );
}
