import type { LoadCase } from '../schema/joint.ts';
import { armPattern } from './arm.ts';
import { legPattern } from './leg.ts';
import type { LoadPattern } from './pattern.ts';
import { pointsPattern } from './points.ts';
import { straightPattern } from './straight.ts';
import { turningPattern } from './turning.ts';

// The list holds patterns of unlike cases; each case's schema guards its own at the door.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type AnyPattern = LoadPattern<any>;

/** The ways a joint can be loaded, in the order they are offered. */
export const PATTERNS: readonly AnyPattern[] = [armPattern, legPattern, turningPattern, straightPattern, pointsPattern];

export const loadPattern = (id: LoadCase['pattern']): AnyPattern => PATTERNS.find((p) => p.id === id)!;
