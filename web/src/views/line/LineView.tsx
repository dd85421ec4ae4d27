import { activeVariant, atOutput, travelOf, type Figure } from '@gristmill/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { useActions, type Action } from '../../app/actions.ts';
import { TextField } from '../../parts/ChoiceField.tsx';
import { FigureText } from '../../parts/FigureText.tsx';
import { Straight } from '../../state/straight.tsx';
import { LazyPlot } from '../../parts/LazyPlot.tsx';
import { Later } from '../../parts/Later.tsx';
import { ProblemNote } from '../../parts/ProblemNote.tsx';
import { slug } from '../../state/address.ts';
import { copyVariant } from '../../state/variants.ts';
import { editVariant, useJoint, useOpen, useVariant } from '../../state/open.ts';
import { sizeInWorker } from '../../workers/sizing.ts';
import { useLine } from '../../workers/queries.ts';
import { thinned } from './thinned.ts';
import { LineChecks } from './LineChecks.tsx';
import { StageRows } from './StageRows.tsx';

/** Figures in sight at once, unless the tally has them; the rest is one press away. */
const FIRST = [
  'ratio',
  'efficiency',
  'continuous',
  'motorNeeded',
  'motorRms',
  'winding',
  'windUp',
  'stiffness',
  'natural',
  'acceleration',
  'moveTime',
  'inertia',
  'commanded',
  'resolution',
  'turnBack',
  'capacity',
];

function VariantBar() {
  const joint = useJoint();
  const variant = useVariant();
  const edit = useOpen((s) => s.edit);
  const readOnly = useOpen((s) => s.readOnly);
  const builds = joint.builds.filter((b) => b.variantId === variant.id).length;
  const actions = useMemo<Action[]>(() => {
    const duplicate = () => edit('Duplicate variant', (d) => copyVariant(d));
    const size = async () => {
      const now = useOpen.getState().joint!;
      const own = activeVariant(now);
      const made = await sizeInWorker(now, [own]).then(
        (list) => list[0],
        () => undefined,
      );
      const still = useOpen.getState().joint?.variants.find((v) => v.id === own.id);
      if (!made) return void toast('The stages could not be sized: what computes did not come. Try again.');
      // What was changed meanwhile is not sized over.
      if (still?.stages !== own.stages) return;
      edit('Size to the brief', (d) => void (d.variants.find((v) => v.id === own.id)!.stages = made as never));
      toast('Sized to the brief.');
    };
    return [
      { id: 'size', name: 'Size the stages to the brief', group: 'Line', key: 's', run: () => void size() },
      { id: 'duplicate-variant', name: 'Duplicate this variant', group: 'Variants', run: duplicate },
    ];
  }, [edit]);
  useActions('line', actions);
  return (
    <div className="flex items-baseline gap-3">
      <h1 className="text-[15px]">Variant</h1>
      <TextField
        label="Variant name"
        hideLabel
        value={variant.name}
        refuse={(v) => v === ''}
        className="w-28 font-semibold"
        onChange={(name) => editVariant('Rename variant', (v) => void (v.name = name))}
      />
      <button type="button" className="btn-quiet" disabled={readOnly} onClick={actions[1]!.run}>
        Duplicate
      </button>
      <button
        type="button"
        className="btn-quiet"
        disabled={readOnly || joint.variants.length < 2 || builds > 0}
        title={builds > 0 ? 'It has builds; remove them first.' : undefined}
        onClick={() =>
          edit(`Delete variant ${variant.name}`, (d) => {
            d.variants = d.variants.filter((v) => v.id !== variant.id);
            d.activeVariant = d.variants[0]!.id;
          })
        }
      >
        Delete
      </button>
      <button
        type="button"
        className="btn ml-auto"
        disabled={readOnly || variant.stages.length === 0}
        onClick={actions[0]!.run}
      >
        Size to the brief
      </button>
    </div>
  );
}

/** Figures in two columns, each with its working. */
function FigureColumns({ figures, label }: { figures: readonly Figure[]; label: string }) {
  const half = Math.ceil(figures.length / 2);
  return (
    <div role="group" className="grid grid-cols-2 gap-x-5 border-t border-rule py-0.5 text-[12.5px]" aria-label={label}>
      {[figures.slice(0, half), figures.slice(half)].map((list, k) => (
        // Each row by itself: a long value in one leaves a long name in another its room.
        <ul key={k} className="h-fit">
          {list.map((f) => (
            <li key={f.id} className="rule-b flex items-baseline justify-between gap-x-2 py-0">
              <span>{f.name}</span>
              <span className="whitespace-nowrap">
                {atOutput(f.id) ? (
                  <Straight>
                    <FigureText figure={f} at={{ stageId: undefined, figureId: f.id }} />
                  </Straight>
                ) : (
                  <FigureText figure={f} at={{ stageId: undefined, figureId: f.id }} />
                )}
              </span>
            </li>
          ))}
        </ul>
      ))}
    </div>
  );
}

/** Motor and stages, the output's torque–speed map, and where everything comes from. */
export default function LineView() {
  const joint = useJoint();
  const { report } = useLine();
  const map = report?.map;
  const load = travelOf(joint.brief) === undefined ? 'Torque' : 'Force';
  // What the brief limits stands in the tally, with its working; here is the rest.
  const inTally = new Set<string>(joint.brief.limits.map((l) => l.id));
  const all = (report?.figures ?? []).filter((f) => !inTally.has(f.id));
  const figures = FIRST.map((id) => all.find((f) => f.id === id))
    .filter((f) => f !== undefined)
    .slice(0, 8);
  const rest = all.filter((f) => !figures.includes(f));
  return (
    <div className="flex min-h-full min-w-0 flex-col">
      <VariantBar />
      <div className="pt-2">
        <Later>
          <Straight>
            <StageRows report={report} />
          </Straight>
        </Later>
      </div>
      {report?.problem ? (
        <div className="py-2">
          <ProblemNote problem={report.problem} />
        </div>
      ) : null}
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="whitespace-nowrap">Reach at the output</h2>
        <p className="label">
          <span className="text-expected">— peak</span> · <span className="text-expected">-- continuous</span> · limited
          by {report?.limitedBy || '—'}
          {report?.verdicts.some((v) => v.id === 'torque' && v.state === 'fails') ? (
            <>
              {' '}
              ·{' '}
              <Link className="mend" to={`/joint/${slug(joint.id)}/line/ratio`}>
                what ratio would do?
              </Link>
            </>
          ) : null}
        </p>
      </div>
      <div className="h-[132px] shrink-0">
        {map ? (
          <Straight>
            <LazyPlot
              name={`${load} and speed at the output, the motor’s reach against the brief’s points`}
              x="speed"
              y="torque"
              xName="output speed"
              yName={load.toLowerCase()}
              level={{ name: 'stages hold', y: map.capacity }}
              series={[
                { key: 'peak', name: 'peak', x: map.speed, y: map.peak, colour: 'var(--expected)', width: 2.2 },
                {
                  key: 'ever',
                  name: 'continuous',
                  x: map.speed,
                  y: map.continuous,
                  colour: 'var(--expected)',
                  dash: '6 4',
                  width: 1.4,
                },
              ]}
              marks={thinned(
                map.points.map((p) => ({
                  name: `${p.name} ×${p.margin > 9.95 ? '>10' : p.margin.toFixed(1)}`,
                  x: p.speed,
                  y: p.torque,
                  ok: p.margin >= 1 && p.torque <= map.capacity,
                  below: p.speed === 0,
                  margin: p.margin,
                })),
              )}
            />
          </Straight>
        ) : (
          <p className="label py-3">The map appears once the line can be summed.</p>
        )}
      </div>
      <Later>
        <FigureColumns figures={figures} label="Figures of the line" />
        {report ? <LineChecks report={report} /> : null}
        {rest.length ? (
          <details>
            <summary className="label cursor-pointer">
              All figures: tip, sensors, mount, bore, life and the rest
            </summary>
            <FigureColumns figures={rest} label="More figures of the line" />
          </details>
        ) : null}
        {report?.holder ? (
          <p className="label pb-2">The line is self-locking: unpowered, {report.holder} cannot be driven back.</p>
        ) : null}
      </Later>
    </div>
  );
}
