import type { BuildPlan, TaskRecord } from '@gristmill/core';
import type { Placed } from '@gristmill/core/schedule/lay-out';
import { byDay, type DayEntry } from '@gristmill/core/schedule/write-plan';
import { startOf } from '@gristmill/core/schedule/wall-clock';
import { memo } from 'react';
import { QuantityField } from '../../../parts/QuantityField.tsx';
import { Said } from '../../../parts/Said.tsx';
import { DateField } from './DateField.tsx';
import { DAY, KIND_NAMES, sayDay, sayLong, sayTime } from './words.ts';

/** How a person changes what is known of a task. */
export interface TaskEdits {
  readonly readOnly: boolean;
  readonly tick: (p: Placed, done: boolean) => void;
  readonly set: (p: Placed, what: string, part: Partial<TaskRecord>) => void;
  readonly plate: (p: Placed) => void;
  readonly ordered: (p: Placed) => void;
  readonly begun: (p: Placed, begun: boolean) => void;
}

/** When something of a day is: from and to, or only that it comes. */
function when({ does, span }: DayEntry): string {
  if (does === 'comes') return 'comes';
  if (does === 'done') return 'done';
  const over = Math.floor(span[1] / DAY) > Math.floor(span[0] / DAY);
  return `${sayTime(span[0])}–${over ? `${sayDay(span[1])} ` : ''}${sayTime(span[1])}`;
}

/** What a task’s time is reckoned from; the factors are the shop’s. */
function reckoned({ laid, hands, prints, work }: Placed['task']): string {
  if (laid && prints > 0)
    return (
      `Reckoned: ${sayLong(prints)} for ${Math.round(laid.path)} m of line in ${laid.layers} layers with heating, ` +
      `${sayLong(hands)} by hand; factors print.* of the shop.`
    );
  return work === undefined
    ? ''
    : `Reckoned: ${sayLong(work)} at a pace of one, ${sayLong(hands)} at yours; factors mill.* and work.* of the shop.`;
}

/** What can be said of one task: when at the earliest, how long it took, when it comes. */
function TaskFields({ placed, known, edits }: { placed: Placed; known: TaskRecord | undefined; edits: TaskEdits }) {
  const { task } = placed;
  const { readOnly, set } = edits;
  return (
    <div className="grid grid-cols-2 gap-x-6 pt-1 pb-1 pl-6">
      {task.kind === 'buy' ? (
        <>
          <QuantityField
            label="Comes after, days"
            quantity="count"
            value={Math.round(task.waits / DAY)}
            min={0}
            max={1000}
            step={1}
            whole
            disabled={readOnly}
            onChange={(days) => set(placed, 'days until it comes', { days })}
          />
          <DateField
            label="Promised for"
            value={known?.comes}
            disabled={readOnly}
            onChange={(comes) => set(placed, 'promised', { comes })}
          />
        </>
      ) : null}
      <DateField
        label={task.kind === 'buy' ? 'Not ordered before' : 'Not before'}
        value={known?.on}
        disabled={readOnly}
        onChange={(on) => set(placed, 'day', { on })}
      />
      {task.kind === 'buy' || task.kind === 'dry' ? null : (
        <QuantityField
          label="It took"
          quantity="life"
          value={known?.took ?? task.hands + task.prints}
          min={1}
          max={1e8}
          step={600}
          digits={3}
          disabled={readOnly}
          onChange={(took) =>
            set(placed, 'time it took', {
              took,
              ...(task.laid && { path: task.laid.path, layers: task.laid.layers }),
              ...(task.work !== undefined && { work: task.work }),
            })
          }
        />
      )}
      {reckoned(task) ? <p className="label col-span-2">{reckoned(task)}</p> : null}
      {(task.kind === 'print' || task.kind === 'dry') && task.done === undefined ? (
        <button
          type="button"
          className="mend justify-self-start"
          disabled={readOnly}
          onClick={() => edits.begun(placed, task.begun === undefined)}
        >
          {task.begun === undefined ? 'It runs since now' : 'It does not run yet'}
        </button>
      ) : null}
      {known?.ordered && task.done === undefined ? (
        <button
          type="button"
          className="mend justify-self-start"
          disabled={readOnly}
          onClick={() => set(placed, 'order taken back', { ordered: undefined })}
        >
          Ordered on {known.ordered}: take back
        </button>
      ) : null}
      {task.kind === 'print' && task.made && task.done === undefined ? (
        <button type="button" className="mend justify-self-start" onClick={() => edits.plate(placed)}>
          This plate as 3MF
        </button>
      ) : null}
    </div>
  );
}

const Entry = memo(function Entry({
  entry,
  known,
  open,
  onOpen,
  edits,
}: {
  entry: DayEntry;
  known: TaskRecord | undefined;
  open: boolean;
  onOpen: () => void;
  edits: TaskEdits;
}) {
  const { placed, does } = entry;
  const { task, hands } = placed;
  const isOrder = task.kind === 'buy' && does === 'hands';
  // What goes over several days is ticked where it ends; what is bought, where it comes.
  const last = task.kind === 'buy' || (does !== 'runs' && (does !== 'hands' || hands[hands.length - 1] === entry.span));
  return (
    <li className={`rule-b py-0.5 ${open ? 'bg-expected-soft' : ''}`} data-task={task.id}>
      <div className="grid grid-cols-[22px_9.5rem_minmax(0,1fr)_4.5rem] items-baseline gap-x-1">
        {last ? (
          <input
            type="checkbox"
            className="h-4 w-4 self-center accent-[var(--ink)]"
            aria-label={`${does === 'comes' ? 'Has come' : isOrder ? 'Ordered' : 'Done'}: ${task.name}`}
            checked={isOrder ? known?.ordered !== undefined : known?.done !== undefined || task.done !== undefined}
            disabled={edits.readOnly || (task.done !== undefined && known?.done === undefined)}
            title={task.done !== undefined && known?.done === undefined ? 'Ticked off in Going together' : undefined}
            onChange={(e) => (isOrder ? edits.ordered(placed) : edits.tick(placed, e.target.checked))}
          />
        ) : (
          <span />
        )}
        <span className="num label whitespace-nowrap">{when(entry)}</span>
        <button type="button" className="min-w-0 text-left hover:underline" aria-expanded={open} onClick={onOpen}>
          <Said>{isOrder ? `Order: ${task.name}` : task.name}</Said>
          <span className="label block truncate">
            {KIND_NAMES[task.kind]} · <Said>{task.says}</Said>
          </span>
        </button>
        <span className="num label text-right">
          {does === 'comes' || does === 'done'
            ? known?.took
              ? sayLong(known.took)
              : ''
            : sayLong(entry.span[1] - entry.span[0])}
        </span>
      </div>
      {open ? <TaskFields placed={placed} known={known} edits={edits} /> : null}
    </li>
  );
});

/** The plan as a list, day by day. */
export function PlanDays({
  placed,
  plan,
  picked,
  onPick,
  edits,
}: {
  placed: readonly Placed[];
  plan: BuildPlan;
  picked: string | undefined;
  onPick: (id: string | undefined) => void;
  edits: TaskEdits;
}) {
  const days = byDay(placed);
  // Of a task that goes over days the fields are shown once.
  const shown = days.flatMap((d) => d.entries).find((e) => e.placed.task.id === picked);
  return (
    <>
      {days.map(({ day, entries }) => (
        <section key={day} aria-label={sayDay(startOf(day))} className="pb-2">
          <h2 className="border-b border-strong pb-0.5 text-[13px]">{sayDay(startOf(day))}</h2>
          <ul>
            {entries.map((entry) => {
              const { id } = entry.placed.task;
              return (
                <Entry
                  key={`${id} ${entry.does} ${entry.span[0]}`}
                  entry={entry}
                  known={plan.tasks[id]}
                  open={entry === shown}
                  onOpen={() => onPick(picked === id ? undefined : id)}
                  edits={edits}
                />
              );
            })}
          </ul>
        </section>
      ))}
    </>
  );
}
