import { readRecord, type Joint } from '@gristmill/core';
import { kindsKnown } from '../../state/kinds.ts';

/** The demo joints, read through the same door as any file. */
export async function demoJoints(): Promise<Joint[]> {
  await kindsKnown();
  const files = await Promise.all([
    import('../../../../demo/body-yaw.json'),
    import('../../../../demo/neck-lift.json'),
    import('../../../../demo/wing-root.json'),
    import('../../../../demo/tide-dial.json'),
  ]);
  return files.map((f) => readRecord(structuredClone(f.default))).flatMap((r) => (r.ok ? [r.value] : []));
}
