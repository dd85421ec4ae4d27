import type { Duty, StageNumbers } from '../../src/index.ts';

/** A value that was worked out apart from the code, how in a line, and, of what is drawn by chance, how near it is. */
export type Anchor = readonly [value: number, how: string, within?: number];

/** One stage of a kind with a worked value for its figures. */
export interface Anchored {
  readonly kind: string;
  /** One more of a kind: what the first does not show is worked, the rest left to it. */
  readonly further?: true;
  readonly params: Readonly<Record<string, unknown>>;
  readonly duty: Duty;
  /** Factors of the shop that stand otherwise than it ships them: what another stage is worked for is left out of this one. */
  readonly factors?: Readonly<Record<string, number>>;
  readonly worked: Readonly<Record<string, Anchor>>;
  /** Numbers for the line that are no figures. */
  readonly numbers?: Partial<Readonly<Record<keyof StageNumbers, Anchor>>>;
  /** Torques at which it ends that are no figures, by mode. */
  readonly limits?: Readonly<Record<string, Anchor>>;
  /** What checks compare with what, of those that neither take a worked figure nor a torque asked and a limit. */
  readonly checks?: Readonly<Record<string, AnchoredCheck>>;
}

/** Both sides of a check that were worked out apart from the code, and how in a line. */
export type AnchoredCheck = readonly [figure: number, limit: number, how: string, within?: number];

/** Worked values of another stage, each times what it is more by here. */
export const timesOf =
  ({ worked }: Pick<Anchored, 'worked'>) =>
  (id: string, times: number, how: string): Anchor => [worked[id]![0] * times, how];
