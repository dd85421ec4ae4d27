import type { Shelf } from './shelf.ts';

/** Entries of the shop by identifier, as plain data. */
export interface ShopReads {
  readonly factors: readonly string[];
  readonly materials: readonly string[];
  readonly bearings: readonly string[];
}

/** The entries of the shop that a computation has looked at: what its result depends on. */
export class Reads {
  readonly factors = new Set<string>();
  readonly materials = new Set<string>();
  readonly bearings = new Set<string>();

  /** Takes over what another computation has looked at. */
  add(other: { readonly [K in keyof ShopReads]: Iterable<string> }): void {
    for (const id of other.factors) this.factors.add(id);
    for (const id of other.materials) this.materials.add(id);
    for (const id of other.bearings) this.bearings.add(id);
  }

  /** The same as plain data. */
  list(): ShopReads {
    return { factors: [...this.factors], materials: [...this.materials], bearings: [...this.bearings] };
  }
}

/**
 * Runs a computation and records what it looks at. Where it stands inside another recorded one, that one is told as
 * well.
 *
 * A computation is a function of its arguments and of what it reads, so that an entry which is not in the record moves
 * nothing of the result. This is what bands, trials and "the shop has moved on" rest on.
 *
 * @param shelf the shop
 * @param work given a shelf that notes what is read of it
 * @returns the result and the record
 * @example [...recorded(shelf, (s) => factor(s, 'gravity')).reads.factors] // ['gravity']
 */
export function recorded<T>(shelf: Shelf, work: (shelf: Shelf) => T): { readonly value: T; readonly reads: Reads } {
  const reads = new Reads();
  const value = work({ ...shelf, reads });
  shelf.reads?.add(reads);
  return { value, reads };
}
