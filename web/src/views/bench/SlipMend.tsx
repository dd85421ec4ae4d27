import type { BenchTest, ReadingsTest, Slip } from '@gristmill/core';
import type { Draft } from 'immer';
import { useOpen } from '../../state/open.ts';

/**
 * Takes a slip at its word: every reading that counts is corrected by its ratio, told in the undo list; nothing happens
 * by itself.
 */
export function SlipMend({ test, slip, found }: { test: BenchTest; slip: Slip; found: number }) {
  const ratio = found / slip.value;
  const key = test.kind === 'play-lever' ? 'difference' : test.kind === 'torque-ladder' ? 'mass' : undefined;
  const correct = () =>
    useOpen.getState().edit('Correct a slip in the readings', (d) => {
      const t = d.tests.find((x) => x.id === test.id);
      if (!t) return;
      if (key)
        for (const r of t.readings as unknown as Record<string, number | string>[]) {
          r[key] = (r[key] as number) / ratio;
          r['text'] = `${String(r['text'])} (÷ ${ratio.toPrecision(4)})`;
        }
      else {
        const own = t as Draft<ReadingsTest>;
        const column = CORRECTED[own.kind];
        for (const r of own.readings)
          if (column && typeof r.values[column] === 'number') {
            r.values[column] = (r.values[column] as number) / ratio;
            r.text = `${r.text} (÷ ${ratio.toPrecision(4)})`;
          }
      }
    });
  if (!key && !CORRECTED[(test as ReadingsTest).kind]) return null;
  return (
    <button type="button" className="mend" onClick={correct}>
      Correct the readings so
    </button>
  );
}

/** The column a slip of units sits in. */
const CORRECTED: Readonly<Record<string, string>> = {
  'play-spot': 'shift',
  'turn-back': 'mass',
  'leg-press': 'mass',
  hysteresis: 'angle',
  positioning: 'deviation',
};
