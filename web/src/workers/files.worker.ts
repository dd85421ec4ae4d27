import { MAX_FILE, readJointFile, refuse, type Result } from '@gristmill/core';
import { registerKinds } from '@gristmill/core/stage/kinds';
import { expose } from 'comlink';
import { newId } from '../state/identifier.ts';
import { isZip, readBundle, writeBundle, writeJoint, type Brought } from '../storage/bundle.ts';
import { JointShelf } from '../storage/joints.ts';
import { Recordings } from '../storage/recordings.ts';
import { BrowserVault } from '../storage/vault.ts';
import type { FilesApi } from './files-api.ts';

registerKinds();
const vault = new BrowserVault();
const shelf = new JointShelf(vault);
const recordings = new Recordings(vault);

/** Reads one joint file onto the shelf; a joint that is already there comes in as a copy. */
async function bringJoint(file: File): Promise<Result<Brought>> {
  const name = `“${file.name.slice(0, 60)}”`;
  if (file.size > MAX_FILE) return refuse(`${name} is too large (${(file.size / 1e6).toFixed(0)} MB).`, `Joint files stay under ${MAX_FILE / 1e6} MB; a bundle takes more.`, 'Export the joint again, or choose a joint file.');
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
  if (saved.state !== 'saved') return refuse('Another tab was quicker.', 'It has stored a joint under this identifier meanwhile.', 'Import the file again.');
  return { ok: true, value: { joints: [joint.name], notes: [] } };
}

const api: FilesApi = {
  writeJoint: (joint) => writeJoint(joint, recordings, MAX_FILE),
  writeBundle: (wish, onProgress) => writeBundle(vault, recordings, wish, onProgress),
  bring: async (file, onProgress) => {
    const first = new Uint8Array(await file.slice(0, 4).arrayBuffer().catch(() => new ArrayBuffer(0)));
    return isZip(first) ? readBundle(file, vault, shelf, recordings, onProgress) : bringJoint(file);
  },
};

expose(api);
