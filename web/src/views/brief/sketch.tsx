import type { KeyboardEvent, PointerEvent, SVGAttributes } from 'react';
import { oneStep } from '../../state/open.ts';

/** Something in a sketch that can be dragged, or nudged by arrow keys (Shift ×10). */
export interface GripSpec {
  readonly what: string;
  readonly value: number;
  /** The value as read out. */
  readonly say: string;
  /** Takes a point of the sketch, in its own units. */
  readonly to: (x: number, y: number) => void;
  readonly nudge: (by: number) => void;
}

const KEYS: Readonly<Record<string, number>> = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 };

/** Where the pointer is in the coordinates of the sketch. */
function pointOf(e: PointerEvent): DOMPoint {
  const m = (e.currentTarget as SVGGraphicsElement).ownerSVGElement!.getScreenCTM()!.inverse();
  return new DOMPoint(e.clientX, e.clientY).matrixTransform(m);
}

/** Attributes that make an element of a sketch a handle; none while the joint is only looked at. */
export function grip(g: GripSpec, key: string, disabled: boolean | undefined): SVGAttributes<SVGElement> {
  if (disabled) return {};
  return {
    role: 'slider',
    tabIndex: 0,
    'aria-label': g.what,
    'aria-valuenow': Number(g.value.toPrecision(5)),
    'aria-valuetext': g.say,
    className: 'cursor-grab touch-none',
    ...({ 'data-grip': key } as object),
    onPointerDown: (e: PointerEvent<SVGElement>) => {
      e.currentTarget.setPointerCapture(e.pointerId);
      oneStep.begin();
    },
    onLostPointerCapture: oneStep.end,
    onPointerMove: (e: PointerEvent<SVGElement>) => {
      if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
      const p = pointOf(e);
      g.to(p.x, p.y);
    },
    onKeyDown: (e: KeyboardEvent) => {
      const d = KEYS[e.key];
      if (!d) return;
      e.preventDefault();
      g.nudge(d * (e.shiftKey ? 10 : 1));
    },
  };
}

export const snap = (x: number, step: number): number => Number((Math.round(x / step) * step).toPrecision(12));

/** Arrow heads and hatches of the sketches. */
export function SketchDefs() {
  return (
    <defs>
      <marker id="tick" viewBox="-6 -3 12 6" markerWidth="10" markerHeight="6" orient="auto-start-reverse" refX="5">
        <path d="M-5 -2 5 0 -5 2Z" fill="var(--ink)" stroke="none" />
      </marker>
      <pattern id="hatch-load" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line y2="5" stroke="var(--ink)" strokeWidth="0.8" opacity="0.45" />
      </pattern>
      <marker id="fall" viewBox="-4 -4 8 8" markerWidth="8" markerHeight="8" orient="auto">
        <path d="M-3 -3 3 0 -3 3Z" fill="var(--found)" />
      </marker>
    </defs>
  );
}

/** A straight dimension between two points of the sketch, moved aside by `d`. */
export function Dim({
  x1,
  y1,
  x2,
  y2,
  d,
  text,
}: {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  d: number;
  text: string;
}) {
  const l = Math.hypot(x2 - x1, y2 - y1);
  if (l < 1) return null;
  const [nx, ny] = [(-(y2 - y1) / l) * d, ((x2 - x1) / l) * d];
  let turn = (Math.atan2(y2 - y1, x2 - x1) * 180) / Math.PI;
  if (turn > 90 || turn < -90) turn += 180;
  const [mx, my] = [(x1 + x2) / 2 + nx, (y1 + y2) / 2 + ny];
  return (
    <g stroke="var(--ink)" strokeWidth="0.7" fill="none">
      <path d={`M${x1} ${y1}l${nx} ${ny}M${x2} ${y2}l${nx} ${ny}`} opacity="0.5" />
      <path d={`M${x1 + nx} ${y1 + ny}L${x2 + nx} ${y2 + ny}`} markerStart="url(#tick)" markerEnd="url(#tick)" />
      <text
        x={mx}
        y={my - 4}
        transform={`rotate(${turn} ${mx} ${my})`}
        textAnchor="middle"
        fontSize="12"
        className="num"
        fill="var(--ink)"
        stroke="var(--paper)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        {text}
      </text>
    </g>
  );
}

/** A force arrow with its value. */
export function Force({
  x,
  y,
  dx,
  dy,
  text,
  side = 10,
}: {
  x: number;
  y: number;
  dx: number;
  dy: number;
  text: string;
  side?: number;
}) {
  return (
    <g>
      <path d={`M${x} ${y}l${dx} ${dy}`} stroke="var(--found)" strokeWidth="2" fill="none" markerEnd="url(#fall)" />
      <text
        x={x + dx + side}
        y={y + dy + (dy < 0 ? 4 : 0)}
        textAnchor={side < 0 ? 'end' : 'start'}
        fontSize="12"
        className="num"
        fill="var(--found)"
        stroke="var(--paper)"
        strokeWidth="3"
        paintOrder="stroke"
      >
        {text}
      </text>
    </g>
  );
}
