import type { Problem } from '@gristmill/core';
import { useId, useState } from 'react';
import { takeRefusal } from '../state/refusal.ts';
import { Said } from './Said.tsx';

export interface Choice {
  readonly value: string | number;
  readonly label: string;
}

/** Letters from which on a choice is long. */
const LONG = 30;

/** Why what was chosen or typed was not taken. */
const Refused = ({ problem, id }: { problem: Problem | undefined; id?: string }) =>
  problem ? (
    <p id={id} role="alert" className="w-full pt-1 text-[12px] text-fail">
      <Said>{`${problem.what} ${problem.why} ${problem.mend}`}</Said>
    </p>
  ) : null;

/** A choice among a few; the platform's own list, so that it is quick and works from the keyboard. */
export function ChoiceField({
  label,
  value,
  options,
  onChange,
  help,
  disabled,
  hideLabel,
  id,
}: {
  label: string;
  value: string | number;
  options: readonly Choice[];
  onChange: (value: string | number) => void;
  help?: string;
  disabled?: boolean;
  hideLabel?: boolean;
  id?: string;
}) {
  const own = useId();
  const key = id ?? own;
  const [problem, setProblem] = useState<Problem | undefined>();
  const chosen = options.find((o) => o.value === value)?.label ?? '';
  return (
    <div className={hideLabel ? '' : 'flex flex-wrap items-baseline justify-between gap-2'}>
      <label htmlFor={key} title={help} className={hideLabel ? 'sr-only' : 'shrink-0'}>
        {label}
      </label>
      <select
        id={key}
        disabled={disabled}
        aria-description={help}
        // A long choice in a narrow column is read by smaller letters, and whole where it is pointed at.
        className={`select min-w-0 text-right ${chosen.length > LONG ? 'text-[11.5px] tracking-tight' : ''}`}
        title={chosen.length > LONG ? chosen : undefined}
        value={String(value)}
        onChange={(e) => (
          onChange(options.find((o) => String(o.value) === e.target.value)?.value ?? e.target.value),
          setProblem(takeRefusal())
        )}
      >
        {options.map((o) => (
          <option key={o.value} value={String(o.value)}>
            {o.label}
          </option>
        ))}
      </select>
      <Refused problem={problem} />
    </div>
  );
}

/** One line of text that is accepted on leaving or Enter; Escape restores. */
export function TextField({
  label,
  value,
  onChange,
  hideLabel,
  placeholder,
  maxLength = 120,
  className = '',
  refuse,
  autoFocus,
  onDone,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  hideLabel?: boolean;
  placeholder?: string;
  maxLength?: number;
  className?: string;
  refuse?: (value: string) => boolean;
  autoFocus?: boolean;
  onDone?: () => void;
}) {
  const id = useId();
  const [problem, setProblem] = useState<Problem | undefined>();
  return (
    <div className={hideLabel ? 'min-w-0' : 'flex flex-wrap items-baseline justify-between gap-2'}>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'shrink-0'}>
        {label}
      </label>
      <input
        key={value}
        id={id}
        autoFocus={autoFocus}
        defaultValue={value}
        placeholder={placeholder}
        maxLength={maxLength}
        className={`min-w-0 border-b border-dotted border-muted bg-transparent px-0.5 py-0.5 ${className}`}
        onBlur={(e) => {
          // Control characters have no place in a line of text, and break the files it goes into.
          const next = e.target.value.replace(/\p{Cc}+/gu, ' ').trim();
          let bad: Problem | undefined;
          if (next !== value) {
            if (refuse?.(next))
              bad =
                next === ''
                  ? {
                      what: `${label} is empty.`,
                      why: 'It is how this is found again.',
                      mend: 'Type one; Escape brings back what was there.',
                    }
                  : {
                      what: `“${next}” is taken.`,
                      why: 'Two alike could not be told apart.',
                      mend: 'Type another; Escape brings back what was there.',
                    };
            else {
              onChange(next);
              bad = takeRefusal();
            }
          }
          setProblem(bad);
          if (!bad) onDone?.();
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur();
          if (e.key === 'Escape') {
            e.stopPropagation();
            e.currentTarget.value = value;
            e.currentTarget.blur();
          }
        }}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-why` : undefined}
      />
      <Refused problem={problem} id={`${id}-why`} />
    </div>
  );
}
