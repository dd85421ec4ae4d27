import type { QuantityId, UnitChoice } from '@gristmill/core';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

interface Prefs {
  sheet: 'light' | 'dark';
  units: UnitChoice;
  tallyOpen: boolean;
  tallyWidth: number;
  /** Layers switched off in drawings, by layer id. */
  hiddenLayers: readonly string[];
  seenDemo: boolean;
  setSheet(sheet: 'light' | 'dark'): void;
  setUnit(quantity: QuantityId, unit: string): void;
  set(change: Partial<Pick<Prefs, 'tallyOpen' | 'tallyWidth' | 'hiddenLayers' | 'seenDemo'>>): void;
}

/** What the reader prefers; small, kept per browser, safe to lose. */
export const usePrefs = create<Prefs>()(
  persist(
    (set) => ({
      sheet: typeof matchMedia !== 'undefined' && matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light',
      units: {},
      tallyOpen: true,
      tallyWidth: 304,
      // Magnified gaps are for looking closely; everything else shows from the start.
      hiddenLayers: ['gaps'],
      seenDemo: false,
      setSheet: (sheet) => set({ sheet }),
      setUnit: (quantity, unit) => set((s) => ({ units: { ...s.units, [quantity]: unit } })),
      set: (change) => set(change),
    }),
    { name: 'gristmill-prefs', version: 1 },
  ),
);

export const useUnits = (): UnitChoice => usePrefs((s) => s.units);
