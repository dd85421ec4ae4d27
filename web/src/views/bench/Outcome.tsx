import {
  formatQuantity,
  LIMIT_KINDS,
  sayDifference,
  type BenchTest,
  type Figure,
  type Finding,
  type TestResult,
  type BuiltOf,
} from '@gristmill/core';
import { FigureText, FoundText, QuantityText } from '../../parts/FigureText.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { Scale } from '../../parts/Scale.tsx';
import { foundSource } from '../../parts/words.ts';
import { useUnits } from '../../state/prefs.ts';
import { editTest } from './edit-test.ts';
import { SlipMend } from './SlipMend.tsx';
import { Said } from '../../parts/Said.tsx';

/** What was tried in turn: carried below, not carried above, the bracket between. */
export function Rungs({ rungs }: { rungs: NonNullable<TestResult['rungs']> }) {
  const units = useUnits();
  const list = [...rungs.list].sort((a, b) => a.value - b.value);
  const of = (says: string) => list.filter((r) => r.says === says).map((r) => r.value);
  const [most, least] = [Math.max(...of('good')), Math.min(...of('bad'))];
  const top = Math.max(...list.map((r) => r.value)) * 1.08;
  const x = (t: number) => 14 + (t / top) * 360;
  return (
    <svg
      viewBox="0 0 390 74"
      role="img"
      aria-label="Rungs by size, carried or not"
      className="block w-full max-w-[440px]"
    >
      <line x1="8" x2="385" y1="40" y2="40" stroke="var(--rule)" />
      {Number.isFinite(most) && Number.isFinite(least) ? (
        <rect
          x={Math.min(x(most), x(least))}
          y="30"
          width={Math.max(2, Math.abs(x(least) - x(most)))}
          height="20"
          fill="none"
          stroke="var(--found)"
          strokeDasharray="3 2"
        />
      ) : null}
      {list.map((r) => (
        <g key={r.id}>
          {r.says === 'good' ? (
            <circle cx={x(r.value)} cy="40" r="4.5" fill="var(--found)" />
          ) : (
            <path
              d={`M${x(r.value) - 5} 35l10 10M${x(r.value) + 5} 35l-10 10`}
              stroke={r.says === 'bad' ? 'var(--fail)' : 'var(--muted)'}
              strokeWidth="2.2"
            />
          )}
          {(r.says === 'good' && r.value === most) || (r.says === 'bad' && r.value === least) ? (
            <text
              x={x(r.value)}
              y={r.says === 'good' ? 64 : 22}
              fontSize="11"
              textAnchor="middle"
              className="num"
              fill="var(--muted)"
            >
              {formatQuantity(r.value, rungs.quantity, units, 3)}
            </text>
          ) : null}
        </g>
      ))}
    </svg>
  );
}

interface OutcomeProps {
  readonly test: BenchTest;
  readonly finding: Finding | undefined;
  readonly expected: Figure | undefined;
  readonly asked: { value: number; sense: 'min' | 'max' } | undefined;
  /** What was built. */
  readonly of: BuiltOf;
}

/** The figure a test found, against expected and asked, in words, with questions about slips. */
export function Headline({ test, finding, expected, asked, of }: OutcomeProps) {
  const units = useUnits();
  if (!finding) return <p className="label">Working it out…</p>;
  // A test may end in words: what it says stands in place of a figure.
  if (!finding.found && !finding.problem)
    return (
      <p className="py-1">
        <Said>{finding.result?.says ?? 'It ends without a figure.'}</Said>
      </p>
    );
  if (!finding.found)
    return test.readings.length === 0 && !test.recording ? (
      <p className="label py-1">
        <Said>{`${finding.problem?.what} ${finding.problem?.mend}`}</Said>
      </p>
    ) : (
      <div className="py-1">
        <ProblemNote problem={finding.problem!} />
      </div>
    );
  const kind = finding.row && LIMIT_KINDS[finding.row];
  return (
    <section aria-label="Result" className="space-y-1.5 border-y border-strong py-2">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <span className="outcome text-[19px]">
          <FoundText
            name={kind?.name.toLowerCase() ?? finding.result?.figures[0]?.name.toLowerCase() ?? 'result'}
            found={finding.found}
            bound={finding.bound}
            {...foundSource(finding)}
          />
        </span>
        {kind ? (
          <Scale
            width={170}
            label={`${kind.name}: asked, expected and found`}
            asked={asked}
            expected={expected}
            found={{ value: finding.found.value, U: finding.found.U, bound: finding.bound }}
          />
        ) : null}
        {expected ? (
          <span className="label">
            expected{' '}
            <FigureText figure={expected} at={{ stageId: undefined, figureId: expected.id }} className="text-[13px]" />
          </span>
        ) : null}
      </div>
      {finding.result ? (
        <p>
          <Said>{finding.result.says}</Said>
        </p>
      ) : null}
      {finding.row ? <p data-difference="">{sayDifference(finding.row, finding, expected, units, of)}</p> : null}
      {finding.slips.map((s) => (
        <p key={s.id} role="note" className="border-l-3 border-near bg-serious px-3 py-1.5" data-slip={s.id}>
          <Said>{s.ask}</Said> It would make <QuantityText value={s.value} quantity={kind!.quantity} />, close to what
          is expected. {s.correction ? <SlipMend test={test} correction={s.correction} /> : null}
        </p>
      ))}
      {finding.result?.next ? (
        <p>
          Try <QuantityText {...finding.result.next} /> next.
        </p>
      ) : null}
      {finding.result?.rungs ? <Rungs rungs={finding.result.rungs} /> : null}
    </section>
  );
}

/** What is said about a test in words. */
export function Notes({ test }: { test: BenchTest }) {
  return (
    <label className="block pt-1">
      Notes
      <textarea
        key={test.notes}
        defaultValue={test.notes}
        rows={2}
        maxLength={20000}
        className="mt-0.5 block w-full border border-rule bg-transparent p-1"
        onBlur={(e) =>
          e.target.value !== test.notes && editTest(test.id, 'Notes of a test', (t) => void (t.notes = e.target.value))
        }
      />
    </label>
  );
}
