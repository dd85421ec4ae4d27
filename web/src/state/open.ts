import {
  activeVariant,
  keepReads,
  type Joint,
  type Problem,
  type ShopReads,
  type StageRecord,
  type Variant,
} from '@gristmill/core';
import { applyPatches, enablePatches, produceWithPatches, setAutoFreeze, type Draft, type Patch } from 'immer';
import { create } from 'zustand';
import { jointCheck } from './check.ts';
import { refuseChange } from './refusal.ts';
import { useShop } from './shop.ts';
import { said } from './prefs.ts';

enablePatches();
// Freezing would walk through hundreds of tests at the first edit of a joint; types keep it from being changed.
setAutoFreeze(false);

interface Step {
  readonly label: string;
  readonly forward: readonly Patch[];
  readonly back: readonly Patch[];
  readonly at: number;
  /** The drag it belongs to; 0 for none. */
  readonly gesture: number;
}

export type SaveState = 'saved' | 'unsaved' | 'saving' | 'failed';

interface OpenState {
  joint: Joint | undefined;
  past: readonly Step[];
  future: readonly Step[];
  save: SaveState;
  savedAt: Date | undefined;
  /** Another tab holds this joint: looked at here, changed there. */
  readOnly: boolean;
  /** What the last change was, for the history. */
  lastLabel: string;
  /** Variants that follow the brief are being sized. */
  sizing: boolean;
  load(joint: Joint | undefined, readOnly?: boolean): void;
  /**
   * Changes the joint; the same label within a short while joins the last step, so that a drag is one undo. A change
   * that could not be opened again is not made: the reason is returned, and shown by the field it came from.
   */
  edit(label: string, recipe: (draft: Draft<Joint>) => void): Problem | undefined;
  /**
   * Another variant is looked at: a step like any other where the joint may be changed; where another tab holds it,
   * here alone.
   */
  openVariant(id: string): void;
  /** Takes in what another tab saved, merged with what is here; steps to undo would no longer fit and begin anew. */
  absorb(joint: Joint, save: SaveState): void;
  /**
   * A joint keeps what of the shop it was computed with, as the shop had it then. Not a change of the reader's: it is
   * saved with the next one.
   */
  keep(id: string, reads: ShopReads): void;
  undo(): string | undefined;
  redo(): string | undefined;
  mark(save: SaveState): void;
  setReadOnly(readOnly: boolean): void;
}

const JOIN_WITHIN = 700;
let gesture = 0;
let gestures = 0;

/** Between its two calls all changes of one name are one step to undo, however slowly they come. */
export const oneStep = { begin: (): void => void (gesture = ++gestures), end: (): void => void (gesture = 0) };

const KEPT_STEPS = 200;

/** Sizes variants to a brief, away from the page. */
export type Sizer = (joint: Joint, variants: readonly Variant[], signal: AbortSignal) => Promise<StageRecord[][]>;

let sizer: Sizer | undefined;
/** Who sizes variants that follow the brief; without one they stay as they are. */
export const setSizer = (by: Sizer | undefined): void => void (sizer = by);

/** Variants that follow the brief and whose brief, motor, driver or number of stages moved under them. */
function moved(before: Joint, now: Joint): Variant[] {
  return now.variants.filter((v) => {
    if (!v.follows || v.stages.length === 0) return false;
    const old = before.variants.find((x) => x.id === v.id);
    return (
      before.brief !== now.brief ||
      !old?.follows ||
      old.motor !== v.motor ||
      old.driver !== v.driver ||
      old.stages.length !== v.stages.length
    );
  });
}

/** Whether a variant still stands on what it was sized with. */
const stands = (now: Joint, brief: Joint['brief'], sized: Variant): boolean => {
  const v = now.variants.find((x) => x.id === sized.id);
  return (
    now.brief === brief &&
    v !== undefined &&
    v.follows &&
    v.motor === sized.motor &&
    v.driver === sized.driver &&
    v.stages === sized.stages
  );
};

export const useOpen = create<OpenState>((set, get) => {
  let asked: AbortController | undefined;
  /** Variants whose sizes were asked for and have not come: a later change must not leave them out. */
  let awaited: ReadonlySet<string> = new Set();

  /**
   * Sizes what follows the brief, away from the page, and joins it to the last step: one undo takes back the change and
   * what came of it.
   */
  function resize(before: Joint, now: Joint): void {
    const fresh = moved(before, now);
    if (fresh.length === 0 || !sizer) return;
    const list = now.variants.filter((v) => fresh.includes(v) || (v.follows && awaited.has(v.id)));
    awaited = new Set(list.map((v) => v.id));
    asked?.abort();
    const mine = (asked = new AbortController());
    set({ sizing: true });
    sizer(now, list, mine.signal)
      .then((made) => mine === asked && take(now, list, made))
      // A worker that breaks leaves the stages as they are: the line says what they come to.
      .catch(() => undefined)
      .finally(() => {
        if (mine !== asked) return;
        awaited = new Set();
        set({ sizing: false });
      });
  }

  function take(from: Joint, list: readonly Variant[], made: readonly StageRecord[][]): void {
    const { joint, past } = get();
    const last = past[past.length - 1];
    if (joint?.id !== from.id || !last) return;
    const [next, forward, back] = produceWithPatches(joint, (draft) => {
      list.forEach((sized, i) => {
        const at = joint.variants.findIndex((v) => v.id === sized.id);
        if (stands(joint, from.brief, sized)) draft.variants[at]!.stages = made[i] as Draft<StageRecord>[];
      });
    });
    if (forward.length === 0 || jointCheck.problem(next)) return;
    const step: Step = { ...last, forward: [...last.forward, ...forward], back: [...back, ...last.back] };
    set({ joint: next, past: [...past.slice(0, -1), step], save: 'unsaved' });
  }

  return {
    joint: undefined,
    past: [],
    future: [],
    save: 'saved',
    savedAt: undefined,
    readOnly: false,
    lastLabel: '',
    sizing: false,
    load: (joint, readOnly = false) => {
      if (joint) jointCheck.trust(joint);
      asked?.abort();
      asked = undefined;
      awaited = new Set();
      set({
        joint,
        past: [],
        future: [],
        save: 'saved',
        savedAt: undefined,
        readOnly,
        lastLabel: '',
        sizing: false,
      });
    },
    edit: (what, recipe) => {
      const { joint, past, readOnly } = get();
      if (!joint || readOnly) return undefined;
      const label = said(what);
      const [next, forward, back] = produceWithPatches(joint, recipe);
      if (forward.length === 0) return undefined;
      const problem = jointCheck.problem(next);
      if (problem) {
        refuseChange(problem);
        return problem;
      }
      const now = Date.now();
      const last = past[past.length - 1];
      const joins =
        last &&
        last.label === label &&
        (gesture ? last.gesture === gesture : last.gesture === 0 && now - last.at < JOIN_WITHIN);
      const step: Step = joins
        ? { label, forward: [...last.forward, ...forward], back: [...back, ...last.back], at: now, gesture }
        : { label, forward, back, at: now, gesture };
      set({
        joint: { ...next, changed: new Date(now).toISOString() },
        past: [...(joins ? past.slice(0, -1) : past), step].slice(-KEPT_STEPS),
        future: [],
        save: 'unsaved',
        lastLabel: label,
      });
      resize(joint, get().joint!);
      return undefined;
    },
    openVariant: (id) => {
      const { joint, readOnly, edit } = get();
      if (!joint || joint.activeVariant === id || !joint.variants.some((v) => v.id === id)) return;
      if (readOnly) set({ joint: { ...joint, activeVariant: id } });
      else edit('Open variant', (d) => void (d.activeVariant = id));
    },
    absorb: (joint, save) => set({ joint, past: [], future: [], save }),
    keep: (id, reads) => {
      const { joint, readOnly } = get();
      if (joint?.id !== id || readOnly) return;
      const next = keepReads(joint, reads, useShop.getState().shelf);
      if (next !== joint) set({ joint: next });
    },
    undo: () => {
      const { joint, past, future, readOnly } = get();
      const step = past[past.length - 1];
      if (!joint || !step || readOnly) return undefined;
      set({
        joint: applyPatches(joint, step.back as Patch[]),
        past: past.slice(0, -1),
        future: [step, ...future],
        save: 'unsaved',
        lastLabel: `Undo: ${step.label}`,
      });
      return step.label;
    },
    redo: () => {
      const { joint, past, future, readOnly } = get();
      const step = future[0];
      if (!joint || !step || readOnly) return undefined;
      set({
        joint: applyPatches(joint, step.forward as Patch[]),
        past: [...past, { ...step, at: 0 }],
        future: future.slice(1),
        save: 'unsaved',
        lastLabel: `Redo: ${step.label}`,
      });
      return step.label;
    },
    mark: (save) => set(save === 'saved' ? { save, savedAt: new Date() } : { save }),
    setReadOnly: (readOnly) => set({ readOnly }),
  };
});

/** The open joint; only used below the frame, which guards that one is open. */
export const useJoint = (): Joint => useOpen((s) => s.joint)!;

/** The open variant of the open joint. */
export const useVariant = (): Variant => activeVariant(useJoint());

/** Changes the open variant. */
export function editVariant(label: string, recipe: (draft: Draft<Variant>) => void): Problem | undefined {
  return useOpen.getState().edit(label, (draft) => {
    const variant = draft.variants.find((x) => x.id === draft.activeVariant) ?? draft.variants[0]!;
    recipe(variant);
  });
}
