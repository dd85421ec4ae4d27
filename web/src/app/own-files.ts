import { fileOpen, fileSave, supported, type FileWithHandle } from 'browser-fs-access';
import localforage from 'localforage';
import type { Joint } from '@gristmill/core';
import { toast } from 'sonner';
import { jointFile } from '../workers/files.ts';
import { exportJoint } from './joints.ts';
import { fileName } from './download.ts';

/** A file that a joint came from or was saved to, as the browser remembers it. */
export interface RecentFile {
  readonly name: string;
  readonly jointId: string;
  /** ms */
  readonly at: number;
  readonly handle: FileSystemFileHandle;
}

/** How many files are remembered. */
const MOST = 12;
const KEY = 'recent';
const kept = localforage.createInstance({ name: 'gristmill-files', storeName: 'recent' });

/** Whether this browser lets a page save to the file that it opened. */
export const canSaveInPlace = supported;

const isHandle = (h: unknown): h is FileSystemFileHandle =>
  typeof h === 'object' && h !== null && (h as { kind?: unknown }).kind === 'file';

/** The files that were opened or saved here, the last first; none where the browser forgets. */
export async function recentFiles(): Promise<readonly RecentFile[]> {
  try {
    return (await kept.getItem<RecentFile[]>(KEY)) ?? [];
  } catch {
    return [];
  }
}

/** Remembers where joints came from. A file of many is no joint's own. */
export async function rememberFile(
  ids: readonly string[],
  file: { readonly name: string },
  handle: unknown,
): Promise<void> {
  if (ids.length !== 1 || !isHandle(handle) || !/\.json$/i.test(file.name)) return;
  const others = (await recentFiles()).filter((r) => r.jointId !== ids[0] && r.name !== file.name);
  const now: RecentFile = { name: file.name, jointId: ids[0]!, at: Date.now(), handle };
  await kept.setItem(KEY, [now, ...others].slice(0, MOST)).catch(() => undefined);
}

/** Lets the reader choose files; nothing where they choose none. */
export async function chooseFiles(): Promise<readonly FileWithHandle[]> {
  try {
    return await fileOpen({
      multiple: true,
      description: 'Joints, shops, exports',
      extensions: ['.json', '.zip'],
      mimeTypes: ['application/json', 'application/zip'],
      id: 'gristmill',
    });
  } catch {
    return [];
  }
}

/** Reads a file that was opened before; the browser may ask whether it may. */
export async function openRecent(recent: RecentFile): Promise<File | undefined> {
  try {
    const handle = recent.handle as FileSystemFileHandle & {
      requestPermission?(of: { mode: 'read' | 'readwrite' }): Promise<PermissionState>;
    };
    if ((await handle.requestPermission?.({ mode: 'read' })) === 'denied') throw new Error('denied');
    return await handle.getFile();
  } catch {
    toast(`“${recent.name}” cannot be opened: it was moved, or the browser may not read it. Import it by hand.`);
    return undefined;
  }
}

/** Saves a joint to the file that it came from or was last saved to; asks for one where there is none. */
export async function saveToFile(joint: Joint): Promise<void> {
  if (!canSaveInPlace) return exportJoint(joint);
  const known = (await recentFiles()).find((r) => r.jointId === joint.id);
  try {
    const { blob, ending } = await jointFile(joint);
    // A joint with long recordings is a zip, and does not go into a plain file.
    const handle = known?.name.endsWith(ending) ? known.handle : null;
    const saved = await fileSave(
      blob,
      { fileName: `${fileName(joint.name)}${ending}`, id: 'gristmill' },
      handle,
      false,
    );
    if (saved) await rememberFile([joint.id], saved, saved);
    toast(`Saved to “${saved?.name ?? known?.name ?? joint.name}”.`);
  } catch (error) {
    if ((error as Error).name === 'AbortError') return;
    toast('The file could not be written: it was moved, or the browser may not write it. It is exported as a new one.');
    await exportJoint(joint);
  }
}
