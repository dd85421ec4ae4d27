import type { BenchTest, Problem } from '@gristmill/core';
import type { Draft } from 'immer';
import { useOpen } from '../../state/open.ts';

/** Changes one test of the open joint; the reason where that was refused. */
export function editTest(id: string, label: string, recipe: (t: Draft<BenchTest>) => void): Problem | undefined {
  return useOpen.getState().edit(label, (d) => {
    const found = d.tests.find((t) => t.id === id);
    if (found) recipe(found);
  });
}
