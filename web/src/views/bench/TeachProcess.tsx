import type { BenchTest, Build } from '@gristmill/core';
import { entryFromTest } from '@gristmill/core/fit/from-test';
import { useState } from 'react';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { useVariant } from '../../state/open.ts';
import { useShop } from '../../state/shop.ts';
import { teach } from '../make/fit/keep.ts';

/** Takes a test of made sizes over to the process that made them, in one press. */
export function TeachProcess({ test, build }: { test: BenchTest; build: Build | undefined }) {
  const variant = useVariant();
  const { shelf } = useShop();
  const [chosen, setChosen] = useState<string | undefined>();
  const own = chosen ?? build?.making?.process ?? variant.making?.process;
  const process = shelf.processes.find((p) => p.id === own) ?? shelf.processes[0];
  if (!process) return null;
  const instrument = shelf.instruments.find((i) => i.id === test.rig['instrument']);
  // Largest errors of makers are taken as even: over the root of three.
  const spread = instrument && Math.hypot(instrument.error / Math.sqrt(3), instrument.resolution / Math.sqrt(12));
  const entry = entryFromTest(test, spread);
  const told = process.fits.find((e) => e.id === entry.id);
  // The instrument may have been calibrated since: what was read is what counts.
  const sizes = (e: typeof entry) =>
    JSON.stringify(e.readings.map((r) => [r.feature, r.axis, r.drawn, r.made, r.struck]));
  const same = told !== undefined && sizes(told) === sizes(entry);
  return (
    <div className="no-print flex flex-wrap items-baseline gap-3 py-1">
      <ChoiceField
        label="Made by"
        value={process.id}
        options={shelf.processes.map((p) => ({ value: p.id, label: p.name }))}
        onChange={(v) => setChosen(String(v))}
      />
      <button
        type="button"
        className="btn"
        disabled={entry.readings.length === 0 || same}
        onClick={() => {
          teach(
            process,
            entry,
            `${process.name} has taken over ${entry.readings.length} readings; files of this joint are drawn by them.`,
          );
        }}
      >
        {same ? 'Taken over' : 'Take over to the process'}
      </button>
      <span className="label">its files, fits and chances follow from it</span>
    </div>
  );
}
