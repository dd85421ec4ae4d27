import { fromSi, plainNumber, unitGap, type LineReport } from '@gristmill/core';
import { useWorking } from '../../app/working.ts';
import { LazyPlot } from '../../parts/LazyPlot.tsx';
import { useVariant } from '../../state/open.ts';
import { AllStraight, LimitName, useTold, useToldUnit, useWritten } from '../../state/straight.tsx';
import { useLine, usePlaySpread } from '../../workers/queries.ts';
import { sharesOf, type ShareSet } from './shares.ts';

const SAMPLES = 100_000;

/** One waterfall: each part begins where the one before ended. */
function Waterfall({ set, report }: { set: ShareSet; report: LineReport }) {
  const open = useWorking((s) => s.open);
  const total = set.parts.reduce((m, p) => m + p.value, 0);
  const unit = useToldUnit(set.quantity);
  const write = (v: number) => plainNumber(fromSi(v, unit), 3);
  const figure = report.figures.find((f) => f.id === set.figure);
  const starts = set.parts.map((_, i) => set.parts.slice(0, i).reduce((m, p) => m + p.value, 0));
  const most = Math.max(...set.parts.map((p) => p.value));
  return (
    <section aria-label={set.name} data-waterfall={set.id} className="min-w-0">
      <div className="rule-b flex items-baseline justify-between pb-0.5">
        <h2>
          <LimitName kind={set} />
        </h2>
        {figure ? (
          <button
            type="button"
            className="num text-expected decoration-dotted underline-offset-3 hover:underline"
            aria-label={`${set.name} ${write(total)}${unitGap(unit.symbol)}, open working`}
            onClick={() => open({ kind: 'expected', figure, at: { stageId: undefined, figureId: figure.id } })}
          >
            {write(total)}
            {unitGap(unit.symbol)}
          </button>
        ) : null}
      </div>
      <ul className="pt-1">
        {set.parts.map((p, i) => (
          <li
            key={p.name}
            className="grid grid-cols-[92px_minmax(0,1fr)_84px] items-center gap-2 py-[1.5px] text-[12.5px]"
          >
            <span className="truncate">{p.name}</span>
            <span aria-hidden="true" className="relative block h-3.5 bg-rule/30">
              <span
                className={
                  'absolute inset-y-0 ' +
                  `${p.value === most && p.value > 0 ? 'bg-expected' : 'bg-expected-soft outline outline-1 -outline-offset-1 outline-expected'}`
                }
                style={{
                  left: `${total > 0 ? (100 * starts[i]!) / total : 0}%`,
                  width: `${total > 0 ? Math.max(p.value > 0 ? 0.6 : 0, (100 * p.value) / total) : 0}%`,
                }}
              />
            </span>
            <span className="num whitespace-nowrap text-right">
              {write(p.value)}{' '}
              <span className="text-muted">{total > 0 ? `${((100 * p.value) / total).toFixed(0)} %` : ''}</span>
            </span>
          </li>
        ))}
      </ul>
      {set.id === 'play' && total === 0 ? <p className="label">Nothing in this line has play.</p> : null}
    </section>
  );
}

/** Play as a hundred thousand specimens would have it. */
function PlayHistogram({ report }: { report: LineReport }) {
  const write = useWritten();
  const { data } = usePlaySpread(report, SAMPLES);
  if (!data) return <p className="label">Sampling…</p>;
  const { spread, ms } = data;
  const say = (v: number) => write(v, 'smallAngle', 3);
  const most = spread.counts.reduce((m, x) => Math.max(m, x), 1);
  const [w, h] = [300, 112];
  const x = (v: number) => (spread.worst > 0 ? 4 + ((w - 8) * v) / spread.worst : 4);
  return (
    <section aria-label="Spread of play" className="min-w-0">
      <div className="rule-b flex items-baseline justify-between pb-0.5">
        <h2>Play, {spread.samples.toLocaleString('en').replace(',', ' ')} samples</h2>
        <span className="label" data-sampled="">
          seed 1, {ms.toFixed(0)} ms
        </span>
      </div>
      {spread.worst === 0 ? (
        <p className="label pt-1">Nothing in this line has play, so there is nothing to sample.</p>
      ) : (
        <svg
          viewBox={`0 0 ${w} ${h + 34}`}
          className="block w-full"
          role="img"
          aria-label={
            `Play between ${say(spread.low)} and ${say(spread.high)} in 95 % of samples, likely ` +
            `${say(spread.likely)}, worst case ${say(spread.worst)}`
          }
        >
          <rect
            x={x(spread.low)}
            y={0}
            width={x(spread.high) - x(spread.low)}
            height={h}
            fill="url(#hatch-expected)"
            opacity="0.5"
          />
          {Array.from(spread.counts, (n, i) => (
            <rect
              key={i}
              x={x(i * spread.width)}
              width={Math.max(0.5, (w - 8) / spread.counts.length - 0.6)}
              y={h - (h * n) / most}
              height={(h * n) / most}
              fill="var(--expected)"
            />
          ))}
          <path d={`M${x(spread.likely)} 0V${h}`} stroke="var(--ink)" strokeWidth="1.2" />
          <path d={`M${x(spread.worst)} 0V${h}`} stroke="var(--fail)" strokeDasharray="4 3" />
          <path d={`M0 ${h}H${w}`} stroke="var(--ink)" strokeWidth="0.8" />
          <text x={4} y={h + 14} fontSize="11" className="num" fill="var(--muted)">
            0
          </text>
          <text
            x={Math.min(w - 70, Math.max(70, x(spread.likely)))}
            y={h + 29}
            fontSize="11"
            textAnchor="middle"
            className="num"
            fill="var(--ink)"
          >
            likely {say(spread.likely)} ({say(spread.low)}–{say(spread.high)})
          </text>
          <text x={w - 4} y={h + 14} fontSize="11" textAnchor="end" className="num" fill="var(--fail)">
            worst {say(spread.worst)}
          </text>
        </svg>
      )}
    </section>
  );
}

/** What arrives of the motor's work, over the load at the output. */
function OverLoad({ load, demand }: { load: NonNullable<LineReport['load']>; demand: LineReport['demand'] }) {
  const what = useTold('torque').by === 1 ? 'torque' : 'force';
  return (
    <section aria-label="Efficiency over the load" className="flex min-h-[190px] min-w-0 flex-col">
      <div className="rule-b pb-0.5">
        <h2>Efficiency over the load</h2>
      </div>
      <LazyPlot
        name={`Efficiency of the stages over the ${what} at the output`}
        x="torque"
        y="efficiency"
        xName={`${what} at the output`}
        yName="efficiency"
        series={[
          {
            key: 'e',
            name: 'efficiency',
            x: load.torque,
            y: load.efficiency,
            colour: 'var(--expected)',
            width: 2,
          },
        ]}
        marks={[...new Set([demand.rms, demand.peak])]
          .filter((t) => t > 0)
          .map((t) => ({
            name: t === demand.peak ? 'peak' : 'RMS',
            x: t,
            y: load.efficiency[
              Math.min(
                load.efficiency.length - 1,
                Math.max(0, Math.round((t / (1.25 * demand.peak)) * load.efficiency.length) - 1),
              )
            ]!,
            ok: true,
            below: true,
          }))}
      />
    </section>
  );
}

/** Stage by stage: where play, wind-up, loss, inertia, mass and money come from, and how loss depends on the load. */
export default function SharesView() {
  const variant = useVariant();
  const { report } = useLine();
  if (!report?.beside)
    return (
      <>
        <h1 className="text-[15px]">Where it comes from</h1>
        <p className="label py-3">Shares appear once the line has stages and can be summed.</p>
      </>
    );
  const { demand, load } = report;
  return (
    <AllStraight>
      <div className="pb-3">
        <h1 className="pb-1 text-[15px]">
          Where it comes from <span className="label font-normal">stage by stage, at the output</span>
        </h1>
        <div className="grid grid-cols-2 gap-x-8 gap-y-3 max-[1199px]:grid-cols-1">
          {sharesOf(
            report,
            variant.stages.map((s) => s.kind),
          ).map((s) => (
            <Waterfall key={s.id} set={s} report={report} />
          ))}
          <PlayHistogram report={report} />
          {load ? <OverLoad load={load} demand={demand} /> : null}
        </div>
        <p className="label pt-2">
          Inertia counts what the motor has to speed up besides the load; the rotor usually dominates.
        </p>
      </div>
    </AllStraight>
  );
}
