import { readRecord, type Joint } from '@gristmill/core';
import type { KeptFound } from '../../storage/found.ts';
import { kindsKnown } from '../../state/kinds.ts';

/** The demo joints, read through the same door as any file. */
export async function demoJoints(): Promise<Joint[]> {
  await kindsKnown();
  const files = await Promise.all([
    import('../../../../demo/body-yaw.json'),
    import('../../../../demo/neck-lift.json'),
    import('../../../../demo/wing-root.json'),
    import('../../../../demo/tide-dial.json'),
    import('../../../../demo/reed-lift.json'),
  ]);
  return files.map((f) => readRecord(structuredClone(f.default))).flatMap((r) => (r.ok ? [r.value] : []));
}

/** What was found for each demo joint, in the order of `demoJoints`. */
export async function demoFound(): Promise<KeptFound[]> {
  const files = await Promise.all([
    import('../../../../demo/found/body-yaw.json'),
    import('../../../../demo/found/neck-lift.json'),
    import('../../../../demo/found/wing-root.json'),
    import('../../../../demo/found/tide-dial.json'),
    import('../../../../demo/found/reed-lift.json'),
  ]);
  return files.map((f) => f.default as unknown as KeptFound);
}
