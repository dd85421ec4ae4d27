import type { SectionSheet, SheetRegion, SheetRoom } from '@gristmill/core';
import { formatQuantity } from '@gristmill/core';
import { memo, useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import { useUnits } from '../../../state/prefs.ts';

/** Paper round the drawing, px: beside it and above and below, where its dimensions stand. */
const [SIDE, OVER] = [56, 58];

const FILL: Record<SheetRegion['turns'], string> = {
  fixed: 'var(--part)',
  input: 'var(--belt)',
  output: 'var(--part-b)',
  free: 'var(--expected-soft)',
};

/** What can be dragged: where it stands and what a millimetre of it means. */
export interface Handle {
  readonly key: 'wall' | 'plate' | 'gap';
  readonly label: string;
  /** Across and along the axis, m. */
  readonly u: number;
  readonly z: number;
  readonly along: 'u' | 'z';
  /** The value that a place of the handle gives, m. */
  valueAt(place: number): number;
}

interface View {
  readonly width: number;
  readonly height: number;
  /** Pixels a metre. */
  readonly scale: number;
  x(z: number): number;
  y(u: number): number;
}

/** The axis lies across the paper, the motor to the left; across the axis is up. */
function viewOf({ bounds: b }: SectionSheet, width: number, height: number): View {
  const scale = Math.max(
    1,
    Math.min((width - 2 * SIDE) / Math.max(1e-4, b.z1 - b.z0), (height - 2 * OVER) / Math.max(1e-4, b.u1 - b.u0)),
  );
  const [cz, cu] = [(b.z0 + b.z1) / 2, (b.u0 + b.u1) / 2];
  return {
    width,
    height,
    scale,
    x: (z) => width / 2 + (z - cz) * scale,
    y: (u) => height / 2 - (u - cu) * scale,
  };
}

const Region = memo(function Region({
  region,
  view,
  picked,
  dim,
  onPick,
}: {
  region: SheetRegion;
  view: View;
  picked: boolean;
  dim: boolean;
  onPick: (id: string) => void;
}) {
  const { rects, edges, roots } = region;
  const fill: string[] = [];
  for (let i = 0; i < rects.length; i += 4)
    fill.push(
      `M${view.x(rects[i + 1]!)} ${view.y(rects[i]!)}H${view.x(rects[i + 3]!)}V${view.y(rects[i + 2]!)}H${view.x(rects[i + 1]!)}Z`,
    );
  const lines = (list: Float64Array): string => {
    let d = '';
    for (let i = 0; i < list.length; i += 4)
      d += `M${view.x(list[i + 1]!)} ${view.y(list[i]!)}L${view.x(list[i + 3]!)} ${view.y(list[i + 2]!)}`;
    return d;
  };
  const made = region.of === 'case' && !/screw|tie|nut|washer|bearing/.test(region.id);
  const d = fill.join('');
  return (
    <g
      data-region={region.id}
      opacity={dim ? 0.35 : 1}
      className="cursor-pointer"
      onClick={(e) => {
        e.stopPropagation();
        onPick(region.id);
      }}
    >
      <title>{region.name}</title>
      <path d={d} fill={picked ? 'var(--found-soft, var(--expected-soft))' : FILL[region.turns]} stroke="none" />
      {made ? (
        <path
          d={d}
          fill={region.id.includes('plate') || region.id.includes('cover') ? 'url(#cut-a)' : 'url(#cut-b)'}
          stroke="none"
          pointerEvents="none"
        />
      ) : null}
      {roots.length ? <path d={lines(roots)} stroke="var(--muted)" strokeWidth={0.7} fill="none" /> : null}
      <path
        d={lines(edges)}
        stroke={picked ? 'var(--found)' : 'var(--ink)'}
        strokeWidth={picked ? 2 : 1}
        strokeDasharray={region.turnedIn ? '6 2' : undefined}
        fill="none"
        strokeLinecap="square"
      />
    </g>
  );
});

/** A dimension line with its value: along the axis below the drawing, across it beside. */
function Dimension({
  from,
  to,
  at,
  across,
  view,
  text,
}: {
  from: number;
  to: number;
  at: number;
  across?: boolean;
  view: View;
  text: string;
}) {
  const [a, b] = across ? [view.y(from), view.y(to)] : [view.x(from), view.x(to)];
  const mid = (a + b) / 2;
  const mark = (p: number) => (across ? `M${at - 4} ${p + 4}l8 -8` : `M${p - 4} ${at + 4}l8 -8`);
  return (
    <g stroke="var(--ink)" strokeWidth={0.8}>
      <path d={across ? `M${at} ${a}V${b}` : `M${a} ${at}H${b}`} />
      <path d={`${mark(a)}${mark(b)}`} />
      <text
        x={across ? at - 6 : mid}
        y={across ? mid : at - 5}
        transform={across ? `rotate(-90 ${at - 6} ${mid})` : undefined}
        textAnchor="middle"
        fontSize={12}
        fill="var(--ink)"
        stroke="none"
        className="num"
      >
        {text}
      </text>
    </g>
  );
}

/** The section to scale, with its dimensions, what is dragged, and the rooms that were asked about. */
export function SectionDrawing({
  sheet,
  name,
  picked,
  onPick,
  room,
  handles,
  onDrag,
}: {
  sheet: SectionSheet;
  name: string;
  picked: string | undefined;
  onPick: (id: string | undefined) => void;
  room: SheetRoom | undefined;
  handles: readonly Handle[];
  onDrag: (handle: Handle, value: number) => void;
}) {
  const units = useUnits();
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<readonly [number, number]>([800, 500]);
  const [dragged, setDragged] = useState<{ handle: Handle; place: number } | undefined>();
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize([Math.max(200, entry.contentRect.width), Math.max(160, entry.contentRect.height)]);
    });
    watch.observe(box.current!);
    return () => watch.disconnect();
  }, []);
  const view = useMemo(() => viewOf(sheet, size[0], size[1]), [sheet, size]);
  const say = (x: number) => formatQuantity(x, 'length', units, 4);
  const { bounds: b, envelope } = sheet;
  const below = Math.min(size[1] - 16, view.y(b.u0) + 34);
  const beside = Math.max(20, view.x(b.z0) - 24);
  const place = (e: PointerEvent, h: Handle): number => {
    const r = box.current!.getBoundingClientRect();
    const [px, py] = [e.clientX - r.left, e.clientY - r.top];
    return h.along === 'z'
      ? (px - view.width / 2) / view.scale + (b.z0 + b.z1) / 2
      : (view.height / 2 - py) / view.scale + (b.u0 + b.u1) / 2;
  };
  const order: Record<SheetRegion['of'], number> = { motor: 0, case: 1, stage: 2, output: 3 };
  const regions = useMemo(
    () => [...sheet.regions].sort((p, q) => order[p.of] - order[q.of]),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [sheet],
  );
  return (
    <div ref={box} className="relative h-full min-h-0 w-full overflow-hidden">
      <svg
        width={size[0]}
        height={size[1]}
        role="img"
        aria-label={`${name} cut along its axis, the motor to the left: ${sheet.regions.length} parts`}
        data-regions={sheet.regions.length}
        onClick={() => onPick(undefined)}
      >
        <defs>
          {(['a', 'b'] as const).map((id) => (
            <pattern
              key={id}
              id={`cut-${id}`}
              width="7"
              height="7"
              patternUnits="userSpaceOnUse"
              patternTransform={`rotate(${id === 'a' ? 45 : -45})`}
            >
              <path d="M0 0V7" stroke="var(--muted)" strokeWidth={0.8} />
            </pattern>
          ))}
        </defs>
        {regions.map((r) => (
          <Region
            key={r.id}
            region={r}
            view={view}
            picked={r.id === picked}
            dim={picked !== undefined && r.id !== picked}
            onPick={onPick}
          />
        ))}
        <path
          d={`M${view.x(b.z0) - 18} ${view.y(0)}H${view.x(b.z1) + 18}`}
          stroke="var(--muted)"
          strokeWidth={0.9}
          strokeDasharray="14 3 3 3"
        />
        {sheet.free ? (
          <path
            data-free=""
            d={`M${view.x(sheet.free[1])} ${view.y(sheet.free[0])}H${view.x(sheet.free[3])}V${view.y(sheet.free[2])}H${view.x(sheet.free[1])}Z`}
            fill="none"
            stroke="var(--found)"
            strokeWidth={1.2}
            strokeDasharray="7 4"
          />
        ) : null}
        {envelope ? (
          <>
            <Dimension
              from={envelope.from}
              to={envelope.to}
              at={below}
              view={view}
              text={say(envelope.to - envelope.from)}
            />
            <Dimension from={b.u0} to={b.u1} at={beside} across view={view} text={say(b.u1 - b.u0)} />
          </>
        ) : null}
        {room ? (
          <g stroke="var(--found)" strokeWidth={2.4} fill="none">
            <path d={`M${view.x(room.at[1])} ${view.y(room.at[0])}L${view.x(room.at[3])} ${view.y(room.at[2])}`} />
            <circle cx={view.x((room.at[1] + room.at[3]) / 2)} cy={view.y((room.at[0] + room.at[2]) / 2)} r={11} />
          </g>
        ) : null}
        {handles.map((h) => {
          const now = dragged?.handle.key === h.key ? dragged.place : undefined;
          const [x, y] = [view.x(h.along === 'z' ? (now ?? h.z) : h.z), view.y(h.along === 'u' ? (now ?? h.u) : h.u)];
          return (
            <g key={h.key} data-handle={h.key}>
              {now === undefined ? null : (
                <>
                  <path
                    d={
                      h.along === 'z'
                        ? `M${x} ${OVER / 2}V${size[1] - OVER / 2}`
                        : `M${SIDE / 2} ${y}H${size[0] - SIDE / 2}`
                    }
                    stroke="var(--found)"
                    strokeDasharray="4 3"
                  />
                  <text x={x + 8} y={y - 10} fontSize={12} fill="var(--found)" className="num">
                    {h.label} {say(h.valueAt(now))}
                  </text>
                </>
              )}
              <rect
                x={x - 5}
                y={y - 5}
                width={10}
                height={10}
                fill="var(--paper)"
                stroke="var(--found)"
                strokeWidth={1.6}
                className={`touch-none ${h.along === 'z' ? 'cursor-ew-resize' : 'cursor-ns-resize'}`}
                onClick={(e) => e.stopPropagation()}
                onPointerDown={(e) => {
                  e.currentTarget.setPointerCapture(e.pointerId);
                  setDragged({ handle: h, place: place(e, h) });
                }}
                onPointerMove={(e) => dragged && setDragged({ handle: h, place: place(e, h) })}
                onPointerUp={() => {
                  if (dragged) onDrag(h, h.valueAt(dragged.place));
                  setDragged(undefined);
                }}
              >
                <title>{h.label}: drag, or type it beside</title>
              </rect>
            </g>
          );
        })}
      </svg>
    </div>
  );
}
