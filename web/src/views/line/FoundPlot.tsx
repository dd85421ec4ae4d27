import { AIM_WORDS, beyond, type Aim, type AimBounds, type FoundLine, type LineReport } from '@gristmill/core';
import { useRef } from 'react';
import { useWritten } from '../../state/straight.tsx';

const [W, H, LEFT, BOTTOM, TOP, RIGHT] = [440, 290, 62, 34, 22, 14];

/** A scale over the values of an aim: logarithmic where they reach over more than a factor of five and none is nought. */
function scaleOf(values: readonly number[], from: number, to: number) {
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const log = least > 0 && most / least > 5;
  const f = (v: number) => (log ? Math.log(v) : v);
  const [a, b] = [f(least), f(most)];
  const room = (b - a || Math.abs(a) || 1) * 0.06;
  const [low, high] = [a - room, b + room];
  const place = (v: number) => from + ((to - from) * (f(v) - low)) / (high - low);
  const ticks = [0.08, 0.36, 0.64, 0.92].map((s) => {
    const at = low + s * (high - low);
    return log ? Math.exp(at) : at;
  });
  /** The value at a place of the sheet, within what the scale shows. */
  const valueAt = (at: number) => {
    const v = Math.min(high, Math.max(low, low + ((at - from) * (high - low)) / (to - from)));
    return log ? Math.exp(v) : v;
  };
  return { place, valueAt, ticks: ticks.filter((t) => t >= 0) };
}

/** A variant of the joint itself; what it would be chosen by where that can be computed. */
export interface Own {
  readonly id: string;
  readonly name: string;
  readonly report: LineReport;
  readonly aims: Readonly<Record<Aim, number>> | undefined;
}

/** A bound as it is drawn: its line, and what lies beyond it: left, top, width, height. */
interface Mark {
  readonly along: 'x' | 'y';
  readonly aim: Aim;
  readonly d: string;
  readonly off: readonly [number, number, number, number];
}

/** Found lines as points over two aims, better towards the corner with the mark; the chosen one filled. */
export function FoundPlot({
  lines,
  own,
  x,
  y,
  bounds,
  chosen,
  onChoose,
  onBound,
}: {
  lines: readonly FoundLine[];
  own: readonly Own[];
  x: Aim;
  y: Aim;
  bounds: AimBounds;
  chosen: string;
  onChoose: (id: string) => void;
  /** A bound was drawn elsewhere, SI. */
  onBound: (aim: Aim, value: number) => void;
}) {
  const mine = own.flatMap(({ id, name, aims }) => (aims ? [{ id, name, aims }] : []));
  const all = [...lines, ...mine];
  const across = scaleOf(
    all.map((l) => l.aims[x]),
    LEFT,
    W - RIGHT,
  );
  const up = scaleOf(
    all.map((l) => l.aims[y]),
    H - BOTTOM,
    TOP,
  );
  const sheet = useRef<SVGSVGElement>(null);
  /** What a pointer over the sheet means along one of its axes. */
  const drawn = (aim: Aim, along: 'x' | 'y', e: React.PointerEvent) => {
    const box = sheet.current!.getBoundingClientRect();
    const value =
      along === 'x'
        ? across.valueAt(((e.clientX - box.left) * W) / box.width)
        : up.valueAt(((e.clientY - box.top) * H) / box.height);
    onBound(aim, Number(value.toPrecision(3)));
  };
  const inside = (at: number, a: number, b: number) => Math.min(Math.max(at, Math.min(a, b)), Math.max(a, b));
  const marks = (['x', 'y'] as const).flatMap((along): Mark[] => {
    const aim = along === 'x' ? x : y;
    const bound = bounds[aim];
    if (bound === undefined || !(bound > 0)) return [];
    const { most } = AIM_WORDS[aim];
    const [wide, high] = [W - RIGHT - LEFT, H - BOTTOM - TOP];
    if (along === 'x') {
      const at = inside(across.place(bound), LEFT, W - RIGHT);
      const off: Mark['off'] = most ? [LEFT, TOP, at - LEFT, high] : [at, TOP, W - RIGHT - at, high];
      return [{ along, aim, d: `M${at} ${TOP}V${H - BOTTOM}`, off }];
    }
    const at = inside(up.place(bound), TOP, H - BOTTOM);
    const off: Mark['off'] = most ? [LEFT, at, wide, H - BOTTOM - at] : [LEFT, TOP, wide, at - TOP];
    return [{ along, aim, d: `M${LEFT} ${at}H${W - RIGHT}`, off }];
  });
  const written = useWritten();
  const write = (v: number, aim: Aim) => written(v, AIM_WORDS[aim].quantity, 2);
  const corner = [AIM_WORDS[x].most ? W - RIGHT : LEFT, AIM_WORDS[y].most ? TOP : H - BOTTOM] as const;
  return (
    <svg
      ref={sheet}
      viewBox={`0 0 ${W} ${H}`}
      className="block w-full"
      role="group"
      aria-label={`Found lines: ${AIM_WORDS[y].name} over ${AIM_WORDS[x].name}; the table beside has them all`}
    >
      <rect x={LEFT} y={TOP} width={W - RIGHT - LEFT} height={H - BOTTOM - TOP} fill="none" stroke="var(--rule)" />
      {marks.map((m) => (
        <rect
          key={m.along}
          x={m.off[0]}
          y={m.off[1]}
          width={m.off[2]}
          height={m.off[3]}
          fill="var(--ink)"
          opacity="0.06"
        />
      ))}
      {across.ticks.map((t) => (
        <g key={t}>
          <path d={`M${across.place(t)} ${TOP}V${H - BOTTOM}`} stroke="var(--rule)" strokeDasharray="1 4" />
          <text
            x={across.place(t)}
            y={H - BOTTOM + 14}
            fontSize="11"
            textAnchor="middle"
            className="num"
            fill="var(--muted)"
          >
            {write(t, x)}
          </text>
        </g>
      ))}
      {up.ticks.map((t) => (
        <g key={t}>
          <path d={`M${LEFT} ${up.place(t)}H${W - RIGHT}`} stroke="var(--rule)" strokeDasharray="1 4" />
          <text x={LEFT - 4} y={up.place(t) + 4} fontSize="11" textAnchor="end" className="num" fill="var(--muted)">
            {write(t, y)}
          </text>
        </g>
      ))}
      <text x={W - RIGHT} y={H - 6} fontSize="11.5" textAnchor="end" fill="var(--ink)">
        {AIM_WORDS[x].name}
      </text>
      <text x={4} y={12} fontSize="11.5" fill="var(--ink)">
        {AIM_WORDS[y].name}
      </text>
      <circle cx={corner[0]} cy={corner[1]} r="4" fill="none" stroke="var(--found)" strokeWidth="1.5">
        <title>better towards here</title>
      </circle>
      {[...lines]
        .sort((a, b) => Number(a.id === chosen) - Number(b.id === chosen))
        .map((l) => (
          <circle
            key={l.id}
            cx={across.place(l.aims[x])}
            cy={up.place(l.aims[y])}
            r={l.id === chosen ? 7 : 5}
            fill={l.id === chosen ? 'var(--expected)' : 'var(--paper)'}
            stroke="var(--expected)"
            strokeWidth="1.6"
            opacity={l.id === chosen || beyond(l, bounds).length === 0 ? 1 : 0.4}
            className="cursor-pointer"
            onClick={() => onChoose(l.id)}
          >
            <title>{`${l.stages.map((s) => s.kind).join(', ')}: ${write(l.aims[x], x)}, ${write(l.aims[y], y)}`}</title>
          </circle>
        ))}
      {mine.map((o) => {
        const [px, py] = [across.place(o.aims[x]), up.place(o.aims[y])];
        return (
          <g key={o.id} data-own={o.name}>
            <path d={`M${px} ${py - 6}l6 6l-6 6l-6 -6Z`} fill="var(--paper)" stroke="var(--ink)" strokeWidth="1.6">
              <title>{`your ${o.name}: ${write(o.aims[x], x)}, ${write(o.aims[y], y)}`}</title>
            </path>
            <text x={px + 9} y={py - 5} fontSize="11.5" fontWeight="600" fill="var(--ink)">
              {o.name.slice(0, 12)}
            </text>
          </g>
        );
      })}
      {marks.map((m) => (
        <g
          key={m.along}
          data-bound={m.aim}
          className={m.along === 'x' ? 'cursor-ew-resize' : 'cursor-ns-resize'}
          onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
          onPointerMove={(e) => e.currentTarget.hasPointerCapture(e.pointerId) && drawn(m.aim, m.along, e)}
        >
          <path d={m.d} stroke="transparent" strokeWidth="10" />
          <path d={m.d} stroke="var(--ink)" strokeWidth="1.5" strokeDasharray="6 3">
            <title>{`${AIM_WORDS[m.aim].name}, ${AIM_WORDS[m.aim].most ? 'least' : 'most'} ${write(bounds[m.aim]!, m.aim)}: drag, or type below`}</title>
          </path>
        </g>
      ))}
    </svg>
  );
}
