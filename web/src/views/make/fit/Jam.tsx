import { formatQuantity, type Problem } from '@gristmill/core';
import { balanced, chanceJams, chanceLoose, playAsMade } from '@gristmill/core/fit/jam';
import { widened } from '@gristmill/core/fit/line-jam';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { ChoiceField } from '../../../parts/ChoiceField.tsx';
import { ProblemNote } from '../../../parts/ProblemNote.tsx';
import { QuantityField } from '../../../parts/QuantityField.tsx';
import { editVariant, useOpen, useVariant } from '../../../state/open.ts';
import { useUnits } from '../../../state/prefs.ts';
import { takeRefusal } from '../../../state/refusal.ts';
import { Straight, useWritten } from '../../../state/straight.tsx';
import { shelfNow } from '../../../state/shelf.ts';
import { SAMPLES, useJam } from '../../../workers/fits.ts';
import { JamPlot } from './JamPlot.tsx';
import { chance } from './Pairs.tsx';

/** How warm a joint usually gets above the room that its parts are measured in, K. */
const RISE = 15;

/** Whether what is made turns at all, and whether its play is what is asked: chances by drawing specimens. */
export const Jam = () => (
  <Straight>
    <Specimens />
  </Straight>
);

function Specimens() {
  const variant = useVariant();
  const readOnly = useOpen((s) => s.readOnly);
  const units = useUnits();
  const write = useWritten();
  const [moves, setMoves] = useState<number | undefined>();
  const [rise, setRise] = useState(RISE);
  const [weight, setWeight] = useState(1);
  const [by, setBy] = useState(0);
  const [refused, setRefused] = useState<Problem | undefined>();
  const stage = moves !== undefined && moves < variant.stages.length ? moves : undefined;
  const { jam, share, drawing, error } = useJam(stage, rise);
  const made = jam?.ok ? jam.value : undefined;
  const balance = useMemo(() => (made ? balanced(made.drawn, weight) : NaN), [made, weight]);
  if (variant.stages.length === 0) return null;
  const um = (v: number) => formatQuantity(v, 'length', { length: 'µm', ...units }, 3);
  const angle = (v: number) => write(v, 'smallAngle', 3);
  const movable = made?.stages.some((s) => s.movable) ?? false;
  const take = (allowance: number) => {
    const next = widened(variant.stages, allowance, stage, shelfNow());
    const bad = editVariant(`Gaps wider by ${um(allowance)}`, (v) => {
      for (const [k, params] of next) Object.assign(v.stages[k]!.params, params);
    });
    takeRefusal();
    setRefused(bad);
    if (bad) return;
    setBy(0);
    toast(`Every gap is ${allowance < 0 ? 'narrower' : 'wider'} by ${um(Math.abs(allowance))}; Ctrl+Z takes it back.`);
  };
  const [likely, low, high] = made ? playAsMade(made.drawn, by) : [0, 0, 0];
  return (
    <section aria-label="Jam and play" className="pb-4">
      <div className="flex flex-wrap items-baseline justify-between gap-2 border-b border-strong pb-1">
        <h2>
          Will it jam, will it rattle{' '}
          <span className="label font-normal">
            {SAMPLES.toLocaleString('en-GB').replace(/,/g, ' ')} specimens, drawn as{' '}
            {made?.processes.length ? made.processes.join(', ') : 'the shop’s usual spread'} scatters
          </span>
        </h2>
        {drawing ? (
          <span className="label" role="status">
            Drawing specimens: {(100 * share).toFixed(0)} %
          </span>
        ) : null}
      </div>
      {jam && !jam.ok ? <ProblemNote problem={jam.problem} /> : null}
      {refused ? <ProblemNote problem={refused} /> : null}
      {error ? <p role="alert">The specimens could not be drawn: {error.message}. Reload the page.</p> : null}
      {made ? (
        <div className="space-y-2 pt-1">
          <div>
            {movable ? (
              <JamPlot
                drawn={made.drawn}
                by={by}
                balance={balance}
                asked={Number.isFinite(made.asked)}
                onChange={(x) => (setRefused(undefined), setBy(x))}
              />
            ) : (
              <p className="label">
                No gap of this line is drawn here: belts run taut, bought units have theirs. There is nothing to move.
              </p>
            )}
            <p>
              {by === 0 ? 'As it is' : `With every gap ${by < 0 ? 'narrower' : 'wider'} by ${um(Math.abs(by))}`}:{' '}
              <b className="text-fail">{chance(chanceJams(made.drawn, by))}</b> jam
              {Number.isFinite(made.asked) ? (
                <>
                  , <b className="text-expected">{chance(chanceLoose(made.drawn, by))}</b> have more play than{' '}
                  {angle(made.asked)}
                </>
              ) : (
                '; the brief does not limit play'
              )}
              . Play {angle(likely)} ({angle(low)} … {angle(high)}).
            </p>
            <p className="label">
              Jams: somewhere round a turn a gap is used up by how far contours stand out, run-out, places and warmth,
              so that it binds until it has worn itself free, or does not go together.
            </p>
          </div>
          <div className="grid grid-cols-2 gap-x-6 gap-y-1">
            <ChoiceField
              label="Moves"
              value={stage ?? 'all'}
              options={[
                { value: 'all', label: 'every stage' },
                ...made.stages.flatMap((s, k) => (s.movable ? [{ value: k, label: s.name }] : [])),
              ]}
              onChange={(v) => setMoves(v === 'all' ? undefined : Number(v))}
            />
            <QuantityField
              label="Warmer by"
              quantity="temperatureRise"
              value={rise}
              min={0}
              max={120}
              step={5}
              digits={3}
              help="Above the room that its parts are measured in. Plastic grows by about 80 millionths a kelvin, metal by 14."
              onChange={setRise}
            />
            <QuantityField
              label="A jam is as bad as"
              quantity="count"
              value={weight}
              min={0.01}
              max={1000}
              step={1}
              digits={3}
              help="So many specimens with too much play."
              onChange={setWeight}
            />
            {movable && Number.isFinite(balance) ? (
              <p>
                Balanced at <b className="num">{um(balance)}</b>: {chance(chanceJams(made.drawn, balance))} jam,{' '}
                {chance(chanceLoose(made.drawn, balance))} loose.{' '}
                <button type="button" className="mend" onClick={() => setBy(Math.round(balance * 1e6) / 1e6)}>
                  Look there
                </button>
              </p>
            ) : null}
            {movable ? (
              <button type="button" className="btn" disabled={readOnly || by === 0} onClick={() => take(by)}>
                Take {by === 0 ? 'the chosen allowance' : um(by)}
              </button>
            ) : null}
          </div>
        </div>
      ) : null}
    </section>
  );
}
