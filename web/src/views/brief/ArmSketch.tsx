import { formatQuantity, type ArmCase } from '@gristmill/core';
import { useUnits } from '../../state/prefs.ts';
import { grip, SketchDefs, snap } from './sketch.tsx';

type Change = Partial<Pick<ArmCase, 'length' | 'angleFrom' | 'angleTo' | 'armCentre'>>;

const W = 560;
const H = 320;
const CX = 150;
const CY = 170;
const REACH = 330;
/** Radius of the range's arc, as a share of the sketch's reach. */
const ARC = 0.43;
const DEG = Math.PI / 180;

/**
 * The next step of a length that keeps the arm's end near the sketch's reach, so that dragging changes the length and
 * not only the scale.
 */
const niceReach = (length: number): number => {
  const decade = 10 ** Math.floor(Math.log10(length));
  return (
    [1.25, 1.6, 2, 2.5, 3.2, 4, 5, 6.3, 8, 10, 12.5].map((x) => x * decade).find((x) => x >= length * 1.02) ??
    length * 1.3
  );
};

/**
 * The arm against gravity, dimensioned; the load, the arm's centre and the ends of the range can be dragged or nudged
 * by keys.
 */
export function ArmSketch({
  c,
  onChange,
  disabled,
}: {
  c: ArmCase;
  onChange: (change: Change, what: string) => void;
  disabled?: boolean;
}) {
  const units = useUnits();
  const full = niceReach(c.length);
  const px = REACH / full;
  const at = (r: number, a: number): [number, number] => [CX + r * px * Math.cos(a), CY - r * px * Math.sin(a)];
  // The arm is drawn a little above level, within its range.
  const shown = Math.min(Math.max(14 * DEG, Math.min(c.angleFrom, c.angleTo)), Math.max(c.angleFrom, c.angleTo));
  const [lx, ly] = at(c.length, shown);
  const [ax, ay] = at(c.armCentre, shown);
  const [fx, fy] = at(full * ARC, c.angleFrom);
  const [tx, ty] = at(full * ARC, c.angleTo);
  const handles = {
    length: {
      what: 'Arm length',
      to: (x: number, y: number): Change => ({
        length: Math.max(0.005, snap(x * Math.cos(shown) + y * Math.sin(shown), full / 250)),
      }),
      nudge: (d: number): Change => ({ length: Math.max(0.005, c.length + d * 0.001) }),
      value: c.length,
      say: formatQuantity(c.length, 'length', units),
    },
    armCentre: {
      what: 'Arm’s centre',
      to: (x: number, y: number): Change => ({
        armCentre: Math.max(0, snap(x * Math.cos(shown) + y * Math.sin(shown), full / 250)),
      }),
      nudge: (d: number): Change => ({ armCentre: Math.max(0, c.armCentre + d * 0.001) }),
      value: c.armCentre,
      say: formatQuantity(c.armCentre, 'length', units),
    },
    angleFrom: {
      what: 'Lowest angle',
      to: (x: number, y: number): Change => ({ angleFrom: snap(Math.atan2(y, x), DEG) }),
      nudge: (d: number): Change => ({ angleFrom: c.angleFrom + d * DEG }),
      value: c.angleFrom,
      say: formatQuantity(c.angleFrom, 'angle', units, 3),
    },
    angleTo: {
      what: 'Highest angle',
      to: (x: number, y: number): Change => ({ angleTo: snap(Math.atan2(y, x), DEG) }),
      nudge: (d: number): Change => ({ angleTo: c.angleTo + d * DEG }),
      value: c.angleTo,
      say: formatQuantity(c.angleTo, 'angle', units, 3),
    },
  } as const;
  const hold = (key: keyof typeof handles) => {
    const h = handles[key];
    return grip(
      {
        what: h.what,
        value: h.value,
        say: h.say,
        to: (x, y) => onChange(h.to((x - CX) / px, (CY - y) / px), h.what),
        nudge: (d) => onChange(h.nudge(d), h.what),
      },
      key,
      disabled,
    );
  };
  const [u, v] = [Math.cos(shown), -Math.sin(shown)];
  const off = (x: number, y: number, d: number): [number, number] => [x - v * d, y + u * d];
  const dim = (x1: number, y1: number, x2: number, y2: number, d: number, text: string, key: string) => {
    const [a, b] = off(x1, y1, d);
    const [e, f] = off(x2, y2, d);
    return (
      <g key={key} stroke="var(--ink)" strokeWidth="0.7" fill="none">
        <path d={`M${x1} ${y1}L${a} ${b}M${x2} ${y2}L${e} ${f}`} opacity="0.5" />
        <path d={`M${a} ${b}L${e} ${f}`} markerStart="url(#tick)" markerEnd="url(#tick)" />
        <text
          x={a + (e - a) * 0.7}
          y={b + (f - b) * 0.7 - 4}
          transform={`rotate(${(-shown * 180) / Math.PI} ${a + (e - a) * 0.7} ${b + (f - b) * 0.7})`}
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
  };
  const arcR = full * ARC * px;
  const wide = Math.abs(c.angleTo - c.angleFrom) > Math.PI ? 1 : 0;
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      role="group"
      aria-label="Sketch of the arm; its dimensions can be dragged"
      className="block h-full max-h-[330px] w-full"
    >
      <SketchDefs />
      <line
        x1={CX - 60}
        x2={W - 20}
        y1={CY}
        y2={CY}
        stroke="var(--muted)"
        strokeDasharray="14 3 3 3"
        strokeWidth="0.8"
      />
      <text x={W - 22} y={CY + 14} textAnchor="end" fontSize="11.5" fill="var(--muted)">
        horizontal
      </text>
      <path
        d={`M${fx} ${fy}A${arcR} ${arcR} 0 ${wide} ${c.angleTo > c.angleFrom ? 0 : 1} ${tx} ${ty}`}
        fill="none"
        stroke="var(--muted)"
        strokeDasharray="3 3"
      />
      {(['angleFrom', 'angleTo'] as const).map((key) => {
        const [x, y] = key === 'angleFrom' ? [fx, fy] : [tx, ty];
        return (
          <g key={key}>
            <line x1={CX} y1={CY} x2={x} y2={y} stroke="var(--muted)" strokeWidth="0.8" strokeDasharray="5 4" />
            <text
              x={x - 9}
              y={y + (key === 'angleFrom' ? 18 : -6)}
              textAnchor="end"
              fontSize="12"
              className="num"
              fill="var(--ink)"
              stroke="var(--paper)"
              strokeWidth="4"
              paintOrder="stroke"
            >
              {handles[key].say}
            </text>
            <circle {...hold(key)} cx={x} cy={y} r="6" fill="var(--panel)" stroke="var(--ink)" strokeWidth="1.4" />
          </g>
        );
      })}
      <line x1={CX} y1={CY} x2={lx} y2={ly} stroke="var(--ink)" strokeWidth="7" strokeLinecap="round" />
      <line x1={CX} y1={CY} x2={lx} y2={ly} stroke="var(--part)" strokeWidth="4.4" strokeLinecap="round" />
      <circle cx={CX} cy={CY} r="13" fill="var(--part)" stroke="var(--ink)" strokeWidth="1.5" />
      <circle cx={CX} cy={CY} r="2.2" fill="var(--ink)" />
      {c.armMass > 0 ? (
        <path d={`M${ax} ${ay + 6}v34`} stroke="var(--found)" strokeWidth="1.6" markerEnd="url(#fall)" />
      ) : null}
      <path d={`M${lx} ${ly + 16}v46`} stroke="var(--found)" strokeWidth="2" markerEnd="url(#fall)" />
      <text x={lx + 10} y={ly + 60} fontSize="12" className="num" fill="var(--found)">
        {formatQuantity(c.load, 'mass', units)}
      </text>
      {c.armMass > 0 ? (
        <text x={ax + 8} y={ay + 46} fontSize="12" className="num" fill="var(--found)">
          {formatQuantity(c.armMass, 'mass', units)}
        </text>
      ) : null}
      {dim(CX, CY, lx, ly, -64, formatQuantity(c.length, 'length', units), 'L')}
      {c.armMass > 0 ? dim(CX, CY, ax, ay, -22, formatQuantity(c.armCentre, 'length', units), 'c') : null}
      <g {...hold('length')}>
        <rect x={lx - 14} y={ly - 14} width="28" height="28" fill="var(--part)" stroke="var(--ink)" strokeWidth="1.5" />
        <rect x={lx - 14} y={ly - 14} width="28" height="28" fill="url(#hatch-load)" />
      </g>
      {c.armMass > 0 ? (
        <circle
          {...hold('armCentre')}
          cx={ax}
          cy={ay}
          r="6"
          fill="var(--panel)"
          stroke="var(--ink)"
          strokeWidth="1.4"
        />
      ) : null}
    </svg>
  );
}
