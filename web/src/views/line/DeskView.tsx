import {
  DESK_LEAST,
  DESK_MOST,
  factor,
  fillLine,
  formatQuantity,
  travelOf,
  limitingOf,
  plainNumber,
  playAfter,
  scaleCase,
  setDriver,
  splits,
  stageKinds,
  type DeskRow,
  type Preference,
  type Problem,
  type Reach,
  type Variant,
  type WayOut,
} from '@gristmill/core';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { QuantityField } from '../../parts/QuantityField.tsx';
import { recallSearch, useSearches } from '../../state/find.ts';
import { note } from '../../state/note.ts';
import { newId } from '../../state/identifier.ts';
import { copyVariant } from '../../state/variants.ts';
import { editVariant, useJoint, useOpen, useVariant } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { useSaid } from '../../state/said.ts';
import { Straight, useWritten } from '../../state/straight.tsx';
import { shelfNow } from '../../state/shelf.ts';
import { useDesk, useLine } from '../../workers/queries.ts';
import { Advice } from './found.tsx';
import { mendLine } from './LineChecks.tsx';
import { takeMotor } from './MotorPanel.tsx';
import { TwoMotors } from './TwoMotors.tsx';
import { Said } from '../../parts/Said.tsx';

const minute = Math.PI / 10800;
const [LEAST, MOST] = [DESK_LEAST, DESK_MOST];
const W = 640;
const LABEL = 150;
/** A window's upper end beyond this counts as none. */
const DESK_TOP = 1e4;
const say = (x: number) => plainNumber(x, 3);

/** Where a ratio lies on the chart, px; clipped to its ends. */
const place = (i: number): number =>
  LABEL + ((W - LABEL - 20) * Math.log(Math.min(MOST, Math.max(LEAST, i)) / LEAST)) / Math.log(MOST / LEAST);

/** Travel of a straight axis for a turn of the motor at a ratio about its arm; undefined where it turns. */
function useTravel(): ((ratio: number, digits?: number) => string) | undefined {
  const units = useUnits();
  const arm = travelOf(useJoint().brief);
  return arm === undefined
    ? undefined
    : (ratio, digits = 3) => formatQuantity((2 * Math.PI * arm) / ratio, 'length', units, digits);
}

/** What a ratio is where the output runs straight. */
function AboutTheArm() {
  const units = useUnits();
  const arm = travelOf(useJoint().brief);
  const travel = useTravel();
  return travel ? (
    <p className="label pb-1">
      The output runs straight: ratios are about the brief’s arm of {formatQuantity(arm!, 'length', units, 3)}, and
      ratio 10 moves it {travel(10)} for a turn of the motor.
    </p>
  ) : null;
}

/**
 * The windows of one number of stages over a logarithmic ratio, and the range that all demands share for every number.
 */
function WindowChart({
  rows,
  chosen,
  ratio,
  onChoose,
}: {
  rows: readonly DeskRow[];
  chosen: number;
  ratio: number;
  onChoose: (n: number) => void;
}) {
  const said = useSaid();
  const open = rows.find((r) => r.stages === chosen);
  const detail = open?.windows ?? [];
  const top = 22;
  const h = top + rows.length * 24 + detail.length * 20 + 26;
  return (
    <svg viewBox={`0 0 ${W} ${h}`} className="block w-full max-w-[720px]" role="group" aria-label="Ratio windows">
      {[1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000].map((i) => (
        <g key={i}>
          <path d={`M${place(i)} ${top - 6}V${h - 8}`} stroke="var(--rule)" strokeDasharray="1 4" />
          <text x={place(i)} y={12} fontSize="11" textAnchor="middle" className="num" fill="var(--muted)">
            {i}
          </text>
        </g>
      ))}
      {rows.map((r, n) => {
        const at = top + n * 24 + (r.stages > chosen ? detail.length * 20 : 0);
        return (
          <g key={r.stages}>
            <g
              role="button"
              tabIndex={0}
              aria-pressed={r.stages === chosen}
              aria-label={
                `${r.stages} stage${r.stages > 1 ? 's' : ''}, ` +
                `${r.both ? `ratio ${say(r.both[0])} to ${say(r.both[1])}` : 'no ratio meets everything'}`
              }
              className="cursor-pointer"
              onClick={() => onChoose(r.stages)}
              onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), onChoose(r.stages))}
            >
              <rect
                x={0}
                y={at - 2}
                width={W}
                height={22}
                fill={r.stages === chosen ? 'var(--panel)' : 'transparent'}
              />
              <text x={4} y={at + 13} fontSize="12.5" fontWeight={r.stages === chosen ? 650 : 400} fill="var(--ink)">
                {r.stages} stage{r.stages > 1 ? 's' : ''}{' '}
                <tspan className="num" fill="var(--muted)" fontSize="11.5">
                  {(r.arrives * 100).toFixed(0)} % arrives
                </tspan>
              </text>
              {r.both ? (
                <g>
                  <rect
                    x={place(r.both[0])}
                    y={at + 2}
                    width={Math.max(2, place(r.both[1]) - place(r.both[0]))}
                    height={13}
                    fill="var(--expected-soft)"
                    stroke="var(--expected)"
                  />
                  <rect
                    x={place(r.both[0])}
                    y={at + 2}
                    width={Math.max(2, place(r.both[1]) - place(r.both[0]))}
                    height={13}
                    fill="url(#hatch-expected)"
                  />
                  <path d={`M${place(r.suggested)} ${at - 1}V${at + 18}`} stroke="var(--ink)" strokeWidth="1.6" />
                </g>
              ) : (
                <text x={LABEL + 6} y={at + 13} fontSize="12" fill="var(--fail)">
                  ✕ no ratio meets everything
                </text>
              )}
            </g>
            {r.stages === chosen
              ? detail.map((w, k) => {
                  const wy = at + 24 + k * 20;
                  return (
                    <g key={w.id} data-window={w.id}>
                      <text x={16} y={wy + 11} fontSize="11.5" fill={w.soft ? 'var(--muted)' : 'var(--ink)'}>
                        {w.name}
                        {w.soft ? ' (advice)' : ''}
                      </text>
                      {w.empty ? (
                        <text x={LABEL + 6} y={wy + 11} fontSize="11.5" fill="var(--fail)">
                          ✕ at no ratio
                        </text>
                      ) : (
                        <g>
                          <title>{said(w.why)}</title>
                          <path
                            d={`M${place(w.low)} ${wy + 7}H${place(w.high)}`}
                            stroke={w.soft ? 'var(--muted)' : 'var(--ink)'}
                            strokeWidth={w.soft ? 1.2 : 2.6}
                            strokeDasharray={w.soft ? '4 3' : undefined}
                          />
                          {w.low > LEAST ? (
                            <path
                              d={`M${place(w.low) + 4} ${wy + 1}h-4v12h4`}
                              fill="none"
                              stroke="var(--ink)"
                              strokeWidth="1.4"
                            />
                          ) : null}
                          {w.high < MOST ? (
                            <path
                              d={`M${place(w.high) - 4} ${wy + 1}h4v12h-4`}
                              fill="none"
                              stroke="var(--ink)"
                              strokeWidth="1.4"
                            />
                          ) : null}
                          <text
                            x={Math.min(W - 4, place(Math.min(w.high, MOST)) + 5)}
                            y={wy + 11}
                            fontSize="11"
                            textAnchor={place(w.high) > W - 80 ? 'end' : 'start'}
                            dy={place(w.high) > W - 80 ? -7 : 0}
                            className="num"
                            fill="var(--muted)"
                            stroke="var(--paper)"
                            strokeWidth="3"
                            paintOrder="stroke"
                          >
                            {w.low > LEAST ? say(w.low) : ''}
                            {w.high < DESK_TOP ? `–${say(w.high)}` : w.low > LEAST ? ' and up' : 'any'}
                          </text>
                        </g>
                      )}
                    </g>
                  );
                })
              : null}
          </g>
        );
      })}
      <path d={`M${place(ratio)} ${top - 8}V${h - 8}`} stroke="var(--found)" strokeWidth="1.2" strokeDasharray="5 3" />
    </svg>
  );
}

/** What sets the ends of what the chosen number of stages may have, in words. */
function Limits({ row }: { row: DeskRow }) {
  const said = useSaid();
  const travel = useTravel();
  const { low, high } = limitingOf(row);
  const empty = row.windows.filter((w) => w.empty && !w.soft);
  return (
    <ul aria-label="What limits the ratio" className="text-[12.5px]">
      {empty.map((w) => (
        <li key={w.id} className="text-fail">
          ✕ {w.name}: at no ratio. {said(w.why)}
        </li>
      ))}
      {low ? (
        <li>
          At least <span className="num">{say(low.low)}</span>
          {travel ? ` (at most ${travel(low.low)} a turn)` : ''} for <b>{low.name.toLowerCase()}</b>. {said(low.why)}
        </li>
      ) : null}
      {high ? (
        <li>
          At most <span className="num">{say(high.high)}</span>
          {travel ? ` (at least ${travel(high.high)} a turn)` : ''} for <b>{high.name.toLowerCase()}</b>.{' '}
          {said(high.why)}
        </li>
      ) : null}
      {low && high && low.low > high.high ? (
        <li className="text-fail">
          ✕ {low.name} asks for more than {high.name.toLowerCase()} allows: another motor, or less of one of the two.
        </li>
      ) : null}
    </ul>
  );
}

/** No ratio does it: why, and the two nearest ways out. */
function WaysOut({ reach }: { reach: Reach }) {
  const joint = useJoint();
  const variant = useVariant();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const take = (w: WayOut) => {
    if ('motor' in w.apply) {
      const { motor } = w.apply;
      const chosen = shelfNow().motors.find((m) => m.id === motor);
      if (chosen) editVariant(w.label, (v) => takeMotor(v as Variant, chosen, shelfNow()));
    } else if ('driver' in w.apply) {
      const { key, value } = w.apply.driver;
      editVariant(w.label, (v) => void (v.driver = setDriver(variant.driver, key, value) as Variant['driver']));
    } else if ('supply' in w.apply) {
      mendLine({ path: 'driver.supply', value: w.apply.supply, label: w.label });
    } else {
      const by = w.apply;
      edit(w.label, (d) =>
        d.brief.cases.forEach(
          (_c, i) =>
            void (d.brief.cases[i] = scaleCase(joint.brief.cases[i]!, by, factor(shelfNow(), 'gravity')) as never),
        ),
      );
    }
    note(`${w.label}: done. Undo takes it back.`);
  };
  return (
    <div className="my-2" data-ways="">
      <ProblemNote
        problem={{
          what:
            `${reach.shelf ? `${variant.motor.name} does not reach this at any ratio.` : 'No motor on the shelf reaches this at any ratio.'} ` +
            `At best, ratio ${say(reach.ratio)}, it gives ${(reach.margin * 100).toFixed(0)} % of what ` +
            'is asked.',
          why: 'Torque grows with ratio, but so does the speed the motor must run at, and there its torque falls.',
          mend: reach.ways.length
            ? 'The two nearest ways out:'
            : 'Ask for much less, or bring a larger motor to the shop.',
        }}
      >
        <ul className="pt-1">
          {reach.ways.map((w) => (
            <li key={w.id}>
              <button type="button" className="mend" disabled={readOnly} onClick={() => take(w)}>
                <Said>{w.label}</Said>
              </button>{' '}
              <span className="text-muted">
                <Said>{w.why}</Said>
              </span>
            </li>
          ))}
        </ul>
      </ProblemNote>
    </div>
  );
}

/** Play at the output after a last stage. */
const ToldPlay = ({ value }: { value: number }) => useWritten()(value, 'smallAngle', 2);

/** What a last stage of little play does to the play before it. */
function LastStage() {
  const { report } = useLine();
  const n = report?.nodes.length ?? 0;
  const found = n > 2 ? report!.nodes[n - 2]!.play : n === 2 ? report!.nodes[1]!.play : 12 * minute;
  const [before, setBefore] = useState<number | undefined>();
  const [own, setOwn] = useState(0);
  const b = before ?? (found > 0 ? found : 12 * minute);
  return (
    <section aria-label="A last stage of little play">
      <h2 className="rule-b pb-0.5">A last stage of little play</h2>
      <p className="label py-1">
        What comes before it is divided by its ratio; its own adds whole. A taut belt has none.
      </p>
      <div className="grid max-w-[420px] grid-cols-2 gap-x-6">
        <QuantityField
          label="Play before it"
          quantity="smallAngle"
          step={minute}
          min={0}
          max={1}
          value={b}
          onChange={(v) => setBefore(v)}
        />
        <Straight>
          <QuantityField
            label="Its own"
            quantity="smallAngle"
            step={minute / 2}
            min={0}
            max={1}
            value={own}
            onChange={(v) => setOwn(v)}
          />
        </Straight>
      </div>
      <table className="mt-1 text-[12.5px]">
        <tbody>
          <tr>
            <th className="whitespace-nowrap">its ratio</th>
            {[1, 1.5, 2, 3, 4, 6].map((i) => (
              <td key={i} className="num w-12 text-right">
                {i}
              </td>
            ))}
          </tr>
          <tr>
            <th className="whitespace-nowrap">then play</th>
            {[1, 1.5, 2, 3, 4, 6].map((i) => (
              <td key={i} className="num text-right text-expected">
                <Straight>
                  <ToldPlay value={playAfter(b, i, own)} />
                </Straight>
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </section>
  );
}

/** What the lines that were found for this joint say about choosing; where none were looked for, where to do it. */
function FoundSays() {
  const { id } = useJoint();
  useEffect(() => void recallSearch(id), [id]);
  const search = useSearches((s) => s.of[id]);
  const lines = search?.result?.lines ?? [];
  if (lines.length > 0 && !search?.first) return <Advice lines={lines} />;
  return (
    <p className="label pt-2">
      Which mechanisms could do it, and what half the play or a stage less would cost: <i>Find lines</i> says it of this
      joint.
    </p>
  );
}

/**
 * What ratio the brief needs of this motor, in how many stages, shared how; and the line filled with kinds that fit.
 */
export default function DeskView() {
  const joint = useJoint();
  const variant = useVariant();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const back = joint.brief.limits.find((l) => l.id === 'turnBack');
  const [each, setEach] = useState(0.94);
  const [holds, setHolds] = useState(back?.sense === 'min' && back.need === 'must');
  const [stages, setStages] = useState(Math.min(4, Math.max(1, variant.stages.length || 2)));
  const [own, setOwn] = useState<number | undefined>();
  const [kind, setKind] = useState('');
  const [prefer, setPrefer] = useState<Preference>('money');
  const [problem, setProblem] = useState<Problem | undefined>();
  const { data, isFetching } = useDesk(each, holds);
  const { report } = useLine();
  const row = data?.rows.find((r) => r.stages === stages);
  // The line that is there comes first: what it has stands among what it may have.
  const there = variant.stages.length === stages ? Math.abs(report?.nodes.at(-1)?.ratio ?? 0) : 0;
  const total = own ?? (there ? Number(there.toPrecision(4)) : row ? Number(row.suggested.toPrecision(3)) : 10);
  const travel = useTravel();
  const fill = (ratios: readonly number[], asNew: boolean) => {
    const made = fillLine(joint, variant, shelfNow(), ratios, prefer, () => newId(), kind || undefined);
    setProblem(made.ok ? undefined : made.problem);
    if (!made.ok) return;
    if (asNew) {
      edit('Fill a new variant', (d) => copyVariant(d, { stages: made.value, follows: false, notes: '' }));
    } else editVariant('Fill the line', (v) => Object.assign(v, { stages: made.value, follows: false }));
    toast(
      `Filled with ${made.value
        .map((s) =>
          stageKinds()
            .find((k) => k.id === s.kind)
            ?.name.toLowerCase(),
        )
        .join(', ')}.`,
    );
  };
  return (
    <div className="pb-3">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1 pb-1">
        <h1 className="text-[15px]">What ratio, in how many stages</h1>
        <div className="w-[210px]">
          <QuantityField
            label="One stage passes on"
            quantity="efficiency"
            step={0.01}
            min={0.05}
            max={1}
            value={each}
            help="Efficiency of a stage: belts about 96 %, geared ones 85–95 %."
            onChange={(v) => setEach(v)}
          />
        </div>
        <label className="flex items-baseline gap-1.5">
          <input
            type="checkbox"
            className="accent-[var(--ink)]"
            checked={holds}
            onChange={(e) => setHolds(e.target.checked)}
          />
          a stage will hold it unpowered
        </label>
        {isFetching ? <span className="label">working it out…</span> : null}
      </div>
      <AboutTheArm />
      {data && data.reach.margin < 1 ? <WaysOut reach={data.reach} /> : null}
      {data ? (
        <WindowChart
          rows={data.rows}
          chosen={stages}
          ratio={total}
          onChoose={(n) => (setStages(n), setOwn(undefined))}
        />
      ) : (
        <p className="label py-4">Working out the windows…</p>
      )}
      <p className="label">
        Brackets: what each demand allows. Hatched: where all are met; upright line: a ratio with a fifth in hand;
        dashed: the total below.
        {there && own === undefined ? ' It is what the line has now.' : ''}
        {row && Number.isFinite(row.quickest) ? ` The load speeds up quickest at ratio ${say(row.quickest)}.` : ''}
      </p>
      {row ? <Limits row={row} /> : null}
      <div className="grid grid-cols-[minmax(0,1.45fr)_minmax(0,1fr)] gap-x-8 pt-2 max-[1099px]:grid-cols-1">
        <section aria-label="How to split it">
          <div className="rule-b flex flex-wrap items-baseline gap-x-5 pb-0.5">
            <h2>How to split it</h2>
            <div className="w-[150px]">
              <QuantityField
                label="Total"
                quantity="ratio"
                step={0.5}
                min={1}
                max={2000}
                value={total}
                onChange={(v) => setOwn(v)}
              />
            </div>
            {travel ? <span className="label">{travel(total)} for a turn of the motor</span> : null}
            {row && total > 0 ? (
              <span className={`label ${row.both && total >= row.both[0] && total <= row.both[1] ? '' : '!text-fail'}`}>
                {row.both && total >= row.both[0] && total <= row.both[1]
                  ? `arrives as ${say(total * row.arrives)}`
                  : '✕ outside what the demands allow'}
              </span>
            ) : null}
          </div>
          <div className="flex flex-wrap gap-x-5 py-1">
            <ChoiceField
              label="Stages of"
              value={kind}
              options={[
                { value: '', label: 'any kind that fits' },
                ...stageKinds().map((k) => ({ value: k.id, label: k.name.toLowerCase() })),
              ]}
              onChange={(v) => setKind(String(v))}
            />
            <ChoiceField
              label="best by"
              value={prefer}
              options={[
                { value: 'money', label: 'price' },
                { value: 'play', label: 'least play' },
                { value: 'mass', label: 'mass' },
              ]}
              onChange={(v) => setPrefer(v as Preference)}
            />
          </div>
          <table className="w-full text-[12.5px]">
            <tbody>
              {splits(total, stages).map((s) => (
                <tr key={s.id} className="rule-b" data-split={s.id}>
                  <td className="pr-3">
                    <b className="font-semibold">{s.name}</b>
                    <span className="label block">
                      <Said>{s.why}</Said>
                    </span>
                  </td>
                  <td className="num whitespace-nowrap">
                    {s.ratios.map((r) => say(r)).join(' · ')}
                    <span
                      className="label block"
                      title="Inertia of like wheels at the motor, in units of the first driving wheel’s."
                    >
                      J {say(s.inertia)}
                    </span>
                  </td>
                  <td className="whitespace-nowrap pr-0 text-right">
                    <button
                      type="button"
                      className="btn"
                      disabled={readOnly}
                      aria-label={`Fill the line: ${s.name.toLowerCase()}`}
                      onClick={() => fill(s.ratios, false)}
                    >
                      Fill the line
                    </button>{' '}
                    <button
                      type="button"
                      className="btn-quiet"
                      disabled={readOnly}
                      aria-label={`As a new variant: ${s.name.toLowerCase()}`}
                      onClick={() => fill(s.ratios, true)}
                    >
                      as a new variant
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {problem ? (
            <div className="py-2">
              <ProblemNote problem={problem} />
            </div>
          ) : null}
        </section>
        <div>
          <LastStage />
          <TwoMotors />
          <FoundSays />
        </div>
      </div>
    </div>
  );
}
