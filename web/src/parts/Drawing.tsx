import { boundsOf, formatQuantity, type DrawItem, type Layer } from '@gristmill/core';
import { memo, useCallback, useEffect, useMemo, useRef, useState, type CSSProperties, type ReactNode } from 'react';
import { usePrefs, useUnits } from '../state/prefs.ts';
import { placeLabels, type LabelBox } from './place-labels.ts';
import { pathText } from './path-text.ts';
import { Said } from './Said.tsx';
import { twoFingers, type Point } from './two-fingers.ts';

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

/** Width of a figure's letter and height of its line, px. */
const [LETTER, LINE_HEIGHT] = [7.4, 15];

/** Words of forces, each near its arrow's tip and none over another or over a dimension. */
function ForceLabels({ layers, mmPerPx, say }: { layers: readonly Layer[]; mmPerPx: number; say: ItemProps['say'] }) {
  const px = (n: number) => n * mmPerPx;
  const items = layers.flatMap((l) => l.items.map((item) => ({ key: `${l.id} ${item.key}`, item })));
  const texts = new Map<string, { text: string; ink: string; tip: readonly [number, number] }>();
  const wishes = items.flatMap(({ key, item }): LabelBox[] => {
    if (item.kind !== 'arrow' || !item.label) return [];
    const [x1, y1] = at(item.from);
    const [x, y] = at(item.to);
    const long = Math.hypot(x - x1, y - y1);
    if (long < px(2)) return [];
    const text = say(item.label.value, item.label.quantity);
    texts.set(key, { text, ink: STROKE[item.ink]!.stroke, tip: [x, y] });
    const [ux, uy] = [(x - x1) / long, (y - y1) / long];
    return [{ key, x, y, ux, uy, width: px(text.length * LETTER), height: px(LINE_HEIGHT) }];
  });
  const dimensions = items.flatMap(({ item }) => {
    if (item.kind !== 'dimension') return [];
    const [x, y] = [(item.from[0] + item.to[0]) * 0.5 * MM, -item.offset * MM - px(8)];
    const half = px(say(item.value, item.quantity).length * LETTER + 12) / 2;
    return [{ x0: x - half, x1: x + half, y0: y - px(9), y1: y + px(9) }];
  });
  const places = placeLabels(wishes, dimensions);
  return [...places].map(([key, { x, y, far }]) => {
    const { text, ink, tip } = texts.get(key)!;
    return (
      <g key={key}>
        {far ? <line x1={tip[0]} y1={tip[1]} x2={x} y2={y} stroke={ink} strokeWidth={px(0.6)} opacity={0.6} /> : null}
        <text
          x={x}
          y={y + px(4)}
          fontSize={px(12)}
          className="num"
          textAnchor="middle"
          fill={ink}
          stroke="var(--paper)"
          strokeWidth={px(3)}
          paintOrder="stroke"
        >
          {text}
        </text>
      </g>
    );
  });
}

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

/** Layers whose switches stand in the row below the drawing; the rest wait behind a button. */
const IN_SIGHT = 2;

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
  const fingers = useRef(new Map<number, Point>());
  const lift = (e: { pointerId: number }) => {
    fingers.current.delete(e.pointerId);
    const [left] = fingers.current.values();
    // The finger that stays goes on from where it is.
    drag.current = left && { ...left, view };
  };
  const zoom = useCallback(
    (factor: number, px?: Point, way: Point = { x: 0, y: 0 }) => {
      setOwn((now) => {
        const v = now ?? fit;
        const mmPerPx = Math.min(10, Math.max(1e-4, v.mmPerPx * factor));
        if (!px) return { ...v, mmPerPx };
        // The point under the pointer stays where it is.
        const dx = (px.x - size.w / 2) * (v.mmPerPx - mmPerPx);
        const dy = (px.y - size.h / 2) * (v.mmPerPx - mmPerPx);
        return { x: v.x + dx - way.x * mmPerPx, y: v.y + dy - way.y * mmPerPx, mmPerPx };
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
  const layerSwitch = (layer: Layer) => (
    <label key={layer.id} className="flex items-center gap-1 whitespace-nowrap text-muted">
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
  );
  // What it says, for whoever cannot see it: its dimensions, and what is drawn.
  const told = useMemo(() => {
    const shown = still.filter((l) => !hidden.includes(l.id));
    const dimensions = shown.flatMap((l) =>
      l.items.flatMap((i) => (i.kind === 'dimension' ? [`${i.prefix ?? ''}${say(i.value, i.quantity)}`] : [])),
    );
    return [
      dimensions.length ? `Dimensions: ${dimensions.join(', ')}.` : '',
      `Drawn: ${shown.map((l) => l.name.toLowerCase()).join(', ')}.`,
    ].join(' ');
  }, [still, hidden, say]);
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
          aria-description={told}
          tabIndex={0}
          width={size.w}
          height={size.h}
          viewBox={box0}
          style={pixel}
          className="absolute inset-0 touch-none select-none will-change-transform [contain:strict]"
          data-drawing=""
          onPointerDown={(e) => {
            fingers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
            drag.current = { x: e.clientX, y: e.clientY, view };
            e.currentTarget.setPointerCapture(e.pointerId);
          }}
          onPointerMove={(e) => {
            const d = drag.current;
            if (!d) return;
            if (fingers.current.size === 2) {
              const now = { x: e.clientX, y: e.clientY };
              const before = [...fingers.current.values()] as [Point, Point];
              fingers.current.set(e.pointerId, now);
              const after = [...fingers.current.values()] as [Point, Point];
              const rect = e.currentTarget.getBoundingClientRect();
              const { by, moved: way, turned, middle } = twoFingers(before, after);
              zoom(1 / by, { x: middle.x - rect.left, y: middle.y - rect.top }, way);
              onCrank?.(-turned);
              return;
            }
            if (!fingers.current.has(e.pointerId)) return;
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
          onPointerUp={lift}
          onPointerCancel={lift}
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
          <ForceLabels layers={layers.filter((l) => !hidden.includes(l.id))} mmPerPx={view.mmPerPx} say={say} />
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
      <figcaption className="no-print flex items-center gap-x-3 pt-1 text-[12px] max-sm:flex-wrap">
        {layers.slice(0, IN_SIGHT).map(layerSwitch)}
        {layers.length > IN_SIGHT ? (
          <details className="relative">
            <summary className="cursor-pointer whitespace-nowrap text-muted">
              {layers.length - IN_SIGHT} more layers
            </summary>
            <div className="absolute bottom-full left-0 z-10 border border-rule bg-panel px-3 py-1.5">
              {layers.slice(IN_SIGHT).map(layerSwitch)}
            </div>
          </details>
        ) : null}
        <span className="ml-auto min-w-0">{children}</span>
      </figcaption>
    </figure>
  );
}
