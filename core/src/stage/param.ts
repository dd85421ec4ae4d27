import * as v from 'valibot';
import { quantity, wholeNumber } from '../schema/quantity-schema.ts';
import { isBall, isNeedle } from '../shop/bearings.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Bearing } from '../schema/joint.ts';
import { QUANTITIES, type QuantityId } from '../units/quantity.ts';
import type { FieldSpec } from './contract.ts';

type Choice = { readonly value: string | number; readonly label: string };

/** How a parameter is edited: a field without its path and group, which the table gives. */
type Form =
  | { readonly as: 'quantity'; readonly quantity: QuantityId; readonly step: number }
  | { readonly as: 'count'; readonly min: number; readonly max: number }
  | { readonly as: 'text'; readonly maxLength: number }
  | {
      readonly as: 'choice';
      readonly of?: 'material';
      readonly options: (p: never, shelf: Shelf) => readonly Choice[];
    };

/** What every parameter says of itself. */
interface About<P, V> {
  /** What it is, as the file's schema has it; the unit is added. */
  readonly says: string;
  /** Beside its field. */
  readonly label: string;
  readonly help: string;
  /** The value a plain stage has where nothing else decides, SI units. */
  readonly start: V;
  /** Whether the field is shown; left out: always. */
  readonly when?: (p: P) => boolean;
  /** What a file that is silent means. Left out: a file must say it. */
  readonly absent?: V;
  /**
   * Added after builds kept the mark of their design: it stands out of the mark while it is what older files count as, so
   * that theirs stay as they are.
   */
  readonly late?: true;
}

/**
 * One parameter of a kind: the only place where its name, quantity, bounds, default, label, group, help and schema
 * stand.
 */
export interface Param<P, V = unknown> {
  readonly schema: v.GenericSchema<unknown, V>;
  readonly start: V;
  readonly group: string;
  readonly label: string;
  readonly help: string;
  readonly when?: (p: P) => boolean;
  /** Set where builds of older files know nothing of it: what those count as. */
  readonly late?: { readonly absent: V };
  readonly form: Form;
}

/** The parameters of a kind, in the order of its form. */
export type ParamTable<P> = { readonly [K in keyof P & string]-?: Param<P, P[K]> };

/** "Seat; 0 for none" and m give "Seat, m; 0 for none". */
const withUnit = (says: string, unit: string): string => (unit ? says.replace(/(?=;|$)/, `, ${unit}`) : says);

function param<P, V>(about: About<P, V>, inner: v.GenericSchema<unknown, V>, form: Form): Param<P, V> {
  const unit = form.as === 'quantity' ? QUANTITIES[form.quantity].units[0]!.symbol : '';
  const taken = 'absent' in about ? v.optional(inner, about.absent as V) : inner;
  const { label, help, start, when } = about;
  return {
    schema: v.pipe(taken as v.GenericSchema<unknown, V>, v.description(withUnit(about.says, unit))),
    start,
    group: '',
    label,
    help,
    form,
    ...(when && { when }),
    ...(about.late && { late: { absent: about.absent } }),
  } as Param<P, V>;
}

/** A physical quantity within bounds, SI units. */
export const amount = <P>(
  of: QuantityId,
  about: About<P, number> & { readonly least: number; readonly most: number; readonly step: number },
): Param<P, number> =>
  param(about, quantity(of, about.least, about.most), { as: 'quantity', quantity: of, step: about.step });

/** A length within bounds, m. */
export const length = <P>(
  about: About<P, number> & { readonly least: number; readonly most: number; readonly step?: number },
): Param<P, number> => amount('length', { step: 5e-4, ...about });

/** A whole number within bounds, such as teeth. */
export const whole = <P>(
  about: About<P, number> & { readonly least: number; readonly most: number },
): Param<P, number> =>
  param(about, wholeNumber(about.least, about.most), { as: 'count', min: about.least, max: about.most });

/** A whole number within bounds, picked from a list that the shop or the other parameters give. */
export const wholeOf = <P>(
  about: About<P, number> & {
    readonly least: number;
    readonly most: number;
    readonly options: (p: P, shelf: Shelf) => readonly Choice[];
  },
): Param<P, number> =>
  param(about, wholeNumber(about.least, about.most), { as: 'choice', options: about.options as never });

/** One of a few words, each with what the form calls it. */
export const oneOf = <const V extends string, P = unknown>(
  about: About<P, NoInfer<V>> & { readonly options: readonly (readonly [V, string])[] },
): Param<P, V> => {
  const options = about.options.map(([value, label]) => ({ value, label }));
  return param(about, v.picklist(about.options.map(([value]) => value)) as v.GenericSchema<unknown, V>, {
    as: 'choice',
    options: () => options,
  });
};

/** Yes or no. */
export const yesNo = <P>(about: About<P, 'no' | 'yes'>): Param<P, 'no' | 'yes'> =>
  oneOf({
    ...about,
    options: [
      ['no', 'No'],
      ['yes', 'Yes'],
    ],
  });

/** A part of the shop by its designation. */
export const fromShop = <P>(
  about: About<P, string> & {
    /** What of the shop it is, where a search may put another in its place. */
    readonly of?: 'material';
    readonly options: (p: P, shelf: Shelf) => readonly Choice[];
  },
): Param<P, string> =>
  param(about, v.string() as never, {
    as: 'choice',
    options: about.options as never,
    ...(about.of && { of: about.of }),
  });

/** A material of the shop; what it is of is said with it. */
export const material = <P>(about: Omit<About<P, string>, 'help'>): Param<P, string> =>
  fromShop({
    ...about,
    of: 'material',
    says: `Material of the shop, ${about.says}`,
    help: 'From the shop’s materials.',
    options: (_p, shelf) => shelf.materials.map((m) => ({ value: m.id, label: m.name })),
  });

const bySize = (b: Bearing): string =>
  `${b.name}, ${(b.bore * 1e3).toFixed(0)} × ${(b.outside * 1e3).toFixed(0)} × ${(b.width * 1e3).toFixed(0)}`;

/** A ball bearing of the shop by its designation, picked by size. */
export const bearing = <P>(about: About<P, string> & { readonly needles?: boolean }): Param<P, string> =>
  fromShop({
    ...about,
    options: (_p, shelf) =>
      shelf.bearings
        .filter((b) => isBall(b) || (about.needles !== false && isNeedle(b)))
        .map((b) => ({ value: b.id, label: bySize(b) })),
  });

/** Free text. */
export const words = <P>(about: About<P, string> & { readonly maxLength: number }): Param<P, string> =>
  param(about, v.pipe(v.string(), v.maxLength(about.maxLength)) as never, { as: 'text', maxLength: about.maxLength });

/** Puts parameters under one heading of the form. */
// Some of the entries ask for more of the parameters than others do.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export const group = <T extends Readonly<Record<string, Param<any>>>>(name: string, entries: T): T =>
  Object.fromEntries(Object.entries(entries).map(([k, p]) => [k, { ...p, group: name }])) as unknown as T;

/** Starts of tables that were asked for: a search begins thousands of stages with them. */
const starts = new WeakMap<object, object>();

/** The value of each parameter where nothing else decides; not to be changed, but to be spread. */
export function startsOf<P>(table: ParamTable<P>): P {
  let known = starts.get(table) as P | undefined;
  if (!known) {
    known = Object.freeze(Object.fromEntries(Object.entries<Param<P>>(table).map(([k, p]) => [k, p.start]))) as P;
    starts.set(table, known as object);
  }
  return known;
}

/**
 * Schema and fields of a table of parameters, as a kind gives them.
 * @param checks what must hold between parameters
 * @example
 * const table = group('Teeth', { z: whole({ says: 'Teeth', label: 'Teeth', help: '', start: 20, least: 6, most: 90 }) });
 * described(table).fields[0].max; // → 90
 */
export function described<P extends object>(
  table: ParamTable<P>,
  ...checks: readonly v.CheckAction<P, string>[]
): {
  readonly schema: v.GenericSchema<unknown, P>;
  readonly fields: readonly FieldSpec<P>[];
  readonly starts: P;
  readonly late: Readonly<Record<string, unknown>>;
} {
  const entries = Object.entries<Param<P>>(table);
  const object = v.looseObject(Object.fromEntries(entries.map(([k, p]) => [k, p.schema])));
  return {
    schema: (checks.length ? v.pipe(object as never, ...(checks as unknown as [never])) : object) as never,
    starts: startsOf(table),
    late: Object.fromEntries(entries.flatMap(([k, p]) => (p.late ? [[k, p.late.absent]] : []))),
    fields: entries.map(
      ([path, { group, label, help, when, form }]) =>
        ({ path, group, label, help, ...(when && { when }), ...form }) as unknown as FieldSpec<P>,
    ),
  };
}
