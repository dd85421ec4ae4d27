import type { Build } from '../schema/joint.ts';

/** What came out otherwise than drawn at one step of putting a build together. */
export interface Deviation {
  readonly step: string;
  /** Where it was: “stage 1, ring”, “housing, cover”. */
  readonly where: string;
  readonly says: string;
}

/**
 * Where a step is, from its name.
 *
 * @example stepPlace('stage2/driven-flange@1') // 'stage 2, driven flange'
 */
export function stepPlace(step: string): string {
  const [of = '', part = ''] = step.replace(/@\d+$/, '').split('/');
  const place = /^stage\d+$/.test(of) ? `stage ${of.slice(5)}` : of === 'case' ? 'housing' : of;
  return part ? `${place}, ${part.replaceAll('-', ' ')}` : place;
}

/** What came out otherwise when a build was put together, as it was noted with its steps. */
export const deviationsOf = (build: Pick<Build, 'assembly'>): Deviation[] =>
  Object.entries(build.assembly ?? {}).flatMap(([step, { note }]) =>
    note?.trim() ? [{ step, where: stepPlace(step), says: note.trim() }] : [],
  );
