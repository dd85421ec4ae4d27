import {
  MAX_FILE,
  mergeEdits,
  ok,
  readRecord,
  readShopEdits,
  refuse,
  writeJointFile,
  type Joint,
  type Result,
  type ShopEdits,
} from '@gristmill/core';
import { Unzip, UnzipInflate, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import { newId } from '../state/identifier.ts';
import { asRecord } from './packed.ts';
import { slug } from '../state/address.ts';
import { usesOf, type JointShelf, type Pointer } from './joints.ts';
import { rawText } from './raw-text.ts';
import type { Recordings } from './recordings.ts';
import type { Vault } from './vault.ts';

/**
 * A bundle is a zip: for each joint `joints/<id>/pointer.json` and its saves `joints/<id>/<save>.json` as joint files;
 * `recordings/<SHA-256>` the samples as in a joint file's `data`; where everything is in it
 * `shop.json` and `preferences.json`; and `manifest.json`, which names the rest. Entries are in one order and carry no
 * time, so that the same content gives the same bytes.
 */
const BUNDLE_FORMAT = 'gristmill-bundle';
const BUNDLE_VERSION = 1;
/** Unpacked, in bytes: beyond it a file is made to fill the memory, not to hold joints. */
const MOST = 4_000_000_000;
/** The day that zip files begin with. */
const NO_TIME = '1980-01-01T00:00:00';

interface Manifest {
  readonly format: string;
  readonly version: number;
  /** All other entries, so that one that is missing is noticed. */
  readonly entries: readonly string[];
}

export interface Wish {
  /** Only these joints; all where left out. */
  readonly only?: readonly string[];
  /** Earlier saves as well as the newest. */
  readonly history: boolean;
  /** The shop and the preferences as well. */
  readonly everything: boolean;
  readonly preferences?: string | undefined;
}

/** What came in. */
export interface Brought {
  readonly joints: readonly string[];
  /** Their identifiers here. */
  readonly ids: readonly string[];
  readonly notes: readonly string[];
  readonly preferences?: string;
  readonly shop?: true;
}

const text = (x: string): Uint8Array => new TextEncoder().encode(x);

/** Writes a bundle piece by piece; nothing but one record at a time is held whole. */
export async function writeBundle(
  vault: Vault,
  recordings: Recordings,
  wish: Wish,
  onProgress: (share: number) => void = () => undefined,
): Promise<Blob> {
  const parts: BlobPart[] = [];
  const zip = new Zip((error, data) => {
    if (error) throw error;
    parts.push(data as Uint8Array<ArrayBuffer>);
  });
  const add = (name: string, bytes: Uint8Array, squeeze: boolean) => {
    const entry = squeeze ? new ZipDeflate(name, { level: 6 }) : new ZipPassThrough(name);
    entry.mtime = NO_TIME;
    zip.add(entry);
    entry.push(bytes, true);
  };
  const ids = (await vault.read(['joints'], (at) => at.keys('joints')))
    .filter((id) => wish.only?.includes(id) ?? true)
    .sort();
  const entries: string[] = [];
  const put = (name: string, bytes: Uint8Array, squeeze = true) => {
    entries.push(name);
    add(name, bytes, squeeze);
  };
  const hashes = new Set<string>();
  for (const [i, id] of ids.entries()) {
    // A joint and its saves in one look: what is saved or let go meanwhile is wholly in it or wholly not.
    const taken = await vault.read(['joints', 'history'], async (at) => {
      const pointer = await at.get<Pointer>('joints', id);
      const saves: [save: Pointer['saves'][number], raw: unknown][] = [];
      for (const s of pointer?.saves ?? [])
        if (wish.history || s.rev === pointer!.rev)
          saves.push([s, asRecord(await at.get<unknown>('history', `${id}/${s.rev}`))]);
      return pointer && { pointer, saves: saves.filter(([, raw]) => raw !== null) };
    });
    if (!taken) continue;
    put(
      `joints/${slug(id)}/pointer.json`,
      text(`${JSON.stringify({ ...taken.pointer, saves: taken.saves.map(([s]) => s) }, null, 2)}\n`),
    );
    for (const [s, raw] of taken.saves) {
      put(`joints/${slug(id)}/${s.rev}.json`, text(rawText(raw)));
      for (const hash of s.uses ?? []) hashes.add(hash);
    }
    onProgress((i + 1) / (ids.length + 1));
  }
  for (const h of [...hashes].sort()) {
    const samples = await recordings.byHash(h);
    // Squeezed already.
    if (samples !== null) put(`recordings/${h}`, text(samples), false);
  }
  const shop = wish.everything ? await vault.read(['shop'], (at) => at.get<ShopEdits>('shop', 'edits')) : null;
  if (shop) put('shop.json', text(rawText(shop)));
  if (wish.everything && wish.preferences) put('preferences.json', text(wish.preferences));
  add(
    'manifest.json',
    text(
      `${JSON.stringify({ format: BUNDLE_FORMAT, version: BUNDLE_VERSION, entries } satisfies Manifest, null, 1)}\n`,
    ),
    true,
  );
  zip.end();
  return new Blob(parts, { type: 'application/zip' });
}

/** Whether a file begins as a zip does. */
export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

const damaged = (why: string) => refuse('The bundle is damaged.', why, 'Choose an undamaged copy.');

/** Unpacks a zip as it is read, one entry after the other. */
async function unpack(
  file: Blob,
  take: (name: string, bytes: Uint8Array) => Promise<void>,
  onProgress: (share: number) => void,
): Promise<Result<null>> {
  let trouble: string | undefined;
  let unpacked = 0;
  const whole: [string, Uint8Array][] = [];
  const unzip = new Unzip((entry) => {
    const pieces: Uint8Array[] = [];
    let size = 0;
    entry.ondata = (error, data, final) => {
      if (error) {
        trouble ??= `“${entry.name.slice(0, 60)}” cannot be unpacked.`;
        return;
      }
      size += data.length;
      unpacked += data.length;
      if (size > MAX_FILE || unpacked > MOST) {
        trouble ??= `It unpacks to more than ${(size > MAX_FILE ? MAX_FILE : MOST) / 1e6} MB.`;
        entry.terminate?.();
        return;
      }
      pieces.push(data);
      if (!final) return;
      const bytes = new Uint8Array(size);
      let at = 0;
      for (const piece of pieces) {
        bytes.set(piece, at);
        at += piece.length;
      }
      whole.push([entry.name, bytes]);
    };
    try {
      entry.start();
    } catch {
      trouble ??= `“${entry.name.slice(0, 60)}” is packed in a way that is not known here.`;
    }
  });
  unzip.register(UnzipInflate);
  try {
    const STEP = 1 << 20;
    for (let at = 0; at < file.size && trouble === undefined; at += STEP) {
      const piece = new Uint8Array(await file.slice(at, at + STEP).arrayBuffer());
      unzip.push(piece, at + STEP >= file.size);
      for (const [name, bytes] of whole.splice(0)) await take(name, bytes);
      onProgress(Math.min(1, (at + STEP) / file.size));
    }
  } catch {
    trouble ??= 'It cannot be unpacked to its end.';
  }
  return trouble === undefined ? ok(null) : damaged(trouble);
}

/**
 * Reads a bundle onto the shelf: a joint that is not here comes as it was, with its history and under its own
 * identifier; one that is here in another state comes in as a copy. Nothing on the shelf changes unless all of it can
 * be read.
 *
 * @param vault where it goes
 * @returns what came in, or why nothing did
 */
export async function readBundle(
  file: Blob,
  vault: Vault,
  shelf: JointShelf,
  recordings: Recordings,
  onProgress: (share: number) => void = () => undefined,
): Promise<Result<Brought>> {
  const texts = new Map<string, string>();
  const brought = new Set<string>();
  let wrong: string | undefined;
  const unpacked = await unpack(
    file,
    async (name, bytes) => {
      const hash = /^recordings\/([0-9a-f]{64})$/.exec(name)?.[1];
      if (!hash) return void texts.set(name, new TextDecoder().decode(bytes));
      // Samples lie by their content and harm nothing before a joint refers to them.
      if ((await recordings.bring(new TextDecoder().decode(bytes))) === hash) brought.add(hash);
      else wrong ??= `The samples of “${hash.slice(0, 12)}…” are not what they were.`;
    },
    onProgress,
  );
  if (!unpacked.ok) return unpacked;
  if (wrong) return damaged(wrong);
  const json = (name: string): unknown => {
    try {
      return JSON.parse(texts.get(name)!);
    } catch {
      return undefined;
    }
  };
  const manifest = texts.has('manifest.json')
    ? (json('manifest.json') as Partial<Manifest> | null | undefined)
    : undefined;
  if (!manifest || manifest.format !== BUNDLE_FORMAT)
    return refuse(
      'This zip is not a bundle.',
      texts.has('manifest.json') ? 'Its manifest is damaged or another program’s.' : 'It has no manifest.',
      'Choose a file that Gristmill exported.',
    );
  if (typeof manifest.version !== 'number' || manifest.version > BUNDLE_VERSION)
    return refuse(
      'The bundle is from a newer Gristmill.',
      `This one reads version ${BUNDLE_VERSION}.`,
      'Update Gristmill, then import it again.',
    );
  const entries = Array.isArray(manifest.entries) ? manifest.entries.filter((e) => typeof e === 'string') : [];
  const missing = entries.find((e) => !texts.has(e) && !brought.has(e.replace(/^recordings\//, '')));
  if (missing !== undefined) return damaged(`“${missing.slice(0, 80)}” is missing: it was cut off or altered.`);

  const joints: { pointer: Pointer; saves: Map<string, unknown>; newest: Joint }[] = [];
  const notes: string[] = [];
  for (const name of entries.filter((e) => /^joints\/[^/]+\/pointer\.json$/.test(e))) {
    const pointer = json(name) as Pointer | null | undefined;
    if (!pointer || typeof pointer.id !== 'string' || !Array.isArray(pointer.saves))
      return damaged(`“${name.slice(0, 80)}” cannot be read.`);
    const saves = new Map<string, unknown>();
    let newest: Joint | undefined;
    for (const s of pointer.saves) {
      if (typeof s?.rev !== 'string' || typeof s.when !== 'string' || typeof s.label !== 'string')
        return damaged(`“${name.slice(0, 80)}” cannot be read.`);
      const raw = json(name.replace(/pointer\.json$/, `${s.rev}.json`));
      saves.set(s.rev, raw);
      const read = readRecord(raw);
      if (read.ok) newest ??= read.value;
      else if (s.unreadable === undefined)
        return damaged(
          `A save of “${String(pointer.name).slice(0, 60)}” cannot be read: ${read.problem.what} ${read.problem.why}`,
        );
    }
    if (!newest) return damaged(`No save of “${String(pointer.name).slice(0, 60)}” can be read.`);
    joints.push({ pointer: { ...pointer, name: newest.name }, saves, newest });
  }
  let shop: ShopEdits | undefined;
  if (texts.has('shop.json')) {
    const read = readShopEdits(json('shop.json'));
    if (!read.ok) return damaged(`${read.problem.what} ${read.problem.why}`);
    shop = read.value;
  }

  const names: string[] = [];
  const ids: string[] = [];
  const empty = (await shelf.list()).length === 0;
  for (const { pointer, saves, newest } of joints) {
    const here = await vault.write(['joints', 'history', 'bin'], async (at) => {
      const there = await at.get<Pointer>('joints', pointer.id);
      if (there) return there;
      for (const [rev, raw] of saves) await at.set('history', `${pointer.id}/${rev}`, raw);
      await at.set('joints', pointer.id, pointer);
      await at.remove('bin', pointer.id);
      return undefined;
    });
    if (!here) {
      names.push(pointer.name);
      ids.push(pointer.id);
    } else if (here.rev === pointer.rev) notes.push(`“${pointer.name}” is here already, as it is in the bundle.`);
    else {
      const copy = { ...newest, id: newId(), name: `${newest.name.slice(0, 108)} (imported)` };
      const saved = await shelf.save(copy, null, 'Imported');
      if (saved.state === 'refused') return { ok: false, problem: saved.problem };
      names.push(copy.name);
      ids.push(copy.id);
      notes.push(`“${pointer.name}” is here in another state: the bundle’s came in as a copy.`);
    }
  }
  if (shop) {
    await vault.write(['shop'], async (at) => {
      const read = readShopEdits(await at.get('shop', 'edits'));
      // What is here stays; what is new is added.
      await at.set('shop', 'edits', empty ? shop : mergeEdits(shop, read.ok ? read.value : {}));
    });
    if (!empty) notes.push('The bundle’s shop was added to; what is here under the same name stays.');
  }
  const preferences = empty ? texts.get('preferences.json') : undefined;
  return ok({
    joints: names,
    ids,
    notes,
    ...(preferences !== undefined && { preferences }),
    ...(shop && { shop: true as const }),
  });
}

/**
 * A joint as a file: one JSON text, or a bundle where its recordings make it larger than a reader takes.
 *
 * @param most the largest text, bytes
 */
export async function writeJoint(
  joint: Joint,
  recordings: Recordings,
  most: number,
): Promise<{ readonly blob: Blob; readonly ending: string }> {
  let size = 0;
  for (const hash of usesOf(joint.tests)) size += (await recordings.byHash(hash))?.length ?? 0;
  if (size < most) {
    const blob = new Blob([writeJointFile(await recordings.whole(joint))], { type: 'application/json' });
    if (blob.size <= most) return { blob, ending: '.gristmill.json' };
  }
  return { blob: await bundleOf(joint, recordings), ending: '.gristmill.zip' };
}

/** A bundle of one joint as it is in memory. */
async function bundleOf(joint: Joint, recordings: Recordings): Promise<Blob> {
  const rev = 'export';
  const pointer: Pointer = {
    id: joint.id,
    name: joint.name,
    rev,
    saves: [{ rev, when: joint.changed, label: 'Exported', uses: usesOf(joint.tests) }],
  };
  const tables: Record<string, unknown> = { [joint.id]: pointer, [`${joint.id}/${rev}`]: joint };
  const vault: Vault = {
    read: (_stores, work) =>
      work({
        get: async <T>(_s: string, key: string) => (tables[key] as T) ?? null,
        keys: async () => [joint.id],
        set: async () => undefined,
        remove: async () => undefined,
      }),
    write: () => Promise.reject(new Error('read only')),
  };
  return writeBundle(vault, recordings, { history: true, everything: false });
}
