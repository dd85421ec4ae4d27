import { billCsv, billMarkdown, formatQuantity, HOW_MADE, sayProblem, type Bill, type BillRow } from '@gristmill/core';
import type { FitSheet } from '@gristmill/core/fit/fit-sheet';
import { fitMarkdown } from '@gristmill/core/fit/write-fit';
import type { Correction } from '@gristmill/core/solid/correction';
import { useState } from 'react';
import { toast } from 'sonner';
import { download, fileName } from '../../app/download.ts';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { Said } from '../../parts/Said.tsx';
import { useJoint, useVariant } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { today } from '../../state/bench.ts';
import { useEdits, useShelf } from '../../state/shelf.ts';
import { useBill } from '../../workers/queries.ts';
import { lineAssembly, lineBundle, solidFile } from '../../workers/solid.ts';
import { BusyNote, useMaking } from './making.tsx';

/** A usual bed, and room to get a scraper between pieces, m. */
const BED = 0.22;
const ROOM = 4e-3;

/** What a bill comes to, in a sentence or two. */
function Sum({ bill }: { bill: Bill }) {
  const units = useUnits();
  const money = (x: number) => formatQuantity(x, 'money', units, 4);
  const there = bill.rows.reduce((s, r) => s + r.there, 0);
  const pieces = bill.rows.reduce((s, r) => s + r.each, 0);
  return (
    <p>
      {pieces} pieces of {bill.rows.length} kinds: one joint weighs{' '}
      <b>{formatQuantity(bill.mass, 'mass', { mass: 'g', ...units }, 4)}</b> and costs <b>{money(bill.money)}</b> at
      list prices. For {bill.joints === 1 ? 'it' : `${bill.joints} joints`} there is <b>{money(bill.toPay)}</b> to pay
      {there > 0 ? `; ${there} ${there === 1 ? 'piece lies' : 'pieces lie'} in the drawer` : ''}.
    </p>
  );
}

function Row({ row }: { row: BillRow }) {
  const units = useUnits();
  const money = (x: number) => (x > 0 ? formatQuantity(x, 'money', units, 3) : '—');
  return (
    <tr className="rule-b align-baseline">
      <td>
        <b>
          <Said>{row.name}</Said>
        </b>
        {row.note ? (
          <span className="label block">
            <Said>{row.note}</Said>
          </span>
        ) : null}
      </td>
      <td>{row.at.join(', ')}</td>
      <td>
        {HOW_MADE[row.how]}
        {row.how === 'bought' ? null : <span className="label block">{row.material}</span>}
      </td>
      <td className="num text-right">{row.needed}</td>
      <td className="num text-right">{row.there || '—'}</td>
      <td className="num text-right">{row.needed - row.there}</td>
      <td className="num whitespace-nowrap text-right">{money(row.money)}</td>
      <td className="num whitespace-nowrap pr-0 text-right">{money((row.needed - row.there) * row.money)}</td>
    </tr>
  );
}

/** Every row, made when it is looked at. */
function BillTable({ bill }: { bill: Bill }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="pt-1" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="label cursor-pointer">Every piece</summary>
      {open ? <BillRows bill={bill} /> : null}
    </details>
  );
}

function BillRows({ bill }: { bill: Bill }) {
  return (
    <table className="w-full" aria-label="Bill of materials">
      <thead>
        <tr>
          <th>piece</th>
          <th>for</th>
          <th className="w-[10em]">how</th>
          <th className="text-right">needed</th>
          <th className="text-right">there</th>
          <th className="whitespace-nowrap text-right">to get</th>
          <th className="text-right">each</th>
          <th className="pr-0 text-right">price</th>
        </tr>
      </thead>
      <tbody>
        {bill.rows.map((r, i) => (
          <Row key={i} row={r} />
        ))}
      </tbody>
    </table>
  );
}

/** The whole line: what it is made of, and everything to make it in one file. */
export function LineFiles({
  chordError,
  reference,
  solidError,
  compensation,
  corrections,
  sheet,
}: {
  chordError: number;
  reference: boolean;
  solidError: number;
  compensation: number;
  /** How parts are drawn for their processes, by their keys. */
  corrections: Readonly<Record<string, Correction>>;
  /** Fits of the variant, for the sheet that goes with the files. */
  sheet: FitSheet | undefined;
}) {
  const units = useUnits();
  const { processes } = useShelf();
  const joint = useJoint();
  const variant = useVariant();
  const edits = useEdits();
  const [joints, setJoints] = useState(1);
  const [width, setWidth] = useState(BED);
  const [depth, setDepth] = useState(BED);
  const [gap, setGap] = useState(ROOM);
  const [exact, setExact] = useState(false);
  const { busy, make } = useMaking('The files could not be made');
  const bill = useBill(joints);
  if (!bill) return null;
  const title = `${joint.name}, variant ${variant.name}`;
  const named = (what: string, kind: string) => `${fileName(joint.name, variant.name, what)}.${kind}`;
  const everything = () =>
    make('Starting', async (says, signal) => {
      const more: Record<string, Uint8Array> = {};
      if (sheet) more['fit.md'] = new TextEncoder().encode(fitMarkdown(sheet, processes, title, today(), units));
      for (const [i, { kind, params }] of exact ? variant.stages.entries() : []) {
        // Of what is bought there is no body.
        if (!bill.ok || bill.value.rows.every((r) => r.how === 'bought' || !r.at.includes(`stage ${i + 1}`))) continue;
        const wish = { kind, params, shop: edits, format: 'step' as const, chordError: solidError, compensation: 0 };
        const doing = `Exact bodies of stage ${i + 1}`;
        says(doing, 0);
        const to = (share: number) => says(doing, share);
        const made = await solidFile({ ...wish, title: `${title}, stage ${i + 1}` }, to, signal);
        if (!made.ok) return void toast(sayProblem(made.problem));
        more[`step/stage${i + 1}.step`] = made.value;
      }
      const out = await lineBundle(
        {
          ...{ title, variant, joints, bed: { width, depth }, gap, compensation, reference },
          ...{ surface: solidError, curve: chordError },
          ...(Object.keys(corrections).length && { corrections }),
        },
        edits,
        more,
        ({ doing, share }) => says(doing, share),
        signal,
      );
      if (!out.ok) return void toast(sayProblem(out.problem));
      download(named('files', 'zip'), out.value, 'application/zip');
      toast(`${named('files', 'zip')}: bill, plates, every part and the order of assembly.`);
    });
  const assembly = () =>
    make('Exact bodies', async (says, signal) => {
      const out = await lineAssembly({ variant, shop: edits, title }, (x) => says('Exact bodies', x), signal);
      if (!out.ok) return void toast(sayProblem(out.problem));
      download(named('assembly', 'step'), out.value, 'model/step');
      toast(`${named('assembly', 'step')}: millimetres, every part once, placed as often as it occurs.`);
    });
  return (
    <section aria-label="The whole line" className="pb-4">
      <h2 className="flex items-baseline justify-between border-b border-strong pb-1">
        <span>The whole line</span>
        {busy ? (
          <BusyNote busy={busy} />
        ) : bill.ok ? (
          <span>
            <button type="button" className="mend mr-4 font-normal" onClick={() => void assembly()}>
              Assembly as STEP
            </button>
            <span className="label mr-2 font-normal">bill of materials</span>
            <button
              type="button"
              className="mend font-normal"
              aria-label="Bill of materials as CSV"
              onClick={() => download(named('bill', 'csv'), billCsv(bill.value), 'text/csv')}
            >
              CSV
            </button>
            <button
              type="button"
              className="mend ml-3 font-normal"
              aria-label="Bill of materials as Markdown"
              onClick={() => download(named('bill', 'md'), billMarkdown(bill.value, title), 'text/markdown')}
            >
              Markdown
            </button>
            <button type="button" className="mend ml-3 font-normal" onClick={() => void everything()}>
              Everything as one zip
            </button>
          </span>
        ) : null}
      </h2>
      <div className="grid grid-cols-2 gap-x-8 pt-2 pb-1">
        <QuantityField
          label="Joints to make"
          quantity="count"
          value={joints}
          min={1}
          max={1000}
          step={1}
          whole
          onChange={setJoints}
        />
        <QuantityField
          label="Bed, across"
          quantity="length"
          value={width}
          min={0.02}
          max={2}
          step={1e-2}
          onChange={setWidth}
        />
        <QuantityField
          label="Room between pieces"
          quantity="length"
          value={gap}
          min={0}
          max={0.05}
          step={1e-3}
          onChange={setGap}
        />
        <QuantityField
          label="Bed, deep"
          quantity="length"
          value={depth}
          min={0.02}
          max={2}
          step={1e-2}
          onChange={setDepth}
        />
      </div>
      <label className="flex items-center gap-2 pb-1">
        <input type="checkbox" checked={exact} onChange={(e) => setExact(e.target.checked)} />
        STEP of every stage in the zip as well; exact, and slower
      </label>
      {bill.ok ? (
        <>
          <Sum bill={bill.value} />
          <BillTable bill={bill.value} />
        </>
      ) : (
        <ProblemNote problem={bill.problem} />
      )}
      <p className="label pt-1">
        What is to be printed is laid out on plates by material, in the number needed, lying as it is drawn; what is
        made to its drawing (milled parts, printed pins) is not. Cables are not in it
        {variant.housing?.by === 'here' ? '' : ', nor is a housing'}.
      </p>
    </section>
  );
}
