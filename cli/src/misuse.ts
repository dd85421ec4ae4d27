import { refuse, type Problem } from '@gristmill/core';

const misused = new WeakSet<Problem>();

/** Refuses what was asked in a way that no input could answer: a name that is not known, something left out. */
export function misuse(what: string, why: string, mend: string): { readonly ok: false; readonly problem: Problem } {
  const refused = refuse(what, why, mend);
  misused.add(refused.problem);
  return refused;
}

/** Whether a refusal is of how the command was written, and not of what it was given. */
export const isMisuse = (p: Problem): boolean => misused.has(p);
