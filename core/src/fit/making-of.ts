import type { MakingBy, Process } from '../schema/process-schema.ts';
import type { Result } from '../result.ts';
import { fitHistory, type ProcessFit } from './process-fit.ts';

/** What makes a part: its process with what is known of it. */
export interface MadeBy {
  readonly process: Process;
  readonly fit: ProcessFit;
}

/** Name of a part among all of a line, as its body is called: stages by their number from 1, what is of none the case. */
export const partKey = (stage: number, part: string): string =>
  stage < 0 ? `case/${part}` : `stage${stage + 1}/${part}`;

/**
 * Which process makes what, with each one's fit worked out once.
 *
 * @param processes of the shop or kept by the joint
 * @param day ISO 8601, since what was measured long ago is known less well
 * @returns for a part's key its process; undefined where none is chosen or it is not known. What is not printed is made by
 *   the process that makes all parts only where that is said of it alone
 */
export function makers(
  making: MakingBy | undefined,
  processes: readonly Process[],
  day: string,
): (key: string, printed: boolean) => MadeBy | undefined {
  const known = new Map<string, MadeBy | undefined>();
  const of = (id: string): MadeBy | undefined => {
    if (known.has(id)) return known.get(id);
    const process = processes.find((p) => p.id === id);
    const told: Result<{ readonly now: ProcessFit }> | undefined = process && fitHistory(process, day);
    const made = process && told?.ok ? { process, fit: told.value.now } : undefined;
    known.set(id, made);
    return made;
  };
  return (key, printed) => {
    const id = making?.parts?.[key] ?? (printed ? making?.process : undefined);
    return id === undefined ? undefined : of(id);
  };
}

/**
 * How far a contour stands out of its drawing on a side, m, once what is done about it is done: mean, standard uncertainty
 * that all parts of the process share, and standard deviation from one part to the next. A process whose sizes are
 * corrected has no mean left; how well it was known stays.
 *
 * @param into the contour is a hole: it stands out into the hole
 */
export function standsOut(
  { process, fit }: MadeBy,
  contour: 'outside' | 'hole',
): { readonly mean: number; readonly shared: number; readonly each: number } {
  const told = contour === 'hole' ? fit.into : fit.out;
  return {
    mean: process.compensates === 'none' ? told.value : 0,
    shared: told.u,
    // Both sides of a part stray together: a size scatters twice as much as its contour.
    each: fit.spread.value / 2,
  };
}
