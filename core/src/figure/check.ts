import type { QuantityId } from '../units/quantity.ts';
import type { Check, Mend, Severity } from './figure.ts';

/** What a check is made of. */
export interface CheckWish {
  readonly id: string;
  readonly name: string;
  readonly figure: number;
  readonly limit: number;
  readonly sense: 'min' | 'max';
  readonly quantity: QuantityId;
  readonly why: string;
  readonly of?: string;
  readonly severity?: Severity;
  /** Share of the limit within which it counts as near; 0.1 when left out. */
  readonly near?: number;
  /**
   * The nearest change that passes; a function where finding it takes work, called only when the check does not hold.
   */
  readonly mend?: Mend | (() => Mend | undefined) | undefined;
  readonly advice?: string;
}

/** Compares a figure with its limit: fails beyond it, near within a tenth of it, holds otherwise. */
export function check(w: CheckWish): Check {
  const margin = w.sense === 'min' ? w.figure - w.limit : w.limit - w.figure;
  const near = (w.near ?? 0.1) * Math.abs(w.limit);
  const state = margin < 0 || Number.isNaN(margin) ? 'fails' : margin < near ? 'near' : 'holds';
  const { id, name, figure, limit, sense, quantity, why, advice, of } = w;
  const mend = state === 'holds' ? undefined : typeof w.mend === 'function' ? w.mend() : w.mend;
  return {
    id,
    name,
    state,
    severity: w.severity ?? 'stop',
    figure,
    limit,
    sense,
    quantity,
    why,
    ...(of && { of }),
    ...(state === 'holds' ? {} : { ...(mend && { mend }), ...(advice && { advice }) }),
  };
}
