import { keepProcess, type FitEntry, type Joint, type Process, type Variant } from '@gristmill/core';
import { editVariant, useOpen } from '../../../state/open.ts';
import { useShop } from '../../../state/shop.ts';
import { toast } from 'sonner';
import { changeShop, putOn } from '../../../storage/edit-shop.ts';

/** Lets the open joint keep a process as the shop has it now, in place of what it had. */
export function takeProcess(id: string): void {
  const shop = useShop.getState().shelf;
  const now = shop.processes.find((p) => p.id === id);
  if (!now) return;
  useOpen.getState().edit(`Take over ${now.name}`, (d) => {
    const list = (d.processes ?? []).filter((p) => p.id !== id);
    d.processes = [...list, structuredClone(now)];
  });
}

/** Says by which process the open variant, or one part of it, is made; the joint keeps the process as the shop has it. */
export function makeBy(label: string, change: (v: Variant) => void, id: string | undefined): void {
  editVariant(label, (v) => change(v as Variant));
  if (id === undefined) return;
  const { joint } = useOpen.getState();
  if (!joint) return;
  const kept = keepProcess(joint, id, useShop.getState().shelf);
  if (kept !== joint) useOpen.getState().edit(label, (d) => void (d.processes = structuredClone(kept.processes!)));
}

/**
 * Adds readings to a process of the shop, and lets the open joint know; a notice says so, and takes it back on demand.
 *
 * @param says what is told of it
 */
export function teach(process: Process, entry: FitEntry, says: string): boolean {
  const { edits, shelf } = useShop.getState();
  const now = shelf.processes.find((p) => p.id === process.id) ?? process;
  const fits = [...now.fits.filter((e) => e.id !== entry.id), entry];
  const bad = putOn('processes', { ...now, fits, source: 'set in the shop' });
  if (bad) return false;
  const inJoint = useOpen.getState().joint !== undefined && !useOpen.getState().readOnly;
  if (inJoint) takeProcess(process.id);
  toast(says, {
    action: {
      label: 'Undo',
      onClick: () => {
        changeShop(edits);
        if (inJoint) takeProcess(process.id);
      },
    },
  });
  return true;
}

/** Whether the shop knows a process otherwise than the joint keeps it. */
export const knowsMore = (joint: Pick<Joint, 'processes'>, shop: readonly Process[], id: string): boolean => {
  const kept = joint.processes?.find((p) => p.id === id);
  const now = shop.find((p) => p.id === id);
  return kept !== undefined && now !== undefined && JSON.stringify(kept) !== JSON.stringify(now);
};
