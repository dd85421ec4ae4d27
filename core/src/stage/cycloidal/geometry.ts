import {
  ringContacts,
  ringPlay,
  smallestConvex,
  stopsBothWays,
  type ContactSet,
  type Cycloid,
  type LobedPair,
} from '../../lobed/index.ts';
import { ok, type Result } from '../../result.ts';
import { lobesOf, type CycloidalParams } from './params.ts';
import { inMm as mm, stop } from '../refuse-stage.ts';
import { gcd } from '../../math/gcd.ts';
import { steppedDown } from '../../math/steps.ts';

/** Crank angles over one pin's pitch, after which the ring stands as before. */
export const STEPS = 12;

/** A cycloidal stage; everything that no factor moves. */
export interface CycloidalGeometry {
  readonly profile: Cycloid;
  readonly pair: LobedPair;
  readonly convex: number;
  /** Contacts of every disc at each crank angle of a pitch. */
  readonly sets: readonly (readonly ContactSet[])[];
  /** Play of all discs together at each of them, rad: from the middle, back and on. */
  readonly plays: readonly (readonly [number, number])[];
  /** Turn of each disc's lobes from its holes, rad, and whether all are the same part. */
  readonly clocking: readonly number[];
  readonly alike: boolean;
  readonly outside: number;
}

/** Phase of a disc's eccentric, rad: evenly spread. */
export const phaseOf = (p: Pick<CycloidalParams, 'discs'>, i: number): number => (2 * Math.PI * i) / p.discs;

/**
 * Radius of the housing's bore, m: a little inside the pins' middles, so that seats hold them, but clear of the lobes'
 * tips at their furthest.
 */
export const ringBore = (p: Pick<CycloidalParams, 'circle' | 'pin' | 'throw'>): number =>
  Math.max(p.circle / 2 - 0.075 * p.pin, p.circle / 2 + 2 * p.throw - p.pin / 2 + 2e-4);

/** Whether that bore leaves seats for the pins; without them they stand in the plates alone. */
export const seated = (p: Pick<CycloidalParams, 'circle' | 'pin' | 'throw'>): boolean =>
  ringBore(p) < p.circle / 2 + 0.4 * p.pin;

/** Wall of the housing behind its pins, or behind its bore where they stand in the plates alone, m. */
export const wallBehind = (p: Pick<CycloidalParams, 'circle' | 'pin' | 'throw' | 'rim'>): number =>
  p.circle / 2 + p.rim - (seated(p) ? (p.circle + p.pin) / 2 : ringBore(p));

/** Geometry of a stage; refuses in words what cannot be. */
export function cycloidalGeometry(p: CycloidalParams): Result<CycloidalGeometry> {
  const Z = p.pins;
  const R = p.circle / 2;
  if (Z % p.difference !== 0) {
    const value = Z + 1;
    return stop(
      `${Z} pins do not go with a disc of two lobes less.`,
      'Its two branches each serve every second pin: the pins must be an even number.',
      `Take ${value} pins.`,
      'pins',
      { path: 'pins', value, label: `${value} pins` },
    );
  }
  // One branch of the profile serves every d-th pin.
  const n = Z / p.difference;
  if (n < 4)
    return stop(
      'Too few pins for two lobes less.',
      'Each branch needs at least four.',
      'Take eight pins or more.',
      'pins',
      { path: 'pins', value: 8, label: '8 pins' },
    );
  const most = R / n;
  if (!(p.throw < 0.98 * most)) {
    const value = steppedDown(0.8 * most, 5e-5);
    return stop(
      `An eccentricity of ${mm(p.throw)} loops the profile back on itself.`,
      `It must stay below R/Z${p.difference > 1 ? '·2' : ''} = ${mm(most)}.`,
      `Take ${mm(value)} or less, fewer pins or a larger circle.`,
      'throw',
      value > 5e-5 ? { path: 'throw', value, label: `Eccentricity ${mm(value)}` } : undefined,
    );
  }
  const apart = p.circle * Math.sin(Math.PI / Z);
  if (!(p.pin < apart)) {
    const value = steppedDown(0.85 * apart, 1e-4);
    return stop(
      'Neighbouring ring pins overlap.',
      `${Z} pins on ⌀ ${mm(p.circle)} leave ${mm(apart)} from middle to middle.`,
      `Take pins of ${mm(value)} or less, fewer of them or a larger circle.`,
      'pin',
      { path: 'pin', value, label: `Pins ${mm(value)}` },
    );
  }
  const profile: Cycloid = { pins: n, circle: R - p.ringChange, pin: p.pin / 2 + p.offset, throw: p.throw };
  if (!(profile.pin > 0))
    return stop(
      'The profile would be cut for pins of no size.',
      'The equidistant gap is as large as the pins, and negative.',
      'Take a larger gap.',
      'offset',
    );
  if (!(p.throw < 0.98 * (profile.circle / n)))
    return stop(
      'The smaller circle makes the profile loop back on itself.',
      `Cut for a circle of ${mm(2 * profile.circle)}, the eccentricity must stay below ${mm(profile.circle / n)}.`,
      'Change the circle by less.',
      'ringChange',
    );
  const convex = smallestConvex(profile);
  if (!(profile.pin < convex)) {
    const value = steppedDown(2 * (0.9 * convex - p.offset), 1e-4);
    return stop(
      'The pins are too large: the lobes are undercut.',
      `Cut for a radius of ${mm(profile.pin)}, while the path of the pins bends as sharply as ${mm(convex)}.`,
      `Take pins of ${mm(value)} or less, or less eccentricity.`,
      'pin',
      value > 5e-4
        ? { path: 'pin', value, label: `Pins ${mm(value)}` }
        : { path: 'throw', value: steppedDown(0.8 * p.throw, 5e-5), label: 'Less eccentricity' },
    );
  }
  const pair: LobedPair = { profile, circle: R, pin: p.pin / 2 };
  const angles = Array.from({ length: STEPS }, (_, k) => (2 * Math.PI * k) / Z / STEPS);
  const sets = angles.map((a) =>
    Array.from({ length: p.discs }, (_, i) => ringContacts(pair, p.difference, a + phaseOf(p, i))),
  );
  if (p.difference > 1 && !sets.every((s) => s.every(stopsBothWays)))
    return stop(
      'At some angle of the crank no pin holds the disc.',
      `Of two lobes less only what both branches leave is there, and pins on ⌀ ${mm(p.circle)} meet it where it is cut off.`,
      'Change the circle by less, or take more eccentricity.',
      'ringChange',
      p.ringChange !== 0 ? { path: 'ringChange', value: 0, label: 'No change of the circle' } : undefined,
    );
  const finest = (2 * Math.PI * gcd(lobesOf(p), p.outPins)) / (lobesOf(p) * p.outPins);
  const clocking = Array.from({ length: p.discs }, (_, i) => {
    const turn = -phaseOf(p, i) / (n - 1);
    const rest = turn - finest * Math.round(turn / finest);
    return Math.abs(rest) < 1e-12 ? 0 : rest;
  });
  return ok({
    profile,
    pair,
    convex,
    sets,
    plays: together(
      angles.map((a, k) => ringPlay(pair, p.difference, a, sets[k]![0]!)),
      p,
    ),
    clocking,
    alike: clocking.every((c) => Math.abs(c) < 1e-9),
    outside: p.circle + 2 * p.rim,
  });
}

/**
 * Play of several discs from that of one over a pitch: the first of them to touch stops all, either way. The others stand
 * as far along the pitch as their eccentrics are turned.
 */
function together(
  one: readonly (readonly [number, number])[],
  p: CycloidalParams,
): readonly (readonly [number, number])[] {
  const steps = one.length;
  const later = Array.from({ length: p.discs }, (_, d) => Math.round(((p.pins * d) / p.discs) * steps));
  return one.map((_, k) => {
    const discs = later.map((by) => one[(k + by) % steps]!);
    return [Math.max(...discs.map(([back]) => back)), Math.min(...discs.map(([, on]) => on))];
  });
}
