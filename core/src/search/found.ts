import type { Verdict } from '../line/analyse.ts';
import type { LimitId, StageRecord, Variant } from '../schema/joint.ts';
import type { Chance } from './chance.ts';
import type { Aim } from './compose.ts';
import type { FromDrawer } from './from-drawer.ts';

/** A line that does it, whole. */
export interface FoundLine {
  readonly id: string;
  readonly motor: Variant['motor'];
  readonly driver: Variant['driver'];
  readonly stages: readonly StageRecord[];
  /** How it stands to each limit of the brief. */
  readonly verdicts: readonly Pick<Verdict, 'id' | 'sense' | 'need' | 'state' | 'asked' | 'says'>[];
  /** Size of its total ratio. */
  readonly ratio: number;
  /** What it is chosen by, SI; its money without what lies in the drawer. */
  readonly aims: Readonly<Record<Aim, number>>;
  readonly chance: Chance;
  /** What of it lies in the drawer; left out where nothing does. */
  readonly there?: readonly FromDrawer[];
}

/** What keeps a line out that its columns had let in: a must, or a check of the whole line. */
export type KeptOut =
  { readonly limit: LimitId; readonly value: number; readonly asked: number } | { readonly check: string };

/** A line that was computed with its bands, and what keeps it out, where something does. */
export interface Analysed {
  readonly line: FoundLine;
  readonly out?: KeptOut;
}

/** Why a kind has no line in the set. */
export interface WhyNot {
  readonly kind: string;
  /** The limit that stops its nearest miss; undefined where it is something else, or no stage of it could be had at all. */
  readonly limit: LimitId | undefined;
  readonly value: number;
  readonly asked: number;
  /** The check that stops its nearest line. */
  readonly check?: string;
  /** Where it is too weak for its size: the outside it would need, and what is allowed, m. */
  readonly across?: { readonly needs: number; readonly allowed: number };
  /** Where a line of it does what is asked and another beats it: the stages of that, and the aims that it is furthest behind in. */
  readonly beaten?: {
    readonly by: readonly string[];
    readonly behind: readonly { readonly aim: Aim; readonly own: number; readonly other: number }[];
  };
  /** The nearest miss itself, to be looked at. */
  readonly line: Pick<FoundLine, 'motor' | 'driver' | 'stages'> | undefined;
}

/** What was found. */
export interface FindResult {
  readonly lines: readonly FoundLine[];
  readonly whyNot: readonly WhyNot[];
  /** Stages screened, lines looked at, and how many of those were judged by what bounds them, many at a time. */
  readonly screened: number;
  readonly looked: number;
  readonly pruned?: number;
}

/** How far a search is: what it does, the share done, and what it has so far. */
export interface FindProgress {
  readonly doing: 'screening' | 'composing' | 'computing';
  readonly share: number;
  readonly screened: number;
  readonly looked: number;
}
