import type { Figure, FigureAddress, Uncertain } from '@gristmill/core';
import { create } from 'zustand';

/** What the working panel shows: a predicted figure, or a found one with its budget. */
export type WorkingSubject =
  | { readonly kind: 'expected'; readonly figure: Figure; readonly at?: FigureAddress }
  | {
      readonly kind: 'found';
      readonly name: string;
      readonly found: Uncertain;
      readonly formula: string;
      readonly source: string;
    };

export const useWorking = create<{
  subject: WorkingSubject | undefined;
  open(subject: WorkingSubject): void;
  close(): void;
}>((set) => ({
  subject: undefined,
  open: (subject) => set({ subject }),
  close: () => set({ subject: undefined }),
}));
