import Papa from 'papaparse';
import { inUnits } from '../units/stated.ts';
import type { Bill, BillRow, HowMade } from './bill.ts';

/** What is said of how a piece comes about. */
export const HOW_MADE: Readonly<Record<HowMade, string>> = {
  printed: 'print',
  cut: 'make to the drawing',
  bought: 'buy',
};

const grams = (kg: number): number => Number((kg * 1e3).toPrecision(6));
const coins = (money: number): number => Number(money.toFixed(2));
const toBuy = (r: BillRow): number => r.needed - r.there;
const amount = (r: BillRow): number => coins(toBuy(r) * r.money);

/** A cell that a spreadsheet would take for a formula is made text. */
const cell = (x: string): string => (/^[=+\-@]/.test(x) ? `'${x}` : x);

/** A bill as CSV: a row a piece, masses in grams, prices in the reader's money; ends with a row of totals. */
export function billCsv(bill: Bill): string {
  const rows = bill.rows.map((r) => ({
    name: cell(inUnits(r.name)),
    for: r.at.join(', '),
    how: HOW_MADE[r.how],
    material: cell(r.material),
    note: cell(inUnits(r.note)),
    'a joint': r.each,
    needed: r.needed,
    'in the drawer': r.there,
    'to get': toBuy(r),
    'mass each (g)': grams(r.mass),
    'price each': coins(r.money),
    price: amount(r),
  }));
  const totals = {
    name: `${bill.joints} ${bill.joints === 1 ? 'joint' : 'joints'}`,
    'mass each (g)': grams(bill.mass),
    'price each': coins(bill.money),
    price: coins(bill.toPay),
  };
  return Papa.unparse([...rows, totals], { columns: Object.keys(rows[0] ?? totals), newline: '\r\n' }) + '\r\n';
}

/** Text as it stands in a cell of a Markdown table. */
const plain = (x: string): string => inUnits(x).replace(/[|\\]/g, '\\$&').replace(/\s+/g, ' ');

/** A bill as a Markdown table under a title, with what it comes to. */
export function billMarkdown(bill: Bill, title: string): string {
  const heads = [
    'part',
    'for',
    'how',
    'material',
    'a joint',
    'needed',
    'in the drawer',
    'to get',
    'price each',
    'price',
  ];
  const rows = bill.rows.map((r) =>
    [
      r.note ? `${plain(r.name)}<br>${plain(r.note)}` : plain(r.name),
      ...[r.at.join(', '), HOW_MADE[r.how], plain(r.material)],
      ...[r.each, r.needed, r.there, toBuy(r)].map(String),
      ...[r.money, amount(r)].map((x) => x.toFixed(2)),
    ].join(' | '),
  );
  const one = `One joint weighs ${grams(bill.mass)} g and costs ${bill.money.toFixed(2)} at list prices.`;
  const all = `For ${bill.joints === 1 ? 'it' : `${bill.joints} joints`} there is ${bill.toPay.toFixed(2)} to pay, without what lies in the drawer.`;
  return [
    `# ${plain(title)}`,
    '',
    `| ${heads.join(' | ')} |`,
    `| ${heads.map((_, i) => (i > 3 ? '---:' : '---')).join(' | ')} |`,
    ...rows.map((r) => `| ${r} |`),
    '',
    `${one} ${all}`,
    '',
  ].join('\n');
}
