/**
 * The outcome of anything that can be refused. The core never throws across its boundary: impossible input comes back
 * as
 * a `Problem` that a person can act on.
 */
export type Result<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem };

/** A plain account of what cannot be done: what is wrong, why it is, and what to do about it. */
export interface Problem {
  readonly what: string;
  readonly why: string;
  readonly mend: string;
  /** Where in the input it lies, as a dotted path, when that is known. */
  readonly place?: string;
}

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });

export const refuse = (what: string, why: string, mend: string, place?: string): { ok: false; problem: Problem } => ({
  ok: false,
  problem: place === undefined ? { what, why, mend } : { what, why, mend, place },
});
