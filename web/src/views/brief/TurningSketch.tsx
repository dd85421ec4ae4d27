import { formatQuantity, type TurningCase } from '@gristmill/core';
import { useUnits } from '../../state/prefs.ts';
import { grip, SketchDefs, snap } from './sketch.tsx';

const CX = 210;
const CY = 168;
const R = 122;
const DEG = Math.PI / 180;

/**
 * The turning mass seen along its axis: the move as an arc, unbalance and the radius at which errors count. The end of
 * the move can be dragged.
 */
export function TurningSketch({
  c,
  onChange,
  disabled,
}: {
  c: TurningCase;
  onChange: (change: Partial<TurningCase>, what: string) => void;
  disabled?: boolean;
}) {
  const units = useUnits();
  const shown = Math.min(c.angle, 2 * Math.PI - 0.01);
  const turns = c.angle / (2 * Math.PI);
  const at = (r: number, a: number): [number, number] => [CX + r * Math.cos(a), CY - r * Math.sin(a)];
  const [ex, ey] = at(R, shown);
  const say = (v: number, q: 'angle' | 'inertia' | 'torque' | 'length') => formatQuantity(v, q, units, 4);
  const handle = {
    what: 'One move',
    value: c.angle,
    say: say(c.angle, 'angle'),
    to: (x: number, y: number) => {
      const a = Math.atan2(CY - y, x - CX);
      onChange({ angle: snap(a > 0.005 ? a : a + 2 * Math.PI, DEG) }, 'One move');
    },
    nudge: (d: number) => onChange({ angle: Math.max(0, c.angle + d * DEG) }, 'One move'),
  };
  return (
    <svg
      viewBox="0 0 560 320"
      role="group"
      aria-label="Sketch of the turning mass; the end of its move can be dragged"
      className="block h-full max-h-[330px] w-full"
    >
      <SketchDefs />
      <circle cx={CX} cy={CY} r={R} fill="var(--part)" stroke="var(--ink)" strokeWidth="1.5" />
      <circle cx={CX} cy={CY} r={R} fill="url(#hatch-load)" opacity="0.6" />
      <circle cx={CX} cy={CY} r={R * 0.32} fill="var(--panel)" stroke="var(--ink)" strokeWidth="1.2" />
      <circle cx={CX} cy={CY} r="2.4" fill="var(--ink)" />
      <path d={`M${CX} ${CY}H${CX + R + 26}`} stroke="var(--muted)" strokeDasharray="14 3 3 3" strokeWidth="0.8" />
      <path d={`M${CX} ${CY}L${ex} ${ey}`} stroke="var(--muted)" strokeDasharray="5 4" strokeWidth="0.9" />
      <path
        d={`M${at(R * 0.66, 0).join(' ')}A${R * 0.66} ${R * 0.66} 0 ${shown > Math.PI ? 1 : 0} 0 ${at(R * 0.66, shown).join(' ')}`}
        fill="none"
        stroke="var(--expected)"
        strokeWidth="2"
        markerEnd="url(#tick)"
      />
      <text
        x={at(R * 0.8, shown / 2)[0]}
        y={at(R * 0.8, shown / 2)[1]}
        textAnchor="middle"
        fontSize="12"
        className="num"
        stroke="var(--paper)"
        strokeWidth="4"
        paintOrder="stroke"
        fill="var(--ink)"
      >
        {say(c.angle, 'angle')}
        {turns >= 1 ? `, ${formatQuantity(c.angle, 'angle', { angle: 'rev' }, 3)}` : ''}
      </text>
      {c.unbalance > 0 ? (
        <g>
          <circle
            cx={at(R * 0.78, -1.2)[0]}
            cy={at(R * 0.78, -1.2)[1]}
            r="10"
            fill="var(--part-b)"
            stroke="var(--ink)"
            strokeWidth="1.3"
          />
          <path
            d={`M${at(R * 0.78, -1.2)[0]} ${at(R * 0.78, -1.2)[1] + 12}v30`}
            stroke="var(--found)"
            strokeWidth="2"
            markerEnd="url(#fall)"
          />
        </g>
      ) : null}
      <g fontSize="12.5" className="num" fill="var(--ink)">
        <text x="372" y="96">
          J {say(c.inertia, 'inertia')}
        </text>
        <text x="372" y="120" fill="var(--found)">
          friction {say(c.friction, 'torque')}
        </text>
        <text x="372" y="144" fill="var(--found)">
          unbalance {say(c.unbalance, 'torque')}
        </text>
        {c.radius > 0 ? (
          <text x="372" y="168" fill="var(--muted)">
            errors count at {say(c.radius, 'length')}
          </text>
        ) : null}
      </g>
      <circle
        {...grip(handle, 'angle', disabled)}
        cx={ex}
        cy={ey}
        r="7"
        fill="var(--panel)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
    </svg>
  );
}
