import type { Duty, StageRecord } from '@gristmill/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Section } from '../../parts/Section.tsx';
import { useOpen } from '../../state/open.ts';
import { resizedInWorker } from '../../workers/sizing.ts';
import { setParams } from './StageFields.tsx';

const TURN = 2 * Math.PI;

/** A stage entered by its ratio and outside: every other dimension moves along, what it is made of stays. */
export function Resize({
  stage,
  index,
  ratio,
  straight = false,
  outside,
  duty,
}: {
  stage: StageRecord;
  index: number;
  ratio: number;
  /** Its output runs straight: its ratio, rad/m, is told as the travel of a turn. */
  straight?: boolean;
  outside: number;
  duty: Duty;
}) {
  const readOnly = useOpen((s) => s.readOnly);
  const [asked, setAsked] = useState<{ ratio?: number; outside?: number }>({});
  const [busy, setBusy] = useState(false);
  const take = async () => {
    setBusy(true);
    const params = await resizedInWorker(
      useOpen.getState().joint!,
      stage,
      asked.ratio ?? Math.abs(ratio),
      asked.outside ?? outside,
      duty,
    ).catch(() => undefined);
    setBusy(false);
    if (!params) return void toast('The stage could not be sized: what computes did not come. Try again.');
    if (!setParams(stage, params, `Stage ${index + 1}: ratio and outside`)) setAsked({});
  };
  return (
    <Section title={straight ? 'Travel and outside' : 'Ratio and outside'}>
      {straight ? (
        <QuantityField
          label="Travel of a turn"
          help="The lead or the teeth that come nearest to it are taken."
          quantity="length"
          value={TURN / (asked.ratio ?? Math.abs(ratio))}
          min={1e-4}
          max={1}
          step={5e-4}
          digits={4}
          disabled={readOnly}
          onChange={(x) => setAsked({ ...asked, ratio: TURN / x })}
        />
      ) : (
        <QuantityField
          label="Ratio"
          help="Tooth and pin counts that come nearest to it are taken."
          quantity="ratio"
          value={asked.ratio ?? Math.abs(ratio)}
          min={1}
          max={1000}
          step={0.5}
          digits={4}
          disabled={readOnly}
          onChange={(x) => setAsked({ ...asked, ratio: x })}
        />
      )}
      <QuantityField
        label="Outside"
        help="At most, across its axis; 0 as it comes."
        quantity="length"
        value={asked.outside ?? outside}
        min={0}
        max={5}
        step={5e-3}
        digits={4}
        disabled={readOnly}
        onChange={(x) => setAsked({ ...asked, outside: x })}
      />
      {asked.ratio !== undefined || asked.outside !== undefined ? (
        <p className="flex flex-wrap items-baseline gap-2 pt-1">
          <button type="button" className="btn" disabled={busy} onClick={() => void take()}>
            Move all along
          </button>
          <button type="button" className="btn-quiet" onClick={() => setAsked({})}>
            Leave it
          </button>
          <span className="label">Sized anew for what it carries here; materials stay.</span>
        </p>
      ) : null}
    </Section>
  );
}
