import type { Result } from '../result.ts';
import type { Bearing, Material } from '../joint/joint.ts';
import { BEARINGS } from './bearings.ts';
import { FACTORS, type Factor } from './factor.ts';
import { INSTRUMENTS, type Instrument } from './instrument.ts';
import { MATERIALS } from './materials.ts';
import { MOTORS } from './motors.ts';
import { SECTIONS, sectionFactors, type BeltSection } from './section.ts';
import type { Motor } from '../motor/motor.ts';

/**
 * The shop as the computation sees it. `over` sets one factor aside for a trial, which is how bands and derivatives are
 * felt out.
 */
export interface Shelf {
  readonly factors: Readonly<Record<string, Factor>>;
  readonly sections: readonly BeltSection[];
  readonly motors: readonly Motor[];
  readonly instruments: readonly Instrument[];
  readonly materials: readonly Material[];
  readonly bearings: readonly Bearing[];
  readonly over?: { readonly id: string; readonly value: number };
}

/** What the reader changed in the shop: values by factor, and things of their own on its shelves. */
export interface ShopEdits {
  readonly factors?: Readonly<
    Record<
      string,
      { readonly value: number; readonly low: number; readonly high: number; readonly source?: string | undefined }
    >
  >;
  readonly motors?: readonly Motor[];
  readonly instruments?: readonly Instrument[];
  readonly materials?: readonly Material[];
  readonly bearings?: readonly Bearing[];
}

/** The shop as shipped, with the reader's changes laid over it. */
export function makeShelf(edits: ShopEdits = {}): Shelf {
  const factors: Record<string, Factor> = {};
  for (const factor of [...FACTORS, ...SECTIONS.flatMap(sectionFactors)]) {
    const edit = edits.factors?.[factor.id];
    factors[factor.id] = edit ? { ...factor, ...edit, source: edit.source ?? 'set in the shop' } : factor;
  }
  const merged = <T extends { id: string }>(own: readonly T[] | undefined, shipped: readonly T[]): T[] => [
    ...(own ?? []),
    ...shipped.filter((s) => !own?.some((o) => o.id === s.id)),
  ];
  return {
    factors,
    sections: SECTIONS,
    motors: merged(edits.motors, MOTORS),
    instruments: merged(edits.instruments, INSTRUMENTS),
    materials: merged(edits.materials, MATERIALS),
    bearings: merged(edits.bearings, BEARINGS),
  };
}

/** A factor's value as it counts now. A factor nobody defined is a slip in the program, hence the throw. */
export function factor(shelf: Shelf, id: string): number {
  if (shelf.over?.id === id) return shelf.over.value;
  const found = shelf.factors[id];
  if (!found) throw new Error(`no factor ${id}`);
  return found.value;
}

/** The shelf with one factor set to another value. */
export const withFactor = (shelf: Shelf, id: string, value: number): Shelf => ({ ...shelf, over: { id, value } });

/**
 * A model computed again with each factor that has a range at its low and at its high end; undefined where it cannot
 * be. What bands are felt out with.
 */
export const atEnds = <M>(
  shelf: Shelf,
  ids: Iterable<string>,
  compute: (shelf: Shelf) => Result<M>,
): (readonly [M | undefined, M | undefined])[] =>
  uncertain(shelf, ids).map((f) => {
    const trial = (value: number) => {
      const r = compute(withFactor(shelf, f.id, value));
      return r.ok ? r.value : undefined;
    };
    return [trial(f.low), trial(f.high)] as const;
  });

/** The factors among `ids` that have a range, in the order given, without repeats. */
export function uncertain(shelf: Shelf, ids: Iterable<string>): Factor[] {
  return [...new Set(ids)].map((id) => shelf.factors[id]).filter((f): f is Factor => f !== undefined && f.high > f.low);
}
