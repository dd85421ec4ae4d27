import { fromSi, plainNumber, thinned, type QuantityId, type Unit } from '@gristmill/core';
import { memo, useMemo } from 'react';
import {
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  Tooltip,
  XAxis,
  YAxis,
  ZAxis,
  type LineProps,
} from 'recharts';
import { useToldUnit } from '../state/straight.tsx';

export interface Series {
  readonly key: string;
  readonly name: string;
  readonly x: ArrayLike<number>;
  readonly y: ArrayLike<number>;
  readonly colour: string;
  readonly dash?: string;
  readonly width?: number;
}

export interface Mark {
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly ok: boolean;
  /** Said on pointing at it; where the name is left out because others stand too near. */
  readonly title?: string;
  /** Writes the name below the mark, where others stand beside it. */
  readonly below?: boolean;
}

export interface PlotProps {
  readonly name: string;
  readonly x: QuantityId;
  readonly y: QuantityId;
  readonly xName: string;
  readonly yName: string;
  readonly series: readonly Series[];
  readonly marks?: readonly Mark[];
  /** Readings as dots. */
  readonly dots?: readonly {
    readonly key: string;
    readonly x: ArrayLike<number>;
    readonly y: ArrayLike<number>;
    readonly colour: string;
  }[];
  readonly level?: { readonly name: string; readonly y: number } | undefined;
  readonly height?: number | `${number}%`;
}

interface Shape {
  readonly cx?: number;
  readonly cy?: number;
  readonly payload?: Mark;
}

/**
 * A mark of the brief: an open bracket-like diamond that holds, a cross that does not; told by shape as well as colour.
 */
function MarkShape({ cx = 0, cy = 0, payload }: Shape) {
  if (!payload) return <g />;
  return (
    <g>
      <title>{payload.title ?? payload.name}</title>
      {payload.ok ? (
        <path d={`M${cx - 5} ${cy}l5 -5l5 5l-5 5Z`} fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.6} />
      ) : (
        <path d={`M${cx - 5} ${cy - 5}l10 10M${cx + 5} ${cy - 5}l-10 10`} stroke="var(--fail)" strokeWidth={2.2} />
      )}
      <text
        x={cx + 9}
        y={payload.below ? cy + 15 : cy - 6}
        fontSize={12}
        fill={payload.ok ? 'var(--ink)' : 'var(--fail)'}
        stroke="var(--paper)"
        strokeWidth={3}
        paintOrder="stroke"
      >
        {payload.name}
      </text>
    </g>
  );
}

/** Points of a line, and dots, that a plot of this size can show apart. */
const LINE_POINTS = 900;
const DOTS = 360;

interface Point {
  readonly x: number;
  readonly y: number;
}

const points = (x: ArrayLike<number>, y: ArrayLike<number>, xu: Unit, yu: Unit): Point[] =>
  Array.from(x, (v, i) => ({ x: fromSi(v, xu), y: fromSi(y[i]!, yu) }));

/** Dots as they can be told apart: every so many-th of them. */
function dotsShown(x: ArrayLike<number>, y: ArrayLike<number>, xu: Unit, yu: Unit): Point[] {
  const step = Math.ceil(x.length / DOTS);
  const list: Point[] = [];
  for (let i = 0; i < x.length; i += step) list.push({ x: fromSi(x[i]!, xu), y: fromSi(y[i]!, yu) });
  return list;
}

const NO_MARKS: readonly Mark[] = [];
const NO_DOTS: NonNullable<PlotProps['dots']> = [];

const TICK = { fontSize: 11.5, fill: 'var(--muted)', fontFamily: 'var(--font-mono)' };
const MARGIN = { top: 14, right: 26, bottom: 18, left: 6 };
const SIZE_AT_FIRST = { width: 520, height: 260 };
const DOMAIN: ['auto', 'auto'] = ['auto', 'auto'];
const SIZES: [number, number] = [60, 60];
const write = (v: number): string => plainNumber(v, 3);

const withUnit = (name: string, unit: string): string => (unit ? `${name}, ${unit}` : name);

/**
 * A “curve” that sets a dot at each point: strokes of no length with round ends, so that all of them are one path and
 * not hundreds of elements.
 */
const asDots: Exclude<LineProps['type'], string | undefined> = (to) => ({
  areaStart: () => undefined,
  areaEnd: () => undefined,
  lineStart: () => undefined,
  lineEnd: () => undefined,
  point: (x, y) => {
    to.moveTo(x, y);
    to.lineTo(x, y);
  },
});

/** The name of the level, under its right end. */
const levelName =
  (name: string) =>
  ({ viewBox }: { viewBox?: unknown }) => {
    const { x = 0, y = 0, width = 0 } = (viewBox ?? {}) as { x?: number; y?: number; width?: number };
    return (
      <text x={x + width - 5} y={y + 14} textAnchor="end" fontSize={12} fill="var(--ink)">
        {name}
      </text>
    );
  };

/** Share of a plot's height below which nothing is written under a mark. */
const FLOOR = 0.16;

/** A line plot in the reader's units with marks and one level. */
function Plot({
  name,
  x,
  y,
  xName,
  yName,
  series,
  marks = NO_MARKS,
  dots = NO_DOTS,
  level,
  height = '100%',
}: PlotProps) {
  const xu = useToldUnit(x);
  const yu = useToldUnit(y);
  const data = useMemo(
    () =>
      series.map((s) => {
        const line = thinned(s.x, s.y, LINE_POINTS);
        return points(line.x, line.y, xu, yu);
      }),
    [series, xu, yu],
  );
  const dotted = useMemo(() => dots.map((d) => dotsShown(d.x, d.y, xu, yu)), [dots, xu, yu]);
  const placed = useMemo(() => {
    let top = 0;
    for (const { y } of marks.length ? series : []) for (let i = 0; i < y.length; i++) if (y[i]! > top) top = y[i]!;
    // Low down a name below its mark would stand in the axis.
    return marks.map((m) => ({
      ...m,
      below: m.below === true && m.y > FLOOR * top,
      x: fromSi(m.x, xu),
      y: fromSi(m.y, yu),
    }));
  }, [marks, series, xu, yu]);
  // The same objects while they say the same: an axis that is given others is set up anew.
  const levelLabel = useMemo(() => levelName(level?.name ?? ''), [level?.name]);
  return (
    <div className="relative h-full min-h-0 w-full" style={{ height }}>
      <div role="img" aria-label={name} className="relative h-full min-h-0 w-full">
        {/* Beside the drawing and not in it: there their text would be measured. */}
        <span className="pointer-events-none absolute bottom-1.5 left-15 right-6.5 text-center text-[12px]/none text-muted">
          {withUnit(xName, xu.symbol)}
        </span>
        <span className="pointer-events-none absolute bottom-12 left-1 top-3.5 rotate-180 text-center text-[12px]/none text-muted [writing-mode:vertical-rl]">
          {withUnit(yName, yu.symbol)}
        </span>
        <ResponsiveContainer width="100%" height="100%" initialDimension={SIZE_AT_FIRST}>
          <ComposedChart margin={MARGIN} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--rule)" strokeDasharray="1 4" />
            <XAxis
              type="number"
              dataKey="x"
              domain={DOMAIN}
              tick={TICK}
              stroke="var(--muted)"
              tickFormatter={write}
              // Five ticks stand apart in any plot of ours: asking whether they do means measuring text at each render.
              interval={0}
            />
            <YAxis
              type="number"
              dataKey="y"
              domain={DOMAIN}
              tick={TICK}
              stroke="var(--muted)"
              tickFormatter={write}
              interval={0}
              width={54}
            />
            <ZAxis range={SIZES} />
            <Tooltip
              isAnimationActive={false}
              cursor={{ stroke: 'var(--muted)', strokeDasharray: '2 3' }}
              formatter={(v) => [`${write(Number(v))} ${yu.symbol}`, yName]}
              labelFormatter={(v) => `${write(Number(v))} ${xu.symbol}`}
              contentStyle={{
                background: 'var(--panel)',
                border: '1px solid var(--ink)',
                borderRadius: 2,
                fontSize: 12,
                padding: '4px 8px',
              }}
            />
            {level && Number.isFinite(level.y) ? (
              <ReferenceLine
                y={fromSi(level.y, yu)}
                stroke="var(--ink)"
                strokeDasharray="6 3"
                ifOverflow="extendDomain"
                label={levelLabel}
              />
            ) : null}
            {series.map((s, i) => (
              <Line
                key={s.key}
                data={data[i]}
                dataKey="y"
                name={s.name}
                stroke={s.colour}
                strokeWidth={s.width ?? 1.8}
                strokeDasharray={s.dash}
                dot={false}
                isAnimationActive={false}
                type="linear"
              />
            ))}
            {dots.map((d, i) => (
              <Line
                key={d.key}
                data={dotted[i]!}
                dataKey="y"
                type={asDots}
                stroke={d.colour}
                strokeWidth={4.8}
                strokeLinecap="round"
                dot={false}
                activeDot={false}
                tooltipType="none"
                isAnimationActive={false}
              />
            ))}
            {placed.length ? <Scatter data={placed} dataKey="y" shape={MarkShape} isAnimationActive={false} /> : null}
          </ComposedChart>
        </ResponsiveContainer>
      </div>
      <PlotTable
        {...{ name, series, dots, marks }}
        xu={xu}
        yu={yu}
        xName={withUnit(xName, xu.symbol)}
        yName={withUnit(yName, yu.symbol)}
      />
    </div>
  );
}

/** Rows that a curve is told by. */
const ROWS = 9;

/** Share of the largest that is nothing. */
const NOUGHT = 1e-6;

/** A few of a list's places, evenly, its ends among them. */
const someOf = (n: number): number[] =>
  n <= ROWS ? [...Array(n).keys()] : Array.from({ length: ROWS }, (_, i) => Math.round((i * (n - 1)) / (ROWS - 1)));

/** What the curves say, for whoever cannot see them: each by a few of its points, and every mark. */
const PlotTable = memo(function PlotTable({
  name,
  series,
  dots,
  marks,
  xu,
  yu,
  xName,
  yName,
}: Pick<PlotProps, 'name' | 'series'> & {
  readonly dots: NonNullable<PlotProps['dots']>;
  readonly marks: readonly Mark[];
  readonly xu: Unit;
  readonly yu: Unit;
  readonly xName: string;
  readonly yName: string;
}) {
  const rows = [
    ...series.flatMap((s) => someOf(s.x.length).map((i) => [s.name || yName, s.x[i]!, s.y[i]!] as const)),
    ...dots.flatMap((d) => someOf(d.x.length).map((i) => ['reading', d.x[i]!, d.y[i]!] as const)),
    ...marks.map((m) => [m.name || m.title || 'mark', m.x, m.y] as const),
  ];
  if (rows.length === 0) return null;
  // What rounding leaves of a nought is one.
  const told = (column: 1 | 2, unit: Unit): ((v: number) => string) => {
    const most = Math.max(...rows.map((r) => Math.abs(r[column])).filter(Number.isFinite), 0);
    return (v) => write(fromSi(Math.abs(v) < NOUGHT * most ? 0 : v, unit));
  };
  const [xTold, yTold] = [told(1, xu), told(2, yu)];
  return (
    <div className="sr-only left-0 top-0">
      <table aria-label={`${name}, in figures`}>
        <thead>
          <tr>
            <th scope="col">curve</th>
            <th scope="col">{xName}</th>
            <th scope="col">{yName}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([what, x, y], i) => (
            <tr key={i}>
              <th scope="row">{what}</th>
              <td>{xTold(x)}</td>
              <td>{yTold(y)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
});

export default memo(Plot);
