import { formatQuantity, kneeFor, legLoads, legPose, type LegCase } from '@gristmill/core';
import { useState } from 'react';
import { useUnits } from '../../state/prefs.ts';
import { Dim, Force, grip, SketchDefs, snap } from './sketch.tsx';

const W = 560;
const H = 320;
const HIP = [215, 34] as const;
const DEG = Math.PI / 180;
type Pose = 'stand' | 'crouch' | 'land';

/** The leg in a pose with its levers and torques; hip height, foot and knee can be dragged. */
export function LegSketch({
  c,
  g,
  onChange,
  disabled,
}: {
  c: LegCase;
  g: number;
  onChange: (change: Partial<LegCase>, what: string) => void;
  disabled?: boolean;
}) {
  const units = useUnits();
  const [pose, setPose] = useState<Pose>('crouch');
  const values = legLoads(c, g).values;
  const shown: Pose = pose === 'land' && !(c.dropHeight > 0) ? 'crouch' : pose;
  const knee = shown === 'stand' ? c.kneeStand : shown === 'crouch' ? c.kneeCrouch : values['landingKnee']!;
  const p = legPose(c, knee);
  // Scaled to the leg standing, so that crouching does not make the picture grow.
  const px = 236 / Math.max(legPose(c, c.kneeStand).reach, legPose(c, c.kneeCrouch).reach, (c.thigh + c.shank) * 0.6);
  const at = (q: readonly [number, number]): [number, number] => [HIP[0] + q[0] * px, HIP[1] - q[1] * px];
  const [kx, ky] = at(p.knee);
  const [fx, fy] = at(p.foot);
  const say = (v: number, q: 'torque' | 'length' | 'angle' | 'force') => formatQuantity(v, q, units, 3);
  const force = shown === 'land' ? values['forceLanding']! : values['force']!;
  const torque = (joint: 'knee' | 'hip') =>
    values[`${joint}${shown === 'stand' ? 'Stand' : shown === 'crouch' ? 'Crouch' : 'Landing'}`]!;
  const key = shown === 'stand' ? 'kneeStand' : 'kneeCrouch';
  const name = shown === 'stand' ? 'Knee, standing' : 'Knee, crouched';
  const toKnee = (reach: number) => {
    const most = (c.thigh + c.shank) * 0.9995;
    const least = Math.abs(c.thigh - c.shank) + 0.02 * (c.thigh + c.shank);
    onChange(
      { [key]: snap(kneeFor(c, Math.min(most, Math.max(least, Math.abs(c.footOffset) * 1.02, reach))), DEG) },
      name,
    );
  };
  const body = {
    what: name,
    value: knee,
    say: say(knee, 'angle'),
    to: (_x: number, y: number) => toKnee(Math.hypot(c.footOffset, (y - HIP[1]) / px)),
    nudge: (d: number) => onChange({ [key]: Math.min(Math.PI, Math.max(0.02, knee + d * DEG)) }, name),
  };
  const foot = {
    what: 'Foot ahead of hip',
    value: c.footOffset,
    say: say(c.footOffset, 'length'),
    to: (x: number) => onChange({ footOffset: snap((x - HIP[0]) / px, 0.002) }, 'Foot ahead of hip'),
    nudge: (d: number) => onChange({ footOffset: c.footOffset + d * 0.001 }, 'Foot ahead of hip'),
  };
  const driven = (joint: 'knee' | 'hip') => (c.driven === joint ? 'var(--expected)' : 'var(--muted)');
  return (
    <div className="relative h-full">
      <div className="absolute left-0 top-1 z-10 flex flex-col gap-1" role="group" aria-label="Pose">
        {(['stand', 'crouch', ...(c.dropHeight > 0 ? ['land' as const] : [])] as Pose[]).map((x) => (
          <button
            key={x}
            type="button"
            aria-pressed={shown === x}
            className={shown === x ? 'btn !bg-ink !text-panel' : 'btn'}
            onClick={() => setPose(x)}
          >
            {x === 'stand' ? 'Stand' : x === 'crouch' ? 'Crouch' : 'Land'}
          </button>
        ))}
      </div>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        role="group"
        aria-label="Sketch of the leg; foot and ground can be dragged"
        className="block h-full max-h-[330px] w-full"
      >
        <SketchDefs />
        <path d={`M${fx - 90} ${fy + 6}H${fx + 190}`} stroke="var(--ink)" strokeWidth="1.4" />
        {Array.from({ length: 14 }, (_, i) => (
          <path key={i} d={`M${fx - 84 + i * 20} ${fy + 6}l-7 8`} stroke="var(--ink)" strokeWidth="0.7" />
        ))}
        <path d={`M${fx} ${fy}V${HIP[1] - 22}`} stroke="var(--muted)" strokeDasharray="14 3 3 3" strokeWidth="0.8" />
        <rect
          x={HIP[0] - 62}
          y={HIP[1] - 20}
          width="112"
          height="18"
          fill="var(--part)"
          stroke="var(--ink)"
          strokeWidth="1.4"
        />
        {[
          [HIP, [kx, ky]],
          [
            [kx, ky],
            [fx, fy],
          ],
        ].map(([a, b], i) => (
          <g key={i} strokeLinecap="round">
            <line x1={a![0]} y1={a![1]} x2={b![0]} y2={b![1]} stroke="var(--ink)" strokeWidth="9" />
            <line x1={a![0]} y1={a![1]} x2={b![0]} y2={b![1]} stroke="var(--part)" strokeWidth="6.4" />
          </g>
        ))}
        <Dim x1={HIP[0]} y1={HIP[1]} x2={kx} y2={ky} d={-20} text={say(c.thigh, 'length')} />
        <Dim x1={kx} y1={ky} x2={fx} y2={fy} d={-20} text={say(c.shank, 'length')} />
        <Dim x1={fx} y1={ky} x2={kx} y2={ky} d={0} text={`x ${say(Math.abs(p.kneeLever), 'length')}`} />
        <Force x={fx} y={fy + 2} dx={0} dy={-52} text={say(force, 'force')} side={-10} />
        <circle cx={HIP[0]} cy={HIP[1]} r="8" fill="var(--panel)" stroke={driven('hip')} strokeWidth="3" />
        <circle cx={kx} cy={ky} r="8" fill="var(--panel)" stroke={driven('knee')} strokeWidth="3" />
        <text
          x={kx + 16}
          y={ky - 6}
          fontSize="12.5"
          className="num"
          fill="var(--expected)"
          stroke="var(--paper)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          knee {say(torque('knee'), 'torque')}
        </text>
        <text
          x={kx + 16}
          y={ky + 12}
          fontSize="12"
          className="num"
          fill="var(--muted)"
          stroke="var(--paper)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          κ {say(knee, 'angle')}
        </text>
        <text
          x={HIP[0] + 58}
          y={HIP[1] - 6}
          fontSize="12.5"
          className="num"
          fill="var(--expected)"
          stroke="var(--paper)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          hip {say(torque('hip'), 'torque')}
        </text>
        {shown === 'land' ? null : (
          <g>
            <path
              d={`M${fx + 120} ${fy - 4}l9 -13h-18ZM${fx + 120} ${fy + 18}l9 13h-18Z`}
              fill="var(--panel)"
              stroke="var(--ink)"
              strokeWidth="1.3"
            />
            <rect
              {...grip(body, 'ground', disabled)}
              x={fx + 108}
              y={fy - 20}
              width="24"
              height="54"
              fill="transparent"
            />
          </g>
        )}
        <circle
          {...grip(foot, 'foot', disabled)}
          cx={fx}
          cy={fy}
          r="7"
          fill="var(--panel)"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      </svg>
    </div>
  );
}
