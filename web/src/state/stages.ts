import { rememberingOpener, type Opened, type StageRecord } from '@gristmill/core';
import { useMemo } from 'react';
import { useShelf } from './shelf.ts';

// The strip, the drawing and the parts of a stage show one stage: it is opened once for all of them.
const open = rememberingOpener(32);

/** A stage as the open joint sees the shop; opened once for every view that shows it. */
export function useStage(stage: StageRecord | undefined): Opened | undefined {
  const shelf = useShelf();
  return useMemo(() => stage && open(stage, shelf), [stage, shelf]);
}
