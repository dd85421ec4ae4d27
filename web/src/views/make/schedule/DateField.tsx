import { tidyMoment } from '@gristmill/core';
import { useId, useState } from 'react';

/** A day, typed or picked; an empty one is none. What is no day stays as typed, with the reason below it. */
export function DateField({
  label,
  value,
  onChange,
  disabled,
  hideLabel,
}: {
  label: string;
  value: string | undefined;
  onChange: (day: string | undefined) => void;
  disabled?: boolean;
  hideLabel?: boolean;
}) {
  const id = useId();
  const [bad, setBad] = useState('');
  const [round, setRound] = useState(0);
  const accept = (text: string) => {
    const told = tidyMoment(text)?.slice(0, 10);
    if (text.trim() !== '' && !told) return setBad(`“${text}” is no day. Write it like 2026-12-24, or 24.12.2026.`);
    setBad('');
    setRound(round + 1);
    if (told !== value) onChange(told);
  };
  return (
    <div className="min-w-0">
      <div className={hideLabel ? '' : 'flex items-baseline justify-between gap-2'}>
        <label htmlFor={id} className={hideLabel ? 'sr-only' : 'shrink-0'}>
          {label}
        </label>
        <input
          key={`${value} ${round}`}
          id={id}
          className="field-input max-w-[8rem]"
          placeholder="none"
          defaultValue={value ?? ''}
          disabled={disabled}
          maxLength={20}
          aria-invalid={bad ? true : undefined}
          aria-describedby={bad ? `${id}-why` : undefined}
          onBlur={(e) => accept(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur();
            if (e.key === 'Escape') {
              e.stopPropagation();
              e.currentTarget.value = value ?? '';
              e.currentTarget.blur();
            }
          }}
        />
      </div>
      {bad ? (
        <p id={`${id}-why`} role="alert" className="pt-1 text-[12px] text-fail">
          {bad}
        </p>
      ) : null}
    </div>
  );
}
