import { readRecord, refuse, type Joint, type Result } from '@gristmill/core';
import { kindsKnown } from '../state/kinds.ts';
import type { Store } from './store.ts';

/** One kept save of a joint. */
export interface Save {
  readonly rev: string;
  readonly when: string;
  readonly label: string;
}

/** Which save of a joint counts, and the ones before it, newest first. */
export interface Pointer {
  readonly id: string;
  readonly name: string;
  readonly rev: string;
  readonly saves: readonly Save[];
}

export type SaveOutcome = { readonly state: 'saved'; readonly rev: string } | { readonly state: 'conflict'; readonly theirs: string };

const KEPT = 20;

/**
 * Joints in storage. A save writes a new record and then moves the pointer to it, so that a tab ended at any moment leaves
 * either the old joint or the new one, whole. The last twenty records stay as history.
 */
export class JointShelf {
  constructor(
    private readonly pointers: Store,
    private readonly records: Store,
  ) {}

  private readonly key = (id: string, rev: string) => `${id}/${rev}`;

  /** Pointers of all joints, by name. */
  async list(): Promise<Pointer[]> {
    const all = await Promise.all((await this.pointers.keys()).map((key) => this.pointers.get<Pointer>(key)));
    return all.filter((p): p is Pointer => p !== null && typeof p.rev === 'string').sort((a, b) => a.name.localeCompare(b.name));
  }

  pointer(id: string): Promise<Pointer | null> {
    return this.pointers.get<Pointer>(id);
  }

  /** The joint a pointer leads to, checked as a file would be; where its record is unreadable, the newest readable save before it. */
  async open(id: string): Promise<Result<{ joint: Joint; rev: string; fellBack: boolean }>> {
    await kindsKnown();
    const pointer = await this.pointer(id);
    if (!pointer) return refuse('This joint is not stored here.', 'It was deleted, or it lives in another browser.', 'Go back to the joints, or import its file.');
    let first: Result<Joint> | undefined;
    for (const save of pointer.saves) {
      const read = await this.record(id, save.rev);
      if (read.ok) return { ok: true, value: { joint: read.value, rev: pointer.rev, fellBack: save.rev !== pointer.rev } };
      first ??= read;
    }
    return first && !first.ok ? first : refuse('This joint cannot be read.', 'None of its saves is whole.', 'Import an exported copy.');
  }

  async record(id: string, rev: string): Promise<Result<Joint>> {
    return readRecord(await this.records.get(this.key(id, rev)));
  }

  /**
   * Saves a joint.
   *
   * @param expected the save this one builds on; when another has taken its place nothing is moved and the outcome is a conflict.
   *   Null for a joint that is new.
   * @param label what changed, for the history
   */
  async save(joint: Joint, expected: string | null, label: string, now = new Date()): Promise<SaveOutcome> {
    const before = await this.pointer(joint.id);
    if (before && before.rev !== expected) return { state: 'conflict', theirs: before.rev };
    const rev = `${now.getTime().toString(36)}-${Math.random().toString(36).slice(2, 8)}`;
    await this.records.set(this.key(joint.id, rev), joint);
    const saves = [{ rev, when: now.toISOString(), label }, ...(before?.saves ?? [])];
    const pointer: Pointer = { id: joint.id, name: joint.name, rev, saves: saves.slice(0, KEPT) };
    await this.pointers.set(joint.id, pointer);
    // Only after the pointer has moved is anything older let go of; failing at that loses nothing.
    for (const old of saves.slice(KEPT)) await this.records.remove(this.key(joint.id, old.rev)).catch(() => undefined);
    return { state: 'saved', rev };
  }

  /** Takes a joint off the shelf and returns what brings it back. */
  async remove(id: string): Promise<Pointer | null> {
    const pointer = await this.pointer(id);
    if (pointer) await this.pointers.remove(id);
    return pointer;
  }

  /** Puts a removed joint back as it was, history included. */
  async restore(pointer: Pointer): Promise<void> {
    await this.pointers.set(pointer.id, pointer);
  }

  /** Lets go of the records of joints without a pointer, as deleted for good. */
  async sweep(): Promise<void> {
    const ids = new Set(await this.pointers.keys());
    for (const key of await this.records.keys()) if (!ids.has(key.split('/')[0]!)) await this.records.remove(key);
  }
}
