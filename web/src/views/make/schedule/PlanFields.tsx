import type { BuildPlan } from '@gristmill/core';
import { DateField } from './DateField.tsx';
import { sayTime } from './words.ts';
import { QuantityField } from '../../../parts/QuantityField.tsx';

/** Seconds after midnight of a time of day such as 17:30. */
const secondsOf = (clock: string): number => Number(clock.slice(0, 2)) * 3600 + Number(clock.slice(3, 5)) * 60;

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

/** When one has time, and with what is printed. */
export function PlanFields({
  plan,
  set,
  readOnly,
}: {
  plan: BuildPlan;
  set: (what: string, part: Partial<BuildPlan>) => void;
  readOnly: boolean;
}) {
  return (
    <div className="space-y-1">
      <DateField
        label="First day"
        value={plan.start}
        disabled={readOnly}
        onChange={(start) => start && set('first day', { start })}
      />
      <DateField
        label="Wanted by"
        value={plan.wanted}
        disabled={readOnly}
        onChange={(wanted) => set('wanted by', { wanted })}
      />
      <QuantityField
        label="Joints to make"
        quantity="count"
        value={plan.joints}
        min={1}
        max={20}
        step={1}
        whole
        disabled={readOnly}
        onChange={(joints) => set('joints', { joints })}
      />
      <h3 className="rule-b pt-2 pb-0.5">Hours of your own</h3>
      <label className="flex items-baseline justify-between gap-2">
        From
        <input
          type="time"
          className="field-input max-w-[8rem]"
          value={sayTime(plan.from)}
          disabled={readOnly}
          onChange={(e) => e.target.value && set('time of day', { from: secondsOf(e.target.value) })}
        />
      </label>
      {DAYS.map((name, i) => (
        <QuantityField
          key={name}
          label={name}
          quantity="life"
          value={plan.hours[i]!}
          min={0}
          max={86400}
          step={1800}
          digits={4}
          disabled={readOnly}
          onChange={(x) => set(`hours on ${name}s`, { hours: plan.hours.map((h, k) => (k === i ? x : h)) })}
        />
      ))}
      <DaysOff off={plan.off} readOnly={readOnly} onChange={(off) => set('days off', { off })} />
      <h3 className="rule-b pt-2 pb-0.5">Printers</h3>
      <QuantityField
        label="How many"
        quantity="count"
        value={plan.printers}
        min={1}
        max={20}
        step={1}
        whole
        disabled={readOnly}
        onChange={(printers) => set('printers', { printers })}
      />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={plan.unattended}
          disabled={readOnly}
          onChange={(e) => set('unattended', { unattended: e.target.checked })}
        />
        machines run on while I am away
      </label>
      <QuantityField
        label="Longest print"
        quantity="life"
        value={plan.longest}
        min={600}
        max={1e6}
        step={3600}
        disabled={readOnly}
        onChange={(longest) => set('longest print', { longest })}
      />
      <QuantityField
        label="Bed, across"
        quantity="length"
        value={plan.bed[0]}
        min={0.02}
        max={2}
        step={1e-2}
        disabled={readOnly}
        onChange={(x) => set('bed', { bed: [x, plan.bed[1]] })}
      />
      <QuantityField
        label="Bed, deep"
        quantity="length"
        value={plan.bed[1]}
        min={0.02}
        max={2}
        step={1e-2}
        disabled={readOnly}
        onChange={(y) => set('bed', { bed: [plan.bed[0], y] })}
      />
      <QuantityField
        label="Room between pieces"
        quantity="length"
        value={plan.gap}
        min={0}
        max={0.05}
        step={1e-3}
        disabled={readOnly}
        onChange={(gap) => set('room between pieces', { gap })}
      />
    </div>
  );
}

/** Days without any hours: added by a date, taken back one by one. */
function DaysOff({
  off,
  readOnly,
  onChange,
}: {
  off: readonly string[];
  readOnly: boolean;
  onChange: (off: string[]) => void;
}) {
  return (
    <>
      <DateField
        label="Not on"
        value={undefined}
        disabled={readOnly}
        onChange={(d) => d && !off.includes(d) && onChange([...off, d].sort())}
      />
      {off.length > 0 ? (
        <ul className="flex flex-wrap gap-x-3">
          {off.map((d) => (
            <li key={d} className="num label">
              {d}{' '}
              <button
                type="button"
                className="mend"
                disabled={readOnly}
                aria-label={`Take ${d} back`}
                onClick={() => onChange(off.filter((x) => x !== d))}
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      ) : null}
    </>
  );
}
