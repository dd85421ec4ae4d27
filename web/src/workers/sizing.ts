import { editsFor, type Duty, type Joint, type StageRecord, type Variant } from '@gristmill/core';
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

/** Ratio that the open variant still lacks for the brief, for one stage more. */
export const lacksInWorker = (joint: Joint, variant: Variant): Promise<number> =>
  corePool.run((api) => api.lacks(joint.brief, variant, editsFor(joint, useShop.getState().edits)));

/** Parameters of a stage of a kind and ratio, sized for the output's end of the line. */
export const stageInWorker = (
  joint: Joint,
  kind: string,
  ratio: number,
  outside: number,
): Promise<StageRecord['params'] | undefined> =>
  corePool.run((api) => api.stageFor(joint.brief, kind, ratio, outside, editsFor(joint, useShop.getState().edits)));

/** The same of a stage that is there, at what it carries in its place. */
export const resizedInWorker = (
  joint: Joint,
  stage: StageRecord,
  ratio: number,
  outside: number,
  at: Duty,
): Promise<StageRecord['params'] | undefined> =>
  corePool.run((api) => api.resized(stage, ratio, outside, at, editsFor(joint, useShop.getState().edits)));
