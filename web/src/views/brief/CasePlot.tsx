import { armGravity, caseLoads, legLoads, legPose, type ArmCase, type LegCase, type LoadCase } from '@gristmill/core';
import { useMemo, useState } from 'react';
import { LazyPlot } from '../../parts/LazyPlot.tsx';
import type { Series } from '../../parts/Plot.tsx';
import { useTold } from '../../state/straight.tsx';

const STEPS = 61;
type Mode = 'angle' | 'time' | 'speed' | 'points';
const NAMES: Readonly<Record<Mode, string>> = {
  angle: 'over the angle',
  time: 'over time',
  speed: 'speed over time',
  points: 'over speed',
};
const MODES: Readonly<Record<LoadCase['pattern'], readonly Mode[]>> = {
  arm: ['angle', 'time', 'speed'],
  leg: ['angle', 'time', 'speed'],
  turning: ['time', 'speed'],
  straight: ['time', 'speed'],
  points: ['points', 'time', 'speed'],
};

function armOverAngle(c: ArmCase, g: number): Series[] {
  const from = Math.min(c.angleFrom, c.angleTo);
  const range = Math.abs(c.angleTo - c.angleFrom);
  const x = Float64Array.from({ length: STEPS }, (_, i) => from + (range * i) / (STEPS - 1));
  const gravity = x.map((a) => armGravity(c, a, g));
  // As the move goes: ramps at the ends, cruising between; up and down run over the same torques.
  const { position, torque } = caseLoads(c, g).trace;
  return [
    { key: 'g', name: 'gravity', x, y: gravity, colour: 'var(--ink)' },
    { key: 'm', name: 'moving, up and down', x: position, y: torque, colour: 'var(--expected)', width: 2.2 },
  ];
}

function legOverAngle(c: LegCase, g: number): Series[] {
  const from = Math.min(c.kneeStand, c.kneeCrouch);
  const range = Math.abs(c.kneeStand - c.kneeCrouch);
  const x = Float64Array.from({ length: STEPS }, (_, i) => from + (range * i) / (STEPS - 1));
  const force = legLoads(c, g).values['forceStatic']!;
  const knee = x.map((k) => force * Math.abs(legPose(c, k).kneeLever));
  const hip = x.map((k) => force * Math.abs(legPose(c, k).hipLever));
  const own = c.driven === 'knee' ? knee : hip;
  return [
    { key: 'k', name: 'knee, still', x, y: knee, colour: 'var(--ink)' },
    { key: 'h', name: 'hip, still', x, y: hip, colour: 'var(--muted)', dash: '5 4' },
    {
      key: 'p',
      name: 'with the dynamic factor',
      x,
      y: own.map((t) => t * c.dynamicFactor),
      colour: 'var(--expected)',
      width: 2.2,
    },
  ];
}

/** Torque or speed of a load case over its angle, its time or its speed. */
export function CasePlot({ c, g }: { c: LoadCase; g: number }) {
  const modes = MODES[c.pattern];
  const [chosen, setChosen] = useState<Mode>(modes[0]!);
  const mode = modes.includes(chosen) ? chosen : modes[0]!;
  const loads = useMemo(() => caseLoads(c, g), [c, g]);
  const load = useTold('torque').by === 1 ? 'Torque' : 'Force';
  const series = useMemo<Series[]>(() => {
    if (mode === 'angle')
      return c.pattern === 'arm' ? armOverAngle(c, g) : c.pattern === 'leg' ? legOverAngle(c, g) : [];
    if (mode === 'points') return [];
    const { time, torque, speed } = loads.trace;
    return [
      {
        key: 't',
        name: mode === 'speed' ? 'speed' : 'torque',
        x: time,
        y: mode === 'speed' ? speed : torque,
        colour: mode === 'speed' ? 'var(--ink)' : 'var(--expected)',
        width: 1.8,
      },
    ];
  }, [c, g, loads, mode]);
  const marks =
    c.pattern === 'points' && mode === 'points'
      ? c.rows.map((r, i) => ({ name: c.rows.length <= 14 ? String(i + 1) : '', x: r.speed, y: r.torque, ok: true }))
      : [];
  const level =
    mode === 'angle' && c.pattern === 'arm'
      ? { name: 'peak, with shock', y: loads.peak }
      : mode === 'time'
        ? { name: 'RMS', y: loads.rms }
        : mode === 'points'
          ? { name: 'RMS', y: loads.rms }
          : undefined;
  return (
    <>
      <div className="flex items-baseline justify-between gap-3 pt-1">
        <h2 className="whitespace-nowrap">{mode === 'speed' ? 'Speed' : load}</h2>
        <span className="flex shrink-0 gap-2" role="group" aria-label="Plot">
          {modes.map((m) => (
            <button
              key={m}
              type="button"
              aria-pressed={mode === m}
              className={mode === m ? 'border-b border-ink' : 'btn-quiet !p-0'}
              onClick={() => setChosen(m)}
            >
              {NAMES[m]}
            </button>
          ))}
        </span>
      </div>
      {series.length > 1 ? (
        <p className="label -mb-2 truncate">
          {series.map((s, i) => (
            <span key={s.key} style={{ color: s.colour }}>
              {i ? ' · ' : ''}
              {s.dash ? '--' : '—'} {s.name}
            </span>
          ))}
        </p>
      ) : null}
      <div className="min-h-[140px] flex-1">
        <LazyPlot
          name={
            mode === 'angle' && c.pattern === 'arm'
              ? 'Torque at the joint over the arm’s angle'
              : `${mode === 'speed' ? 'Speed' : load} at the joint ${mode === 'angle' ? 'over the knee’s angle' : NAMES[mode].replace('speed ', '')}`
          }
          x={mode === 'angle' ? 'angle' : mode === 'points' ? 'speed' : 'time'}
          y={mode === 'speed' ? 'speed' : 'torque'}
          xName={
            mode === 'angle'
              ? c.pattern === 'arm'
                ? 'angle from the horizontal'
                : 'angle inside the knee'
              : mode === 'points'
                ? 'speed'
                : 'time'
          }
          yName={mode === 'speed' ? 'speed' : load.toLowerCase()}
          series={series}
          marks={marks}
          level={level}
        />
      </div>
    </>
  );
}
