import { formatQuantity, type BenchTest, type Paint, type Pen, type SketchItem, type TestKind } from '@gristmill/core';
import { useUnits } from '../../state/prefs.ts';
import { Said } from '../../parts/Said.tsx';

const STROKES: Readonly<Record<Pen, React.SVGProps<SVGPathElement>>> = {
  ink: { stroke: 'var(--ink)', strokeWidth: 1.2 },
  thin: { stroke: 'var(--ink)', strokeWidth: 0.7 },
  hot: { stroke: 'var(--found)', strokeWidth: 1.6 },
  edge: { stroke: 'var(--ink)', strokeWidth: 3 },
  bar: { stroke: 'var(--ink)', strokeWidth: 6, strokeLinecap: 'round' },
  none: { stroke: 'none' },
};
const FILLS: Readonly<Record<Paint, string>> = {
  part: 'var(--part)',
  other: 'var(--part-b)',
  panel: 'var(--panel)',
  ink: 'var(--ink)',
  found: 'var(--found)',
  none: 'none',
};
const COLOURS = { ink: 'var(--ink)', found: 'var(--found)', muted: 'var(--muted)' };

function Item({ item }: { item: SketchItem }) {
  if (item.as === 'text')
    return (
      <text
        x={item.x}
        y={item.y}
        fontSize="11.5"
        textAnchor={item.anchor}
        fill={COLOURS[item.colour]}
        className="num"
        stroke="var(--panel)"
        strokeWidth="3"
        paintOrder="stroke"
      >
        <Said>{item.text}</Said>
      </text>
    );
  const style = { ...STROKES[item.pen], fill: FILLS[item.fill ?? 'none'] };
  return item.as === 'circle' ? (
    <circle cx={item.x} cy={item.y} r={item.r} {...(style as React.SVGProps<SVGCircleElement>)} />
  ) : (
    <path d={item.d} {...style} {...(item.dashed && { strokeDasharray: '5 3' })} />
  );
}

/** What to rig, drawn by the kind of test, with the dimensions that matter as they are set. */
export function RigSketch({ kind, test }: { kind: TestKind; test: BenchTest }) {
  const units = useUnits();
  const field = (id: string) => kind.rig.find((x) => x.id === id);
  const value = (id: string): number => {
    const f = field(id);
    const v = test.rig[id];
    return typeof v === 'number' ? v : f?.as === 'quantity' ? f.start : NaN;
  };
  const drawn = kind.sketch({
    value,
    said: (id, digits = 3) => {
      const f = field(id);
      return f?.as === 'quantity' ? formatQuantity(value(id), f.quantity, units, digits) : '';
    },
  });
  return (
    <svg
      viewBox={`0 0 218 ${drawn.height}`}
      role="img"
      aria-label={`Rig for ${kind.name.toLowerCase()}`}
      className="mb-2 block w-full"
    >
      {drawn.items.map((item, i) => (
        <Item key={i} item={item} />
      ))}
    </svg>
  );
}
