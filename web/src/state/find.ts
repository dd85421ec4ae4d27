import type { FindProgress, FindResult, Problem } from '@gristmill/core';
import { proxy } from 'comlink';
import { create } from 'zustand';
import type { SearchFor } from '../workers/api.ts';
import { contentId } from '../workers/content.ts';
import { findPool, SEARCHERS } from '../workers/core.ts';

/** A search of a joint: what was asked, how far it is, what it found. */
export interface Search {
  /** What it was asked with, to know whether it still stands. */
  readonly asked: readonly number[];
  readonly when: Date;
  readonly running: boolean;
  readonly stopped: boolean;
  readonly at: FindProgress | undefined;
  readonly result: FindResult | undefined;
  /** Whether that is of a first look alone: it says nothing of what was not found. */
  readonly first: boolean;
  readonly problem: Problem | undefined;
}

interface Searches {
  /** By joint; they go on while other views are looked at. */
  readonly of: Readonly<Record<string, Search>>;
}

export const useSearches = create<Searches>(() => ({ of: {} }));

const going = new Map<string, AbortController>();

const change = (joint: string, by: Partial<Search>) =>
  useSearches.setState((s) => {
    const now = s.of[joint];
    return now ? { of: { ...s.of, [joint]: { ...now, ...by } } } : s;
  });

/**
 * What a search depends on, by identity: another brief, shop, sensor, mount or output, and it is of before. Motors are
 * the shop's.
 */
export const askedOf = ({ brief, variant, edits }: Omit<SearchFor, 'kinds' | 'stages'>): number[] =>
  [brief, variant.sensor, variant.mount, variant.output, edits].map(contentId);

/** Ends the search of a joint that is under way; what it had found before stays. */
export function stopSearch(joint: string): void {
  going.get(joint)?.abort();
  going.delete(joint);
  change(joint, { running: false, stopped: true });
}

/** How far all parts of the screening are together. */
const together = (parts: readonly (FindProgress | undefined)[]): FindProgress => ({
  doing: 'screening',
  share: parts.reduce((s, p) => s + (p?.share ?? 0), 0) / parts.length,
  screened: parts.reduce((s, p) => s + (p?.screened ?? 0), 0),
  looked: 0,
});

/** Looks for lines of a joint, in workers of its own; one search a joint at a time. */
export async function startSearch(joint: string, search: SearchFor): Promise<void> {
  stopSearch(joint);
  const controller = new AbortController();
  going.set(joint, controller);
  const { signal } = controller;
  const before = useSearches.getState().of[joint];
  useSearches.setState((s) => ({
    of: {
      ...s.of,
      [joint]: {
        asked: askedOf(search),
        when: new Date(),
        running: true,
        stopped: false,
        at: undefined,
        result: before?.result,
        first: before?.first ?? false,
        problem: undefined,
      },
    },
  }));
  const tell = (by: Partial<Search>) => {
    if (!signal.aborted) change(joint, by);
  };
  const parts = new Array<FindProgress | undefined>(SEARCHERS).fill(undefined);
  try {
    const first = await findPool.run((api) => api.firstLook(search), { signal, heavy: true });
    if ('problem' in first) return tell({ running: false, result: undefined, problem: first.problem });
    tell({ result: first, first: true });
    const screenings = await Promise.all(
      parts.map((_, k) =>
        findPool.run(
          (api) =>
            api.screen(
              search,
              k,
              parts.length,
              proxy((at) => {
                parts[k] = at;
                tell({ at: together(parts) });
              }),
            ),
          { signal, heavy: true },
        ),
      ),
    );
    const result = await findPool.run(
      (api) =>
        api.compose(
          search,
          screenings,
          proxy((at) => tell({ at })),
        ),
      { signal, heavy: true },
    );
    tell({ running: false, result, first: false, at: undefined });
  } catch (error) {
    tell({
      running: false,
      problem: {
        what: 'The search ended before it was done.',
        why: `A worker failed: ${error instanceof Error ? error.message : 'unknown'}.`,
        mend: 'Find again; what was found before stays in sight until then.',
      },
    });
  } finally {
    if (going.get(joint) === controller) going.delete(joint);
  }
}
