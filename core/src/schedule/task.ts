import type { WallTime } from './wall-clock.ts';

/** What kind of doing a task is. */
export type TaskKind = 'buy' | 'dry' | 'print' | 'make' | 'assemble' | 'test' | 'reading';

/**
 * Something to be done: first by hand, then by a machine that needs nobody, then by waiting. Any of the three may be
 * none.
 */
export interface Task {
  /** Alike for alike tasks, so that what is known of it stays with it. */
  readonly id: string;
  readonly kind: TaskKind;
  readonly name: string;
  /** What it is about: pieces, steps, what is bought; words with quantities. */
  readonly says: string;
  /** By hand, s; in one go, or in as many as it takes. */
  readonly hands: number;
  readonly inOneGo: boolean;
  /** The same at a pace of one, s; absent where one’s pace does not move it. */
  readonly work?: number;
  /** Time that a printer runs, s. */
  readonly prints: number;
  /** Time that a rig runs, s: while one is there, unless machines may run unattended. */
  readonly runs: number;
  /** When the rig began with that; when the task is begun where left out. */
  readonly since?: WallTime;
  /** Time until it comes or has set, s. */
  readonly waits: number;
  /** What comes by the day, and is there on the morning of the day it comes. */
  readonly byDay?: true;
  /** Tasks that must be done before it is begun. */
  readonly after: readonly string[];
  /** Pieces that a print makes, by part. */
  readonly made?: Readonly<Record<string, number>>;
  /** What a print lays: m of line, layers. */
  readonly laid?: { readonly path: number; readonly layers: number };
  /** Why it cannot be done at all: a sentence. */
  readonly cannot?: string;
  /** When a machine was begun with it, or a dryer. */
  readonly begun?: WallTime;
  /** When it was done; what is done is not planned any more. */
  readonly done?: WallTime;
  /** Midnight before which it is not begun, by the reader's wish; for what is bought, when it is promised. */
  readonly on?: WallTime;
  readonly comes?: WallTime;
}
