import Papa from 'papaparse';
import { ok, refuse, type Result } from '../result.ts';
import { twoWays, type Comma } from '../units/comma.ts';
import { headingIn, tidyName, type Heading } from '../units/heading.ts';
import { findUnit, parseQuantity, toSi } from '../units/parse.ts';
import { MOST_SAMPLE } from './recording.ts';
import { QUANTITIES, type QuantityId } from '../units/quantity.ts';

/** Headings under which this program writes what was entered, and why a reading is struck out. */
export const ENTERED = 'as entered';
export const STRUCK = 'struck out because';

/** A column that is looked for in a table. */
export interface WantedColumn {
  readonly id: string;
  readonly label: string;
  readonly quantity?: QuantityId;
  readonly options?: readonly { readonly value: string; readonly label: string }[];
  readonly words: readonly string[];
  readonly optional?: boolean;
  readonly yes?: string;
}

export interface ReadTable {
  /** SI values or choices, column by column, one entry a row that was kept. */
  readonly columns: Readonly<Record<string, (number | string)[]>>;
  readonly rows: number;
  /** The rows as they stood. */
  readonly texts: readonly string[];
  /** Why each row is struck out, empty where it is not; absent where no column says. */
  readonly struck?: readonly string[] | undefined;
  /** Named values above the table (`# lever: 180 mm`). */
  readonly head: Readonly<Record<string, string>>;
  readonly malformed: number;
  readonly notes: readonly string[];
}

const tidy = tidyName;

/** The name and the unit in a heading; of a column without quantity the name alone. */
const heading = (text: string, quantity: QuantityId | undefined): Heading =>
  quantity ? headingIn(text, quantity) : { name: tidy(text), unit: undefined, doubt: undefined };

const COMMA = /^\s*[+\-−]?\d+,\d+\s*[^\d]*$/;

/** What commas stand for: decimals where no point stands anywhere, and cells like 1,25; open where all could be both. */
function commasOf(rows: readonly (readonly string[])[], comma: Comma): 'decimals' | 'thousands' | 'none' | 'open' {
  const cells = rows.slice(0, 200).flat();
  const commas = cells.filter((c) => COMMA.test(c));
  if (commas.length === 0) return 'none';
  if (cells.some((c) => /^\s*[+\-−]?\d*\.\d+/.test(c))) return 'none';
  if (!commas.every((c) => twoWays(c.replace(/[^\d,+\-−].*$/, '')))) return 'decimals';
  return comma === 'ask' ? 'open' : comma;
}

/** Numbers that are usual for a bench in kelvin, and not in °C. */
const KELVIN = [250, 430] as const;

/** Whether all readings, taken for °C, look like kelvin. */
const inKelvin = (si: readonly (number | string)[]): boolean =>
  si.length > 0 && si.every((x) => typeof x === 'number' && x - 273.15 > KELVIN[0] && x - 273.15 < KELVIN[1]);

const numberLike = (c: string): boolean => /^\s*([+\-−]?(\d|[.,]\d)|nan\s*$)/i.test(c);

/** What 1 and true, or 0, −1 and false, stand for in a column of two choices. */
function yesOrNo(raw: string, w: WantedColumn): { readonly value: string } | undefined {
  if (!w.yes) return undefined;
  if (/^(\+?1(\.0)?|\+|true|yes|y)$/i.test(raw)) return { value: w.yes };
  return /^([-−]1(\.0)?|0(\.0)?|[-−]|false|no|n)$/i.test(raw) ? w.options!.find((o) => o.value !== w.yes) : undefined;
}

/** A line that says something of the rig, or nothing: `# lever: 180 mm`. */
const NOTE = /^\s*(?:#|\/\/|;)\s*(.*)$/;
export const isNote = (line: string): boolean => NOTE.test(line.trimEnd());

/** Whether a line names columns: no cell of it begins with a digit. */
export const isHeading = (line: string): boolean =>
  !line
    .trim()
    .split(/[\t;,|]|\s{2,}/)
    .some((c) => /^\s*[+\-−]?\d/.test(c));

/** What is said of rows that were left out; nothing where there are none. */
export const leftOutNote = (malformed: number, why: string | undefined): string[] =>
  malformed
    ? [
        `${malformed} row${malformed === 1 ? '' : 's'} could not be read and ${malformed === 1 ? 'was' : 'were'} left out (${why}).`,
      ]
    : [];

/** Rows as they were read, before anything is said of those left out. */
export interface Rows extends ReadTable {
  /** Why the first of them was left out. */
  readonly why: string | undefined;
  /** What commas stood for. */
  readonly commas: 'decimals' | 'thousands' | 'none';
}

/**
 * Reads a table of readings: any separator, decimal commas, a heading in any order with units, or none with columns in
 * the order given; comment lines with named values above it. Rows that cannot be read are counted and left
 * out; the rest is kept.
 */
export function readTable(text: string, wanted: readonly WantedColumn[], comma: Comma = 'ask'): Result<ReadTable> {
  const read = readRows(text, wanted, 0, comma);
  if (!read.ok) return read;
  const { why, commas: _commas, ...table } = read.value;
  if (table.rows === 0)
    return refuse(
      'No row could be read.',
      why ?? 'Nothing in them is a number.',
      `Give rows of ${wanted
        .filter((w) => !w.optional)
        .map((w) => w.label)
        .join(', ')}.`,
    );
  return ok({ ...table, notes: [...table.notes, ...leftOutNote(table.malformed, why)] });
}

/**
 * The rows of a table, which may be a part of a longer one.
 *
 * @param before rows that came before this part
 * @param comma what a comma before three digits stands for
 */
export function readRows(
  text: string,
  wanted: readonly WantedColumn[],
  before = 0,
  comma: Comma = 'ask',
): Result<Rows> {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/);
  const head: Record<string, string> = {};
  const body: string[] = [];
  for (const line of lines) {
    const comment = NOTE.exec(line);
    if (comment) {
      const pair = /^([^:=]+)[:=]\s*(.+)$/.exec(comment[1]!);
      if (pair) head[tidy(pair[1]!)] = pair[2]!.trim();
    } else if (line.trim() !== '') body.push(line);
  }
  if (body.length === 0)
    return refuse(
      'There is nothing to read.',
      'No line has anything in it.',
      `A table has columns of ${wanted
        .filter((w) => !w.optional)
        .map((w) => w.label)
        .join(', ')}.`,
    );
  // A single column of 48,5 is no table of two: its commas are decimals.
  const lone = wanted.length === 1 && body.every((l) => /^\s*[+\-−]?\d+,\d+\s*[^\d,]*$/.test(l));
  // Semicolons and tabs win over commas, which may be decimals.
  const delimiter = body[0]!.includes('\t')
    ? '\t'
    : body[0]!.includes(';')
      ? ';'
      : /,/.test(body[0]!) &&
          !lone &&
          !(body.length > 1 && body.slice(0, 20).every((l) => /^\s*[+\-−]?\d+,\d+(\s+[+\-−]?\d+,\d+)+\s*$/.test(l)))
        ? ','
        : body[0]!.includes('|')
          ? '|'
          : ' ';
  const parsed = Papa.parse<string[]>(
    delimiter === ' ' ? body.map((l) => l.trim().replace(/\s+/g, ' ')).join('\n') : body.join('\n'),
    { delimiter, skipEmptyLines: true },
  );
  let rows = parsed.data.map((r) => r.map((c) => c.trim()));
  // Lines of "name, value" above a table are named values as well.
  while (
    before === 0 &&
    rows.length > 2 &&
    rows[0]!.filter((c) => c !== '').length === 2 &&
    !numberLike(rows[0]![0]!) &&
    numberLike(rows[0]![1]!) &&
    wanted.filter((w) => !w.optional).length !== 1
  ) {
    head[tidy(rows[0]![0]!)] = rows[0]![1]!;
    rows = rows.slice(1);
  }
  if (rows.length === 0)
    return refuse(
      'There is nothing to read.',
      'No line has anything in it.',
      `A table has columns of ${wanted
        .filter((w) => !w.optional)
        .map((w) => w.label)
        .join(', ')}.`,
    );
  const first = rows[0]!;
  const named = first.some((c) => c !== '' && !numberLike(c)) && first.every((c) => !/^\s*[+\-−]?\d/.test(c));
  const data = named ? rows.slice(1) : rows;
  if (data.length === 0)
    return refuse('There is a heading and nothing under it.', 'No row has numbers.', 'Give the rows as well.');
  const notes: string[] = [];
  const used = new Set<number>();
  const places = wanted.map((w, i) => {
    if (!named) return i < first.length ? i : -1;
    const score = (h: string): number => {
      const name = heading(h, w.quantity).name;
      const parts = name.split(' ');
      let best = 0;
      w.words.forEach((word, k) => {
        const s =
          name === word ? 100 - k : parts.includes(word) ? 60 - k : word.length > 2 && name.includes(word) ? 30 - k : 0;
        best = Math.max(best, s);
      });
      return name === tidy(w.id) || name === tidy(w.label) ? 200 : best;
    };
    let [at, most] = [-1, 0];
    first.forEach((h, k) => {
      const s = used.has(k) ? 0 : score(h);
      if (s > most) [at, most] = [k, s];
    });
    if (at >= 0) used.add(at);
    return at;
  });
  const missing = wanted.filter((w, i) => places[i]! < 0 && !w.optional);
  if (missing.length)
    return refuse(
      `The column${missing.length > 1 ? 's' : ''} ${missing.map((w) => w.label).join(' and ')} ${missing.length > 1 ? 'are' : 'is'} missing.`,
      named
        ? `The heading has ${first
            .filter(Boolean)
            .slice(0, 8)
            .map((c) => c.replace(/\s+/g, ' ').slice(0, 24))
            .join(', ')}.`
        : `Rows have ${first.length} value${first.length === 1 ? '' : 's'}.`,
      `Name columns ${wanted.map((w) => `${w.label}${w.quantity ? ` (${QUANTITIES[w.quantity].shown || 'plain'})` : ''}`).join(', ')}.`,
    );
  const standing = delimiter === ',' && !lone ? 'none' : commasOf(data, comma);
  if (standing === 'open') {
    const cell = data.flat().find((c) => COMMA.test(c))!;
    return refuse(
      `“${cell}” can be read two ways.`,
      `The comma could part thousands (${cell.replace(',', '')}) or decimals (${cell.replace(',', '.')}).`,
      'Say in the shop, under Units, which commas are yours, or write the numbers with points.',
    );
  }
  const commas = standing !== 'none';
  const point = standing === 'thousands' ? '' : '.';
  if (standing === 'decimals') notes.push('Commas were read as decimal points.');
  if (standing === 'thousands') notes.push('Commas were read as parting thousands.');
  const heads = wanted.map((w, i) => (named && places[i]! >= 0 ? heading(first[places[i]!]!, w.quantity) : undefined));
  // A scale that shows newtons where a mass is meant: told, and divided by standard gravity.
  const forces = wanted.map((w, i) => {
    const unit =
      w.quantity === 'mass' && named && places[i]! >= 0 && !heads[i]?.unit
        ? heading(first[places[i]!]!, 'force').unit
        : undefined;
    return unit === undefined ? undefined : findUnit(QUANTITIES.force, unit);
  });
  forces.forEach(
    (f, i) => f && notes.push(`${wanted[i]!.label} is in ${f.symbol}: it was divided by standard gravity.`),
  );
  const carriesUnits = (i: number) => data.slice(0, 5).every((r) => /[a-zA-Z°′″'"µ]/.test(r[places[i]!] ?? ''));
  const doubt = heads.find((h, i) => h?.doubt && !forces[i] && !carriesUnits(i))?.doubt;
  if (doubt) return refuse(doubt.what, doubt.why, doubt.mend);
  heads.forEach((h, i) => {
    const w = wanted[i]!;
    if (forces[i]) return;
    if (
      !h?.unit &&
      w.quantity &&
      QUANTITIES[w.quantity].units.some((u) => u.symbol !== '') &&
      places[i]! >= 0 &&
      !data.slice(0, 5).some((r) => /[a-zA-Z°′″'"µ]/.test(r[places[i]!] ?? ''))
    )
      notes.push(`No unit is given for ${w.label}: ${QUANTITIES[w.quantity].shown} was taken.`);
  });
  // Bare numbers in a known unit are read without the parser's ceremony: recordings have a million of them.
  const scales = wanted.map((w, i) =>
    w.quantity
      ? (findUnit(QUANTITIES[w.quantity], heads[i]?.unit ?? QUANTITIES[w.quantity].shown) ??
        QUANTITIES[w.quantity].units[0]!)
      : undefined,
  );
  const columns: Record<string, (number | string)[]> = Object.fromEntries(
    wanted.filter((_, i) => places[i]! >= 0).map((w) => [w.id, []]),
  );
  const texts: string[] = [];
  const own = (name: string) => (named ? first.findIndex((h) => tidy(h) === name) : -1);
  const [enteredAt, struckAt] = [own(ENTERED), own(STRUCK)];
  const struck: string[] | undefined = struckAt >= 0 ? [] : undefined;
  // A mark that kept a spreadsheet from taking a text for a formula is taken off again.
  const unmarked = (cell: string | undefined): string => (cell ?? '').replace(/^'(?=[=+\-@])/, '');
  let malformed = 0;
  let why: string | undefined;
  const cells: (number | string | undefined)[] = [];
  for (let r = 0; r < data.length; r++) {
    const row = data[r]!;
    let whole = true;
    for (let i = 0; i < wanted.length && whole; i++) {
      cells[i] = undefined;
      if (places[i]! < 0) continue;
      const w = wanted[i]!;
      const raw = row[places[i]!];
      if (raw === undefined || raw === '' || /^(nan|null|none|-|–)$/i.test(raw)) {
        if (!w.optional) whole = false;
        continue;
      }
      if (w.options) {
        const t = tidy(raw);
        const found =
          w.options.find((o) => o.value === t || tidy(o.label) === t) ??
          w.options.find((o) => tidy(o.label).includes(t) || t.includes(tidy(o.value))) ??
          yesOrNo(raw, w);
        if (found) cells[i] = found.value;
        else whole = false;
        continue;
      }
      const plain = Number(commas ? raw.replace(',', point) : raw);
      if (raw !== '' && Number.isFinite(plain)) {
        const newtons = forces[i];
        cells[i] = newtons ? toSi(plain, newtons) / 9.80665 : toSi(plain, scales[i]!);
      } else {
        const read = parseQuantity(
          commas ? raw.replace(/(\d),(\d)/, `$1${point}$2`) : raw,
          w.quantity!,
          heads[i]?.unit,
        );
        if (read.ok) cells[i] = read.value.si;
        else {
          whole = false;
          why ??= `row ${before + r + 1}: ${read.problem.what}`;
        }
      }
    }
    // A value beyond all measuring is a slip of the pen or of the program that wrote it.
    const far = cells
      .slice(0, wanted.length)
      .findIndex((c, i) => places[i]! >= 0 && typeof c === 'number' && !(Math.abs(c) <= MOST_SAMPLE));
    if (whole && far >= 0) {
      whole = false;
      why ??= `row ${before + r + 1}: ${wanted[far]!.label} is too large to be measured`;
    }
    if (!whole) {
      malformed++;
      why ??= `row ${before + r + 1} is not whole`;
      continue;
    }
    for (let i = 0; i < wanted.length; i++) if (places[i]! >= 0) columns[wanted[i]!.id]!.push(cells[i] ?? NaN);
    struck?.push(unmarked(row[struckAt]));
    const entered = enteredAt >= 0 ? unmarked(row[enteredAt]) : '';
    if (texts.length < 5000)
      texts.push(entered !== '' ? entered : row.join(delimiter === '\t' || delimiter === ' ' ? '  ' : ', '));
  }
  const kept = Object.values(columns)[0]?.length ?? 0;
  const kelvin = wanted.find(
    (w, i) =>
      w.quantity === 'temperature' &&
      places[i]! >= 0 &&
      scales[i]?.symbol === '°C' &&
      !carriesUnits(i) &&
      inKelvin(columns[w.id]!),
  );
  if (kelvin)
    return refuse(
      `${kelvin.label}: every reading lies between ${KELVIN[0]} and ${KELVIN[1]}, and °C stands over them or nothing does.`,
      'No bench is so hot; in kelvin these are usual.',
      `Write “${kelvin.label} (K)” over the column; if it really is °C, write the unit behind each value.`,
    );
  return ok({ columns, rows: kept, texts, head, malformed, notes, why, struck, commas: standing });
}
