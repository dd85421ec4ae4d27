import { repairJoint, refuse, type Repaired, type Result } from '@gristmill/core';
import { jointShelf } from '../../storage/shelf.ts';
import { tell } from '../../storage/messages.ts';

/** Opens what can be opened of a joint's newest save and puts it on top; the damaged ones stay below, exportable. */
export async function repairStored(id: string): Promise<Result<Repaired>> {
  const pointer = await jointShelf.pointer(id);
  if (!pointer)
    return refuse('This joint is not stored here.', 'It was deleted meanwhile.', 'Import an exported copy.');
  let last: Result<Repaired> = refuse(
    'Nothing of it can be opened.',
    'None of its saves is there.',
    'Import an exported copy.',
  );
  for (const save of pointer.saves) {
    const raw = await jointShelf.raw(id, save.rev);
    if (raw === null) continue;
    const repaired = repairJoint(raw, { id, now: new Date().toISOString() });
    if (!repaired.ok) {
      last = repaired;
      continue;
    }
    await jointShelf.setAside(id, save.rev, repaired.value.leftOut[0] ?? 'damaged');
    const rev = await jointShelf.repaired(
      repaired.value.joint,
      id,
      `Repaired: ${repaired.value.leftOut.length} left out`,
    );
    tell({ type: 'saved', id, rev });
    return repaired;
  }
  return last;
}
