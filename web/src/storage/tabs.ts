import { note } from '../state/note.ts';
import { useOpen } from '../state/open.ts';
import { buildOn, saveNow, useStorage } from './autosave.ts';
import { hear, TAB, tell, type Message } from './messages.ts';
import { jointShelf } from './shelf.ts';

const lockName = (id: string) => `gristmill-joint-${id}`;

/** How long a tab is waited for that is asked to hand a joint over, ms. */
const HAND_OVER = 2500;

/** How long a page that was loaded anew waits for the one it takes the place of to let go, ms. */
const LET_GO = 600;

const reloaded = (): boolean =>
  typeof performance.getEntriesByType === 'function' &&
  performance.getEntriesByType('navigation').some((n) => (n as PerformanceNavigationTiming).type === 'reload');

/** Joints this tab is still letting go of: it does not stand in its own way. */
const leaving = new Map<string, Promise<void>>();

/**
 * Asks for a joint's lock.
 *
 * @param options as the platform's; waits for the lock unless it is to be had at once or by force
 * @returns what lets go of it, or undefined where another tab has it
 */
function lock(id: string, options: LockOptions, onLost: () => void): Promise<(() => void) | undefined> {
  return new Promise((resolve) => {
    let release: () => void = () => undefined;
    const kept = new Promise<void>((done) => (release = done));
    let had = false;
    navigator.locks
      .request(lockName(id), options, (got) => {
        had = got !== null;
        resolve(had ? release : undefined);
        return had ? kept : undefined;
      })
      // Taken by force, or no longer waited for.
      .catch(() => (had ? onLost() : resolve(undefined)));
  });
}

/** A joint that this tab has open: held for changing, or looked at while another tab holds it. */
export class Holding {
  private release: (() => void) | undefined;
  private waiting: AbortController | undefined;
  private gone = false;
  private stopHearing: () => void = () => undefined;

  constructor(
    readonly id: string,
    private readonly waitFor = HAND_OVER,
  ) {}

  /** Whether this tab may change the joint now. */
  get held(): boolean {
    return !navigator.locks || this.release !== undefined;
  }

  /** Holds the joint where no other tab does; waits for it in the background where one does. */
  async start(): Promise<void> {
    this.stopHearing = hear((m) => void this.heard(m));
    await leaving.get(this.id);
    if (!navigator.locks) return;
    this.release =
      (await lock(this.id, { ifAvailable: true }, () => this.lost())) ??
      (reloaded() ? await lock(this.id, { signal: AbortSignal.timeout(LET_GO) }, () => this.lost()) : undefined);
    if (this.gone) this.release?.();
    else if (!this.release) this.wait();
  }

  /** Waits until the tab that holds the joint lets go of it, then goes on from its last save. */
  private wait(): void {
    this.waiting?.abort();
    const waiting = (this.waiting = new AbortController());
    void lock(this.id, { signal: waiting.signal }, () => this.lost()).then(async (release) => {
      if (!release) return;
      if (this.gone || waiting.signal.aborted) return release();
      this.release = release;
      await followSave(this.id);
      useOpen.getState().setReadOnly(false);
    });
  }

  /**
   * Another tab has the joint now, by force: what was not stored is not lost, but a person has to say what becomes of
   * it.
   */
  private lost(): void {
    this.release = undefined;
    if (this.gone) return;
    const { save, joint } = useOpen.getState();
    const open = joint?.id === this.id;
    useOpen.getState().setReadOnly(true);
    if (open && save !== 'saved') useStorage.setState({ conflict: 'taken' });
    this.wait();
  }

  private async heard(m: Message): Promise<void> {
    if (!('id' in m) || m.id !== this.id || this.gone) return;
    if (m.type === 'saved') await followSave(this.id);
    if (m.type === 'deleted') {
      useStorage.setState({ conflict: 'deleted' });
      // What was stored is not any more; what an onlooker sees was never its own.
      if (!useOpen.getState().readOnly) useOpen.getState().mark('failed');
    }
    if (m.type === 'restored' && useStorage.getState().conflict === 'deleted') {
      useStorage.setState({ conflict: undefined });
      await saveNow();
    }
    if (m.type === 'wanted' && this.release && m.by !== TAB) {
      // Somebody may type while it is being written.
      for (let tries = 0; tries < 3 && (tries === 0 || useOpen.getState().save === 'unsaved'); tries++) await saveNow();
      const whole = useOpen.getState().save === 'saved';
      tell({ type: 'handed', id: this.id, to: m.by, whole });
      // What could not be stored stays here, and in this tab's hands: the other one asks again, by force, if it must.
      if (!whole) return;
      useOpen.getState().setReadOnly(true);
      this.release?.();
      this.release = undefined;
      setTimeout(() => !this.gone && !this.release && this.wait(), 400);
    }
  }

  /**
   * Takes the joint over from the tab that holds it, with what that one has not stored yet; says so where that tab does
   * not answer.
   */
  async takeOver(): Promise<void> {
    const answer = new Promise<boolean | undefined>((resolve) => {
      const stop = hear((m) => {
        if (m.type !== 'handed' || m.id !== this.id || m.to !== TAB) return;
        stop();
        resolve(m.whole);
      });
      setTimeout(() => (stop(), resolve(undefined)), this.waitFor);
    });
    tell({ type: 'wanted', id: this.id, by: TAB });
    const whole = await answer;
    if (this.gone) return;
    this.waiting?.abort();
    this.release = await lock(this.id, { steal: true }, () => this.lost());
    await followSave(this.id);
    useOpen.getState().setReadOnly(false);
    if (whole === undefined)
      note(
        'The other tab did not answer. You go on from its last save; what it had not stored yet, if anything, is still in that tab.',
        { stays: 10_000 },
      );
    else if (!whole)
      note(
        'The other tab could not store its last changes. You go on from its last save; its changes can be kept there as a copy.',
        { stays: 10_000 },
      );
  }

  /** Lets go of the joint once what is on its way is stored. */
  stop(): void {
    this.gone = true;
    this.stopHearing();
    this.waiting?.abort();
    const left = saveNow().then(() => {
      const { joint, save } = useOpen.getState();
      if (joint?.id === this.id && save === 'saved') useOpen.getState().load(undefined);
      this.release?.();
      leaving.delete(this.id);
    });
    leaving.set(this.id, left);
  }
}

/**
 * Brings the open joint up to the newest save. What is here and not stored stays, unless a person gives it up.
 *
 * @param giveUp takes the newest save over what is here
 */
export async function followSave(id: string, giveUp = false): Promise<void> {
  const before = useOpen.getState().joint;
  const read = await jointShelf.open(id);
  const { joint, readOnly, save, load } = useOpen.getState();
  if (!read.ok || joint?.id !== id) return;
  // Asked after the wait: a change may have been made in it.
  if (!giveUp && (useStorage.getState().conflict === 'taken' || (!readOnly && save !== 'saved'))) return;
  // Changed and stored meanwhile: what was read is of before that.
  if (joint !== before && before?.id === id) return followSave(id, giveUp);
  // Whoever only looks on goes on looking at the variant he chose.
  const kept = readOnly && read.value.joint.variants.some((v) => v.id === joint.activeVariant);
  load(kept ? { ...read.value.joint, activeVariant: joint.activeVariant } : read.value.joint, readOnly);
  buildOn(read.value.rev, read.value.joint);
}
