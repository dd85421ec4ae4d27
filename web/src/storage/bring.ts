import { MAX_FILE, readJointFile, refuse, type Result } from '@gristmill/core';
import { newId } from '../state/identifier.ts';
import { isZip, readBundle, type Brought } from './bundle.ts';
import type { JointShelf } from './joints.ts';
import type { Recordings } from './recordings.ts';
import type { Vault } from './vault.ts';

/** Where what is brought goes. */
interface Home {
  readonly vault: Vault;
  readonly shelf: JointShelf;
  readonly recordings: Recordings;
}

/** Reads one joint file onto the shelf; a joint that is already there comes in as a copy. */
async function bringJoint(file: File, { shelf, recordings }: Home): Promise<Result<Brought>> {
  const name = `“${file.name.slice(0, 60)}”`;
  if (file.size > MAX_FILE)
    return refuse(
      `${name} is too large (${(file.size / 1e6).toFixed(0)} MB).`,
      `Joint files stay under ${MAX_FILE / 1e6} MB; a bundle takes more.`,
      'Export the joint again, or choose a joint file.',
    );
  let text: string;
  try {
    text = await file.text();
  } catch {
    return refuse(`${name} cannot be read.`, 'The browser was refused access, or it was moved.', 'Choose it again.');
  }
  const read = readJointFile(text);
  if (!read.ok) return read;
  const light = await recordings.light(read.value);
  const taken = await shelf.pointer(light.id);
  const joint = taken ? { ...light, id: newId(), name: `${light.name.slice(0, 108)} (imported)` } : light;
  const saved = await shelf.save(joint, null, 'Imported');
  if (saved.state === 'refused') return { ok: false, problem: saved.problem };
  if (saved.state !== 'saved')
    return refuse(
      'Another tab was quicker.',
      'It has stored a joint under this identifier meanwhile.',
      'Import the file again.',
    );
  return { ok: true, value: { joints: [joint.name], ids: [joint.id], notes: [] } };
}

/** Reads a joint file or a bundle onto the shelf; nothing stored changes on refusal. */
export async function bring(
  file: File,
  home: Home,
  onProgress: (share: number) => void = () => undefined,
): Promise<Result<Brought>> {
  const first = new Uint8Array(
    await file
      .slice(0, 4)
      .arrayBuffer()
      .catch(() => new ArrayBuffer(0)),
  );
  return isZip(first) ? readBundle(file, home.vault, home.shelf, home.recordings, onProgress) : bringJoint(file, home);
}
