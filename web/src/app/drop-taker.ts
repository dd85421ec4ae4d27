import { create } from 'zustand';

/** What on the page takes tables and recordings that are dropped anywhere: the test that is open, and its name. */
export const useDropTaker = create<{ taker: { readonly name: string; take(file: File): Promise<void> } | undefined }>(
  () => ({ taker: undefined }),
);
