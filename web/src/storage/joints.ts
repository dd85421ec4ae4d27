import {
  JointCheck,
  mergeThree,
  ok,
  readRecord,
  READER,
  refuse,
  settleJoint,
  type BenchTest,
  type Joint,
  type Problem,
  type Result,
  inUnits,
} from '@gristmill/core';
import { Left } from './left.ts';
import { asRecord, packed, prepare, readStored } from './packed.ts';
import type { Tx, Vault } from './vault.ts';

/** One kept save of a joint. */
export interface Save {
  readonly rev: string;
  readonly when: string;
  readonly label: string;
  /** The reader that found it readable; absent where none has looked. */
  readonly checked?: number;
  /** Why it cannot be read: it is set aside, kept, and counts for nothing else. */
  readonly unreadable?: string;
  /** Recordings that it refers to, by SHA-256. */
  readonly uses?: readonly string[];
}

/** Which save of a joint counts, and the ones before it, newest first. */
export interface Pointer {
  readonly id: string;
  readonly name: string;
  readonly rev: string;
  readonly saves: readonly Save[];
}

/** A joint in the bin: it can be brought back until its time is up. */
export interface Binned {
  readonly pointer: Pointer;
  /** Milliseconds since 1970. */
  readonly until: number;
}

export type SaveOutcome =
  | { readonly state: 'saved'; readonly rev: string }
  /** Another save has taken the place of the one this builds on. */
  | { readonly state: 'conflict'; readonly theirs: string }
  /** The joint was deleted meanwhile. */
  | { readonly state: 'gone' }
  /** The reader would not open it again: nothing was stored. */
  | { readonly state: 'refused'; readonly problem: Problem };

export interface Opened {
  readonly joint: Joint;
  readonly rev: string;
  /** The newest save could not be read: this is one before it. */
  readonly fellBack: boolean;
}

/** Saves of an earlier version that are looked into at each save, so that none waits long for it. */
const LOOKS = 2;
/** Saves kept of each joint; those that cannot be read are kept besides. */
export const KEPT = 20;
/** How long a deleted joint can be brought back. */
export const BIN_MINUTES = 30;

/** Recordings that a joint refers to and that lie beside it. */
export const usesOf = (tests: readonly BenchTest[]): string[] => [
  ...new Set(tests.flatMap((t) => (t as BenchTest).recording?.sha256 ?? [])),
];

/** What a page had not stored yet as it went. */
interface LeftJoint {
  /** The save it builds on; null for a joint that is new. */
  readonly rev: string | null;
  readonly label: string;
  /** As an ISO date. */
  readonly when: string;
  readonly joint: unknown;
}

const leftOf = (id: string): string => `joint ${id}`;

/** The last part of a key is the save; an identifier may hold anything before it. */
const keyOf = (id: string, rev: string): string => `${id}/${rev}`;
const idOf = (key: string): string => key.slice(0, key.lastIndexOf('/'));

/**
 * Joints in storage. A save is checked by the reader that will open it, compared with the save it builds on, and
 * written, all in one transaction: a tab that is ended at any moment leaves either the old joint or the new one, whole,
 * and two tabs never overwrite one another.
 */
export class JointShelf {
  private revisions = 0;

  constructor(
    private readonly vault: Vault,
    /** Settles once joints can be read. */
    private readonly ready: () => Promise<void> = async () => undefined,
    private readonly check = new JointCheck(),
    private readonly left = new Left(),
  ) {}

  private newRev(now: Date): string {
    // A counter besides: two saves of one millisecond are told apart, and sort.
    return `${now.getTime().toString(36)}-${(this.revisions++ % 1296).toString(36).padStart(2, '0')}${Math.random().toString(36).slice(2, 8)}`;
  }

  /** Pointers of all joints, by name. */
  list(): Promise<Pointer[]> {
    return this.vault.read(['joints'], async (at) => {
      const all: Pointer[] = [];
      for (const key of await at.keys('joints')) {
        const p = await at.get<Pointer>('joints', key);
        // One that is damaged still has its row, under its key, so that it can be seen to.
        if (p !== null) all.push(soundPointer(key, p));
      }
      return all.sort((a, b) => a.name.localeCompare(b.name) || a.id.localeCompare(b.id));
    });
  }

  pointer(id: string): Promise<Pointer | null> {
    return this.vault.read(['joints'], (at) => pointerIn(at, id));
  }

  /**
   * The joint a pointer leads to, checked as a file would be; where its record is unreadable, the newest readable save
   * before it.
   */
  async open(id: string): Promise<Result<Opened>> {
    await this.ready();
    if (this.left.has(leftOf(id))) await this.takeIn(id);
    const newest = await this.vault.read(['joints', 'history'], async (at) => {
      const pointer = await pointerIn(at, id);
      return pointer && { rev: pointer.rev, raw: await at.get<unknown>('history', keyOf(id, pointer.rev)) };
    });
    const read = newest && (await readStored(newest.raw));
    if (read?.ok) return ok({ joint: own(read.value, id), rev: newest!.rev, fellBack: false });
    return this.vault.read(['joints', 'history'], (at) => openIn(at, id));
  }

  async record(id: string, rev: string): Promise<Result<Joint>> {
    await this.ready();
    return readStored(await this.vault.read(['history'], (at) => at.get<unknown>('history', keyOf(id, rev))));
  }

  /** A save as it was when it was stored, whether it can be read or not. */
  async raw(id: string, rev: string): Promise<unknown> {
    return asRecord(await this.vault.read(['history'], (at) => at.get<unknown>('history', keyOf(id, rev))));
  }

  /**
   * Saves a joint.
   *
   * @param expected the save this one builds on; when another has taken its place nothing is written and the outcome
   *   says so.
   *   Null for a joint that is new.
   * @param label what changed, for the history
   */
  async save(joint: Joint, expected: string | null, label: string, now = new Date()): Promise<SaveOutcome> {
    await this.ready();
    const problem = this.check.problem(joint);
    if (problem) return { state: 'refused', problem };
    await prepare(joint);
    return this.vault.write(['joints', 'history'], async (at) => {
      const before = await pointerIn(at, joint.id);
      if (!before && expected !== null) return { state: 'gone' };
      if (before && before.rev !== expected) return { state: 'conflict', theirs: before.rev };
      return { state: 'saved', rev: await this.put(at, joint, before, label, now) };
    });
  }

  /** Changes the newest save of a joint, whatever it is now; for what does not depend on what is open. */
  async change(id: string, label: string, change: (joint: Joint) => Joint, now = new Date()): Promise<Result<Joint>> {
    await this.ready();
    return this.vault.write(['joints', 'history'], async (at) => {
      const opened = await openIn(at, id);
      if (!opened.ok) return opened;
      const next = change(opened.value.joint);
      const problem = this.check.problem(next);
      if (problem) return { ok: false, problem };
      await this.put(at, next, await pointerIn(at, id), label, now);
      return ok(next);
    });
  }

  /**
   * Leaves what a page that goes has not stored yet; the next to open the joint takes it in.
   *
   * @param rev the save it builds on
   * @returns false where there is no room for it
   */
  leave(joint: Joint, rev: string | null, label: string, now = new Date()): boolean {
    const left: LeftJoint = { rev, label, when: now.toISOString(), joint };
    return this.left.keep(leftOf(joint.id), left);
  }

  /** The page did not go, and has stored what it would have left. */
  stayed(id: string): void {
    this.left.forget(leftOf(id));
  }

  /**
   * Takes in what a page left: as a save of its own where nothing came between, merged where both can stand; where they
   * cannot the later counts, and the other is among the earlier saves.
   */
  private async takeIn(id: string): Promise<void> {
    const left = this.left.read(leftOf(id)) as LeftJoint | undefined;
    const mine = readRecord(left?.joint);
    if (left && mine.ok && !this.check.problem(mine.value))
      await this.vault.write(['joints', 'history'], (at) => this.putLeft(at, left, own(mine.value, id)));
    this.left.forget(leftOf(id));
  }

  private async putLeft(at: Tx, { rev, label, when }: LeftJoint, mine: Joint): Promise<void> {
    const before = await pointerIn(at, mine.id);
    // It was deleted meanwhile.
    if (!before) return;
    const put = (joint: Joint) => this.put(at, joint, before, label, new Date(when));
    if (before.rev === rev) return void (await put(mine));
    const base = readRecord(asRecord(await at.get('history', keyOf(mine.id, rev ?? ''))));
    const theirs = await openIn(at, mine.id);
    const merged = base.ok && theirs.ok && mergeThree(base.value, mine, theirs.value.joint, settleJoint);
    if (merged && merged.ok && !this.check.problem(merged.value)) {
      const stored = theirs.ok && JSON.stringify(merged.value) === JSON.stringify(theirs.value.joint);
      if (!stored) await put(merged.value);
      return;
    }
    await put(mine);
    const [last, top, ...others] = (await pointerIn(at, mine.id))!.saves;
    if (last && top && top.when > when) await at.set('joints', mine.id, { ...before, saves: [top, last, ...others] });
  }

  private async put(at: Tx, joint: Joint, before: Pointer | null, label: string, now: Date): Promise<string> {
    const rev = this.newRev(now);
    const uses = usesOf(joint.tests);
    await at.set('history', keyOf(joint.id, rev), packed(joint));
    const saves: Save[] = [
      { rev, when: now.toISOString(), label, checked: READER, ...(uses.length && { uses }) },
      ...(before?.saves ?? []),
    ];
    const pointer: Pointer = { id: joint.id, name: joint.name, rev, saves: await letGo(at, joint.id, saves) };
    await at.set('joints', joint.id, pointer);
    return rev;
  }

  /** Puts a joint that was repaired on top of its saves; those that cannot be read stay below it. */
  repaired(joint: Joint, id: string, label: string, now = new Date()): Promise<string> {
    return this.vault.write(['joints', 'history'], async (at) =>
      this.put(at, { ...joint, id }, await pointerIn(at, id), label, now),
    );
  }

  /** Sets a save aside that turned out unreadable: it is kept and exportable, and counts for nothing else. */
  setAside(id: string, rev: string, why: string): Promise<void> {
    return this.vault.write(['joints'], async (at) => {
      const p = await pointerIn(at, id);
      if (p)
        await at.set('joints', id, {
          ...p,
          saves: p.saves.map((s) => (s.rev === rev ? { ...s, unreadable: why, checked: READER } : s)),
        });
    });
  }

  /** Takes a joint off the shelf into the bin; undefined where it is not there. */
  remove(id: string, now = new Date()): Promise<Binned | undefined> {
    return this.vault.write(['joints', 'bin'], async (at) => {
      const pointer = await pointerIn(at, id);
      if (!pointer) return undefined;
      const binned: Binned = { pointer, until: now.getTime() + BIN_MINUTES * 60_000 };
      await at.set('bin', id, binned);
      await at.remove('joints', id);
      return binned;
    });
  }

  /** What is in the bin, the newest first. */
  async bin(): Promise<Binned[]> {
    const all = await this.vault.read(['bin'], async (at) => {
      const out: (Binned | null)[] = [];
      for (const key of await at.keys('bin')) out.push(await at.get<Binned>('bin', key));
      return out;
    });
    return all.filter((b) => b !== null).sort((a, b) => b.until - a.until);
  }

  /** Brings a joint back from the bin, history included; says so where another save stands in its place by now. */
  restore(id: string): Promise<'back' | 'there already' | 'gone'> {
    return this.vault.write(['joints', 'bin'], async (at) => {
      const binned = await at.get<Binned>('bin', id);
      const there = await pointerIn(at, id);
      if (there) return 'there already';
      if (!binned) return 'gone';
      await at.set('joints', id, binned.pointer);
      await at.remove('bin', id);
      return 'back';
    });
  }

  /**
   * Puts an open joint back on the shelf that was deleted meanwhile, on top of the history that is still in the bin.
   */
  async putBack(joint: Joint, label: string, now = new Date()): Promise<SaveOutcome> {
    const problem = this.check.problem(joint);
    if (problem) return { state: 'refused', problem };
    return this.vault.write(['joints', 'history', 'bin'], async (at) => {
      const there = await pointerIn(at, joint.id);
      if (there) return { state: 'conflict', theirs: there.rev };
      const binned = await at.get<Binned>('bin', joint.id);
      const rev = await this.put(at, joint, binned?.pointer ?? null, label, now);
      await at.remove('bin', joint.id);
      return { state: 'saved', rev };
    });
  }

  /**
   * Deletes for good what is in the bin: one joint, or all whose time is up. Their records go with them.
   *
   * @returns the recordings they spoke of, which a sweep frees where nothing else speaks of them
   */
  async empty(id?: string, now = new Date()): Promise<Set<string>> {
    return this.vault.write(['joints', 'history', 'bin'], async (at) => {
      const freed = new Set<string>();
      for (const key of await at.keys('bin')) {
        const binned = await at.get<Binned>('bin', key);
        if (id === undefined ? (binned?.until ?? 0) > now.getTime() : key !== id) continue;
        const there = new Set((await pointerIn(at, key))?.saves.map((s) => s.rev));
        for (const save of binned?.pointer.saves ?? []) {
          for (const hash of save.uses ?? []) freed.add(hash);
          if (!there.has(save.rev)) await at.remove('history', keyOf(key, save.rev));
        }
        await at.remove('bin', key);
      }
      return freed;
    });
  }

  /**
   * Frees what nothing refers to: records of no joint, and recordings that no save of any joint, on the shelf or in the
   * bin, speaks of.
   *
   * @param before recordings kept later than this stay: their joint may be about to be saved
   * @param held recordings that tabs speak of in memory: in what is open, or in steps to undo
   * @param freed recordings that go however fresh they are
   * @returns how many records and recordings went
   */
  async sweep(
    before: number,
    held: ReadonlySet<string> = new Set(),
    freed: ReadonlySet<string> = new Set(),
  ): Promise<{ records: number; recordings: number }> {
    await this.ready();
    return this.vault.write(['joints', 'history', 'bin', 'attachments'], async (at) => {
      const kept = new Set<string>();
      const used = new Set<string>();
      const hold = async (key: string, pointer: Pointer | null | undefined, put?: (p: Pointer) => Promise<void>) => {
        if (!pointer) return;
        const saves: Save[] = [];
        for (const save of soundPointer(key, pointer).saves) {
          kept.add(keyOf(key, save.rev));
          // Saves of earlier versions say nothing of their recordings: looked into once.
          const whole =
            save.checked !== undefined || save.uses
              ? save
              : {
                  ...save,
                  uses: usesOfRaw(
                    asRecord(await at.get('history', keyOf(key, save.rev))) as { tests?: unknown } | null,
                  ),
                };
          for (const hash of whole.uses ?? []) used.add(hash);
          saves.push(whole);
        }
        if (put && saves.some((s, i) => s !== pointer.saves[i])) await put({ ...pointer, saves });
      };
      for (const key of await at.keys('joints'))
        await hold(key, await at.get<Pointer>('joints', key), (p) => at.set('joints', key, p));
      for (const key of await at.keys('bin')) await hold(key, (await at.get<Binned>('bin', key))?.pointer);
      let [records, recordings] = [0, 0];
      const ids = new Set([...kept].map(idOf));
      for (const key of await at.keys('history')) {
        // A save that its pointer has dropped by a fault is one a person may still want: only those of no joint at all
        // go.
        if (kept.has(key) || ids.has(idOf(key))) continue;
        await at.remove('history', key);
        records++;
      }
      for (const key of await at.keys('attachments')) {
        const hash = key.replace(/^sha256:/, '');
        if (used.has(hash) || held.has(hash)) continue;
        const value = freed.has(hash) ? null : await at.get<{ at?: number }>('attachments', key);
        if (value && typeof value === 'object' && (value.at ?? 0) > before) continue;
        await at.remove('attachments', key);
        recordings++;
      }
      return { records, recordings };
    });
  }
}

/** A pointer whatever state it is in: what is damaged of it leads nowhere. */
function soundPointer(key: string, raw: Pointer): Pointer {
  const p = (typeof raw === 'object' ? raw : {}) as Partial<Pointer>;
  const saves = Array.isArray(p.saves)
    ? p.saves
        .filter((s) => typeof s?.rev === 'string')
        .map((s) => ({ ...s, when: typeof s.when === 'string' ? s.when : '', label: String(s.label ?? '') }))
    : [];
  return {
    id: key,
    name: typeof p.name === 'string' && p.name.trim() !== '' ? p.name : key,
    rev: typeof p.rev === 'string' ? p.rev : (saves[0]?.rev ?? ''),
    saves,
  };
}

async function pointerIn(at: Tx, id: string): Promise<Pointer | null> {
  const p = await at.get<Pointer>('joints', id);
  return p === null ? null : soundPointer(id, p);
}

/** A joint under the identifier that it is stored by. */
const own = (joint: Joint, id: string): Joint => (joint.id === id ? joint : { ...joint, id });

async function openIn(at: Tx, id: string): Promise<Result<Opened>> {
  const pointer = await pointerIn(at, id);
  if (!pointer)
    return refuse(
      'This joint is not stored here.',
      'It was deleted, or it lives in another browser.',
      'Go back to the joints, or import its file.',
    );
  let first: Result<Joint> | undefined;
  for (const save of pointer.saves) {
    const read = readRecord(asRecord(await at.get('history', keyOf(id, save.rev))));
    if (read.ok) return ok({ joint: own(read.value, id), rev: pointer.rev, fellBack: save.rev !== pointer.rev });
    first ??= read;
  }
  return first && !first.ok
    ? first
    : refuse('This joint cannot be read.', 'None of its saves is whole.', 'Import an exported copy.');
}

/** Recordings that a stored record refers to, whether it can be read or not. */
function usesOfRaw(raw: { readonly tests?: unknown } | null): string[] {
  const tests = Array.isArray(raw?.tests) ? (raw.tests as BenchTest[]) : [];
  return tests.flatMap((t) => (typeof t?.recording?.sha256 === 'string' ? [t.recording.sha256] : []));
}

/** What is known of a save after looking into it. */
async function lookedInto(at: Tx, key: string): Promise<Pick<Save, 'checked' | 'unreadable' | 'uses'>> {
  const raw = asRecord(await at.get('history', key)) as { tests?: unknown } | null;
  const uses = usesOfRaw(raw);
  const read = readRecord(raw);
  return {
    ...(read.ok ? { checked: READER } : { unreadable: inUnits(read.problem.what) }),
    ...(uses.length && { uses }),
  };
}

/**
 * Saves to keep of a list, the newest first: all that cannot be read, and the newest twenty that can. Records of the
 * others go.
 * A save is let go only when twenty newer ones are known to be readable by this reader.
 */
async function letGo(at: Tx, id: string, saves: readonly Save[]): Promise<Save[]> {
  if (saves.length <= KEPT) return [...saves];
  const out: Save[] = [];
  let readable = 0;
  let looks = LOOKS;
  for (const save of saves) {
    let known = save;
    if (save.checked !== READER) {
      // Nobody has looked into it: it stays, and counts for nothing, until somebody has.
      if (looks-- > 0) known = { ...save, ...(await lookedInto(at, keyOf(id, save.rev))), checked: READER };
      else {
        out.push(save);
        continue;
      }
    }
    // Older than twenty good ones, a good one goes; one that cannot be read stays.
    if (known.unreadable === undefined && readable >= KEPT) await at.remove('history', keyOf(id, save.rev));
    else out.push(known);
    if (known.unreadable === undefined) readable++;
  }
  return out;
}
