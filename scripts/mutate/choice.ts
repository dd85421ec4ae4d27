// Which places are tried: a sample that is the same for the same seed.
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { LEFT_OUT, mutantsOf, type Mutant } from './places.ts';

/** Sources of a folder, or the one file, whose formulas are to be held by tests. */
function sources(root: string, where: string): string[] {
  if (where.endsWith('.ts')) return [where];
  return readdirSync(join(root, where), { recursive: true, encoding: 'utf8' })
    .map((f) => `${where}/${f}`)
    .filter((f) => f.endsWith('.ts') && !LEFT_OUT.test(f))
    .sort();
}

/** Every place under these folders and files, or those of one line (`file.ts:120`). */
export function placesUnder(root: string, where: string): Mutant[] {
  const [file, line] = where.split(':');
  if (line) return mutantsOf(root, file!).filter((m) => m.line === Number(line));
  return where.split(',').flatMap((w) => sources(root, w).flatMap((f) => mutantsOf(root, f)));
}

/**
 * Places that survived a run before, by its output: the same change in the same file, nearest to where it was.
 *
 * @param output lines as the run printed them
 */
export function survivors(root: string, output: string): Mutant[] {
  return output
    .split('\n')
    .filter((line) => line.startsWith('{"survived"'))
    .flatMap((line) => {
      const { survived, change } = JSON.parse(line) as { survived: string; change: string };
      const [file, at] = survived.split(':') as [string, string];
      const off = (m: Mutant) => Math.abs(m.line - Number(at));
      const alike = mutantsOf(root, file)
        .filter((m) => m.says === change)
        .sort((a, b) => off(a) - off(b));
      return alike.slice(0, 1);
    });
}

/** So many of a list, drawn by a seed. */
export function sample<T>(list: readonly T[], count: number, seed: number): T[] {
  let s = seed >>> 0;
  const roll = () => (s = (Math.imul(s, 1664525) + 1013904223) >>> 0) / 4294967296;
  return [...list]
    .map((x) => [roll(), x] as const)
    .sort((a, b) => a[0] - b[0])
    .slice(0, count)
    .map(([, x]) => x);
}
