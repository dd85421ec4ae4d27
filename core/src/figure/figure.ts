import type { QuantityId } from '../units/quantity.ts';

/** Where a term's value comes from; the view names it and, where there is a path, leads there. */
export type Origin = 'brief' | 'field' | 'motor' | 'shop' | 'computed' | 'measured' | 'definition';

export interface Term {
  readonly symbol: string;
  readonly name: string;
  readonly value: number;
  readonly quantity: QuantityId;
  readonly origin: Origin;
  /** Identifier of the field or factor it was read from, where it was read. */
  readonly from?: string;
}

/** How a figure came about: the formula in symbols, its terms, and who says so. */
export interface Working {
  readonly formula: string;
  readonly terms: readonly Term[];
  readonly source: string;
  readonly note?: string;
}

/**
 * A predicted value with its band, in SI units. `low` and `high` equal `value` where nothing is uncertain. Its working is
 * asked for by `workingOf`.
 */
export interface Figure {
  readonly id: string;
  readonly name: string;
  readonly quantity: QuantityId;
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** The nearest change that makes a check pass: one parameter, with what must follow it. */
export interface Mend {
  readonly path: string;
  readonly value: number | string;
  /** Parameters that must change with it. */
  readonly also?: Readonly<Record<string, number | string>>;
  /** Verb first, as on a button: "Tension 34 N". */
  readonly label: string;
}

export type Severity = 'stop' | 'warn' | 'note';

/**
 * One thing that decides whether a design works: what was compared with what, why it matters, and what would mend it.
 */
export interface Check {
  readonly id: string;
  readonly name: string;
  readonly state: 'holds' | 'near' | 'fails';
  readonly severity: Severity;
  readonly figure: number;
  readonly limit: number;
  readonly sense: 'min' | 'max';
  readonly quantity: QuantityId;
  readonly why: string;
  /** The figure of the same report that the comparison rests on; its working opens from the check. */
  readonly of?: string;
  readonly mend?: Mend;
  /** What to do where no single parameter mends it. */
  readonly advice?: string;
  /** What it is about, where several are told as one while they hold. */
  readonly group?: string;
}
