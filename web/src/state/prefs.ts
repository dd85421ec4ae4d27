import { currencyOf, inUnits, moneyUnits, type Comma, type QuantityId, type UnitChoice } from '@gristmill/core';
import { useCallback } from 'react';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** Where they lie. */
const KEY = 'gristmill-prefs';

interface Prefs {
  sheet: 'light' | 'dark';
  units: UnitChoice;
  /** What a comma before three digits stands for. */
  comma: Comma;
  tallyOpen: boolean;
  tallyWidth: number;
  /** Layers switched off in drawings, by layer id. */
  hiddenLayers: readonly string[];
  seenDemo: boolean;
  /** Round faces are drawn as their fits ask for, where a process is known. */
  drawFits: boolean;
  setSheet(sheet: 'light' | 'dark'): void;
  setUnit(quantity: QuantityId, unit: string): void;
  set(
    change: Partial<Pick<Prefs, 'comma' | 'tallyOpen' | 'tallyWidth' | 'hiddenLayers' | 'seenDemo' | 'drawFits'>>,
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
      tallyOpen: true,
      tallyWidth: 304,
      // Magnified gaps are for looking closely; everything else shows from the start.
      hiddenLayers: ['gaps'],
      seenDemo: false,
      drawFits: true,
      setSheet: (sheet) => set({ sheet }),
      setUnit: (quantity, unit) =>
        set((s) => ({ units: { ...s.units, [quantity]: unit, ...(quantity === 'money' && moneyUnits(unit)) } })),
      set: (change) => set(change),
    }),
    {
      name: KEY,
      version: 2,
      // The first version wrote money with a sign that is no currency's.
      migrate: (kept) => {
        const had = kept as Partial<Prefs>;
        const { money, ...units } = had.units ?? {};
        return { ...had, units: { ...units, ...(money && money !== '¤' ? moneyUnits(money) : moneyHere()) } } as Prefs;
      },
    },
  ),
);

export const useUnits = (): UnitChoice => usePrefs((s) => s.units);

/** Writes sentences of the core with their values in the reader's units. */
export function useSaid(): (text: string) => string {
  const units = useUnits();
  return useCallback((text: string) => inUnits(text, units), [units]);
}

/** The same where no component is at hand: in the units of now. */
export const said = (text: string): string => inUnits(text, usePrefs.getState().units);

/** The preferences as they lie in the browser, for a file of everything. */
export const readPreferences = (): string | undefined => localStorage.getItem(KEY) ?? undefined;

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
  localStorage.setItem(KEY, text);
  void usePrefs.persist.rehydrate();
}
