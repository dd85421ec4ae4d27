import {
  displayUnit,
  formatQuantity,
  fromSi,
  parseQuantity,
  toSi,
  type Problem,
  type QuantityId,
} from '@gristmill/core';
import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { usePrefs, useUnits } from '../state/prefs.ts';
import { useSaid } from '../state/said.ts';
import { useTold } from '../state/straight.tsx';
import { takeRefusal } from '../state/refusal.ts';
import { Said } from './Said.tsx';

export interface QuantityFieldProps {
  readonly label: string;
  readonly quantity: QuantityId;
  /** SI value. */
  readonly value: number;
  /** Takes the new SI value and what was typed; returns why it cannot be, or nothing. */
  readonly onChange: (si: number, text: string) => Problem | undefined | void;
  /** SI step of the arrow keys. */
  readonly step: number;
  readonly min?: number;
  readonly max?: number;
  readonly help?: string;
  readonly disabled?: boolean;
  readonly hideLabel?: boolean;
  readonly whole?: boolean;
  /** Significant digits shown; 5 unless said. */
  readonly digits?: number;
  readonly id?: string;
}

/** Why a value is outside what a field takes, in the reader's unit. */
function outside(si: number, p: QuantityFieldProps, say: (x: number) => string): Problem | undefined {
  if (p.whole && !Number.isInteger(si))
    return {
      what: `${say(si)} is not a whole number.`,
      why: `${p.label} is counted.`,
      mend: `Type ${Math.round(si)}.`,
    };
  if (p.min !== undefined && si < p.min)
    return {
      what: `${say(si)} is too little for ${p.label.toLowerCase()}.`,
      why: `It must be at least ${say(p.min)}.`,
      mend: 'Type a larger value.',
    };
  if (p.max !== undefined && si > p.max)
    return {
      what: `${say(si)} is too much for ${p.label.toLowerCase()}.`,
      why: `It must be at most ${say(p.max)}.`,
      mend: 'Type a smaller value.',
    };
  return undefined;
}

/** The same field for what runs straight: values, bounds and what is typed are told along the axis. */
const along = (p: QuantityFieldProps, { quantity, by }: { quantity: QuantityId; by: number }): QuantityFieldProps => ({
  ...p,
  quantity,
  value: p.value * by,
  step: p.step * by,
  ...(p.min !== undefined && { min: p.min * by }),
  ...(p.max !== undefined && { max: p.max * by }),
  onChange: (si, text) => p.onChange(si / by, text),
});

/**
 * A field for a quantity: takes any unit of its kind, shows the reader's; arrows nudge (Shift ×10, Alt ÷10), Enter and
 * leaving
 * accept, Escape restores. What cannot be accepted stays as typed, with the reason below it.
 */
export function QuantityField(given: QuantityFieldProps) {
  const told = useTold(given.quantity);
  const p = told.by === 1 ? given : along(given, told);
  const units = useUnits();
  const said = useSaid();
  const comma = usePrefs((s) => s.comma);
  const unit = displayUnit(p.quantity, units);
  const shown = formatQuantity(p.value, p.quantity, units, p.whole ? 9 : (p.digits ?? 5));
  const [text, setText] = useState<string | undefined>();
  const [problem, setProblem] = useState<Problem | undefined>();
  const own = useId();
  const id = p.id ?? own;
  const input = useRef<HTMLInputElement>(null);
  const value = useRef(p.value);
  useEffect(() => {
    // Undo, another field or another tab moved the value: what was typed here is over.
    if (value.current !== p.value) {
      value.current = p.value;
      setProblem(undefined);
      setText(undefined);
    }
  }, [p.value]);

  const offer = (si: number, typed: string): boolean => {
    const bad = outside(si, p, (x) => formatQuantity(x, p.quantity, units)) ?? p.onChange(si, typed) ?? takeRefusal();
    // A reason given twice, by the change and by the field, is shown once.
    takeRefusal();
    setProblem(bad);
    if (!bad) value.current = si;
    return !bad;
  };
  /** Whether what is typed was taken. */
  const accept = (): boolean => {
    if (text === undefined || text === shown) {
      setText(undefined);
      return true;
    }
    const parsed = parseQuantity(text, p.quantity, unit.symbol, comma);
    if (!parsed.ok) {
      setProblem(parsed.problem);
      return false;
    }
    // A unit without a dot between its parts and the like reads well once accepted.
    const taken = offer(parsed.value.si, text);
    if (taken) setText(undefined);
    return taken;
  };
  const nudge = (e: KeyboardEvent, direction: 1 | -1) => {
    e.preventDefault();
    const scale = e.shiftKey ? 10 : e.altKey && !p.whole ? 0.1 : 1;
    const parsed = text === undefined ? undefined : parseQuantity(text, p.quantity, unit.symbol, comma);
    const from = parsed?.ok ? parsed.value.si : p.value;
    // Nudges move in the reader's unit, so that a step does not leave a trail of digits.
    const moved = fromSi(from, unit) + fromSi(p.step * scale * direction + toSi(0, unit), unit);
    if (offer(toSi(Number(moved.toPrecision(10)), unit), '')) setText(undefined);
  };
  // After the accepted text is written. Selecting takes the focus with it, so not when it has gone elsewhere in the
  // meantime.
  const selectSoon = () =>
    requestAnimationFrame(() => document.activeElement === input.current && input.current?.select());
  const keys = (e: KeyboardEvent<HTMLInputElement>) => {
    // With Ctrl they go from cell to cell of a table.
    if (e.key === 'ArrowUp' && !e.ctrlKey) nudge(e, 1);
    else if (e.key === 'ArrowDown' && !e.ctrlKey) nudge(e, -1);
    else if (e.key === 'Enter') {
      // Enter accepts the value; a form around the field is sent by its button.
      e.preventDefault();
      // What is refused is not gone away from.
      if (!accept()) e.stopPropagation();
      selectSoon();
    } else if (e.key === 'Escape' && (text !== undefined || problem)) {
      e.stopPropagation();
      setText(undefined);
      setProblem(undefined);
      selectSoon();
    }
  };
  return (
    <div className="min-w-0">
      <div className={p.hideLabel ? '' : 'flex items-baseline justify-between gap-2'}>
        <label htmlFor={id} title={p.help && said(p.help)} className={p.hideLabel ? 'sr-only' : 'min-w-0 shrink-0'}>
          {p.label}
        </label>
        <input
          ref={input}
          id={id}
          disabled={p.disabled}
          className={`field-input ${p.hideLabel ? '' : 'max-w-[9.5rem]'}`}
          inputMode="text"
          autoComplete="off"
          spellCheck={false}
          value={text ?? shown}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? `${id}-why` : undefined}
          aria-description={p.help && said(p.help)}
          onFocus={(e) => e.target.select()}
          onChange={(e) => setText(e.target.value)}
          onBlur={accept}
          onKeyDown={keys}
        />
      </div>
      {problem ? (
        <p id={`${id}-why`} role="alert" className="pt-1 text-[12px] text-fail">
          <Said>{`${problem.what} ${problem.why} ${problem.mend}`}</Said>
        </p>
      ) : null}
    </div>
  );
}
