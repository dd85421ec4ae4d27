import { boundsOf, formatQuantity, type DrawItem, type Layer } from '@gristmill/core';
import { memo, useCallback, useEffect, useMemo, useRef, useState, type CSSProperties, type ReactNode } from 'react';
import { usePrefs, useUnits } from '../state/prefs.ts';
import { pathText } from './path-text.ts';
import { Said } from './Said.tsx';

const MM = 1000;
const TINT: Record<string, string> = {
  none: 'none',
  part: 'var(--part)',
  partB: 'var(--part-b)',
  belt: 'var(--belt)',
  hole: 'var(--paper)',
};
const STROKE: Record<string, { stroke: string; width: number; dash?: string }> = {
  outline: { stroke: 'var(--ink)', width: 1.3 },
  hidden: { stroke: 'var(--ink)', width: 0.8, dash: '5 3' },
  centre: { stroke: 'var(--muted)', width: 0.8, dash: '14 3 3 3' },
  pitch: { stroke: 'var(--muted)', width: 0.8, dash: '14 3 3 3' },
  dimension: { stroke: 'var(--ink)', width: 0.7 },
  force: { stroke: 'var(--found)', width: 1.8 },
  tight: { stroke: 'var(--tight)', width: 3 },
  slack: { stroke: 'var(--slack)', width: 2.2, dash: '7 4' },
  contact: { stroke: 'var(--found)', width: 3.2 },
  clash: { stroke: 'var(--fail)', width: 2.6 },
};

interface View {
  readonly x: number;
  readonly y: number;
  /** Sheet millimetres a pixel. */
  readonly mmPerPx: number;
}

/** A point of an item on the sheet, in mm with y down. */
const at = (p: readonly [number, number]): [number, number] => [p[0] * MM, -p[1] * MM];

interface ItemProps {
  readonly item: DrawItem;
  readonly mmPerPx: number;
  readonly say: (v: number, q: Parameters<typeof formatQuantity>[1]) => string;
}

/** While the crank turns most items stay as they are; only what moved is drawn again. */
const unmoved = (a: ItemProps, b: ItemProps): boolean => {
  if (a.say !== b.say || a.item.kind !== b.item.kind) return false;
  if (a.item.kind === 'curve' && b.item.kind === 'curve')
    return (
      a.item.outline === b.item.outline &&
      a.item.at.turn === b.item.at.turn &&
      a.item.at.x === b.item.at.x &&
      a.item.at.y === b.item.at.y &&
      a.item.tint === b.item.tint &&
      a.item.ink === b.item.ink &&
      a.item.hatch === b.item.hatch
    );
  return a.mmPerPx === b.mmPerPx && JSON.stringify(a.item) === JSON.stringify(b.item);
};

const Item = memo(function Item({ item, mmPerPx, say }: ItemProps) {
  const px = (n: number) => n * mmPerPx;
  if (item.kind === 'curve') {
    const transform = `translate(${item.at.x * MM} ${-item.at.y * MM}) rotate(${(-item.at.turn * 180) / Math.PI})`;
    const d = pathText(item.outline);
    return (
      <>
        <path d={d} transform={transform} fill={TINT[item.tint]} className={`ink-${item.ink}`} />
        {item.hatch ? <path d={d} transform={transform} fill="url(#hatch-part)" stroke="none" /> : null}
      </>
    );
  }
  if (item.kind === 'label') {
    const [x, y] = at(item.at);
    return (
      <text x={x} y={y} fontSize={px(12)} textAnchor="middle" fill="var(--muted)">
        <Said>{item.text}</Said>
      </text>
    );
  }
  if (item.kind === 'arrow') {
    const [x1, y1] = at(item.from);
    const [x2, y2] = at(item.to);
    const length = Math.hypot(x2 - x1, y2 - y1);
    if (length < px(2)) return null;
    const [ux, uy] = [(x2 - x1) / length, (y2 - y1) / length];
    const h = px(8);
    const s = STROKE[item.ink]!;
    return (
      <g>
        <line
          x1={x1}
          y1={y1}
          x2={x2 - ux * h}
          y2={y2 - uy * h}
          stroke={s.stroke}
          strokeWidth={s.width}
          vectorEffect="non-scaling-stroke"
        />
        <path
          d={`M${x2} ${y2}L${x2 - ux * h - uy * h * 0.42} ${y2 - uy * h + ux * h * 0.42}L${x2 - ux * h + uy * h * 0.42} ${y2 - uy * h - ux * h * 0.42}Z`}
          fill={s.stroke}
        />
        {item.label ? (
          <text
            x={x2 + ux * px(6)}
            y={y2 - px(7)}
            fontSize={px(12)}
            className="num"
            textAnchor="middle"
            fill={s.stroke}
            stroke="var(--paper)"
            strokeWidth={px(3)}
            paintOrder="stroke"
          >
            {say(item.label.value, item.label.quantity)}
          </text>
        ) : null}
      </g>
    );
  }
  // A dimension: lines from the points to the offset, arrows at either end, text on the line. All are level in the
  // drawings so far.
  const [x1, y1] = at(item.from);
  const [x2, y2] = at(item.to);
  const y = -item.offset * MM;
  const gap = px(3);
  const dir = y > y1 ? 1 : -1;
  const h = px(6);
  return (
    <g stroke="var(--ink)" strokeWidth={0.7} fill="var(--ink)">
      {[
        [x1, y1],
        [x2, y2],
      ].map(([x, from], i) => (
        <line
          key={i}
          x1={x}
          x2={x}
          y1={from! + dir * gap}
          y2={y + dir * gap}
          vectorEffect="non-scaling-stroke"
          opacity={0.55}
        />
      ))}
      <line x1={x1} x2={x2} y1={y} y2={y} vectorEffect="non-scaling-stroke" />
      <path d={`M${x1} ${y}l${h} ${-h * 0.3}v${h * 0.6}Z`} stroke="none" />
      <path d={`M${x2} ${y}l${-h} ${-h * 0.3}v${h * 0.6}Z`} stroke="none" />
      <text
        x={(x1 + x2) / 2}
        y={y - px(3.5)}
        fontSize={px(12)}
        textAnchor="middle"
        className="num"
        stroke="var(--paper)"
        strokeWidth={px(4)}
        paintOrder="stroke"
      >
        {item.prefix ?? ''}
        {say(item.value, item.quantity)}
      </text>
    </g>
  );
}, unmoved);

/** The items that stand still while the crank turns: alike in two drawings at different angles. */
function standing(still: readonly Layer[], moved: readonly Layer[], say: ItemProps['say']): ReadonlySet<string> {
  const keys = new Set<string>();
  still.forEach((layer) => {
    const other = new Map(moved.find((l) => l.id === layer.id)?.items.map((i) => [i.key, i]));
    for (const item of layer.items) {
      const there = other.get(item.key);
      if (there && unmoved({ item, mmPerPx: 1, say }, { item: there, mmPerPx: 1, say }))
        keys.add(`${layer.id} ${item.key}`);
    }
  });
  return keys;
}

/** Layers as groups; drawn again only when one of them changed. */
const Groups = memo(function Groups({
  layers,
  mmPerPx,
  say,
}: {
  layers: readonly Layer[];
  mmPerPx: number;
  say: ItemProps['say'];
}) {
  return layers.map((layer) => (
    <g key={layer.id} data-layer={layer.id}>
      {layer.items.map((item) => (
        <Item key={item.key} item={item} mmPerPx={mmPerPx} say={say} />
      ))}
    </g>
  ));
});

const LAID = 'pointer-events-none absolute inset-0 select-none will-change-transform [contain:strict]';

/** Room at the edges for dimensions and words, px. */
const ROOM = 34;

/**
 * A technical drawing to scale: drag or arrow keys pan, wheel or + and − zoom, 0 fits. Layers can be switched; the
 * switches are the legend.
 */
export function Drawing({
  layers,
  still,
  moved,
  name,
  children,
  onCrank,
}: {
  layers: readonly Layer[];
  /** The drawing at rest, which the sheet is fitted to. */ still: readonly Layer[];
  /** The same at another angle, which tells what stands. */ moved: readonly Layer[];
  name: string;
  children?: ReactNode;
  onCrank?: (by: number) => void;
}) {
  const units = useUnits();
  const say = useCallback(
    (v: number, q: Parameters<typeof formatQuantity>[1]) => formatQuantity(v, q, units, 4),
    [units],
  );
  const hidden = usePrefs((s) => s.hiddenLayers);
  const setPrefs = usePrefs((s) => s.set);
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ w: 600, h: 420 });
  const [own, setOwn] = useState<View | undefined>();
  useEffect(() => {
    const watch = new ResizeObserver(
      ([entry]) =>
        entry && setSize({ w: Math.max(50, entry.contentRect.width), h: Math.max(50, entry.contentRect.height) }),
    );
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  // Fitted to the drawing at rest, so that it neither shivers nor costs anything while the crank runs.
  const fit = useMemo<View>(() => {
    const curves = still.flatMap((l) => l.items).filter((i) => i.kind === 'curve');
    let b = boundsOf(curves.map((c) => ({ outline: c.outline, at: { ...c.at, turn: 0 } }))) ?? {
      x0: -0.05,
      y0: -0.05,
      x1: 0.05,
      y1: 0.05,
    };
    for (const item of still.flatMap((l) => (hidden.includes(l.id) ? [] : l.items))) {
      if (item.kind === 'dimension')
        b = {
          x0: Math.min(b.x0, item.from[0]),
          x1: Math.max(b.x1, item.to[0]),
          y0: Math.min(b.y0, item.offset),
          y1: Math.max(b.y1, item.offset),
        };
    }
    const mmPerPx = Math.max(
      ((b.x1 - b.x0) * MM) / (size.w - 2 * ROOM),
      ((b.y1 - b.y0) * MM) / (size.h - 2 * ROOM),
      1e-4,
    );
    return { x: ((b.x0 + b.x1) / 2) * MM, y: (-(b.y0 + b.y1) / 2) * MM, mmPerPx };
  }, [still, size, hidden]);
  const view = own ?? fit;
  // Sheets of their own for what stands, so that only what turns is painted anew: under it what the first layer begins
  // with, over it the rest.
  const stands = useMemo(() => standing(still, moved, say), [still, moved, say]);
  const isStanding = useCallback((layer: Layer, item: DrawItem) => stands.has(`${layer.id} ${item.key}`), [stands]);
  const [under, over] = useMemo(() => {
    const shown = still.filter((l) => !hidden.includes(l.id));
    const beginning = (layer: Layer) =>
      layer.items.slice(
        0,
        Math.max(
          0,
          layer.items.findIndex((i) => !isStanding(layer, i)),
        ),
      );
    return [
      shown.slice(0, 1).map((l) => (l === still[0] ? { ...l, items: beginning(l) } : { ...l, items: [] })),
      shown.filter((l) => l !== still[0]).map((l) => ({ ...l, items: l.items.filter((i) => isStanding(l, i)) })),
    ].map((list): Layer[] => list.filter((l) => l.items.length > 0));
  }, [still, hidden, isStanding]);
  const below = new Set(under?.[0]?.items.map((i) => i.key));
  const turning = layers
    .filter((l) => !hidden.includes(l.id))
    .map((l, n) => ({
      ...l,
      items:
        l.id === still[0]?.id && n === 0
          ? l.items.filter((i) => !below.has(i.key))
          : l.items.filter((i) => !isStanding(l, i)),
    }))
    .filter((l) => l.items.length > 0);
  const drag = useRef<{ x: number; y: number; view: View } | undefined>(undefined);
  const zoom = useCallback(
    (factor: number, px?: { x: number; y: number }) => {
      setOwn((now) => {
        const v = now ?? fit;
        const mmPerPx = Math.min(10, Math.max(1e-4, v.mmPerPx * factor));
        if (!px) return { ...v, mmPerPx };
        // The point under the pointer stays where it is.
        const dx = (px.x - size.w / 2) * (v.mmPerPx - mmPerPx);
        const dy = (px.y - size.h / 2) * (v.mmPerPx - mmPerPx);
        return { x: v.x + dx, y: v.y + dy, mmPerPx };
      });
    },
    [fit, size],
  );
  useEffect(() => {
    const el = box.current;
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const rect = el!.getBoundingClientRect();
      zoom(Math.exp(e.deltaY * 0.0015), { x: e.clientX - rect.left, y: e.clientY - rect.top });
    };
    // React's wheel listeners are passive, and this one must keep the page from scrolling.
    el?.addEventListener('wheel', wheel, { passive: false });
    return () => el?.removeEventListener('wheel', wheel);
  }, [zoom]);
  const w = size.w * view.mmPerPx;
  const h = size.h * view.mmPerPx;
  const hatch = 5 * view.mmPerPx;
  // Lines keep their width on screen by this, which costs less to paint than strokes that do not scale.
  const pixel = { '--px': view.mmPerPx } as CSSProperties;
  const box0 = `${view.x - w / 2} ${view.y - h / 2} ${w} ${h}`;
  return (
    <figure className="flex min-h-[150px] min-w-0 flex-1 flex-col" aria-label={name}>
      <div ref={box} className="relative min-h-0 flex-1">
        <svg aria-hidden width={size.w} height={size.h} viewBox={box0} style={pixel} className={LAID}>
          <Groups layers={under ?? []} mmPerPx={view.mmPerPx} say={say} />
        </svg>
        <svg
          role="img"
          aria-label={`${name}, drawn to scale`}
          tabIndex={0}
          width={size.w}
          height={size.h}
          viewBox={box0}
          style={pixel}
          className="absolute inset-0 touch-none select-none will-change-transform [contain:strict]"
          data-drawing=""
          onPointerDown={(e) => {
            drag.current = { x: e.clientX, y: e.clientY, view };
            e.currentTarget.setPointerCapture(e.pointerId);
          }}
          onPointerMove={(e) => {
            const d = drag.current;
            if (!d) return;
            if (e.shiftKey && onCrank) {
              onCrank((e.clientX - d.x) * 0.01);
              d.x = e.clientX;
            } else
              setOwn({
                ...d.view,
                x: d.view.x - (e.clientX - d.x) * d.view.mmPerPx,
                y: d.view.y - (e.clientY - d.y) * d.view.mmPerPx,
              });
          }}
          onPointerUp={() => (drag.current = undefined)}
          onPointerCancel={() => (drag.current = undefined)}
          onDoubleClick={() => setOwn(undefined)}
          onKeyDown={(e) => {
            const step = 40 * view.mmPerPx;
            const move: Record<string, [number, number]> = {
              ArrowLeft: [-step, 0],
              ArrowRight: [step, 0],
              ArrowUp: [0, -step],
              ArrowDown: [0, step],
            };
            const by = move[e.key];
            if (by) setOwn({ ...view, x: view.x + by[0], y: view.y + by[1] });
            else if (e.key === '+' || e.key === '=') zoom(0.8);
            else if (e.key === '-') zoom(1.25);
            else if (e.key === '0') setOwn(undefined);
            else return;
            e.preventDefault();
          }}
        >
          <defs>
            <pattern
              id="hatch-part"
              width={hatch}
              height={hatch}
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <line
                x1="0"
                x2="0"
                y1="0"
                y2={hatch}
                stroke="var(--ink)"
                strokeWidth={0.7 * view.mmPerPx}
                opacity="0.35"
              />
            </pattern>
          </defs>
          <Groups layers={turning} mmPerPx={view.mmPerPx} say={say} />
        </svg>
        <svg aria-hidden width={size.w} height={size.h} viewBox={box0} style={pixel} className={LAID}>
          <Groups layers={over ?? []} mmPerPx={view.mmPerPx} say={say} />
        </svg>
        <div className="no-print absolute right-1 top-0 flex">
          <span className="num self-center pr-1 text-[12px] text-muted">
            {view.mmPerPx < 0.2646
              ? `${(0.2646 / view.mmPerPx).toFixed(1)} : 1`
              : `1 : ${(view.mmPerPx / 0.2646).toFixed(1)}`}
          </span>
          <button type="button" className="btn-quiet" aria-label="Zoom in" onClick={() => zoom(0.8)}>
            +
          </button>
          <button type="button" className="btn-quiet" aria-label="Zoom out" onClick={() => zoom(1.25)}>
            −
          </button>
          <button type="button" className="btn-quiet" onClick={() => setOwn(undefined)} disabled={!own}>
            Fit
          </button>
        </div>
      </div>
      <figcaption className="no-print flex flex-wrap items-center gap-x-3 gap-y-0.5 pt-1 text-[12px]">
        {layers.map((layer) => (
          <label key={layer.id} className="flex items-center gap-1 text-muted">
            <input
              type="checkbox"
              checked={!hidden.includes(layer.id)}
              onChange={(e) =>
                setPrefs({
                  hiddenLayers: e.target.checked ? hidden.filter((x) => x !== layer.id) : [...hidden, layer.id],
                })
              }
              className="accent-[var(--ink)]"
            />
            {layer.name}
          </label>
        ))}
        <span className="ml-auto">{children}</span>
      </figcaption>
    </figure>
  );
}
