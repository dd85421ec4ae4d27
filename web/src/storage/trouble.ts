import type { Problem } from '@gristmill/core';

const text = (error: unknown): string => (error instanceof Error ? `${error.name} ${error.message}` : String(error));

/** What went wrong with the browser's storage, in plain words. */
export function storageProblem(error: unknown): Problem {
  if (/quota|full|space/i.test(text(error))) {
    return { what: 'The browser’s storage is full.', why: 'The last change is held in this tab only.', mend: 'Export this joint to a file now, then free space or delete joints you no longer need.' };
  }
  return { what: 'The browser does not let Gristmill store anything.', why: 'A private window or a setting blocks it, so work lives in this tab only.', mend: 'Export joints to files before closing, or open Gristmill in an ordinary window.' };
}

/** Said while storage keeps one waiting. */
export const SILENCE: Problem = { what: 'The browser’s storage does not answer.', why: 'It may be busy with another tab, or stuck; what you change is held in this tab.', mend: 'Export the joint to be safe. It is stored as soon as storage answers; if it never does, close Gristmill’s other tabs, or restart the browser.' };
