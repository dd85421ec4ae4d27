import { formatQuantity } from '@gristmill/core';
import { chanceCurves, chanceJams, chanceLoose, type Drawn } from '@gristmill/core/fit/jam';
import { useMemo, useRef } from 'react';
import { useUnits } from '../../../state/prefs.ts';
import { chance } from './Pairs.tsx';

const [W, H] = [620, 190];
const [L, R, T, B] = [44, 12, 12, 34];

/** The range of allowances that is worth looking at: from where nearly all jam to where nearly all are loose, about nought. */
export function rangeOf(d: Drawn): readonly [number, number] {
  const at = (list: Float64Array, q: number) => {
    const finite = list.filter(Number.isFinite);
    return finite.length ? finite[Math.round(q * (finite.length - 1))]! : 0;
  };
  const low = Math.min(-2e-5, at(d.turnsFrom, 0.05), at(d.allowedTo, 0.02));
  const high = Math.max(2e-5, at(d.turnsFrom, 0.999), at(d.allowedTo, 0.98));
  const pad = 0.08 * (high - low);
  const most = 6e-4;
  return [Math.max(-most, low - pad), Math.min(most, high + pad)];
}

/** Chances of jamming and of too much play over the allowance, with the chosen one to be dragged. */
export function JamPlot({
  drawn,
  by,
  balance,
  asked,
  onChange,
}: {
  drawn: Drawn;
  by: number;
  balance: number;
  asked: boolean;
  onChange: (by: number) => void;
}) {
  const units = useUnits();
  const [from, to] = useMemo(() => rangeOf(drawn), [drawn]);
  const curves = useMemo(() => chanceCurves(drawn, from, to, 161), [drawn, from, to]);
  const svg = useRef<SVGSVGElement>(null);
  const x = (v: number) => L + ((v - from) / (to - from)) * (W - L - R);
  const y = (p: number) => T + (1 - p) * (H - T - B);
  const path = (list: Float64Array) =>
    Array.from(list, (p, i) => `${i ? 'L' : 'M'}${x(curves.by[i]!).toFixed(1)} ${y(p).toFixed(1)}`).join('');
  const um = (v: number) => formatQuantity(v, 'length', { length: 'µm', ...units }, 3);
  const step = 1e-6;
  const put = (v: number) => onChange(Math.round(Math.min(to, Math.max(from, v)) / step) * step);
  const drag = (clientX: number) => {
    const box = svg.current!.getBoundingClientRect();
    put(from + (((clientX - box.left) / box.width) * W - L) * ((to - from) / (W - L - R)));
  };
  const shown = Math.min(to, Math.max(from, by));
  const ticks = [0, 0.25, 0.5, 0.75, 1];
  const span = to - from;
  const each = [1e-6, 2e-6, 5e-6, 1e-5, 2e-5, 5e-5, 1e-4, 2e-4, 5e-4].find((s) => span / s <= 8) ?? 1e-3;
  const marks = Array.from(
    { length: Math.floor(to / each) - Math.ceil(from / each) + 1 },
    (_, i) => (Math.ceil(from / each) + i) * each,
  );
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${W} ${H}`}
      className="w-full touch-none select-none"
      role="group"
      aria-label="Chances over the allowance"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        drag(e.clientX);
      }}
      onPointerMove={(e) => e.buttons && drag(e.clientX)}
    >
      {ticks.map((p) => (
        <g key={p}>
          <line x1={L} x2={W - R} y1={y(p)} y2={y(p)} stroke="var(--rule)" strokeWidth={0.7} />
          <text x={L - 6} y={y(p) + 4} fontSize={11} textAnchor="end" fill="var(--muted)">
            {100 * p} %
          </text>
        </g>
      ))}
      {marks.map((v) => (
        <text key={v} x={x(v)} y={H - B + 15} fontSize={11} textAnchor="middle" fill="var(--muted)">
          {Math.round(v * 1e6)}
        </text>
      ))}
      <text x={W - R} y={H - 4} fontSize={11} textAnchor="end" fill="var(--muted)">
        every gap wider by, µm
      </text>
      <line x1={x(0)} x2={x(0)} y1={T} y2={H - B} stroke="var(--ink)" strokeWidth={0.8} strokeDasharray="3 3" />
      <text x={x(0) + 4} y={T + 9} fontSize={11} fill="var(--muted)">
        as it is
      </text>
      <path d={path(curves.jams)} fill="none" stroke="var(--fail)" strokeWidth={1.8} />
      {asked ? (
        <path d={path(curves.loose)} fill="none" stroke="var(--expected)" strokeWidth={1.8} strokeDasharray="6 3" />
      ) : null}
      {Number.isFinite(balance) && balance > from && balance < to ? (
        <g>
          <path d={`M${x(balance) - 5} ${H - B}l5 -7l5 7Z`} fill="var(--ink)" />
          <title>Both as likely, as weighted</title>
        </g>
      ) : null}
      <line x1={x(shown)} x2={x(shown)} y1={T} y2={H - B} stroke="var(--focus)" strokeWidth={2} />
      <circle
        cx={x(shown)}
        cy={(T + H - B) / 2}
        r={7}
        fill="var(--panel)"
        stroke="var(--focus)"
        strokeWidth={2}
        role="slider"
        tabIndex={0}
        aria-label="Allowance"
        aria-valuemin={Math.round(from * 1e6)}
        aria-valuemax={Math.round(to * 1e6)}
        aria-valuenow={Math.round(shown * 1e6)}
        aria-valuetext={`${um(shown)}: ${chance(chanceJams(drawn, shown))} jam, ${chance(chanceLoose(drawn, shown))} too loose`}
        className="cursor-ew-resize"
        onKeyDown={(e) => {
          const way =
            e.key === 'ArrowRight' || e.key === 'ArrowUp' ? 1 : e.key === 'ArrowLeft' || e.key === 'ArrowDown' ? -1 : 0;
          if (way === 0) return;
          e.preventDefault();
          put(shown + way * (e.shiftKey ? 1e-5 : 1e-6));
        }}
      />
    </svg>
  );
}
