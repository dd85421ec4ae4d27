import type { BuildPlan } from '@gristmill/core';
import { hoursOn } from '@gristmill/core/schedule/hours';
import type { Placed } from '@gristmill/core/schedule/lay-out';
import { dayOf, startOf } from '@gristmill/core/schedule/wall-clock';
import { memo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { useSaid } from '../../../state/said.ts';
import { DAY, sayDay, sayTime } from './words.ts';

/** Width of a day and height of a lane, px. */
const [DAY_WIDTH, LANE] = [92, 30];
/** Days drawn at least, and at most: what is further away is in the list. */
const [LEAST, MOST] = [10, 60];
const [NAMES, HEAD] = [64, 26];

/** A block on the board: a stretch of a task in its row, px. */
interface Block {
  readonly placed: Placed;
  readonly from: number;
  readonly to: number;
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly height: number;
  readonly soft?: boolean;
}

/** A row of the board with its name. */
interface Lane {
  readonly name: string;
  readonly top: number;
  readonly height: number;
}

/** Height of what is waited for, px: several things at once lie below each other. */
const THIN = 17;

/**
 * Rows with their blocks: oneself, every printer, what is waited for. One’s own hours are spread over the width of their
 * day, since an evening of it would be a sliver; machines have the whole day.
 */
function lanesOf(placed: readonly Placed[], plan: BuildPlan, first: number, days: number) {
  const at = (t: number) => (t / DAY - first) * DAY_WIDTH;
  const spread = (t: number, day: number) => {
    const own = hoursOn(plan, day) ?? [day * DAY, (day + 1) * DAY];
    return (day - first + Math.min(1, Math.max(0, (t - own[0]) / (own[1] - own[0])))) * DAY_WIDTH;
  };
  const blocks: Block[] = [];
  const row = (k: number) => ({ top: HEAD + k * LANE + 3, height: LANE - 6 });
  const waiting: { p: Placed; from: number; to: number }[] = [];
  for (const p of placed) {
    if (p.task.done !== undefined) continue;
    for (const [from, to] of p.hands) {
      const day = Math.floor(from / DAY);
      blocks.push({ placed: p, from, to, left: spread(from, day), right: spread(to, day), ...row(0) });
    }
    if (p.printer) {
      const [from, to] = p.printer.span;
      blocks.push({ placed: p, from, to, left: at(from), right: at(to), ...row(1 + p.printer.which) });
    }
    if (p.waits) waiting.push({ p, from: p.waits[0], to: p.waits[1] });
  }
  // Each goes into the first thin row that is free by then.
  const ends: number[] = [];
  const below = HEAD + (1 + plan.printers) * LANE;
  for (const { p, from, to } of waiting.sort((a, b) => a.from - b.from)) {
    const free = ends.findIndex((end) => end <= from);
    const k = free < 0 ? ends.length : free;
    ends[k] = to;
    blocks.push({
      placed: p,
      from,
      to,
      left: at(from),
      right: at(to),
      top: below + k * THIN + 2,
      height: THIN - 3,
      soft: true,
    });
  }
  const lanes: Lane[] = [
    { name: 'You', top: HEAD, height: LANE },
    ...Array.from({ length: plan.printers }, (_, i) => ({
      name: plan.printers > 1 ? `Printer ${i + 1}` : 'Printer',
      top: HEAD + (1 + i) * LANE,
      height: LANE,
    })),
    { name: 'Waiting', top: below, height: Math.max(LANE, ends.length * THIN + 4) },
  ];
  const shown = blocks.filter((b) => b.right > 0 && b.left < days * DAY_WIDTH);
  return { lanes, blocks: shown.sort((a, b) => a.from - b.from) };
}

const TINTS = {
  buy: 'bg-serious border-found',
  dry: 'bg-serious border-near',
  print: 'bg-expected-soft border-expected',
  make: 'bg-[var(--part)] border-muted',
  assemble: 'bg-[var(--part-b)] border-ink',
  test: 'bg-panel border-found',
  reading: 'bg-panel border-found',
} as const;

/** Days from left to right with what one does, what the printers print and what is waited for; a block can be dragged to another day. */
export const PlanBoard = memo(function PlanBoard({
  placed,
  plan,
  now,
  end,
  picked,
  onPick,
  onMove,
}: {
  placed: readonly Placed[];
  plan: BuildPlan;
  now: number;
  end: number;
  picked: string | undefined;
  onPick: (id: string) => void;
  /** A task is wanted on another day, or as early as can be. */
  onMove: (p: Placed, day: string | undefined) => void;
}) {
  const said = useSaid();
  const first = Math.floor(Math.max(startOf(plan.start), now) / DAY);
  const days = Math.min(MOST, Math.max(LEAST, Math.ceil(end / DAY) - first + 1));
  const { lanes, blocks } = lanesOf(placed, plan, first, days);
  const bottom = lanes[lanes.length - 1]!;
  const [drag, setDrag] = useState<{ key: string; by: number } | undefined>();
  const from = useRef(0);
  const dayMoved = (p: Placed, by: number) =>
    dayOf((Math.floor((p.task.kind === 'buy' ? p.end : p.start) / DAY) + by) * DAY);
  const keys = (e: KeyboardEvent, p: Placed) => {
    const by = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0;
    if (by) onMove(p, dayMoved(p, by));
    else if (e.key === 'Delete' || e.key === 'Backspace') onMove(p, undefined);
    else return;
    e.preventDefault();
  };
  const begin = (e: PointerEvent<HTMLButtonElement>, key: string) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    from.current = e.clientX;
    setDrag({ key, by: 0 });
  };
  return (
    <div className="flex border-y border-rule bg-panel" role="group" aria-label="Days">
      <div className="shrink-0 border-r border-rule" style={{ width: NAMES }}>
        {lanes.map(({ name, top, height }) => (
          <div
            key={name}
            className="border-t border-rule px-1 pt-1 text-[12.5px]"
            style={{ height, ...(top === HEAD && { marginTop: HEAD }) }}
          >
            {name}
          </div>
        ))}
      </div>
      <div
        className="min-w-0 flex-1 overflow-x-auto"
        tabIndex={0}
        role="region"
        aria-label="Days with what is done on them"
      >
        <div className="relative" style={{ width: days * DAY_WIDTH, height: bottom.top + bottom.height }}>
          {Array.from({ length: days }, (_, i) => {
            const own = hoursOn(plan, first + i);
            return (
              <div
                key={i}
                className={`absolute top-0 bottom-0 border-l border-rule ${own ? '' : 'bg-[var(--part)]/45'}`}
                style={{ left: i * DAY_WIDTH, width: DAY_WIDTH }}
              >
                <div className="label whitespace-nowrap px-1 pt-1">{sayDay((first + i) * DAY)}</div>
              </div>
            );
          })}
          {lanes.map(({ name, top }) => (
            <div key={name} className="absolute right-0 left-0 border-t border-rule" style={{ top }} />
          ))}
          {blocks.map((b, i) => {
            const { task } = b.placed;
            const key = `${task.id} ${b.top} ${b.from}`;
            const left = Math.max(0, b.left);
            const moving = drag?.key === key ? drag.by : 0;
            return (
              <button
                key={key}
                type="button"
                data-block={task.id}
                data-listed=""
                className={`absolute touch-none overflow-hidden rounded-sm border text-left text-[11px] whitespace-nowrap ${TINTS[task.kind]} ${b.soft ? 'border-dashed opacity-80' : ''} ${picked === task.id ? 'z-10 outline-2 outline-focus' : ''}`}
                style={{
                  left,
                  width: Math.max(7, b.right - left),
                  top: b.top,
                  height: b.height,
                  lineHeight: `${b.height - 2}px`,
                  transform: moving ? `translateX(${moving * DAY_WIDTH}px)` : undefined,
                }}
                title={`${said(task.name)}: ${sayDay(b.from)} ${sayTime(b.from)} to ${sayDay(b.to)} ${sayTime(b.to)}`}
                aria-label={`${said(task.name)}, ${sayDay(b.from)} ${sayTime(b.from)}${i === 0 ? '; arrows move it a day' : ''}`}
                onClick={() => onPick(task.id)}
                onKeyDown={(e) => keys(e, b.placed)}
                onPointerDown={(e) => begin(e, key)}
                onPointerMove={(e) =>
                  drag?.key === key && setDrag({ key, by: Math.round((e.clientX - from.current) / DAY_WIDTH) })
                }
                onPointerUp={() => {
                  if (drag?.key === key && drag.by !== 0) onMove(b.placed, dayMoved(b.placed, drag.by));
                  setDrag(undefined);
                }}
                onPointerCancel={() => setDrag(undefined)}
              >
                <span className="px-1">{said(task.name)}</span>
              </button>
            );
          })}
        </div>
      </div>
    </div>
  );
});
