import type { BenchTest } from '@gristmill/core';
import { usesOf, type Binned, type Pointer, type Save } from './joints.ts';
import type { Recordings } from './recordings.ts';
import type { Tx, Vault } from './vault.ts';

/**
 * How recordings lay before version 4: under the identifier of their test, which copies and imports shared without
 * knowing.
 */
const LEGACY = 'recording:';

type StoredJoint = { readonly tests?: readonly BenchTest[] };

/** A stored joint whose recordings are found by their content; undefined where none of them was found by its test. */
function moved(raw: StoredJoint | null, hashes: ReadonlyMap<string, string>): StoredJoint | undefined {
  const mine = (t: BenchTest) =>
    t?.recording && t.recording.data === undefined && !t.recording.sha256 && hashes.has(t.id);
  if (!Array.isArray(raw?.tests) || !raw.tests.some(mine)) return undefined;
  return {
    ...raw,
    tests: raw.tests.map((t: BenchTest) =>
      mine(t) ? { ...t, recording: { ...t.recording!, sha256: hashes.get(t.id)! } } : t,
    ),
  };
}

async function movePointer(at: Tx, pointer: Pointer, hashes: ReadonlyMap<string, string>): Promise<Pointer> {
  const saves: Save[] = [];
  for (const save of Array.isArray(pointer.saves) ? pointer.saves : []) {
    const key = `${pointer.id}/${save.rev}`;
    const next = moved(await at.get<StoredJoint>('history', key), hashes);
    if (next) await at.set('history', key, next);
    saves.push(next ? { ...save, uses: usesOf(next.tests as BenchTest[]) } : save);
  }
  return { ...pointer, saves };
}

/**
 * Moves recordings of earlier versions under their content, in every save that speaks of them. Done before any joint is
 * opened; does nothing where it was done before.
 *
 * @returns how many were moved
 */
export async function adoptRecordings(vault: Vault, recordings: Recordings): Promise<number> {
  const keys = (await vault.read(['attachments'], (at) => at.keys('attachments'))).filter((k) => k.startsWith(LEGACY));
  const hashes = new Map<string, string>();
  for (const key of keys) {
    const text = await vault.read(['attachments'], (at) => at.get<unknown>('attachments', key));
    if (typeof text === 'string') hashes.set(key.slice(LEGACY.length), await recordings.bring(text));
  }
  if (keys.length === 0) return 0;
  await vault.write(['joints', 'history', 'bin', 'attachments'], async (at) => {
    for (const key of await at.keys('joints')) {
      const p = await at.get<Pointer>('joints', key);
      if (p) await at.set('joints', key, await movePointer(at, p, hashes));
    }
    for (const key of await at.keys('bin')) {
      const b = await at.get<Binned>('bin', key);
      if (b) await at.set('bin', key, { ...b, pointer: await movePointer(at, b.pointer, hashes) });
    }
    for (const id of hashes.keys()) await at.remove('attachments', LEGACY + id);
  });
  return hashes.size;
}
