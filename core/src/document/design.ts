import type { Build, Variant } from '../schema/joint.ts';
import { stageKind } from '../stage/registry.ts';

/** A record as text, whatever order its keys stand in. */
const ordered = (x: unknown): string =>
  Array.isArray(x)
    ? `[${x.map(ordered).join()}]`
    : x && typeof x === 'object'
      ? `{${Object.entries(x)
          .filter(([, v]) => v !== undefined)
          .sort(([a], [b]) => (a < b ? -1 : 1))
          .map(([k, v]) => `${JSON.stringify(k)}:${ordered(v)}`)
          .join()}}`
      : JSON.stringify(x);

/** Marks of variants in memory, which are never changed in place. */
const known = new WeakMap<object, string>();

/** Two runs over a text with other primes, 32 bits each. Source: FNV-1a, its offset and prime, and a second pair. */
function mark(text: string): string {
  let [a, b] = [0x811c9dc5, 0xc59d1c81];
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 0x01000193);
    b = Math.imul(b ^ c, 0x85ebca6b);
  }
  return [a, b].map((x) => (x >>> 0).toString(16).padStart(8, '0')).join('');
}

/** What counts of a stage; what an older version did not know stands out while it is as that version had it. */
function builtOf({ kind, params }: Variant['stages'][number]): [string, object] {
  const late = stageKind(kind)?.late ?? {};
  const said = Object.entries(params).filter(([path, value]) => !(path in late) || late[path] !== value);
  return [kind, Object.fromEntries(said)];
}

/**
 * Mark of what a variant is made of and run with: its motor, driver, mount, output shaft and stages. Names, notes, the
 * sensor and the housing do not count: what a bench finds of torque, play and stiffness is the same.
 *
 * @returns sixteen hexadecimal digits, alike for alike designs
 */
export function designOf(variant: Pick<Variant, 'motor' | 'driver' | 'mount' | 'output' | 'stages'>): string {
  const had = known.get(variant);
  if (had !== undefined) return had;
  const { motor, driver, mount, output, stages } = variant;
  const made = mark(ordered({ motor, driver, mount, output, stages: stages.map(builtOf) }));
  known.set(variant, made);
  return made;
}

/** Whether a build is of the variant as it is now; one that does not say what it was built of is taken to be. */
export const builtAsNow = (build: Pick<Build, 'design'>, variant: Variant): boolean =>
  build.design === undefined || build.design === designOf(variant);
