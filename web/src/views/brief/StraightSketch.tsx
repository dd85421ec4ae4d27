import { formatQuantity, steadyForce, travelPerRadian, type StraightCase } from '@gristmill/core';
import { useUnits } from '../../state/prefs.ts';
import { Dim, Force, grip, SketchDefs, snap } from './sketch.tsx';

const X0 = 90;
const Y0 = 210;
const LONG = 330;
const DEG = Math.PI / 180;

/** The carriage on its guide with the forces against it; slope and stroke can be dragged at the guide's end. */
export function StraightSketch({
  c,
  g,
  onChange,
  disabled,
}: {
  c: StraightCase;
  g: number;
  onChange: (change: Partial<StraightCase>, what: string) => void;
  disabled?: boolean;
}) {
  const units = useUnits();
  // Steep guides are drawn no steeper than fits; the angle is written.
  const drawn = Math.max(-28 * DEG, Math.min(28 * DEG, c.slope));
  const [ux, uy] = [Math.cos(drawn), -Math.sin(drawn)];
  const at = (s: number, off = 0): [number, number] => [X0 + ux * s + uy * off, Y0 + uy * s - ux * off];
  const y0 = drawn < 0 ? -70 : 0;
  const say = (v: number, q: 'force' | 'length' | 'angle' | 'mass') => formatQuantity(v, q, units, 4);
  const f = steadyForce(c, g);
  const [ex, ey] = at(LONG);
  const slope = {
    what: 'Slope',
    value: c.slope,
    say: say(c.slope, 'angle'),
    to: (x: number, y: number) =>
      onChange(
        { slope: Math.max(-Math.PI / 2, Math.min(Math.PI / 2, snap(Math.atan2(Y0 - (y - y0), x - X0), DEG))) },
        'Slope',
      ),
    nudge: (d: number) =>
      onChange({ slope: Math.max(-Math.PI / 2, Math.min(Math.PI / 2, c.slope + d * DEG)) }, 'Slope'),
  };
  const quad = (s1: number, s2: number, o1: number, o2: number) =>
    `M${at(s1, o1).join(' ')}L${at(s2, o1).join(' ')}L${at(s2, o2).join(' ')}L${at(s1, o2).join(' ')}Z`;
  const [mx, my] = at(150, 34);
  return (
    <svg
      viewBox="0 0 560 320"
      role="group"
      aria-label="Sketch of the straight axis; its slope can be dragged"
      className="block h-full max-h-[330px] w-full"
    >
      <SketchDefs />
      <g transform={`translate(0 ${y0})`}>
        <path d={`M${X0 - 20} ${Y0}H${X0 + 250}`} stroke="var(--muted)" strokeDasharray="14 3 3 3" strokeWidth="0.8" />
        <path d={quad(-20, LONG, -6, 0)} fill="var(--part-b)" stroke="var(--ink)" strokeWidth="1.3" />
        {c.drive === 'screw'
          ? Array.from({ length: 30 }, (_, i) => (
              <path
                key={i}
                d={`M${at(-16 + i * 11.4, 3).join(' ')}L${at(-10 + i * 11.4, 11).join(' ')}`}
                stroke="var(--ink)"
                strokeWidth="1"
              />
            ))
          : Array.from({ length: 34 }, (_, i) => (
              <path
                key={i}
                d={`M${at(-16 + i * 10, 0).join(' ')}L${at(-13 + i * 10, 5).join(' ')}L${at(-9 + i * 10, 5).join(' ')}L${at(-6 + i * 10, 0).join(' ')}`}
                stroke="var(--ink)"
                strokeWidth="0.8"
                fill="var(--part)"
              />
            ))}
        <path d={quad(95, 205, 12, 56)} fill="var(--part)" stroke="var(--ink)" strokeWidth="1.5" />
        <path d={quad(95, 205, 12, 56)} fill="url(#hatch-load)" />
        {c.drive === 'screw' ? null : (
          <>
            <circle
              cx={at(150, 23)[0]}
              cy={at(150, 23)[1]}
              r="17"
              fill="var(--panel)"
              stroke="var(--ink)"
              strokeWidth="1.4"
            />
            <circle cx={at(150, 23)[0]} cy={at(150, 23)[1]} r="2" fill="var(--ink)" />
          </>
        )}
        <text
          x={mx}
          y={my - 34}
          textAnchor="middle"
          fontSize="12"
          className="num"
          stroke="var(--paper)"
          strokeWidth="4"
          paintOrder="stroke"
          fill="var(--ink)"
        >
          {say(c.mass, 'mass')}
        </text>
        {f.weight !== 0 || c.slope === 0 ? (
          <Force x={mx} y={my + 4} dx={0} dy={52} text={`weight along ${say(f.weight, 'force')}`} />
        ) : null}
        {c.force !== 0 ? (
          <Force
            x={at(268, 34)[0]}
            y={at(268, 34)[1]}
            dx={-44 * ux}
            dy={-44 * uy}
            text={`process ${say(c.force, 'force')}`}
            side={54}
          />
        ) : null}
        {f.friction > 0 ? (
          <text x={at(-10, -24)[0]} y={at(-10, -24)[1] + 16} fontSize="12" className="num" fill="var(--found)">
            friction {say(f.friction, 'force')}
          </text>
        ) : null}
        <Dim
          x1={at(95, 70)[0]}
          y1={at(95, 70)[1]}
          x2={at(LONG - 20, 70)[0]}
          y2={at(LONG - 20, 70)[1]}
          d={-14}
          text={`stroke ${say(c.stroke, 'length')}`}
        />
        <text x={ex + 14} y={ey + 22} fontSize="12" className="num" fill="var(--ink)">
          {say(c.slope, 'angle')}
        </text>
        <circle
          {...grip(slope, 'slope', disabled)}
          cx={ex}
          cy={ey}
          r="7"
          fill="var(--panel)"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
        <text x={X0 - 20} y={Y0 + 70} fontSize="12" className="num" fill="var(--muted)">
          {c.drive === 'screw' ? `lead ${say(c.lead, 'length')}` : `${c.drive} r ${say(c.radius, 'length')}`},{' '}
          {say(2 * Math.PI * travelPerRadian(c), 'length')} a turn
        </text>
      </g>
    </svg>
  );
}
