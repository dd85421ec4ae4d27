import type { Check, Mend } from '../figure/index.ts';

/** Parameters that a mend sets, by path. */
export type Change = Readonly<Record<string, number | string>>;

/** How often a mend is followed up where it brought a check nearer and not home. */
const ROUNDS = 4;

const stops = (c: Check): boolean => c.state === 'fails' && c.severity === 'stop';

/** Whether a check stops a stage that did not stop it before. */
const stopped = (now: readonly Check[], before: readonly Check[]): boolean =>
  now.some((c) => stops(c) && !before.some((b) => b.id === c.id && stops(b)));

const without = ({ mend: _, ...check }: Check): Check => check;

/**
 * A failing check with a mend that does what it says: tried on the stage, followed up by what the check asks for then, and
 * taken back where it does not help or something else would stop the stage for it.
 *
 * @param checks all of the stage's, as it is
 * @param tried what its checks say with parameters changed; undefined where there is no such stage
 */
export function provenMend(
  check: Check,
  first: Mend,
  checks: readonly Check[],
  tried: (change: Change) => readonly Check[] | undefined,
): Check {
  const change: Record<string, number | string> = {};
  const labels = new Map<string, string>();
  let mend: Mend | undefined = first;
  for (let round = 0; round < ROUNDS && mend; round++) {
    Object.assign(change, { [mend.path]: mend.value }, mend.also);
    labels.set(mend.path, mend.label);
    const now = tried(change);
    if (!now) return without(check);
    const again = now.find((c) => c.id === check.id);
    if (!again || again.state !== 'fails') {
      if (stopped(now, checks)) return without(check);
      const { [first.path]: value, ...also } = change;
      return {
        ...check,
        mend: {
          path: first.path,
          value: value!,
          ...(Object.keys(also).length > 0 && { also }),
          label: [...labels.values()].map((l, i) => (i ? l[0]!.toLowerCase() + l.slice(1) : l)).join(', '),
        },
      };
    }
    mend = again.mend;
  }
  return without(check);
}
