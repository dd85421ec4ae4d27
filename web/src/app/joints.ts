import { activeVariant, readJointFile, refuse, writeJointFile, type Joint, type Result } from '@gristmill/core';
import { kindsKnown } from '../state/kinds.ts';
import { newId } from '../state/identifier.ts';
import { jointShelf } from '../storage/shelf.ts';
import { download, fileName } from './download.ts';

const MAX_BYTES = 120_000_000;

/** A copy under another identifier, so that it never lands on an existing joint. */
export function copyOf(joint: Joint, name: string): Joint {
  const now = new Date().toISOString();
  return { ...structuredClone(joint), id: newId(), name, created: now, changed: now };
}

/** Saves a joint as a file, its recordings with it. */
export const exportJoint = async (joint: Joint): Promise<void> => {
  const { withRecordings } = await import('../storage/recordings.ts');
  download(`${fileName(joint.name)}.gristmill.json`, writeJointFile(await withRecordings(joint)), 'application/json');
};

/** Reads a chosen file into the shelf. A joint that is already there comes in as a copy; nothing stored is changed on refusal. */
export async function importJoint(file: File): Promise<Result<Joint>> {
  if (file.size > MAX_BYTES) return refuse(`“${file.name.slice(0, 60)}” is too large (${(file.size / 1e6).toFixed(0)} MB).`, `Joint files stay under ${MAX_BYTES / 1e6} MB.`, 'Choose a joint file.');
  let text: string;
  try {
    text = await file.text();
  } catch {
    return refuse(`“${file.name.slice(0, 60)}” cannot be read.`, 'The browser was refused access, or it was moved.', 'Choose it again.');
  }
  await kindsKnown();
  const read = readJointFile(text);
  if (!read.ok) return read;
  const taken = await jointShelf.pointer(read.value.id);
  const { withoutRecordings } = await import('../storage/recordings.ts');
  const joint = await withoutRecordings(taken ? copyOf(read.value, `${read.value.name} (imported)`.slice(0, 120)) : read.value);
  await jointShelf.save(joint, null, 'Imported');
  return { ok: true, value: joint };
}

export const variantLine = (joint: Joint): string => `variant ${activeVariant(joint).name}`;
