import { refuse } from '../result.ts';
import type { Joint } from '../schema/joint.ts';

/** Identifiers that are double or point nowhere. */
export function brokenLink(joint: Joint): { ok: false; problem: ReturnType<typeof refuse>['problem'] } | undefined {
  const double = (ids: readonly string[]) => {
    const seen = new Set<string>();
    return ids.find((x) => seen.size === seen.add(x).size);
  };
  const variants = new Set(joint.variants.map((x) => x.id));
  const builds = new Set(joint.builds.map((x) => x.id));
  for (const [list, where] of [
    [joint.variants, 'variants'],
    [joint.builds, 'builds'],
    [joint.tests, 'tests'],
  ] as const) {
    const twice = double(list.map((x) => x.id));
    if (twice !== undefined)
      return refuse(
        `The file is damaged at ${where}.`,
        `Two entries share the identifier “${twice.slice(0, 40)}”.`,
        'Give one of them another identifier.',
        where,
      );
  }
  const orphan = joint.builds.findIndex((b) => !variants.has(b.variantId));
  if (orphan >= 0)
    return refuse(
      `The file is damaged at builds.${orphan}.`,
      'It belongs to a variant that is not in the file.',
      'Correct its variantId.',
      `builds.${orphan}.variantId`,
    );
  const stray = joint.tests.findIndex((t) => !builds.has(t.buildId));
  if (stray >= 0)
    return refuse(
      `The file is damaged at tests.${stray}.`,
      'It belongs to a build that is not in the file.',
      'Correct its buildId.',
      `tests.${stray}.buildId`,
    );
  return undefined;
}
