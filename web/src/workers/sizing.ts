import { editsFor, type Joint, type StageRecord, type Variant } from '@gristmill/core';
import { useShop } from '../state/shop.ts';
import { corePool } from './core.ts';

/** Stages of variants sized to their joint's brief, in a worker, with the shop as the joint sees it. */
export const sizeInWorker = (
  joint: Joint,
  variants: readonly Variant[],
  signal?: AbortSignal,
): Promise<StageRecord[][]> => {
  const edits = editsFor(joint, useShop.getState().edits);
  return corePool.run((api) => api.size(joint.brief, variants, edits), { ...(signal && { signal }) });
};
