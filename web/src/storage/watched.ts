import { create } from 'zustand';
import type { Vault } from './vault.ts';

/** Time after which storage that has not answered is said not to answer, ms. */
export const SILENT = 3000;

/** Whether storage keeps something waiting. */
export const useSilence = create<{ silent: boolean }>(() => ({ silent: false }));

let waiting = 0;

/**
 * A vault that says so when it does not answer; what was asked of it goes on, and the word is taken back when it
 * answers after all.
 */
export function watched(vault: Vault, after = SILENT): Vault {
  const watch = async <T>(work: Promise<T>): Promise<T> => {
    let late = false;
    const timer = setTimeout(() => {
      late = true;
      waiting++;
      useSilence.setState({ silent: true });
    }, after);
    try {
      return await work;
    } finally {
      clearTimeout(timer);
      if (late && --waiting === 0) useSilence.setState({ silent: false });
    }
  };
  return {
    read: (stores, work) => watch(vault.read(stores, work)),
    write: (stores, work) => watch(vault.write(stores, work)),
  };
}
