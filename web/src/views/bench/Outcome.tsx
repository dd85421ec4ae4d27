import {
  formatQuantity,
  LIMIT_KINDS,
  OUTCOME_WORDS,
  sayDifference,
  type BenchTest,
  type Figure,
  type Finding,
} from '@gristmill/core';
import { FigureText, FoundText, QuantityText } from '../../parts/FigureText.tsx';
import { LazyPlot } from '../../parts/LazyPlot.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { Scale } from '../../parts/Scale.tsx';
import { foundSource } from '../../parts/words.ts';
import { useUnits } from '../../state/prefs.ts';
import { editNotes } from './RigFields.tsx';
import { SlipMend } from './SlipMend.tsx';

/** The rungs as a ladder: carried below, not carried above, the bracket between. */
function Ladder({ finding }: { finding: Finding }) {
  const units = useUnits();
  const ladder = finding.ladder!;
  const counted = ladder.rungs.filter((r) => r.struck === undefined).sort((a, b) => a.torque - b.torque);
  const top = Math.max(...counted.map((r) => r.torque)) * 1.08;
  const x = (t: number) => 14 + (t / top) * 360;
  return (
    <svg
      viewBox="0 0 390 74"
      role="img"
      aria-label="Rungs by torque, carried or not"
      className="block w-full max-w-[440px]"
    >
      <line x1="8" x2="385" y1="40" y2="40" stroke="var(--rule)" />
      {ladder.bestGood !== undefined && ladder.leastBad !== undefined ? (
        <rect
          x={Math.min(x(ladder.bestGood), x(ladder.leastBad))}
          y="30"
          width={Math.max(2, Math.abs(x(ladder.leastBad) - x(ladder.bestGood)))}
          height="20"
          fill="none"
          stroke="var(--found)"
          strokeDasharray="3 2"
        />
      ) : null}
      {counted.map((r) => {
        const good = r.outcome === 'lifted' || r.outcome === 'held';
        return (
          <g key={r.id}>
            {good ? (
              <circle cx={x(r.torque)} cy="40" r="4.5" fill="var(--found)" />
            ) : (
              <path
                d={`M${x(r.torque) - 5} 35l10 10M${x(r.torque) + 5} 35l-10 10`}
                stroke="var(--fail)"
                strokeWidth="2.2"
              />
            )}
            {r.torque === ladder.bestGood || r.torque === ladder.leastBad ? (
              <text
                x={x(r.torque)}
                y={good ? 64 : 22}
                fontSize="11"
                textAnchor="middle"
                className="num"
                fill="var(--muted)"
              >
                {formatQuantity(r.torque, 'torque', units, 3)}
              </text>
            ) : null}
          </g>
        );
      })}
    </svg>
  );
}

interface OutcomeProps {
  readonly test: BenchTest;
  readonly finding: Finding | undefined;
  readonly expected: Figure | undefined;
  readonly asked: { value: number; sense: 'min' | 'max' } | undefined;
}

/** The figure a test found, against expected and asked, in words, with questions about slips. */
export function Headline({ test, finding, expected, asked }: OutcomeProps) {
  const units = useUnits();
  if (!finding) return <p className="label">Working it out…</p>;
  if (!finding.found)
    return test.readings.length === 0 && !('recording' in test && test.recording) ? (
      <p className="label py-1">
        {finding.problem?.what} {finding.problem?.mend}
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
        <span className="text-[19px]">
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
      {finding.result ? <p>{finding.result.says}</p> : null}
      {finding.row ? <p data-difference="">{sayDifference(finding.row, finding, expected, units)}</p> : null}
      {finding.slips.map((s) => (
        <p key={s.id} role="note" className="border-l-3 border-near bg-serious px-3 py-1.5" data-slip={s.id}>
          {s.ask} It would make <QuantityText value={s.value} quantity={kind!.quantity} />, close to what is expected.{' '}
          <SlipMend test={test} slip={s} found={finding.found!.value} />
        </p>
      ))}
      {finding.ladder?.nextMass !== undefined ? (
        <p>
          Try <QuantityText value={finding.ladder.nextMass} quantity="mass" /> next.
        </p>
      ) : null}
    </section>
  );
}

/** What lies behind the figure: a plot, the uncertainty's largest part, and what to read next. */
export function Detail({ test, finding, asked }: Omit<OutcomeProps, 'expected'>) {
  if (!finding?.found) return null;
  const advice = finding.play?.advice ?? finding.ladder?.advice ?? [];
  const play = finding.play;
  return (
    <section aria-label="What it rests on" className="space-y-2">
      {play ? (
        <>
          <p>
            Mean of {play.counted} reading{play.counted === 1 ? '' : 's'}
            {play.struck ? `, ${play.struck} struck out` : ''}; worst{' '}
            <QuantityText value={play.worst.play} quantity="smallAngle" /> at{' '}
            <QuantityText value={play.worst.angle} quantity="angle" />.
            {play.windUp > 0 ? (
              <>
                {' '}
                Wind-up of the push taken out: <QuantityText value={play.windUp} quantity="smallAngle" />.
              </>
            ) : null}
          </p>
          {play.perAngle.length > 1 ? (
            <div className="h-[190px]">
              <LazyPlot
                name="Play at each output angle"
                x="angle"
                y="smallAngle"
                xName="output angle"
                yName="play"
                series={[
                  {
                    key: 'play',
                    name: 'play',
                    x: play.perAngle.map((a) => a.angle),
                    y: play.perAngle.map((a) => a.play),
                    colour: 'var(--found)',
                    width: 1,
                  },
                ]}
                marks={play.perAngle.map((a) => ({ name: '', x: a.angle, y: a.play, ok: true }))}
                level={asked ? { name: 'asked', y: asked.value } : undefined}
              />
            </div>
          ) : null}
        </>
      ) : null}
      {finding.ladder ? (
        <>
          <Ladder finding={finding} />
          <p>
            {finding.ladder.bestGood !== undefined ? (
              <>
                Carried up to <QuantityText value={finding.ladder.bestGood} quantity="torque" />.{' '}
              </>
            ) : null}
            {finding.ladder.leastBad !== undefined ? (
              <>
                At <QuantityText value={finding.ladder.leastBad} quantity="torque" /> it{' '}
                {OUTCOME_WORDS[finding.ladder.mode!]}.{' '}
              </>
            ) : null}
          </p>
        </>
      ) : null}
      {finding.found.dominant ? (
        <p>
          Uncertainty: mostly the <b>{finding.found.dominant.name}</b> (
          {Math.round((finding.found.dominant.u / finding.found.u) ** 2 * 100)} % of it).
        </p>
      ) : null}
      {advice.length ? (
        <ul className="list-disc pl-5 text-[13px]" aria-label="What to read next">
          {advice.map((a) => (
            <li key={a}>{a}</li>
          ))}
        </ul>
      ) : null}
      <Notes test={test} />
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
        onBlur={(e) => e.target.value !== test.notes && editNotes(test.id, e.target.value)}
      />
    </label>
  );
}
