import {
  formatBanded,
  sayUncertain,
  unitGap,
  type Figure,
  type FigureAddress,
  type QuantityId,
  type Uncertain,
} from '@gristmill/core';
import { useWorking } from '../app/working.ts';
import { useUnits } from '../state/prefs.ts';
import { useSaid } from '../state/said.ts';
import { useTold, useToldFigure } from '../state/straight.tsx';

/** A predicted figure as written, value and band; opens its working. */
export function FigureText({
  figure,
  at,
  band = true,
  className = '',
}: {
  figure: Figure;
  at?: FigureAddress;
  band?: boolean;
  className?: string;
}) {
  const units = useUnits();
  const said = useSaid();
  const open = useWorking((s) => s.open);
  const told = useToldFigure(figure);
  const t = formatBanded(told, told.quantity, units);
  return (
    <button
      type="button"
      data-figure={figure.id}
      aria-label={`${said(figure.name)} ${t.value}${unitGap(t.unit)} ${t.band}, open working`}
      onClick={() => open(at ? { kind: 'expected', figure, at } : { kind: 'expected', figure })}
      className={`num text-expected text-right decoration-dotted underline-offset-3 hover:underline ${className}`}
    >
      {t.value}
      {unitGap(t.unit)}
      {band && t.band ? (
        <>
          {' '}
          <span className="whitespace-nowrap text-muted">{t.band}</span>
        </>
      ) : null}
    </button>
  );
}

/** A measured figure as written, value ± uncertainty; opens its budget. */
export function FoundText({
  name,
  found,
  bound = 'both',
  formula,
  source,
  className = '',
}: {
  name: string;
  found: Uncertain;
  bound?: 'both' | 'atLeast' | 'atMost';
  formula: string;
  source: string;
  className?: string;
}) {
  const units = useUnits();
  const open = useWorking((s) => s.open);
  const { quantity, by } = useTold(found.quantity);
  const text = `${bound === 'atLeast' ? '≥ ' : bound === 'atMost' ? '< ' : ''}${sayUncertain(found.value * by, found.U * by, quantity, units)}`;
  return (
    <button
      type="button"
      data-found={name}
      aria-label={`Found ${name} ${text}, open working`}
      onClick={() => open({ kind: 'found', name, found, formula, source })}
      className={`num text-found text-right decoration-dotted underline-offset-3 hover:underline ${className}`}
    >
      {text}
    </button>
  );
}

/** A plain quantity in the reader's unit, without a working of its own. */
export function QuantityText({
  value,
  quantity,
  className = '',
}: {
  value: number;
  quantity: QuantityId;
  className?: string;
}) {
  const units = useUnits();
  const told = useTold(quantity);
  const t = formatBanded({ value: value * told.by }, told.quantity, units);
  return (
    <span className={`num ${className}`}>
      {t.value}
      {unitGap(t.unit)}
    </span>
  );
}
