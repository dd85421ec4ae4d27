import {
  alongAxis,
  atOutput,
  formatBanded,
  formatQuantity,
  nameAlong,
  plainNumber,
  sayBanded,
  sayUncertain,
  travelOf,
  type Figure,
  type FigureAddress,
  type Origin,
} from '@gristmill/core';
import { Dialog } from 'radix-ui';
import { useBackCloses } from '../app/back-closes.ts';
import { useWorking, type WorkingSubject } from '../app/working.ts';
import { useOpen } from '../state/open.ts';
import { useUnits } from '../state/prefs.ts';
import { useMovers } from '../workers/queries.ts';
import { useWorkingOf } from '../workers/workings.ts';
import { Scale } from './Scale.tsx';
import { Said } from './Said.tsx';

const ORIGIN: Record<Origin, string> = {
  brief: 'brief',
  field: 'entered',
  motor: 'motor',
  shop: 'shop',
  computed: 'worked out',
  measured: 'measured',
  definition: 'definition',
};

function Movers({ at }: { at: FigureAddress }) {
  const { movers, progress, error } = useMovers(at);
  if (error)
    return <p className="text-fail">What moves it could not be worked out. Close and open the working to try again.</p>;
  if (!movers)
    return (
      <p className="label" aria-live="polite">
        Trying every input… {Math.round(progress * 100)} %
      </p>
    );
  if (movers.length === 0) return <p className="label">No input a person can set moves it.</p>;
  return (
    <ol>
      {movers.map((m) => (
        <li key={m.group + m.label} className="flex justify-between gap-4 py-0.5">
          <span>
            {m.label} <span className="label">{m.group}</span>
          </span>
          <span className="num">
            {m.step} → {m.change > 0 ? '+' : '−'}
            {plainNumber(Math.abs(m.change) * 100, 2)} %
          </span>
        </li>
      ))}
    </ol>
  );
}

/** Formula, terms and source of a figure. */
function HowItCame({ figure }: { figure: Figure }) {
  const units = useUnits();
  const { working, error } = useWorkingOf(figure);
  if (error || working === null)
    return (
      <p className="pt-4 text-fail">The working could not be worked out. Close it and open it again from its view.</p>
    );
  if (!working)
    return (
      <p className="label pt-4" aria-live="polite">
        Putting the working into words…
      </p>
    );
  return (
    <>
      <h2 className="pt-4">Formula</h2>
      <p className="num py-1 text-[13px]">
        <Said>{working.formula}</Said>
      </p>
      <h2 className="pt-3">Terms</h2>
      <table className="w-full">
        <tbody>
          {working.terms.map((t, i) => (
            <tr key={i} className="rule-b">
              <td className="num whitespace-nowrap">{t.symbol}</td>
              <td>
                <Said>{t.name}</Said>
              </td>
              <td className="num whitespace-nowrap text-right">
                {Number.isFinite(t.value) ? formatQuantity(t.value, t.quantity, units, 4) : '—'}
              </td>
              <td className="label whitespace-nowrap text-right">{ORIGIN[t.origin]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2 className="pt-3">Source</h2>
      <p>
        <Said>{working.source}</Said>
      </p>
      {working.note ? (
        <p className="pt-1 text-muted">
          <Said>{working.note}</Said>
        </p>
      ) : null}
    </>
  );
}

/** Travel for a radian of what is opened, m, where it is of the output of a line that runs straight. */
function useArm(subject: WorkingSubject | undefined): number | undefined {
  const brief = useOpen((s) => s.joint?.brief);
  if (!brief || subject?.kind !== 'expected' || !subject.at) return undefined;
  return subject.at.stageId === undefined && atOutput(subject.figure.id) ? travelOf(brief) : undefined;
}

/** The figure's value; of a straight axis along it, and about the arm that the working counts with. */
function Headline({ figure, arm }: { figure: Figure; arm: number | undefined }) {
  const units = useUnits();
  const told = alongAxis(figure, arm);
  const t = formatBanded(told, told.quantity, units);
  return (
    <>
      <p className="num pt-1 text-[20px] text-expected">{`${t.value} ${t.unit} ${t.band}`}</p>
      {told === figure ? null : (
        <p className="label">
          Worked out below about the brief’s arm of {formatQuantity(arm!, 'length', units, 4)}:{' '}
          {sayBanded(figure, figure.quantity, units)}.
        </p>
      )}
    </>
  );
}

/** The working of the figure that was opened: formula, terms with their origin, source, and what would move it most. */
export function WorkingPanel() {
  const { subject, close } = useWorking();
  const units = useUnits();
  const arm = useArm(subject);
  useBackCloses('working', subject !== undefined, close);
  return (
    <Dialog.Root open={subject !== undefined} onOpenChange={(open) => (open ? undefined : close())}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/15" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed bottom-0 right-0 top-0 z-30 w-[min(470px,94vw)] overflow-y-auto border-l border-strong bg-panel px-5 py-4"
        >
          {subject?.kind === 'expected' ? (
            <>
              <div className="flex items-baseline justify-between">
                <Dialog.Title className="text-[16px] font-semibold">
                  <Said>{nameAlong(subject.figure.name, arm)}</Said>
                </Dialog.Title>
                <Dialog.Close className="btn-quiet">Close</Dialog.Close>
              </div>
              <Headline figure={subject.figure} arm={arm} />
              <p className="label">
                {subject.figure.high > subject.figure.low
                  ? 'Expected, with the band that about 95 % of specimens should fall in.'
                  : 'Expected; nothing uncertain goes into it.'}
              </p>
              <HowItCame figure={subject.figure} />
              {subject.at ? (
                <>
                  <h2 className="pt-3">What moves it most</h2>
                  <Movers at={subject.at} />
                </>
              ) : null}
            </>
          ) : subject ? (
            <>
              <div className="flex items-baseline justify-between">
                <Dialog.Title className="text-[16px] font-semibold">Found {subject.name}</Dialog.Title>
                <Dialog.Close className="btn-quiet">Close</Dialog.Close>
              </div>
              <p className="num pt-1 text-[20px] text-found">
                {sayUncertain(subject.found.value, subject.found.U, subject.found.quantity, units)}
              </p>
              <p className="label">
                Expanded uncertainty for 95 %, k = {subject.found.k.toFixed(2)}
                {Number.isFinite(subject.found.dof)
                  ? `, ${subject.found.dof.toFixed(1)} effective degrees of freedom`
                  : ''}
                .
              </p>
              <Scale label="found" width={420} found={{ value: subject.found.value, U: subject.found.U }} />
              <h2 className="pt-4">Formula</h2>
              <p className="num py-1 text-[13px]">
                <Said>{subject.formula}</Said>
              </p>
              <h2 className="pt-3">Where the uncertainty comes from</h2>
              <table className="w-full">
                <tbody>
                  {subject.found.budget.map((c) => (
                    <tr key={c.id} className="rule-b">
                      <td>
                        <Said>{c.name}</Said>
                      </td>
                      <td className="num whitespace-nowrap text-right">
                        {formatQuantity(c.u, subject.found.quantity, units, 2)}
                      </td>
                      <td className="num text-right text-muted">
                        {subject.found.u > 0 ? Math.round((c.u / subject.found.u) ** 2 * 100) : 0} %
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <h2 className="pt-3">Source</h2>
              <p>
                <Said>{subject.source}</Said>
              </p>
            </>
          ) : null}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
