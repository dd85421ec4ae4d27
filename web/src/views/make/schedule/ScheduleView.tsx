import { sayProblem, type BuildPlan, type TaskRecord } from '@gristmill/core';
import type { Placed } from '@gristmill/core/schedule/lay-out';
import { planMarkdown } from '@gristmill/core/schedule/write-plan';
import { usualPlan } from '@gristmill/core/schedule/usual-plan';
import { dayOf } from '@gristmill/core/schedule/wall-clock';
import { useState } from 'react';
import { toast } from 'sonner';
import { download, fileName } from '../../../app/download.ts';
import { ChoiceField } from '../../../parts/ChoiceField.tsx';
import { ProblemNote } from '../../../parts/ProblemNote.tsx';
import { newBuild } from '../../../state/bench.ts';
import { useJoint, useOpen, useVariant } from '../../../state/open.ts';
import { useEdits } from '../../../state/shelf.ts';
import { usePrefs } from '../../../state/prefs.ts';
import { useFitSheet } from '../../../workers/fits.ts';
import { planPlate } from '../../../workers/solid.ts';
import { BusyNote, useMaking } from '../making.tsx';
import { PlanBoard } from './PlanBoard.tsx';
import { PlanDays, type TaskEdits } from './PlanDays.tsx';
import { PlanFields } from './PlanFields.tsx';
import { PlanLate, PlanLearnt, PlanSum } from './PlanNotes.tsx';
import { useSchedule } from './use-schedule.ts';
import { wallMoment, wallNow } from './words.ts';
import { Panes } from '../../../parts/Panes.tsx';

/** Surface of a printed plate, m. */
const SURFACE = 2e-5;

/** What is kept of a task that is ticked off: its name, and what its time may teach. */
function asDone({ task }: Placed): TaskRecord {
  return {
    done: wallMoment(wallNow().now),
    name: task.name,
    ...(task.laid && { path: task.laid.path, layers: task.laid.layers }),
    ...(task.work !== undefined && { work: task.work }),
  };
}

/** A build laid out in time: days, printers and what is waited for, late things with what they hold up. */
export default function ScheduleView() {
  const joint = useJoint();
  const variant = useVariant();
  const shop = useEdits();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const builds = joint.builds.filter((b) => b.variantId === variant.id);
  const [chosen, setChosen] = useState<string | undefined>();
  const build = builds.find((b) => b.id === chosen) ?? builds.at(-1);
  const plan = build?.plan;
  const { query, share, now } = useSchedule(build);
  const [picked, setPicked] = useState<string | undefined>();
  const { busy, make } = useMaking('The plate could not be made');
  const made = query.data?.ok ? query.data.value : undefined;
  const schedule = made?.schedule;
  const buildId = build?.id;
  const title = `${joint.name}, variant ${variant.name}, build ${build?.name ?? ''}`;

  const setPlan = (what: string, change: (p: BuildPlan) => void) =>
    edit(`Plan: ${what}`, (d) => {
      const own = d.builds.find((b) => b.id === buildId);
      if (own?.plan) change(own.plan);
    });
  const setTask: TaskEdits['set'] = (p, what, part) =>
    setPlan(`${what} of ${p.task.name}`, (own) => {
      // A plate that something is said of stays as it is, whatever else is laid out anew.
      const next: TaskRecord = { ...(p.task.made && { made: { ...p.task.made } }), ...own.tasks[p.task.id], ...part };
      for (const key of Object.keys(next)) if (next[key] === undefined) delete next[key];
      own.tasks[p.task.id] = next;
    });
  const fitted = usePrefs((s) => s.drawFits);
  const { sheet, current } = useFitSheet(fitted);
  const corrections = sheet?.ok ? sheet.value.corrections : undefined;
  const waiting = variant.making !== undefined && !current;
  const plate = ({ task }: Placed) =>
    make(task.name, async (says, signal) => {
      if (waiting) return void toast('Its fits are being worked out. Try again in a moment.');
      const { bed, gap } = plan!;
      const ask = { variant, shop, title: `${title}: ${task.name}`, made: task.made!, bed, gap };
      const to = (x: number) => says(task.name, x);
      const out = await planPlate(
        { ...ask, chordError: SURFACE, compensation: 0, ...(corrections && { corrections }) },
        to,
        signal,
      );
      if (!out.ok) return void toast(sayProblem(out.problem));
      const name = `${fileName(joint.name, variant.name, task.name)}.3mf`;
      download(name, out.value, 'model/3mf');
      toast(
        corrections && Object.keys(corrections).length
          ? `${name}: drawn for its process.`
          : `${name}: as drawn; move contours in the slicer by your process.`,
      );
    });
  const edits: TaskEdits = {
    readOnly,
    set: setTask,
    tick: (p, done) => setTask(p, done ? 'done' : 'undone', done ? asDone(p) : { done: undefined }),
    plate: (p) => void plate(p),
    ordered: (p) => setTask(p, 'ordered', { ordered: dayOf(wallNow().now) }),
    begun: (p, begun) => setTask(p, 'begun', { begun: begun ? wallMoment(wallNow().now) : undefined }),
  };
  const move = (p: Placed, day: string | undefined) => {
    if (readOnly) return;
    if (day !== undefined && day < dayOf(now))
      return void toast('A day that is over cannot be planned. Move it to today or later.');
    const isBought = p.task.kind === 'buy';
    if (day === undefined) setTask(p, 'day', { on: undefined, ...(isBought && { comes: undefined }) });
    else setTask(p, 'day', isBought ? { comes: day } : { on: day });
  };
  const calendar = async () => {
    const { planCalendar } = await import('@gristmill/core/schedule/write-calendar');
    const name = `${fileName(joint.name, variant.name, 'plan')}.ics`;
    download(name, planCalendar(schedule!, title, new Date()), 'text/calendar');
    toast(`${name}: times by the clock on the wall; open it with your calendar.`);
  };
  if (!build || !plan)
    return (
      <div className="max-w-[44rem] px-5 pt-3">
        <h1 className="text-[15px]">Schedule</h1>
        <p className="py-2">
          Says when what is printed, made, ordered, put together and tested, in the hours that you have; learns from the
          times that you write down.
        </p>
        <button
          type="button"
          className="btn"
          disabled={readOnly}
          onClick={() =>
            edit('Plan', (d) => {
              const start = dayOf(wallNow().now);
              let own = d.builds.find((b) => b.id === buildId);
              if (!own) {
                const fresh = newBuild(variant, `${variant.name}-${builds.length + 1}`);
                d.builds.push(fresh);
                own = d.builds.at(-1)!;
              }
              own.plan = usualPlan(start);
            })
          }
        >
          {build ? `Plan build ${build.name}` : 'Record a build and plan it'}
        </button>
      </div>
    );
  return (
    <Panes
      id="schedule"
      name="what is left to do"
      width={272}
      plain="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_17rem] print:block print:h-auto"
      pane={
        <div
          className="no-print min-h-0 overflow-y-auto  bg-panel px-3 pt-3 pb-4"
          tabIndex={0}
          role="region"
          aria-label="Hours and printers"
        >
          <PlanFields
            plan={plan}
            readOnly={readOnly}
            set={(what, part) => setPlan(what, (p) => void Object.assign(p, part))}
          />
          {made ? (
            <PlanLearnt
              learnt={made.learnt}
              readOnly={readOnly}
              onTold={(id) =>
                setPlan('times told to the shop', (own) => {
                  for (const t of Object.values(own.tasks))
                    if (t.took !== undefined && (id === 'print.speed') === (t.path !== undefined)) t.told = true;
                })
              }
            />
          ) : null}
          <button
            type="button"
            className="mend pt-2"
            disabled={readOnly}
            onClick={() =>
              edit('Plan taken back', (d) => {
                const own = d.builds.find((b) => b.id === buildId);
                if (own) delete own.plan;
              })
            }
          >
            Take this plan back
          </button>
        </div>
      }
    >
      <div className="flex min-h-0 flex-col print:block">
        <div className="flex flex-wrap items-baseline justify-between gap-x-4 px-5 pt-3">
          <h1 className="text-[15px]">Schedule</h1>
          <span className="no-print flex items-baseline gap-3">
            {busy ? <BusyNote busy={busy} /> : null}
            <ChoiceField
              label="Build"
              value={build.id}
              options={builds.map((b) => ({ value: b.id, label: b.name }))}
              onChange={(v) => setChosen(String(v))}
            />
            <button
              type="button"
              className="mend"
              disabled={!schedule || readOnly}
              onClick={() => {
                setPlan(
                  'kept',
                  (p) => void (p.kept = Object.fromEntries(schedule!.placed.map((x) => [x.task.id, x.end]))),
                );
                toast('Kept: what ends more than a day later than now is told as late.');
              }}
            >
              Keep this plan
            </button>
            <button type="button" className="mend" disabled={!schedule} onClick={() => void calendar()}>
              Calendar file
            </button>
            <button
              type="button"
              className="mend"
              disabled={!schedule}
              onClick={() =>
                download(
                  `${fileName(joint.name, variant.name, 'plan')}.md`,
                  planMarkdown(schedule!, title),
                  'text/markdown',
                )
              }
            >
              Markdown
            </button>
            <button type="button" className="btn-quiet" onClick={() => window.print()}>
              Print
            </button>
          </span>
        </div>
        <div className="px-5 pb-1">
          {schedule ? <PlanSum schedule={schedule} renewing={query.isFetching} /> : null}
          {query.isPending ? (
            <p className="label" role="status">
              Measuring bodies and taking the line apart: {(share * 100).toFixed(0)} %
            </p>
          ) : null}
          {query.data && !query.data.ok ? <ProblemNote problem={query.data.problem} /> : null}
          {query.isError ? (
            <p role="alert">The plan could not be made: {query.error.message}. Change something, or reload the page.</p>
          ) : null}
          {made?.unordered ? (
            <p className="label">Stage after stage, since no order of the whole line is known: {made.unordered}</p>
          ) : null}
        </div>
        {schedule ? (
          <>
            <div className="no-print">
              <PlanBoard
                placed={schedule.placed}
                plan={plan}
                now={now}
                end={schedule.end}
                picked={picked}
                onPick={setPicked}
                onMove={move}
              />
            </div>
            <PlanLate late={schedule.late} stuck={schedule.stuck} />
            <div
              className="min-h-0 flex-1 overflow-y-auto px-5 pt-2 print:overflow-visible"
              tabIndex={0}
              role="region"
              aria-label="Day by day"
            >
              <PlanDays placed={schedule.placed} plan={plan} picked={picked} onPick={setPicked} edits={edits} />
              <p className="caution my-3">
                A printer that runs alone needs a smoke alarm and nothing that burns near it; resin and adhesives need
                gloves and fresh air. Local rules come first.
              </p>
            </div>
          </>
        ) : null}
      </div>
    </Panes>
  );
}
