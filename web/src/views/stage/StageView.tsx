import { stageKind, travelOf, type Figure, type Layer, type Spring } from '@gristmill/core';
import { Fragment, useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { useActions, type Action } from '../../app/actions.ts';
import { CheckList } from '../../parts/CheckList.tsx';
import { Drawing } from '../../parts/Drawing.tsx';
import { FigureText } from '../../parts/FigureText.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { slug } from '../../state/address.ts';
import { runCrank, useCrank } from '../../state/crank.ts';
import { useJoint, useVariant } from '../../state/open.ts';
import { useStage } from '../../state/stages.ts';
import { useCourses, useLine, useStageMap } from '../../workers/queries.ts';
import { CourseStrip } from './CourseStrip.tsx';
import { mendStage, StageFields } from './StageFields.tsx';
import { CountLattice } from './CountLattice.tsx';
import { Resize } from './Resize.tsx';
import { TakeFound } from './TakeFound.tsx';
import { SpringBars } from './SpringBars.tsx';
import { KindTables } from './KindTables.tsx';
import { Said } from '../../parts/Said.tsx';
import { Panes } from '../../parts/Panes.tsx';

const NUDGE = (3 * Math.PI) / 180;

/** While running, the dial follows in steps of six degrees; only the drawing needs every frame. */
const DIAL = Math.PI / 30;

function CrankControls() {
  const angle = useCrank((s) => (s.running ? Math.round(s.angle / DIAL) * DIAL : s.angle));
  const running = useCrank((s) => s.running);
  const turn = useCrank((s) => s.turn);
  const deg = ((((angle * 180) / Math.PI) % 360) + 360) % 360;
  return (
    <span className="flex items-center gap-2">
      <button type="button" className="btn-quiet" aria-label="Turn the crank back" onClick={() => turn(-NUDGE)}>
        ◂
      </button>
      <input
        type="range"
        min={0}
        max={360}
        step={1}
        value={Math.round(deg)}
        aria-label="Crank angle"
        className="w-28 min-w-10 shrink accent-[var(--ink)]"
        onChange={(e) => turn(((Number(e.target.value) - deg) * Math.PI) / 180)}
      />
      <button type="button" className="btn-quiet" aria-label="Turn the crank on" onClick={() => turn(NUDGE)}>
        ▸
      </button>
      <span className="num w-10 text-right text-muted">{deg.toFixed(0)}°</span>
      <button type="button" className="btn" aria-pressed={running} onClick={() => runCrank(!running)}>
        {running ? 'Stop' : 'Run'}
      </button>
    </span>
  );
}

/** An angle at which nothing that turns stands as it does at rest. */
const ELSEWHERE = 1.2345;

function Sheet({
  draw,
  still,
  name,
}: {
  still: readonly Layer[];
  draw: (crank: number) => readonly Layer[];
  name: string;
}) {
  const angle = useCrank((s) => s.angle);
  const turn = useCrank((s) => s.turn);
  const layers = useMemo(() => (angle === 0 ? still : draw(angle)), [draw, still, angle]);
  const moved = useMemo(() => draw(ELSEWHERE), [draw]);
  return (
    <Drawing name={name} layers={layers} still={still} moved={moved} onCrank={turn}>
      <CrankControls />
    </Drawing>
  );
}

/** One figure a row, in the order the kind gives them. */
function Figures({
  figures,
  springs,
  stageId,
}: {
  figures: readonly Figure[];
  springs: readonly Spring[];
  stageId: string;
}) {
  // The first of a kind's stiffnesses is followed by what it is made of.
  const stiff = figures.find((f) => f.quantity === 'stiffness')?.id;
  return (
    <table className="w-full text-[12.5px]">
      <tbody>
        {figures.map((f) => (
          <Fragment key={f.id}>
            <tr className={f.id === stiff ? '' : 'rule-b'}>
              <td className="py-0 pr-2 [overflow-wrap:anywhere]">
                <Said>{f.name}</Said>
              </td>
              <td className="py-0 pr-1 text-right">
                <FigureText figure={f} at={{ stageId, figureId: f.id }} />
              </td>
            </tr>
            {f.id === stiff ? (
              <tr className="rule-b">
                <td colSpan={2} className="p-0">
                  <SpringBars springs={springs} />
                </td>
              </tr>
            ) : null}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}

/** A true drawing of one stage that turns with the crank, its parameters beside it, and what decides it. */
export default function StageView() {
  const joint = useJoint();
  const variant = useVariant();
  const { report } = useLine();
  const { stage: at = '1' } = useParams();
  const index = Number(at) - 1;
  const stage = variant.stages[index];
  const outcome = report?.stages.find((s) => s.stageId === stage?.id);
  const duty = outcome?.duty;
  const kind = stage && stageKind(stage.kind);
  const courses = useCourses(stage, duty);
  const map = useStageMap(stage, duty);
  const opened = useStage(stage);
  // Drawn from the parameters at once; the report's figures follow from the worker.
  const draw = useMemo(() => {
    const at = duty ?? { torque: 0, torqueRms: 0, speed: 0 };
    if (opened?.ok) return (crank: number) => opened.value.drawing(crank, { duty: at });
    // What cannot be put together can still be looked at.
    const sketch = opened?.sketch;
    return sketch && ((crank: number) => sketch.drawing(crank, {}));
  }, [opened, duty]);
  const still = useMemo(() => draw?.(0) ?? [], [draw]);
  const actions = useMemo<Action[]>(
    () => [
      {
        id: 'crank-back',
        name: 'Turn the crank back',
        group: 'Drawing',
        key: ',',
        run: () => useCrank.getState().turn(-NUDGE),
      },
      {
        id: 'crank-on',
        name: 'Turn the crank on',
        group: 'Drawing',
        key: '.',
        run: () => useCrank.getState().turn(NUDGE),
      },
      {
        id: 'crank-run',
        name: 'Run or stop the crank',
        group: 'Drawing',
        key: 'space',
        run: () => runCrank(!useCrank.getState().running),
      },
    ],
    [],
  );
  useActions('stage', actions);
  if (!stage || !kind) {
    return (
      <div className="p-6">
        <h1 className="text-[16px]">
          {variant.stages.length ? `There is no stage ${at}.` : 'This line has no stages yet.'}
        </h1>
        <p className="py-2">
          A stage is one reduction between motor and load. Stages are added and ordered in the Line.
        </p>
        <Link className="btn" to={`/joint/${slug(joint.id)}/line`}>
          Go to the Line
        </Link>
      </div>
    );
  }
  const onMend = mendStage(stage);
  const problem = opened && !opened.ok ? opened.problem : outcome?.problem;
  return (
    <Panes
      id="stage"
      name="the parameters"
      width={240}
      plain="one-column grid h-full min-h-0 grid-cols-1"
      pane={
        <div className="min-h-0 overflow-y-auto bg-panel px-3.5 pt-3" aria-label="Parameters" role="region">
          {outcome?.report && duty && stage.kind !== 'unit' ? (
            <Resize
              key={stage.id}
              stage={stage}
              index={index}
              ratio={outcome.report.numbers.ratio / (kind.straight ? (travelOf(joint.brief) ?? 1) : 1)}
              straight={kind.straight ?? false}
              outside={outcome.report.numbers.outside}
              duty={duty}
            />
          ) : null}
          <StageFields stage={stage} index={index} />
          <TakeFound stage={stage} />
          <CountLattice stage={stage} ratio={outcome?.report?.numbers.ratio} />
          <KindTables stage={stage} onTake={onMend} />
        </div>
      }
    >
      <div className="flex min-h-0 min-w-0 flex-col overflow-y-auto px-5 pb-2 pt-3 max-[1099px]:[&>figure]:min-h-[300px]">
        <div className="flex items-baseline justify-between gap-3">
          <h1 className="whitespace-nowrap text-[15px]">
            Stage {index + 1}, {kind.name.toLowerCase()}
          </h1>
          <span className="label truncate">{kind.summary}</span>
        </div>
        {problem ? (
          <div className="py-3">
            <ProblemNote problem={problem} fix={outcome?.problem?.fix} onFix={onMend} />
          </div>
        ) : null}
        {draw ? <Sheet draw={draw} still={still} name={`Stage ${index + 1}, ${kind.name.toLowerCase()}`} /> : null}
        {courses.length ? <CourseStrip courses={courses} map={map} /> : null}
        {outcome?.report ? (
          <div className="grid h-[clamp(180px,25.5vh,260px)] shrink-0 grid-cols-[minmax(0,1fr)_minmax(0,1.12fr)] border-t border-rule">
            <div
              className="min-h-0 overflow-y-auto border-r border-rule pr-4 pt-1.5"
              role="region"
              aria-label="Checks of the stage"
              tabIndex={0}
            >
              <CheckList
                checks={outcome.report.checks}
                figures={outcome.report.figures}
                stageId={stage.id}
                onMend={onMend}
              />
            </div>
            <div
              className="min-h-0 overflow-y-auto pl-4 pt-1.5"
              role="region"
              aria-label="Figures of the stage"
              tabIndex={0}
            >
              <div className="rule-b flex justify-between pb-1">
                <h2>Figures</h2>
                <span className="label">press one for its working</span>
              </div>
              <Figures stageId={stage.id} figures={outcome.report.figures} springs={outcome.report.numbers.springs} />
            </div>
          </div>
        ) : null}
        <p className="caution no-print mt-1.5 !py-0.5">
          Cover belts, wheels and shafts before power: fingers are drawn in. What skips under load lets go of it.
        </p>
      </div>
    </Panes>
  );
}
