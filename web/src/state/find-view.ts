import type { Aim, Priority } from '@gristmill/core';
import { create } from 'zustand';

/** How a joint's found lines are looked at. */
export interface FindLook {
  /** Kinds that are not allowed, and the most stages of a line. */
  readonly without: readonly string[];
  readonly stages: number;
  /** What the order follows. */
  readonly weights: Readonly<Partial<Record<Priority, number>>>;
  readonly axes: readonly [Aim, Aim];
  /** What the table is narrowed to: mechanism, type of motor, made or bought, process; empty for any. */
  readonly only: string;
  readonly motors: string;
  readonly made: string;
  readonly process: string;
  /** Bounds that were drawn in place of the brief’s, SI. */
  readonly bounds: Readonly<Partial<Record<Aim, number>>>;
  /** Whether what lies beyond a bound is left out. */
  readonly within: boolean;
  readonly chosen: string | undefined;
  /** Lines that are compared. */
  readonly pair: readonly string[];
}

const BEGIN: FindLook = {
  without: [],
  stages: 3,
  weights: { chance: 3, money: 2, play: 1, mass: 1 },
  axes: ['money', 'play'],
  only: '',
  motors: '',
  made: '',
  process: '',
  bounds: {},
  within: false,
  chosen: undefined,
  pair: [],
};

/** By joint: another view may be looked at in between. */
const useLooks = create<{ readonly of: Readonly<Record<string, FindLook>> }>(() => ({ of: {} }));

/** How the found lines of a joint are looked at, and a way to look at them otherwise. */
export function useFindLook(joint: string): readonly [FindLook, (by: Partial<FindLook>) => void] {
  const look = useLooks((s) => s.of[joint]) ?? BEGIN;
  return [look, (by) => useLooks.setState((s) => ({ of: { ...s.of, [joint]: { ...(s.of[joint] ?? BEGIN), ...by } } }))];
}
