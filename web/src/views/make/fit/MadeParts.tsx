import { formatQuantity, type FitReading, type Process } from '@gristmill/core';
import type { FitPartRow, FitSheet } from '@gristmill/core/fit/fit-sheet';
import { slipIn } from '@gristmill/core/fit/reading';
import { useState } from 'react';
import { ChoiceField } from '../../../parts/ChoiceField.tsx';
import { LengthInput } from '../../../parts/LengthInput.tsx';
import { Said } from '../../../parts/Said.tsx';
import { today } from '../../../state/bench.ts';
import { newId } from '../../../state/identifier.ts';
import { useOpen, useVariant } from '../../../state/open.ts';
import { useUnits } from '../../../state/prefs.ts';
import { useSaid } from '../../../state/said.ts';
import { makeBy, teach } from './keep.ts';

const ADVICE = [
  ['lies', 'lies'],
  ['support', 'supports'],
  ['walls', 'walls'],
  ['seam', 'seam'],
  ['bed', 'bed'],
  ['material', 'plastic'],
  ['after', 'after'],
] as const;

/** Sizes of a made part that tell its process: what is drawn, what is read. */
function Measure({ part, process }: { part: FitPartRow; process: Process }) {
  const units = useUnits();
  const said = useSaid();
  const [read, setRead] = useState<Readonly<Record<number, number | undefined>>>({});
  const [round, setRound] = useState(0);
  const readings = part.features.flatMap((f, i): FitReading[] => {
    const made = read[i];
    if (made === undefined) return [];
    const { name: _n, how: _h, ...rest } = f;
    return [{ ...rest, id: `${i}`, made, where: said(`${part.name}: ${f.name}`).slice(0, 400) }];
  });
  const slips = readings.flatMap((r) => slipIn(r) ?? []);
  return (
    <>
      <table className="w-full max-w-[44rem]" aria-label={`Measure ${said(part.name)}`} key={round}>
        <thead>
          <tr>
            <th>where</th>
            <th className="text-right">drawn</th>
            <th className="w-[92px] pr-0 text-right">read</th>
          </tr>
        </thead>
        <tbody>
          {part.features.map((f, i) => (
            <tr key={i} className="rule-b align-baseline">
              <td>
                <Said>{f.name}</Said>
                <span className="label block">{f.how}</span>
                {slips
                  .filter((s) => s.id === `${i}`)
                  .map((s) => (
                    <span key={s.id} className="block text-[12px] text-found">
                      <Said>{s.why}</Said>
                    </span>
                  ))}
              </td>
              <td className="num text-right">{formatQuantity(f.drawn, 'length', units, 6)}</td>
              <td className="pr-0">
                <LengthInput
                  label={`Read: ${said(f.name)} of ${said(part.name)}`}
                  onChange={(made) => setRead((r) => ({ ...r, [i]: made }))}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="py-1">
        <button
          type="button"
          className="btn"
          disabled={readings.length === 0}
          onClick={() => {
            const entry = {
              id: newId(),
              day: today(),
              from: 'part' as const,
              note: said(part.name).slice(0, 400),
              readings,
            };
            const says = `${process.name} has learnt from ${said(part.name)}; this joint has taken it over.`;
            if (!teach(process, entry, says)) return;
            setRead({});
            setRound(round + 1);
          }}
        >
          Teach {process.name}
        </button>{' '}
        <span className="label">
          a part that was made as drawn; one that was corrected before tells what the correction left
        </span>
      </p>
    </>
  );
}

function Row({ part, processes }: { part: FitPartRow; processes: readonly Process[] }) {
  const variant = useVariant();
  const readOnly = useOpen((s) => s.readOnly);
  const said = useSaid();
  const [open, setOpen] = useState(false);
  const process = processes.find((p) => p.id === part.process);
  const own = variant.making?.parts?.[part.key];
  return (
    <tbody className="rule-b" data-part={part.key}>
      <tr className="align-baseline">
        <td className="!pb-0">
          <b>
            <Said>{part.name}</Said>
          </b>{' '}
          <span className="label">{part.stage < 0 ? 'housing' : `stage ${part.stage + 1}`}</span>
        </td>
        <td>{part.material}</td>
        <td className="w-[16rem]">
          <ChoiceField
            label={`Made by, ${said(part.name)}`}
            hideLabel
            disabled={readOnly}
            value={own ?? ''}
            options={[
              { value: '', label: part.printed && process && !own ? `${process.name}` : 'as all others, or bought' },
              ...processes.map((p) => ({ value: p.id, label: `${p.name} (this part alone)` })),
            ]}
            onChange={(v) =>
              makeBy(
                `${said(part.name)} is made by`,
                (d) => {
                  const making = (d.making ??= { process: '' });
                  const parts = { ...making.parts };
                  if (v === '') delete parts[part.key];
                  else parts[part.key] = String(v);
                  making.parts = parts;
                },
                v === '' ? undefined : String(v),
              )
            }
          />
        </td>
      </tr>
      <tr>
        <td colSpan={3} className="!pt-0 pr-0">
          {part.advice ? (
            <dl className="grid grid-cols-[5rem_minmax(0,1fr)] text-[12.5px]">
              {ADVICE.map(([key, name]) =>
                part.advice![key] ? (
                  <div key={key} className="contents">
                    <dt className="label">{name}</dt>
                    <dd>
                      <Said>{part.advice![key]}</Said>
                    </dd>
                  </div>
                ) : null,
              )}
            </dl>
          ) : null}
          {process && part.features.length > 0 ? (
            <details onToggle={(e) => setOpen(e.currentTarget.open)}>
              <summary className="label cursor-pointer">Measure one that is made</summary>
              {open ? <Measure part={part} process={process} /> : null}
            </details>
          ) : null}
        </td>
      </tr>
    </tbody>
  );
}

/** Every made part: by which process, how it lies and is walled, and how it teaches its process. */
export function MadeParts({ sheet, processes }: { sheet: FitSheet; processes: readonly Process[] }) {
  if (sheet.parts.length === 0) return null;
  return (
    <section aria-label="How parts are made" className="pb-4">
      <div className="border-b border-strong pb-1">
        <h2>How each part is made</h2>
      </div>
      <table className="w-full">
        <thead>
          <tr>
            <th>part</th>
            <th>of</th>
            <th className="pr-0">by</th>
          </tr>
        </thead>
        {sheet.parts.map((p) => (
          <Row key={p.key} part={p} processes={processes} />
        ))}
      </table>
    </section>
  );
}
