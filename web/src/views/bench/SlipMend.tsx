import { corrected, type BenchTest, type Correction } from '@gristmill/core';
import { useOpen } from '../../state/open.ts';

/**
 * Takes a slip at its word: every reading (or the rig's field) is corrected, told in the undo list; nothing happens by
 * itself.
 */
export function SlipMend({ test, correction }: { test: BenchTest; correction: Correction }) {
  const correct = () =>
    useOpen.getState().edit('Correct a slip in the readings', (d) => {
      const at = d.tests.findIndex((t) => t.id === test.id);
      if (at >= 0) Object.assign(d.tests[at]!, corrected(test, correction));
    });
  return (
    <button type="button" className="mend" onClick={correct}>
      {correction.in === 'rig' ? `Correct the ${correction.label.toLowerCase()} so` : 'Correct the readings so'}
    </button>
  );
}
