import type { Problem, ReadingsTest } from '@gristmill/core';
import type { Draft } from 'immer';
import { useOpen } from '../../state/open.ts';

/** Changes a test of named readings in the open joint. */
export function editReadings(id: string, label: string, recipe: (t: Draft<ReadingsTest>) => void): Problem | undefined {
  return useOpen.getState().edit(label, (d) => {
    const found = d.tests.find((t) => t.id === id);
    if (found && found.kind !== 'play-lever' && found.kind !== 'torque-ladder') recipe(found as Draft<ReadingsTest>);
  });
}
