import { create } from 'zustand';

/**
 * Whether the list of all actions is open; apart from the list itself, which is only loaded when it is first asked for.
 */
export const usePalette = create<{ open: boolean; set(open: boolean): void }>((set) => ({
  open: false,
  set: (open) => set({ open }),
}));

/** Whether the sheet of keys is open. */
export const useKeySheet = create<{ open: boolean; set(open: boolean): void }>((set) => ({
  open: false,
  set: (open) => set({ open }),
}));
