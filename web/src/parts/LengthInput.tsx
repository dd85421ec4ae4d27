import { parseQuantity, type Problem } from '@gristmill/core';
import { useId, useState } from 'react';
import { usePrefs, useUnits } from '../state/prefs.ts';
import { Said } from './Said.tsx';

/** A length that may still be empty, as it is read off a caliper: told at every key, and why it cannot be. */
export function LengthInput({
  label,
  onChange,
  disabled,
}: {
  label: string;
  /** Metres; undefined while there is nothing, or nothing that can be read. */
  onChange: (si: number | undefined) => void;
  disabled?: boolean;
}) {
  const units = useUnits();
  const comma = usePrefs((s) => s.comma);
  const [problem, setProblem] = useState<Problem | undefined>();
  const id = useId();
  const unit = units.length ?? 'mm';
  return (
    <span className="block">
      <input
        id={id}
        aria-label={label}
        className="field-input num w-full text-right"
        inputMode="decimal"
        placeholder={unit}
        disabled={disabled}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-why` : undefined}
        onChange={(e) => {
          const text = e.target.value.trim();
          if (text === '') {
            setProblem(undefined);
            return onChange(undefined);
          }
          const read = parseQuantity(text, 'length', unit, comma);
          const bad = !read.ok
            ? read.problem
            : read.value.si <= 0
              ? { what: 'A size is larger than 0.', why: 'It is what a caliper reads.', mend: 'Type what it shows.' }
              : undefined;
          setProblem(bad);
          onChange(bad || !read.ok ? undefined : read.value.si);
        }}
        onKeyDown={(e) => {
          // From one reading to the next without the mouse.
          if (e.key !== 'Enter') return;
          e.preventDefault();
          const all = [...(e.currentTarget.closest('table')?.querySelectorAll('input') ?? [])];
          all[all.indexOf(e.currentTarget) + 1]?.focus();
        }}
      />
      {problem ? (
        <span id={`${id}-why`} role="alert" className="block text-left text-[12px] text-fail">
          <Said>{`${problem.what} ${problem.mend}`}</Said>
        </span>
      ) : null}
    </span>
  );
}
