import type { BenchTest, Finding, Joint, ShopEdits } from '@gristmill/core';
import { contentId } from './content.ts';

const identities = new WeakMap<object, number>();
let counter = 0;

/** A number for an object itself: immer gives what changed a new one. Lists of hundreds of tests are never written out. */
export function identity(o: object | undefined): number {
  if (!o) return 0;
  let id = identities.get(o);
  if (id === undefined) identities.set(o, (id = ++counter));
  return id;
}

/** What a test found and what it was computed with. */
interface Known {
  readonly by: string;
  readonly found: Finding[];
}

const known = new WeakMap<BenchTest, Known>();

/** Tests that are handed to a worker at once. */
const AT_ONCE = 80;

const parts = <T>(list: readonly T[], size: number): T[][] =>
  Array.from({ length: Math.ceil(list.length / size) }, (_, i) => list.slice(i * size, (i + 1) * size));

/**
 * What every test of a joint found: those that did not change, on a variant, a brief and a shop that did not, are known;
 * the rest is asked for.
 *
 * @param ask findings of each test of a joint, in order
 */
export async function findingsOf(
  joint: Joint,
  shop: ShopEdits,
  ask: (part: Joint, shop: ShopEdits) => Promise<Finding[][]>,
): Promise<Finding[]> {
  const builds = new Map(joint.builds.map((b) => [b.id, b.variantId]));
  const variants = new Map(joint.variants.map((v) => [v.id, v]));
  const common = `${contentId(joint.brief)} ${contentId(shop)}`;
  const by = joint.tests.map((t) => {
    const variant = variants.get(builds.get(t.buildId) ?? '');
    return `${common} ${identity(variant)} ${t.buildId}`;
  });
  const fresh = joint.tests.filter((t, i) => known.get(t)?.by !== by[i]);
  if (fresh.length > 0) {
    const needed = new Set(fresh.map((t) => builds.get(t.buildId)));
    const part = { ...joint, variants: joint.variants.filter((v) => needed.has(v.id)) };
    const keys = new Map(joint.tests.map((t, i) => [t, by[i]!]));
    // A part at a time: handing hundreds of tests over at once holds the page, and other workers may take some.
    await Promise.all(
      parts(fresh, AT_ONCE).map(async (tests) => {
        const found = await ask({ ...part, tests }, shop);
        tests.forEach((t, i) => known.set(t, { by: keys.get(t)!, found: found[i] ?? [] }));
      }),
    );
  }
  return joint.tests.flatMap((t) => known.get(t)!.found);
}
