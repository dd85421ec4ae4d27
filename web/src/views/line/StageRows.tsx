import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import {
  fromSi,
  plainNumber,
  stageKind,
  type Attribution,
  type LineReport,
  type QuantityId,
  type StageRecord,
} from '@gristmill/core';
import { Link } from 'react-router';
import { useWorking } from '../../app/working.ts';
import { Glyph } from '../../parts/Glyph.tsx';
import { slug } from '../../state/address.ts';
import { editVariant, useJoint, useOpen, useVariant } from '../../state/open.ts';
import { useToldUnit } from '../../state/straight.tsx';
import { AddStage } from './AddStage.tsx';

/** A share of the largest in its column, as a thin bar under the number. */
function Share({ part, whole }: { part: number; whole: number }) {
  const share = whole > 0 && Number.isFinite(part) ? Math.max(0, Math.min(1, part / whole)) : 0;
  return (
    <span aria-hidden="true" className="mt-0.5 block h-[3px] bg-rule/50">
      <span className="block h-full bg-expected" style={{ width: `${share * 100}%` }} />
    </span>
  );
}

/**
 * `of` is the figure whose working says where the share comes from: the line's, or the stage's own where it is its own.
 */
const COLUMNS = [
  { key: 'efficiency', name: 'η', quantity: 'efficiency', of: 'efficiency', own: true },
  { key: 'loss', name: 'loss', quantity: 'torque', of: 'motorNeeded', own: false },
  { key: 'play', name: 'play', quantity: 'smallAngle', of: 'play', own: false },
  { key: 'windUp', name: 'wind-up', quantity: 'smallAngle', of: 'windUp', own: false },
  { key: 'inertia', name: 'inertia', quantity: 'inertia', of: 'inertia', own: false },
  { key: 'mass', name: 'mass', quantity: 'mass', of: 'mass', own: true },
  { key: 'money', name: 'money', quantity: 'money', of: 'money', own: true },
] as const;

/** The head of a column, with the unit of what stands in it. */
function Head({ name, quantity }: { name: string; quantity: QuantityId }) {
  return (
    <th className="whitespace-nowrap text-right">
      {name}
      <span className="num block text-[11px]">{useToldUnit(quantity).symbol}</span>
    </th>
  );
}

/** A share that opens the working behind it. */
function Cell({
  value,
  quantity = 'ratio',
  digits = 3,
  name,
  of,
  own: fromStage,
  stageId,
  report,
}: {
  value: number;
  quantity?: QuantityId;
  digits?: number;
  name: string;
  of: string;
  own: boolean;
  stageId: string;
  report: LineReport;
}) {
  const open = useWorking((s) => s.open);
  const text = plainNumber(fromSi(value, useToldUnit(quantity)), digits);
  const own = fromStage && report.stages.find((s) => s.stageId === stageId)?.report?.figures.find((f) => f.id === of);
  const figure = own || report.figures.find((f) => f.id === of);
  if (!figure) return <span className="num">{text}</span>;
  return (
    <button
      type="button"
      className="num decoration-dotted underline-offset-3 hover:underline"
      aria-label={`${name} ${text}, open working`}
      onClick={() =>
        open({ kind: 'expected', figure, at: { stageId: own ? stageId : undefined, figureId: figure.id } })
      }
    >
      {text}
    </button>
  );
}

function Row({
  stage,
  index,
  share,
  totals,
  problem,
  count,
  report,
}: {
  stage: StageRecord;
  index: number;
  report: LineReport | undefined;
  share: Attribution | undefined;
  totals: Record<string, number>;
  problem: string | undefined;
  count: number;
}) {
  const joint = useJoint();
  const readOnly = useOpen((s) => s.readOnly);
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: stage.id,
    disabled: readOnly,
  });
  const kind = stageKind(stage.kind);
  // A stage has its own ratio though the line cannot be summed.
  const own = report?.stages[index]?.report?.numbers.ratio;
  const move = (by: number) =>
    editVariant('Reorder stages', (v) => {
      const [s] = v.stages.splice(index, 1);
      v.stages.splice(index + by, 0, s!);
    });
  return (
    <tr
      ref={setNodeRef}
      className={`rule-b ${isDragging ? 'bg-panel' : ''}`}
      style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
      data-stage={index + 1}
    >
      <td className="w-5 align-middle">
        <button
          type="button"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={`Move stage ${index + 1}`}
          className="cursor-grab touch-none px-1 text-muted"
          disabled={readOnly}
        >
          ⋮⋮
        </button>
      </td>
      <td>
        <Link
          to={`/joint/${slug(joint.id)}/stage/${index + 1}`}
          className="flex items-center gap-1.5 leading-tight hover:underline max-[1099px]:[&>svg]:hidden"
        >
          <Glyph stage={stage} width={34} height={22} />
          <b>
            {index + 1} {kind?.name ?? stage.kind}
          </b>
        </Link>
      </td>
      <td className="text-right">
        {share && report ? (
          <Cell value={share.ratio} digits={4} name="ratio" of="ratio" own stageId={stage.id} report={report} />
        ) : own !== undefined ? (
          <span className="num">{plainNumber(own, 4)}</span>
        ) : null}
      </td>
      {problem ? (
        <td colSpan={COLUMNS.length} className="text-fail">
          ✕ {problem}
        </td>
      ) : report && !share ? (
        <td colSpan={COLUMNS.length} className="label">
          What it contributes shows once every stage can be.
        </td>
      ) : (
        COLUMNS.map((c) => (
          <td key={c.key} className="whitespace-nowrap text-right">
            {share && report ? (
              <Cell
                value={share[c.key]}
                quantity={c.quantity}
                name={c.name}
                of={c.of}
                own={c.own}
                stageId={stage.id}
                report={report}
              />
            ) : null}
            {share && c.key !== 'efficiency' ? <Share part={share[c.key]} whole={totals[c.key] ?? 0} /> : null}
          </td>
        ))
      )}
      <td className="whitespace-nowrap pr-0 text-right">
        <button
          type="button"
          className="btn-quiet px-1"
          aria-label={`Stage ${index + 1} towards the motor`}
          disabled={index === 0 || readOnly}
          onClick={() => move(-1)}
        >
          ↑
        </button>
        <button
          type="button"
          className="btn-quiet px-1"
          aria-label={`Stage ${index + 1} towards the output`}
          disabled={index === count - 1 || readOnly}
          onClick={() => move(1)}
        >
          ↓
        </button>
        <button
          type="button"
          className="btn-quiet px-1"
          aria-label={`Remove stage ${index + 1}`}
          disabled={readOnly}
          onClick={() => editVariant(`Remove stage ${index + 1}`, (v) => void v.stages.splice(index, 1))}
        >
          ✕
        </button>
      </td>
    </tr>
  );
}

/** The stages in power-flow order with what each contributes at the output; added, removed and reordered here. */
export function StageRows({ report }: { report: LineReport | undefined }) {
  const variant = useVariant();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const totals = Object.fromEntries(
    COLUMNS.map((c) => [c.key, (report?.attribution ?? []).reduce((sum, a) => sum + Math.abs(a[c.key]), 0)]),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    editVariant('Reorder stages', (v) => {
      const from = v.stages.findIndex((s) => s.id === active.id);
      const to = v.stages.findIndex((s) => s.id === over.id);
      const [s] = v.stages.splice(from, 1);
      v.stages.splice(to, 0, s!);
    });
  };
  return (
    <section aria-label="Stages">
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
        <table className="w-full text-[12.5px] [&_td]:pr-1.5 [&_th]:pr-1.5 max-[1099px]:[&_td]:pr-1 max-[1099px]:[&_th]:pr-1">
          <thead>
            <tr className="border-b border-strong align-bottom">
              <th className="w-5">
                <span className="sr-only">Move</span>
              </th>
              <th>Stage</th>
              <th className="text-right">ratio</th>
              {COLUMNS.map((c) => (
                <Head key={c.key} name={c.name} quantity={c.quantity} />
              ))}
              <th className="pr-0">
                <span className="sr-only">Order</span>
              </th>
            </tr>
          </thead>
          <tbody>
            <SortableContext items={variant.stages.map((s) => s.id)} strategy={verticalListSortingStrategy}>
              {variant.stages.map((s, i) => (
                <Row
                  key={s.id}
                  stage={s}
                  index={i}
                  report={report}
                  count={variant.stages.length}
                  totals={totals}
                  share={report?.attribution.find((a) => a.stageId === s.id)}
                  problem={report?.stages.find((o) => o.stageId === s.id)?.problem?.what}
                />
              ))}
            </SortableContext>
          </tbody>
        </table>
      </DndContext>
      <div className="flex flex-wrap items-center gap-3 py-1.5">
        <AddStage />
        <span className="label">Shares at the output; wind-up under the holding torque.</span>
      </div>
    </section>
  );
}
