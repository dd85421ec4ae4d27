import { useId } from 'react';

export interface Choice {
  readonly value: string | number;
  readonly label: string;
}

/** A choice among a few; the platform's own list, so that it is quick and works from the keyboard. */
export function ChoiceField({ label, value, options, onChange, help, disabled, hideLabel, id }: { label: string; value: string | number; options: readonly Choice[]; onChange: (value: string | number) => void; help?: string; disabled?: boolean; hideLabel?: boolean; id?: string }) {
  const own = useId();
  const key = id ?? own;
  return (
    <div className={hideLabel ? '' : 'flex items-baseline justify-between gap-2'}>
      <label htmlFor={key} title={help} className={hideLabel ? 'sr-only' : 'shrink-0'}>
        {label}
      </label>
      <select id={key} disabled={disabled} className="select min-w-0 text-right" value={String(value)} onChange={(e) => onChange(options.find((o) => String(o.value) === e.target.value)?.value ?? e.target.value)}>
        {options.map((o) => (
          <option key={o.value} value={String(o.value)}>
            {o.label}
          </option>
        ))}
      </select>
    </div>
  );
}

/** One line of text that is accepted on leaving or Enter; Escape restores. */
export function TextField({ label, value, onChange, hideLabel, placeholder, maxLength = 120, className = '', refuse, autoFocus, onDone }: { label: string; value: string; onChange: (value: string) => void; hideLabel?: boolean; placeholder?: string; maxLength?: number; className?: string; refuse?: (value: string) => boolean; autoFocus?: boolean; onDone?: () => void }) {
  const id = useId();
  return (
    <div className={hideLabel ? 'min-w-0' : 'flex items-baseline justify-between gap-2'}>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'shrink-0'}>
        {label}
      </label>
      <input
        key={value} id={id} autoFocus={autoFocus} defaultValue={value} placeholder={placeholder} maxLength={maxLength} className={`min-w-0 border-b border-dotted border-muted bg-transparent px-0.5 py-0.5 ${className}`}
        onBlur={(e) => {
          const next = e.target.value.trim();
          if (next !== value) {
            if (refuse?.(next)) e.target.value = value;
            else onChange(next);
          }
          onDone?.();
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur();
          if (e.key === 'Escape') {
            e.stopPropagation();
            e.currentTarget.value = value;
            e.currentTarget.blur();
          }
        }}
      />
    </div>
  );
}
