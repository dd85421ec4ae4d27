import { formatQuantity, type Attempt, type Build, type Process } from '@gristmill/core';
import { attemptEntry, attemptSays } from '@gristmill/core/fit/attempts';
import type { FitSheet } from '@gristmill/core/fit/fit-sheet';
import { fitHistory } from '@gristmill/core/fit/process-fit';
import { useState } from 'react';
import { ChoiceField, TextField } from '../../../parts/ChoiceField.tsx';
import { QuantityField } from '../../../parts/QuantityField.tsx';
import { Said } from '../../../parts/Said.tsx';
import { today } from '../../../state/bench.ts';
import { newId } from '../../../state/identifier.ts';
import { useOpen } from '../../../state/open.ts';
import { useUnits } from '../../../state/prefs.ts';
import { useSaid } from '../../../state/said.ts';
import { teach } from './keep.ts';

const HOW = [
  { value: 'tight', label: 'too tight' },
  { value: 'fits', label: 'it fitted' },
  { value: 'loose', label: 'too loose' },
];
const BLAME: Readonly<Record<string, string>> = {
  process: 'the process',
  design: 'the design',
  both: 'both',
  none: 'nothing',
  open: 'not settled',
};

/** What one would have to know of a process to judge an attempt by it. */
const known = (process: Process | undefined) => {
  const made = process && fitHistory(process, today());
  return process && made?.ok ? { process, fit: made.value.now } : undefined;
};

/** What was tried until the parts of a build fitted, and whether the process or the design was off. */
export function Attempts({
  build,
  builds,
  onBuild,
  sheet,
  processes,
}: {
  build: Build;
  builds: readonly Build[];
  onBuild: (id: string) => void;
  sheet: FitSheet;
  processes: readonly Process[];
}) {
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const units = useUnits();
  const said = useSaid();
  const parts = sheet.parts.filter((p) => p.process !== undefined);
  const [key, setKey] = useState<string | undefined>();
  const part = parts.find((p) => p.key === key) ?? parts[0];
  const features = part?.features ?? [];
  const [which, setWhich] = useState(0);
  const feature = features[Math.min(which, features.length - 1)];
  const [was, setWas] = useState<Attempt['was']>('tight');
  const [ends, setEnds] = useState<Attempt['ends']>('fits');
  const [took, setTook] = useState(1e-4);
  const [note, setNote] = useState('');
  const list = build.attempts ?? [];
  const change = (label: string, recipe: (attempts: Attempt[]) => Attempt[]) =>
    edit(label, (d) => {
      const own = d.builds.find((b) => b.id === build.id)!;
      own.attempts = recipe([...(own.attempts ?? [])] as Attempt[]);
    });
  const add = () => {
    if (!part || !feature) return;
    const process = processes.find((p) => p.id === part.process)!;
    const attempt: Attempt = {
      id: newId(),
      day: today(),
      part: part.key,
      name: said(`${part.name}, ${feature.name}`).slice(0, 400),
      process: part.process!,
      compensated: process.compensates !== 'none',
      feature: feature.feature === 'hole' ? 'hole' : 'outside',
      drawn: feature.drawn,
      was,
      took,
      ends,
      note,
    };
    change(`Attempt at ${said(part.name)}`, (a) => [...a, attempt]);
    setNote('');
  };
  return (
    <section aria-label="Attempts" className="pb-4">
      <div className="flex items-baseline justify-between border-b border-strong pb-1">
        <h2>
          What it took <span className="label font-normal">a retry is a measurement too</span>
        </h2>
        <ChoiceField
          label="Build"
          value={build.id}
          options={builds.map((b) => ({ value: b.id, label: b.name }))}
          onChange={(v) => onBuild(String(v))}
        />
      </div>
      {list.length > 0 ? (
        <table className="w-full" aria-label="What was tried">
          <thead>
            <tr>
              <th>part</th>
              <th>it came, and is</th>
              <th className="text-right">off a side</th>
              <th className="pl-3">it was</th>
              <th>
                <span className="sr-only">Change</span>
              </th>
            </tr>
          </thead>
          {list.map((a) => {
            const process = processes.find((p) => p.id === a.process);
            const made = known(process);
            const says = attemptSays(a, made);
            const used = made ? (a.feature === 'hole' ? made.fit.into.value : made.fit.out.value) : 0;
            const id = `${build.id}-${a.id}`;
            const entry = attemptEntry(a, id, used);
            const told = process?.fits.some((e) => e.id === id);
            return (
              <tbody key={a.id} className="rule-b" data-attempt={a.id}>
                <tr className="align-baseline">
                  <td>
                    {a.name} <span className="label num">{a.day}</span>
                  </td>
                  <td>
                    {HOW.find((h) => h.value === a.was)!.label}
                    {a.took === 0 ? '' : `; ${HOW.find((h) => h.value === a.ends)!.label}`}
                  </td>
                  <td className="num whitespace-nowrap text-right">
                    {a.took === 0 ? '—' : formatQuantity(a.took, 'length', { length: 'µm', ...units }, 3)}
                  </td>
                  <td className="whitespace-nowrap pl-3">
                    <b>{BLAME[says.blame]}</b>
                  </td>
                  <td className="whitespace-nowrap pr-0 text-right">
                    {entry && process ? (
                      told ? (
                        <span className="label">taught</span>
                      ) : (
                        <button
                          type="button"
                          className="mend"
                          aria-label={`Teach ${process.name} by ${a.name}`}
                          onClick={() =>
                            void teach(
                              process,
                              entry,
                              `${process.name} has learnt from it; this joint has taken it over.`,
                            )
                          }
                        >
                          Teach
                        </button>
                      )
                    ) : null}{' '}
                    <button
                      type="button"
                      className="btn-quiet"
                      aria-label={`Remove the attempt at ${a.name}`}
                      disabled={readOnly}
                      onClick={() => change('Remove an attempt', (all) => all.filter((x) => x.id !== a.id))}
                    >
                      Remove
                    </button>
                  </td>
                </tr>
                <tr>
                  <td colSpan={5} className="label !pt-0">
                    <Said>{says.says}</Said> {a.note}
                  </td>
                </tr>
              </tbody>
            );
          })}
        </table>
      ) : (
        <p className="label">
          Filed, reamed, shimmed with tape? Write it down: it refines the process, and tells whether the process or the
          drawing was off.
        </p>
      )}
      {part && feature ? (
        <div className="grid grid-cols-2 gap-x-6 gap-y-1 pt-2">
          <ChoiceField
            label="Part"
            value={part.key}
            options={parts.map((p) => ({ value: p.key, label: said(p.name) }))}
            onChange={(v) => (setKey(String(v)), setWhich(0))}
          />
          <ChoiceField
            label="Face"
            value={Math.min(which, features.length - 1)}
            options={features.map((f, i) => ({ value: i, label: said(f.name) }))}
            onChange={(v) => setWhich(Number(v))}
          />
          <ChoiceField label="It came" value={was} options={HOW} onChange={(v) => setWas(v as Attempt['was'])} />
          <QuantityField
            label="Taken off a side"
            quantity="length"
            value={took}
            min={-0.01}
            max={0.01}
            step={1e-5}
            help="Below 0 for what was put on, such as a turn of tape."
            onChange={setTook}
          />
          <ChoiceField label="Now" value={ends} options={HOW} onChange={(v) => setEnds(v as Attempt['ends'])} />
          <TextField label="Note" value={note} maxLength={400} placeholder="filed, reamed, tape" onChange={setNote} />
          <button type="button" className="btn mt-1 justify-self-start" disabled={readOnly} onClick={add}>
            Log this attempt
          </button>
        </div>
      ) : (
        <p className="label">Choose a process first.</p>
      )}
    </section>
  );
}
