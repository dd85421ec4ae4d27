import type { Composing, Worth } from './find.ts';
import type { Analysed, FindResult } from './found.ts';
import type { Screening } from './lines.ts';

/** The steps of a search as several workers do them: those with a part are done by all together. */
export interface SearchSteps {
  screen(part: number, parts: number): Promise<Screening>;
  compose(screenings: readonly Screening[], part: number, parts: number): Promise<Composing[]>;
  worth(screenings: readonly Screening[], composed: readonly Composing[]): Promise<Worth>;
  sum(
    screenings: readonly Screening[],
    worth: Worth,
    part: number,
    parts: number,
  ): Promise<(Float64Array | undefined)[]>;
  chosen(worth: Worth, sums: readonly (Float64Array | undefined)[]): Promise<number[]>;
  analyse(
    screenings: readonly Screening[],
    worth: Worth,
    chosen: readonly number[],
    part: number,
    parts: number,
  ): Promise<Analysed[]>;
  found(screenings: readonly Screening[], worth: Worth, lines: readonly Analysed[]): Promise<FindResult>;
}

/** Has every part of a step done at once, in the order of the parts. */
const inParts = <T>(parts: number, work: (part: number, parts: number) => Promise<T>): Promise<T[]> =>
  Promise.all(Array.from({ length: parts }, (_, part) => work(part, parts)));

/**
 * A whole search by several workers; gives what `findLines` gives.
 * @param workers how many there are
 */
export async function findInParts(workers: number, by: SearchSteps): Promise<FindResult> {
  // In more parts than workers: some take longer than others, and none waits.
  const screened = await inParts(2 * workers, (k, n) => by.screen(k, n));
  const composed = (await inParts(workers, (k, n) => by.compose(screened, k, n))).flat();
  const worth = await by.worth(screened, composed);
  const sums = (await inParts(workers, (k, n) => by.sum(screened, worth, k, n))).flat();
  const chosen = await by.chosen(worth, sums);
  const lines = (await inParts(workers, (k, n) => by.analyse(screened, worth, chosen, k, n))).flat();
  return by.found(screened, worth, lines);
}
