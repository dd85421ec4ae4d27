import { isEnd } from '@gristmill/core';

export interface ScaleProps {
  readonly asked?: { readonly value: number; readonly sense: 'min' | 'max' } | undefined;
  readonly expected?: { readonly value: number; readonly low: number; readonly high: number } | undefined;
  readonly found?:
    { readonly value: number; readonly U: number; readonly bound?: 'both' | 'atLeast' | 'atMost' } | undefined;
  /** Ends of the scale, where several scales should be comparable. */
  readonly range?: readonly [number, number] | undefined;
  readonly width?: number;
  readonly label: string;
}

const HEIGHT = 18;
const MID = HEIGHT / 2;

/** The ends that show everything given, with room at either side. */
export function scaleRange(items: readonly Pick<ScaleProps, 'asked' | 'expected' | 'found'>[]): [number, number] {
  const all = items
    .flatMap((x) => [
      x.asked?.value,
      x.expected?.value,
      ...(x.expected ? [x.expected.low, x.expected.high].filter((end) => isEnd(end, x.expected!.value)) : []),
      x.found && x.found.value - x.found.U,
      x.found && x.found.value + x.found.U,
    ])
    .filter((x): x is number => x !== undefined && Number.isFinite(x));
  if (all.length === 0) return [0, 1];
  const low = Math.min(...all);
  const high = Math.max(...all);
  const room = high > low ? (high - low) * 0.18 : Math.max(Math.abs(high) * 0.2, 1e-9);
  // Figures that cannot be negative keep the scale from starting below nought.
  return [low >= 0 ? Math.max(0, low - room) : low - room, high + room];
}

/** The grammar of a figure on one short line: bracket asked, hatched band expected, dot with whisker found. */
export function Scale({ asked, expected, found, range, width = 150, label }: ScaleProps) {
  const [a, b] = range ?? scaleRange([{ asked, expected, found }]);
  const x = (v: number) => 4 + ((Math.min(b, Math.max(a, v)) - a) / (b - a || 1)) * (width - 8);
  const patternId = 'hatch-expected';
  return (
    <svg
      role="img"
      aria-label={label}
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="block shrink-0 overflow-visible"
    >
      <line x1={0} x2={width} y1={MID} y2={MID} stroke="var(--rule)" />
      {expected && Number.isFinite(expected.value) ? (
        <g>
          <rect
            x={x(expected.low)}
            y={MID - 5}
            width={Math.max(2, x(expected.high) - x(expected.low))}
            height={10}
            fill="var(--expected-soft)"
            stroke="var(--expected)"
            strokeWidth={0.8}
          />
          <rect
            x={x(expected.low)}
            y={MID - 5}
            width={Math.max(2, x(expected.high) - x(expected.low))}
            height={10}
            fill={`url(#${patternId})`}
          />
          <line
            x1={x(expected.value)}
            x2={x(expected.value)}
            y1={MID - 7}
            y2={MID + 7}
            stroke="var(--expected)"
            strokeWidth={1.6}
          />
        </g>
      ) : null}
      {found && Number.isFinite(found.value) ? (
        <g stroke="var(--found)" fill="var(--found)">
          <line
            x1={x(found.bound === 'atMost' ? a : found.value - found.U)}
            x2={x(found.bound === 'atLeast' ? b : found.value + found.U)}
            y1={MID}
            y2={MID}
            strokeWidth={1.6}
            strokeDasharray={found.bound && found.bound !== 'both' ? '2 2' : undefined}
          />
          <circle cx={x(found.value)} cy={MID} r={3.6} stroke="none" />
        </g>
      ) : null}
      {asked && Number.isFinite(asked.value) ? (
        <path
          d={
            asked.sense === 'min'
              ? `M${x(asked.value) + 5} 1H${x(asked.value)}V${HEIGHT - 1}H${x(asked.value) + 5}`
              : `M${x(asked.value) - 5} 1H${x(asked.value)}V${HEIGHT - 1}H${x(asked.value) - 5}`
          }
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.8}
        />
      ) : null}
    </svg>
  );
}

/** Patterns shared by scales and drawings; once in the page. */
export function SharedPatterns() {
  return (
    <svg width="0" height="0" aria-hidden="true" className="absolute">
      <defs>
        <pattern id="hatch-expected" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" x2="0" y1="0" y2="4" stroke="var(--expected)" strokeWidth="1" opacity="0.7" />
        </pattern>
      </defs>
    </svg>
  );
}
