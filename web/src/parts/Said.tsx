import { useSaid } from '../state/said.ts';

/** A sentence of the core, its values in the reader's units. */
export const Said = ({ children }: { children: string | undefined }) => useSaid()(children ?? '');
