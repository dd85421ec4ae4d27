import {
  findInParts,
  type FindProgress,
  type FindResult,
  type Problem,
  type SearchSteps,
  type ShopEdits,
} from '@gristmill/core';
import { proxy } from 'comlink';
import { create } from 'zustand';
import { foundSets } from '../storage/shelf.ts';
import type { CoreApi, SearchFor } from '../workers/api.ts';
import { contentId, ordered } from '../workers/content.ts';
import { newId } from './identifier.ts';
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

/** The search of a joint that is not there yet: the guided start's. */
export const START = 'start';

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

const seen = new WeakMap<ShopEdits, Omit<ShopEdits, 'processes'>>();
/** Of the shop what a search looks at: what a printer was found to do says nothing of a line. */
function lookedAt(edits: ShopEdits): Omit<ShopEdits, 'processes'> {
  const known = seen.get(edits);
  if (known) return known;
  const { processes: _, ...rest } = edits;
  seen.set(edits, rest);
  return rest;
}

const contentsOf = ({ brief, variant, edits }: Omit<SearchFor, 'kinds' | 'stages'>) => [
  brief,
  variant.sensor,
  variant.mount,
  variant.output,
  lookedAt(edits),
];
/** What stands for a content, in whatever order its keys come. */
const numberOf = (x: object | null | undefined): number => (x ? contentId(ordered(x)) : 0);

/**
 * What a search depends on, by identity: another brief, shop, sensor, mount or output, and it is of before. Motors are
 * the shop's.
 */
export const askedOf = (of: Omit<SearchFor, 'kinds' | 'stages'>): number[] => contentsOf(of).map(numberOf);

/** Keeps what a joint's search found; one that cannot be kept is found again after a reload, and no more is lost. */
const keep = (joint: string, search: SearchFor, result: FindResult, first: boolean): void =>
  void foundSets
    .keep(joint, { asked: contentsOf(search), when: new Date().toISOString(), first, result })
    .catch(() => undefined);

/** Brings back what was found for a joint before the page was loaded, unless there is something already. */
export async function recallSearch(joint: string): Promise<void> {
  if (useSearches.getState().of[joint]) return;
  const found = await foundSets.read(joint).catch(() => undefined);
  if (!found || useSearches.getState().of[joint]) return;
  const { asked, when, first, result } = found;
  useSearches.setState((s) => ({
    of: {
      ...s.of,
      [joint]: {
        // What was kept before may name the whole shop, which stands last.
        asked: asked.map((x, i) => numberOf(i === 4 ? lookedAt(x as ShopEdits) : (x as object | null | undefined))),
        when: new Date(when),
        running: false,
        stopped: first,
        at: undefined,
        result,
        first,
        problem: undefined,
      },
    },
  }));
}

/** Gives what was found for one joint to another, of the same brief: a joint that is made of a found line. */
export function handOverSearch(from: string, to: string, search: SearchFor): void {
  const last = useSearches.getState().of[from];
  const asked = askedOf(search);
  // What was found before the last change is of another brief, and stays behind.
  const found = last?.asked.every((x, i) => x === asked[i]) ? last : undefined;
  stopSearch(from);
  useSearches.setState(({ of: { [from]: _, ...rest } }) => ({
    of: found ? { ...rest, [to]: { ...found, running: false, stopped: found.running } } : rest,
  }));
  if (found?.result) keep(to, search, found.result, found.first);
}

/** Ends the search of a joint that is under way; what it had found before stays. */
export function stopSearch(joint: string): void {
  going.get(joint)?.abort();
  going.delete(joint);
  change(joint, { running: false, stopped: true });
}

/** Ends a search and forgets what it found. */
export function dropSearch(joint: string): void {
  stopSearch(joint);
  useSearches.setState(({ of: { [joint]: _, ...rest } }) => ({ of: rest }));
}

/** How far all parts of a step are together. */
function together(parts: readonly (FindProgress | undefined)[]): FindProgress {
  const known = parts.flatMap((p) => p ?? []);
  const doing = known[0]?.doing ?? 'screening';
  const sum = (of: (p: FindProgress) => number) => known.reduce((s, p) => s + of(p), 0);
  // Later steps all know what was screened, and the last all what was looked at.
  const most = (of: (p: FindProgress) => number) => Math.max(0, ...known.map(of));
  return {
    doing,
    share: sum((p) => p.share) / parts.length,
    screened: doing === 'screening' ? sum((p) => p.screened) : most((p) => p.screened),
    looked: doing === 'computing' ? most((p) => p.looked) : sum((p) => p.looked),
  };
}

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
        // Lines of another brief may be looked at, but no joint is begun with one.
        result: joint === START ? undefined : before?.result,
        first: before?.first ?? false,
        problem: undefined,
      },
    },
  }));
  const tell = (by: Partial<Search>) => {
    if (!signal.aborted) change(joint, by);
  };
  /** The steps of a search by the pool's workers, telling how far all are together. */
  const stepsOf = (of: SearchFor): SearchSteps => {
    let now = '';
    let at: (FindProgress | undefined)[] = [];
    const once = <T>(work: (api: CoreApi) => Promise<T>) => findPool.run(work, { signal, heavy: true });
    const part = <T>(
      step: string,
      k: number,
      parts: number,
      work: (api: CoreApi, told: (at: FindProgress) => void) => Promise<T>,
    ): Promise<T> => {
      if (now !== step) [now, at] = [step, new Array<FindProgress | undefined>(parts).fill(undefined)];
      const told = proxy((p: FindProgress) => {
        at[k] = p;
        if (!of.first && now === step) tell({ at: together(at) });
      });
      return once((api) => work(api, told));
    };
    return {
      screen: (k, n) => part('screen', k, n, (api, told) => api.screen(of, k, n, told)),
      compose: (s, k, n) => part('compose', k, n, (api, told) => api.compose(of, s, k, n, told)),
      worth: (s, composed) => once((api) => api.worth(of, s, composed)),
      sum: (s, worth, k, n) => part('sum', k, n, (api, told) => api.sum(of, s, worth, k, n, told)),
      chosen: (worth, sums) => once((api) => api.chosen(of, worth, sums)),
      analyse: (s, worth, chosen, k, n) =>
        part('analyse', k, n, (api, told) => api.analyseFound(of, s, worth, chosen, k, n, told)),
      found: (s, worth, lines) => once((api) => api.found(of, s, worth, lines)),
    };
  };
  try {
    const look: SearchFor = { ...search, first: true, key: newId() };
    const problem = await findPool.run((api) => api.cannotFind(look), { signal });
    if (problem) return tell({ running: false, result: undefined, problem });
    const find = (of: SearchFor) => findInParts(SEARCHERS, stepsOf(of));
    tell({ result: await find(look), first: true });
    const result = await find({ ...search, key: newId() });
    tell({ running: false, result, first: false, at: undefined });
    if (!signal.aborted && joint !== START) keep(joint, search, result, false);
  } catch (error) {
    tell({
      running: false,
      problem: {
        what: 'The search ended before it was done.',
        why: `A worker failed: ${error instanceof Error ? error.message : 'unknown'}.`,
        mend: 'Find again; what was found before stays in sight until then.',
      },
    });
    // What the other workers still do is of no use.
    controller.abort();
  } finally {
    if (going.get(joint) === controller) going.delete(joint);
  }
}
