import {
  OUTCOME_WORDS,
  OUTCOMES,
  parseQuantity,
  type BenchTest,
  type LadderResult,
  type Outcome,
  type PlayTest,
  type LadderTest,
  type Problem,
  type QuantityId,
} from '@gristmill/core';
import { useRef, useState, type FormEvent } from 'react';
import { QuantityText } from '../../parts/FigureText.tsx';
import { newId } from '../../state/identifier.ts';
import { useOpen } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { takeRefusal } from '../../state/refusal.ts';
import { editTest } from './RigFields.tsx';

/** Strikes a reading out with a reason, or lets it count again; nothing is ever removed. */
function Strike({ test, id, struck }: { test: BenchTest; id: string; struck: string | undefined }) {
  const [asking, setAsking] = useState(false);
  const readOnly = useOpen((s) => s.readOnly);
  const onStrike = (reason: string | undefined) =>
    editTest(test, reason === undefined ? 'Let a reading count' : 'Strike out a reading', (t) => {
      const reading = t.readings.find((r) => r.id === id);
      if (!reading) return;
      if (reason === undefined) delete reading.struck;
      else reading.struck = reason;
    });
  if (struck !== undefined) {
    return (
      <>
        <span className="label mr-2 inline-block no-underline">{struck}</span>
        {readOnly ? null : (
          <button type="button" className="btn-quiet" onClick={() => onStrike(undefined)}>
            Let it count
          </button>
        )}
      </>
    );
  }
  if (readOnly) return null;
  if (!asking)
    return (
      <button type="button" className="btn-quiet" onClick={() => setAsking(true)}>
        Strike out
      </button>
    );
  return (
    <form
      className="flex items-center justify-end gap-1"
      onSubmit={(e) => {
        e.preventDefault();
        const reason = (new FormData(e.currentTarget).get('why') as string).trim();
        onStrike(reason || 'no reason given');
        setAsking(false);
      }}
      onKeyDown={(e) => e.key === 'Escape' && (e.stopPropagation(), setAsking(false))}
    >
      {/* The field appears on request, for the reason that was asked for. */}
      <input
        name="why"
        autoFocus
        aria-label="Why it is struck out"
        placeholder="why?"
        maxLength={200}
        className="w-32 border-b border-dotted border-muted bg-transparent"
      />
      <button type="submit" className="btn-quiet">
        Strike
      </button>
    </form>
  );
}

/** The last cells of every reading: what was typed, and whether it counts. */
const AsEntered = ({ test, reading }: { test: BenchTest; reading: BenchTest['readings'][number] }) => (
  <>
    <td className="num whitespace-nowrap">{reading.text}</td>
    <td className="pr-0 text-right no-underline">
      <Strike test={test} id={reading.id} struck={reading.struck} />
    </td>
  </>
);

/** Reads one typed value for the entry row. */
function take(text: string, quantity: QuantityId, unit: string | undefined, name: string): { si: number } | Problem {
  const parsed = parseQuantity(text, quantity, unit);
  if (!parsed.ok) return { ...parsed.problem, what: `${name}: ${parsed.problem.what}` };
  return { si: parsed.value.si };
}

const isProblem = (x: { si: number } | Problem): x is Problem => 'what' in x;

function EntryProblem({ problem }: { problem: Problem | undefined }) {
  return problem ? (
    <p role="alert" className="pb-1 text-[12.5px] text-fail">
      {problem.what} {problem.why} {problem.mend}
    </p>
  ) : null;
}

const entry = 'field-input !text-left !w-24';

export function PlayReadings({ test }: { test: PlayTest }) {
  const units = useUnits();
  const readOnly = useOpen((s) => s.readOnly);
  const [problem, setProblem] = useState<Problem | undefined>();
  const first = useRef<HTMLInputElement>(null);
  const add = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const data = new FormData(form);
    const typed = String(data.get('difference'));
    const angle = take(String(data.get('angle') || '0'), 'angle', units.angle, 'Output angle');
    const difference = take(typed, 'length', units.length, 'Difference');
    if (isProblem(angle)) return setProblem(angle);
    if (isProblem(difference)) return setProblem(difference);
    if (difference.si < 0)
      return setProblem({
        what: 'Difference: it is negative.',
        why: 'It is the distance between the two ends of the push.',
        mend: 'Type it without the sign.',
      });
    if (difference.si > 2 * test.rig.lever)
      return setProblem({
        what: `Difference: ${typed} is longer than the lever can swing.`,
        why: 'A point at the lever’s radius moves at most twice that radius.',
        mend: 'Check the unit, and the lever’s radius.',
      });
    const refused = editTest(
      test,
      'Add reading',
      (t) => void t.readings.push({ id: newId(), angle: angle.si, difference: difference.si, text: typed }),
    );
    setProblem(refused && takeRefusal());
    if (refused) return;
    (form.elements.namedItem('difference') as HTMLInputElement).value = '';
    (form.elements.namedItem('difference') as HTMLInputElement).focus();
  };
  return (
    <section aria-label="Readings">
      <table className="w-full [&_td]:py-[2px]">
        <thead>
          <tr className="border-b border-strong">
            <th className="whitespace-nowrap">output angle</th>
            <th>difference</th>
            <th className="whitespace-nowrap">as entered</th>
            <th>
              <span className="sr-only">Strike out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {test.readings.map((r) => (
            <tr key={r.id} className={`rule-b ${r.struck !== undefined ? 'text-muted line-through decoration-1' : ''}`}>
              <td>
                <QuantityText value={r.angle} quantity="angle" />
              </td>
              <td className="whitespace-nowrap">
                <QuantityText value={r.difference} quantity="length" />
              </td>
              <AsEntered test={test} reading={r} />
            </tr>
          ))}
        </tbody>
      </table>
      {readOnly ? null : (
        <form className="flex flex-wrap items-baseline gap-3 py-2" onSubmit={add} aria-label="Add a reading">
          <label>
            at{' '}
            <input
              ref={first}
              name="angle"
              className={entry}
              defaultValue="0°"
              autoComplete="off"
              aria-label="Output angle"
            />
          </label>
          <label>
            difference{' '}
            <input
              name="difference"
              className={entry}
              placeholder="0.43 mm"
              autoComplete="off"
              aria-label="Difference"
            />
          </label>
          <button type="submit" className="btn">
            Add reading
          </button>
        </form>
      )}
      <EntryProblem problem={problem} />
    </section>
  );
}

export function LadderReadings({ test, result }: { test: LadderTest; result: LadderResult | undefined }) {
  const units = useUnits();
  const readOnly = useOpen((s) => s.readOnly);
  const [problem, setProblem] = useState<Problem | undefined>();
  const add = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const data = new FormData(form);
    const typed = String(data.get('mass'));
    const mass = take(typed, 'mass', units.mass, 'Mass');
    if (isProblem(mass)) return setProblem(mass);
    if (mass.si < 0 || mass.si > 1e4)
      return setProblem({
        what: `Mass: ${typed} cannot be hung.`,
        why: 'It must be between nothing and ten tonnes.',
        mend: 'Type the mass without the basket.',
      });
    const refused = editTest(
      test,
      'Add rung',
      (t) => void t.readings.push({ id: newId(), mass: mass.si, outcome: data.get('outcome') as Outcome, text: typed }),
    );
    setProblem(refused && takeRefusal());
    if (refused) return;
    (form.elements.namedItem('mass') as HTMLInputElement).value = '';
    (form.elements.namedItem('mass') as HTMLInputElement).focus();
  };
  return (
    <section aria-label="Readings">
      <table className="w-full [&_td]:py-[2px]">
        <thead>
          <tr className="border-b border-strong">
            <th>mass hung</th>
            <th>torque</th>
            <th>outcome</th>
            <th className="whitespace-nowrap">as entered</th>
            <th>
              <span className="sr-only">Strike out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {test.readings.map((r) => {
            const rung = result?.rungs.find((x) => x.id === r.id);
            return (
              <tr
                key={r.id}
                className={`rule-b ${r.struck !== undefined ? 'text-muted line-through decoration-1' : ''}`}
              >
                <td>
                  <QuantityText value={r.mass} quantity="mass" />
                </td>
                <td>{rung ? <QuantityText value={rung.torque} quantity="torque" /> : ''}</td>
                <td>{OUTCOME_WORDS[r.outcome]}</td>
                <AsEntered test={test} reading={r} />
              </tr>
            );
          })}
        </tbody>
      </table>
      {readOnly ? null : (
        <form className="flex flex-wrap items-baseline gap-3 py-2" onSubmit={add} aria-label="Add a rung">
          <label>
            mass <input name="mass" className={entry} placeholder="2.5 kg" autoComplete="off" aria-label="Mass hung" />
          </label>
          <label>
            what happened{' '}
            <select name="outcome" className="select" aria-label="What happened">
              {OUTCOMES.map((o) => (
                <option key={o} value={o}>
                  {OUTCOME_WORDS[o]}
                </option>
              ))}
            </select>
          </label>
          <button type="submit" className="btn">
            Add rung
          </button>
        </form>
      )}
      <EntryProblem problem={problem} />
    </section>
  );
}

export const readingCount = (t: BenchTest): number => t.readings.filter((r) => r.struck === undefined).length;
