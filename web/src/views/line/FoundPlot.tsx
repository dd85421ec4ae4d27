import { AIM_WORDS, formatQuantity, type Aim, type FoundLine } from '@gristmill/core';
import { useUnits } from '../../state/prefs.ts';

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
  return { place, ticks: ticks.filter((t) => t >= 0) };
}

/** Found lines as points over two aims, better towards the corner with the mark; the chosen one filled. */
export function FoundPlot({
  lines,
  x,
  y,
  chosen,
  onChoose,
}: {
  lines: readonly FoundLine[];
  x: Aim;
  y: Aim;
  chosen: string;
  onChoose: (id: string) => void;
}) {
  const units = useUnits();
  const across = scaleOf(
    lines.map((l) => l.aims[x]),
    LEFT,
    W - RIGHT,
  );
  const up = scaleOf(
    lines.map((l) => l.aims[y]),
    H - BOTTOM,
    TOP,
  );
  const write = (v: number, aim: Aim) => formatQuantity(v, AIM_WORDS[aim].quantity, units, 2);
  const corner = [AIM_WORDS[x].most ? W - RIGHT : LEFT, AIM_WORDS[y].most ? TOP : H - BOTTOM] as const;
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="block w-full"
      role="group"
      aria-label={`Found lines: ${AIM_WORDS[y].name} over ${AIM_WORDS[x].name}; the table beside has them all`}
    >
      <rect x={LEFT} y={TOP} width={W - RIGHT - LEFT} height={H - BOTTOM - TOP} fill="none" stroke="var(--rule)" />
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
            className="cursor-pointer"
            onClick={() => onChoose(l.id)}
          >
            <title>{`${l.stages.map((s) => s.kind).join(', ')}: ${write(l.aims[x], x)}, ${write(l.aims[y], y)}`}</title>
          </circle>
        ))}
    </svg>
  );
}
