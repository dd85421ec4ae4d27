import { inUnits } from '@gristmill/core';
import { createContext, useCallback, useContext } from 'react';
import { useUnits } from './prefs.ts';

/** Travel for a radian of what sentences say here, m, where all that they say is of an output that runs straight. */
export const ArmOfSentences = createContext<number | undefined>(undefined);

/** Writes sentences of the core with their values in the reader's units. */
export function useSaid(): (text: string) => string {
  const units = useUnits();
  const arm = useContext(ArmOfSentences);
  return useCallback((text: string) => inUnits(text, units, arm), [units, arm]);
}
