import { factor, type Shelf } from '../shop/shelf.ts';
import type { Pair } from './pair.ts';
import type { ToothMaterial } from './tooth-material.ts';

/** Wear coefficients of the shop stand in 10⁻⁶ mm³/(N·m), as tables print them. */
const PER_TABLE = 1e-15;

/** Families of plastics that wear alike, by the name of the material. */
const FAMILIES: readonly (readonly [RegExp, string])[] = [
  [/^pom/, 'pom'],
  [/^pa-cf/, 'carbon'],
  [/^pa/, 'polyamide'],
];

/**
 * The shop's factor for how fast a wheel's flanks wear, by what it is of and what it runs on; none for a metal, whose
 * greased flanks pit before they wear.
 */
export function wearFactor(own: ToothMaterial, mate: ToothMaterial): string | undefined {
  if (!own.plastic) return undefined;
  const family = FAMILIES.find(([name]) => name.test(own.material.id))?.[1] ?? 'printed';
  return `wear.${family}${mate.plastic ? '' : 'OnMetal'}`;
}

/** Volume worn off for the work of the normal force along its slide, m³/(N·m); 0 for a metal. */
export function wearRate(own: ToothMaterial, mate: ToothMaterial, shelf: Shelf): number {
  const id = wearFactor(own, mate);
  return id === undefined ? 0 : factor(shelf, id) * PER_TABLE;
}

/**
 * Depth worn off a flank each time it passes through the mesh, m: 2π·T·H_V·k_W/(b·z·l_Fl).
 *
 * @param torque at the wheel that is worn, from one mesh, N·m
 * @param loss H_V of the mesh
 * @param rate k_W, m³/(N·m)
 * @param width b, m
 * @param teeth z
 * @param flank active length l_Fl of its profile, m
 * Source: VDI 2736-2, wear of a flank for one load cycle.
 * @example wearPerPass(0.8, 0.18, 15e-15, 10e-3, 27, 1.6e-3) // 3.14159e-11
 */
export const wearPerPass = (
  torque: number,
  loss: number,
  rate: number,
  width: number,
  teeth: number,
  flank: number,
): number => (2 * Math.PI * torque * loss * rate) / (width * teeth * flank);

/**
 * Length of a wheel's flank that touches the other's, m: an involute from its base circle is r_b·φ²/2 long, where φ is
 * the way along the line of action over r_b.
 *
 * @param wheel first or second of the pair
 * Source: involute of a circle, exact; ends of contact by ISO 21771.
 */
export function activeFlank(p: Pair, wheel: 0 | 1): number {
  const across = p.centre * Math.sin(p.working);
  // The second wheel's way is told from its own base circle: outside it runs against the first's, inside along with it.
  const from = (way: number) => (wheel === 0 ? way : p.ring ? way + across : across - way);
  const base = wheel === 0 ? p.s1.rb : p.s2.rb;
  const [a, b] = [Math.max(0, from(p.start)), Math.max(0, from(p.end))];
  return Math.abs(b * b - a * a) / (2 * base);
}

/** Share of a module that may be worn off a tooth before it counts as worn out. Source: usual practice of VDI 2736-2. */
export const WORN_OUT = 0.15;

/**
 * Depth worn off lobes for a turn of the output, m: work of the normal force along its slide, spread over all of them.
 *
 * @param torque at the output, N·m
 * @param slide force times way of sliding for a radian of the output, over the torque
 * @param rate k_W, m³/(N·m)
 * @param flank area of the lobes that run, m²
 * Source: the linear law of wear that VDI 2736-2 takes for teeth, for a profile that is used all round.
 * @example wornPerTurn(5, 1.2, 15e-15, 2e-3) // 2.82743e-10
 */
export const wornPerTurn = (torque: number, slide: number, rate: number, flank: number): number =>
  (2 * Math.PI * torque * slide * rate) / flank;

/** Module that lobes of an eccentricity are as deep as: teeth work over 2.25 modules, lobes over twice their lift. */
export const lobeModule = (lift: number): number => (2 * lift) / 2.25;
