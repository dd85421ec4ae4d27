import {
  currencyOf,
  inUnits,
  moneyUnits,
  setDecimalSign,
  type Comma,
  type DecimalSign,
  type QuantityId,
  type UnitChoice,
} from '@gristmill/core';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** Where they lie, and in which version. */
const KEY = 'gristmill-prefs';
const KEPT_AS = 2;

interface Prefs {
  sheet: 'light' | 'dark';
  units: UnitChoice;
  /** What a comma before three digits stands for. */
  comma: Comma;
  /** What numbers are written with. */
  decimal: DecimalSign;
  tallyOpen: boolean;
  tallyWidth: number;
  /** Widths of panes that somebody moved, by pane, px. */
  panes: Readonly<Record<string, number>>;
  /** Layers switched off in drawings, by layer id. */
  hiddenLayers: readonly string[];
  seenDemo: boolean;
  /** Round faces are drawn as their fits ask for, where a process is known. */
  drawFits: boolean;
  /** Whether single keys do anything outside fields; chords with Ctrl always do. */
  singleKeys: boolean;
  /** Keys that the reader gave to actions, by action; an empty one takes the key away. */
  ownKeys: Readonly<Record<string, string>>;
  /** When everything was last exported from here, and until when not to remind of it, as ISO dates. */
  exportedAt: string | undefined;
  remindAfter: string | undefined;
  /** The stop that the tour through the demo stands at; undefined while nobody is on it. */
  tour: number | undefined;
  /** The stop at which it was left, or that it was gone through. */
  tourAt: number | 'ended';
  /** Large figures, to be read across a bench. */
  large: boolean;
  /** When each joint was last opened here, ms. */
  opened: Readonly<Record<string, number>>;
  /** When this browser first came here, as an ISO date. */
  since: string;
  setSheet(sheet: 'light' | 'dark'): void;
  setUnit(quantity: QuantityId, unit: string): void;
  setDecimal(sign: DecimalSign): void;
  set(
    change: Partial<Omit<Prefs, 'sheet' | 'units' | 'setSheet' | 'setUnit' | 'setDecimal' | 'decimal' | 'set'>>,
  ): void;
}

/** Money as it is written where the reader is. */
const moneyHere = (): UnitChoice => moneyUnits(currencyOf(typeof navigator === 'undefined' ? '' : navigator.language));

/** What the reader prefers; small, kept per browser, safe to lose. */
export const usePrefs = create<Prefs>()(
  persist(
    (set) => ({
      sheet: typeof matchMedia !== 'undefined' && matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light',
      units: moneyHere(),
      comma: 'ask',
      decimal: '.',
      tallyOpen: true,
      tallyWidth: 304,
      panes: {},
      // Magnified gaps are for looking closely; everything else shows from the start.
      hiddenLayers: ['gaps'],
      seenDemo: false,
      drawFits: true,
      singleKeys: true,
      ownKeys: {},
      exportedAt: undefined,
      remindAfter: undefined,
      tour: undefined,
      tourAt: 0,
      large: false,
      opened: {},
      since: new Date().toISOString(),
      setSheet: (sheet) => set({ sheet }),
      setUnit: (quantity, unit) =>
        set((s) => ({ units: { ...s.units, [quantity]: unit, ...(quantity === 'money' && moneyUnits(unit)) } })),
      // A number as it is written must be read as it was meant; what shows numbers is drawn again.
      setDecimal: (decimal) =>
        set((s) => ({ decimal, units: { ...s.units }, comma: decimal === ',' ? 'decimals' : s.comma })),
      set: (change) => set(change),
    }),
    {
      name: KEY,
      version: KEPT_AS,
      // The first version wrote money with a sign that is no currency's.
      migrate: (kept) => {
        const had = kept as Partial<Prefs>;
        const { money, ...units } = had.units ?? {};
        return { ...had, units: { ...units, ...(money && money !== '¤' ? moneyUnits(money) : moneyHere()) } } as Prefs;
      },
    },
  ),
);

setDecimalSign(usePrefs.getState().decimal);
usePrefs.subscribe((s) => setDecimalSign(s.decimal));

export const useUnits = (): UnitChoice => usePrefs((s) => s.units);

/** A sentence of the core where no component is at hand: in the units of now. */
export const said = (text: string): string => inUnits(text, usePrefs.getState().units);

/** The preferences for a file of everything; what was opened and exported here, and when, says nothing elsewhere. */
export function readPreferences(): string {
  const {
    exportedAt: _at,
    remindAfter: _until,
    tour: _tour,
    opened: _opened,
    since: _since,
    ...state
  } = usePrefs.getState();
  return JSON.stringify({ state, version: KEPT_AS });
}

/** Takes preferences from a file of everything; what is damaged of them changes nothing. */
export function takePreferences(text: string): void {
  try {
    const raw = JSON.parse(text) as { state?: { sheet?: unknown; units?: unknown } };
    if (
      typeof raw.state !== 'object' ||
      raw.state === null ||
      (raw.state.sheet !== 'light' && raw.state.sheet !== 'dark') ||
      typeof raw.state.units !== 'object'
    )
      return;
  } catch {
    return;
  }
  const brought = JSON.parse(text) as { state: Partial<Prefs> };
  const { exportedAt, remindAfter, opened, since } = usePrefs.getState();
  localStorage.setItem(
    KEY,
    JSON.stringify({ ...brought, state: { ...brought.state, exportedAt, remindAfter, opened, since } }),
  );
  void usePrefs.persist.rehydrate();
}
