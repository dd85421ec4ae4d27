import { writeJointFile, type Joint, type Problem } from '@gristmill/core';
import { toast } from 'sonner';
import { newId } from '../state/identifier.ts';
import { rawText } from '../storage/raw-text.ts';
import { jointShelf } from '../storage/shelf.ts';
import { jointFile } from '../workers/files.ts';
import { download, fileName } from './download.ts';

/** A copy under another identifier, so that it never lands on an existing joint. */
export function copyOf(joint: Joint, name: string): Joint {
  const now = new Date().toISOString();
  return { ...structuredClone(joint), id: newId(), name, created: now, changed: now };
}

/**
 * Saves a joint as a file, its recordings with it. Where the part that does this cannot be had, the joint alone goes
 * out, which is said.
 */
export async function exportJoint(joint: Joint): Promise<void> {
  try {
    const { blob, ending } = await jointFile(joint);
    download(`${fileName(joint.name)}${ending}`, blob, blob.type);
  } catch (error) {
    download(`${fileName(joint.name)}.gristmill.json`, writeJointFile(joint), 'application/json');
    if (
      joint.tests.some((t) => 'recording' in t && t.recording && (t.recording as { data?: string }).data === undefined)
    )
      toast(
        `The file holds the joint without its long recordings: ${error instanceof Error ? error.message : 'they cannot be read now'}.`,
      );
  }
}

/** The newest save of a joint as a file: what is on a page may be older by now. */
export async function exportStored(id: string): Promise<Problem | undefined> {
  const read = await jointShelf.open(id);
  if (!read.ok) return read.problem;
  await exportJoint(read.value.joint);
  return undefined;
}

/** A save as it lies in storage, readable or not. */
export async function exportRaw(id: string, name: string, rev?: string): Promise<void> {
  const at = rev ?? (await jointShelf.pointer(id))?.rev ?? '';
  download(`${fileName(name, 'raw')}.json`, rawText(await jointShelf.raw(id, at)), 'application/json');
}
