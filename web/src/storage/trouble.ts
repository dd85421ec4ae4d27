import type { Problem } from '@gristmill/core';

const text = (error: unknown): string => (error instanceof Error ? `${error.name} ${error.message}` : String(error));

/**
 * What went wrong with keeping something, in plain words: the browser's storage, or the part that reads and writes
 * files.
 */
export function storageProblem(error: unknown): Problem {
  if (/NotLoaded|dynamically imported module/.test(text(error))) {
    return {
      what: 'The server that Gristmill came from has stopped.',
      why: 'The part that does this has not been loaded yet; what is stored is safe in this browser.',
      mend: 'Start the server again with npm run demo, then try once more.',
    };
  }
  if (/quota|full|space/i.test(text(error))) {
    return {
      what: 'The browser’s storage is full.',
      why: 'The last change is held in this tab only.',
      mend: 'Export this joint to a file now, then free space or delete joints you no longer need.',
    };
  }
  return {
    what: 'The browser does not let Gristmill store anything.',
    why: 'A private window or a setting blocks it, so work lives in this tab only.',
    mend: 'Export joints to files before closing, or open Gristmill in an ordinary window.',
  };
}

/** Said while storage keeps one waiting. */
export const SILENCE: Problem = {
  what: 'The browser’s storage does not answer.',
  why: 'It may be busy with another tab, or stuck; what you change is held in this tab.',
  mend: 'Export the joint to be safe. It is stored as soon as storage answers; if it never does, close Gristmill’s other tabs, or restart the browser.',
};
