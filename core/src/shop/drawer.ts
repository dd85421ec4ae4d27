import type { Bearing } from '../schema/joint.ts';

/** What the reader has lying there, by designation, and what they make stages of. */
export interface Drawer {
  /** How many of each motor and bearing of the shop. */
  readonly motors?: Readonly<Record<string, number>>;
  readonly bearings?: Readonly<Record<string, number>>;
  /** How many closed belts, by `beltKey`. */
  readonly belts?: Readonly<Record<string, number>>;
  /** Materials of the shop that a search may make stages of; left out: those a kind is usually made of. */
  readonly materials?: readonly string[];
}

/** What of the shop a part is that is bought by designation. */
export interface Stocked {
  readonly shelf: 'motors' | 'bearings' | 'belts';
  readonly id: string;
}

/**
 * What stands for a closed belt: section, teeth and width in millimetres.
 * @param width m
 * @example beltKey('R2', 122, 6e-3) // 'R2 122 6'
 */
export const beltKey = (section: string, teeth: number, width: number): string =>
  `${section} ${teeth} ${Number((width * 1e3).toPrecision(6))}`;

/** A bearing as what a part is bought as. */
export const bearingStocked = (b: Pick<Bearing, 'id'>): Stocked => ({ shelf: 'bearings', id: b.id });

/** Things of a shelf, those that lie in the drawer at no price: a search prefers what is there. */
export const paidFor = <T extends { readonly id: string; readonly price: number }>(
  things: readonly T[],
  owned: Readonly<Record<string, number>> | undefined,
): readonly T[] => (owned ? things.map((t) => ((owned[t.id] ?? 0) > 0 ? { ...t, price: 0 } : t)) : things);
