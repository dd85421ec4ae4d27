import type { FitReading } from '../schema/process-schema.ts';
import { stated } from '../units/stated.ts';

/** What a process does to sizes, in the order in which they are reckoned. */
export const FIT_PARTS = ['scaleX', 'scaleY', 'out', 'into', 'foot'] as const;
export type FitPart = (typeof FIT_PARTS)[number];

/** Standard uncertainty of a digital caliper on plastic: error and resolution of ISO 13385-1, and the push of a hand, m. */
export const CALIPER = 2e-5;

/** Step of a fit ladder, m: the plug goes into one hole and not into the one before. */
export const LADDER_STEP = 1e-4;

/** How much a size gained over its drawing, m. */
export const gained = (r: Pick<FitReading, 'feature' | 'made' | 'drawn'>): number =>
  r.made - r.drawn - (r.feature === 'ladder' ? LADDER_STEP / 2 : 0);

/** Standard uncertainty of a reading, m: as said, or of a caliper; a ladder tells no more than its step. */
export const uncertaintyOf = (r: Pick<FitReading, 'feature' | 'spread'>): number =>
  r.spread ?? (r.feature === 'ladder' ? LADDER_STEP / Math.sqrt(12) : CALIPER);

/** What a reading gains over its drawing for a unit of each part, and what it gained, m; the height of a foot has none. */
export function rowOf(r: FitReading, feature = r.feature): Float64Array {
  const gain = r.gain ?? 2;
  // Plug and hole shrink alike; the plug stands out, the hole closes in.
  if (feature === 'ladder') return Float64Array.of(0, 0, gain, gain, 0);
  const along = r.axis === 'round' ? [r.drawn / 2, r.drawn / 2] : r.axis === 'x' ? [r.drawn, 0] : [0, r.drawn];
  return Float64Array.of(
    along[0]!,
    along[1]!,
    feature === 'hole' ? 0 : gain,
    feature === 'hole' ? -gain : 0,
    feature === 'foot' ? gain : 0,
  );
}

/** Something that does not look right about a reading, with what it may have been meant as. */
export interface OddReading {
  readonly id: string;
  readonly why: string;
  /** Set where it is left out until someone says that it counts. */
  readonly aside: boolean;
  /** What it may have been meant as. */
  readonly meant?: { readonly label: string; readonly change: Partial<FitReading> };
}

/** Lengths that are mistaken for each other: what was typed as millimetres times this is what was meant. */
const UNITS: readonly (readonly [string, number])[] = [
  ['inches', 25.4],
  ['centimetres', 10],
  ['micrometres', 1e-3],
  ['millimetres', 1 / 25.4],
  ['millimetres', 0.1],
  ['millimetres', 1e3],
];
/** A size that came out this much off is a slip, and no process: a tenth of it, and more than what any contour does. */
const SHARE = 0.1;
const MOST = 5e-4;

/**
 * What cannot be as it was typed: another unit, or a size that no process makes of that drawing.
 *
 * @example slipIn({ id: 'a', feature: 'outside', axis: 'x', drawn: 0.02, made: 0.00079 })?.meant?.label // 'Read as inches'
 */
export function slipIn(r: FitReading): OddReading | undefined {
  if (r.feature === 'foot-height')
    return r.made > 2e-3
      ? {
          id: r.id,
          aside: true,
          why: `A foot ${stated(r.made, 'length', 3)} high is no foot: the first layers spread over a fraction of a millimetre.`,
        }
      : undefined;
  // A tenth of a millimetre is no size that a caliper tells from another.
  if (!(r.drawn >= 1e-4))
    return { id: r.id, aside: true, why: 'It does not say what size was drawn: nothing can be compared with it.' };
  const off = Math.abs(r.made - r.drawn);
  if (off <= Math.max(MOST, SHARE * r.drawn) && off < 0.05 * r.drawn + MOST) return undefined;
  const said = `It was drawn ${stated(r.drawn, 'length', 5)} and measured ${stated(r.made, 'length', 5)}`;
  for (const [name, times] of UNITS) {
    const made = r.made * times;
    if (Math.abs(made - r.drawn) <= 0.05 * r.drawn + 1e-4)
      return {
        id: r.id,
        aside: true,
        why: `${said}: was it read in ${name}?`,
        meant: { label: `Read as ${name}`, change: { made } },
      };
  }
  return {
    id: r.id,
    aside: true,
    why: `${said}, ${((100 * (r.made - r.drawn)) / r.drawn).toFixed(0)} % off: no process does that. Another feature, or a slip.`,
  };
}
