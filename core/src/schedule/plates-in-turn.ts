import { layOut, type Footprint } from '../assembly/plates.ts';

/** A kind of piece that waits to be printed: its size on the bed and how many of it. */
export interface Waiting {
  readonly key: string;
  readonly size: Footprint;
  readonly count: number;
}

/** Pieces of one plate, by key. */
export type PlateOf = Readonly<Record<string, number>>;

/**
 * Plates in the order in which their pieces are needed: each takes what comes next for as long as it goes on the bed
 * and does not print longer than the longest print that is begun. Something goes on every plate.
 *
 * @param waiting in the order in which they are needed
 * @param time of a plate, s, from its pieces
 * @returns the plates, and the keys of what is larger than the bed
 */
export function platesInTurn(
  waiting: readonly Waiting[],
  bed: Footprint,
  gap: number,
  longest: number,
  time: (plate: PlateOf) => number,
): { readonly plates: readonly PlateOf[]; readonly tooLarge: readonly string[] } {
  const tooLarge = waiting.filter((w) => layOut([w.size], bed, gap).tooLarge.length > 0).map((w) => w.key);
  const plates: PlateOf[] = [];
  let plate: Record<string, number> = {};
  let sizes: Footprint[] = [];
  for (const { key, size, count } of waiting) {
    if (tooLarge.includes(key)) continue;
    for (let i = 0; i < count; i++) {
      const next = { ...plate, [key]: (plate[key] ?? 0) + 1 };
      const fits =
        sizes.length === 0 || (time(next) <= longest && layOut([...sizes, size], bed, gap).plates.length === 1);
      if (!fits) plates.push(plate);
      plate = fits ? next : { [key]: 1 };
      sizes = fits ? [...sizes, size] : [size];
    }
  }
  if (sizes.length) plates.push(plate);
  return { plates, tooLarge };
}
