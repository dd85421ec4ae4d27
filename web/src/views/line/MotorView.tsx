import {
  constantFigures,
  displayUnit,
  fromSi,
  motorEfficiency,
  motorTorque,
  plainNumber,
  term,
  topSpeed,
  type Figure,
  type MotorDuty,
  type Problem,
  type QuantityId,
  worked,
} from '@gristmill/core';
import { useMemo, useState } from 'react';
import { useWorking } from '../../app/working.ts';
import { FigureText } from '../../parts/FigureText.tsx';
import { LazyPlot } from '../../parts/LazyPlot.tsx';
import { PasteTable } from '../../parts/PasteTable.tsx';
import type { Series } from '../../parts/Plot.tsx';
import { editVariant, useOpen, useVariant } from '../../state/open.ts';
import { useUnits } from '../../state/prefs.ts';
import { useShelf } from '../../state/shelf.ts';
import { useLine } from '../../workers/queries.ts';
import { readCurve } from './curve.ts';
import { thinned } from './thinned.ts';

const POINTS = 90;
type What = 'torque' | 'power' | 'efficiency';

function CurveImport() {
  const variant = useVariant();
  const readOnly = useOpen((s) => s.readOnly);
  const [pasting, setPasting] = useState<'curve' | 'curveEver' | undefined>();
  const { curve, curveEver } = variant.motor;
  const take = (text: string): Problem | undefined => {
    const read = readCurve(text);
    if (!read.ok) return read.problem;
    const key = pasting!;
    editVariant(
      key === 'curve' ? 'Motor: short-time curve' : 'Motor: continuous curve',
      (v) => void (v.motor[key] = read.value),
    );
    setPasting(undefined);
    return undefined;
  };
  return (
    <div className="pt-1">
      {pasting ? (
        <PasteTable
          title={pasting === 'curve' ? 'Paste speed and torque, for moments' : 'Paste speed and torque, continuous'}
          hint="Two columns; a heading may name them and their units: speed (rpm), torque (N·m). Between points a monotone curve is laid; outside them nothing is known."
          onTake={take}
          onCancel={() => setPasting(undefined)}
        />
      ) : (
        <p className="flex flex-wrap items-baseline gap-2">
          <button type="button" className="btn" disabled={readOnly} onClick={() => setPasting('curve')}>
            {curve ? `Curve of ${curve.speed.length} points: replace` : 'Curve from a data sheet'}
          </button>
          {curve ? (
            <button type="button" className="btn" disabled={readOnly} onClick={() => setPasting('curveEver')}>
              {curveEver ? 'Continuous curve: replace' : 'Continuous curve'}
            </button>
          ) : null}
          {curve ? (
            <button
              type="button"
              className="btn-quiet"
              disabled={readOnly}
              onClick={() =>
                editVariant('Motor: remove curves', (v) => {
                  delete v.motor.curve;
                  delete v.motor.curveEver;
                })
              }
            >
              Back to the constants
            </button>
          ) : null}
          <span className="label">
            {curve
              ? 'The data sheet stands in place of the constants; asked beyond its ends it is refused.'
              : 'From the constants beside; a data sheet’s points may stand in their place.'}
          </span>
        </p>
      )}
    </div>
  );
}

/** A point's name, which opens the working of what it needs of the motor. */
function PointName({ p }: { p: MotorDuty }) {
  const open = useWorking((s) => s.open);
  const figure: Figure = worked(
    {
      id: `point-${p.name}`,
      name: `Motor, ${p.name}`,
      quantity: 'torque',
      value: p.torque,
      low: p.torque,
      high: p.torque,
    },
    () => ({
      formula: 'T/(|i|·η) + d, from the output back',
      terms: [
        term('has', `available, bound by ${p.bound}`, p.available, 'torque', 'motor'),
        term('ω', 'motor speed', p.speed, 'speed', 'computed'),
        term('I', 'current', p.current, 'current', 'computed'),
        term('P_cu', 'heat', p.copperLoss, 'power', 'computed'),
        term('P', 'at the shaft', p.shaftPower, 'power', 'computed'),
        ...(Number.isFinite(p.winding)
          ? [
              term('T_w', 'winding, if held continuously', p.winding, 'temperature', 'computed'),
              term('T_m', 'mount, if held continuously', p.mount, 'temperature', 'computed'),
            ]
          : []),
      ],
      source: p.time === 'peak' ? 'for moments' : 'continuous: RMS and holding',
    }),
  );
  return (
    <button
      type="button"
      className="max-w-full truncate text-left decoration-dotted underline-offset-3 hover:underline"
      onClick={() => open({ kind: 'expected', figure })}
    >
      {p.name}
    </button>
  );
}

/** What the motor gives over its speed, and every point the brief asks of it. */
export default function MotorView() {
  const variant = useVariant();
  const shelf = useShelf();
  const units = useUnits();
  const { report } = useLine();
  const [what, setWhat] = useState<What>('torque');
  const { motor, driver } = variant;
  const data = useMemo(() => {
    const first = motor.curve ? motor.curve.speed[0]! : 0;
    const top = topSpeed(motor, driver);
    const speed = Float64Array.from({ length: POINTS + 1 }, (_, i) => first + ((top - first) * i) / POINTS);
    const of = (time: 'peak' | 'continuous') => {
      const torque = speed.map((w) => motorTorque(motor, driver, shelf, w, time).torque);
      return {
        torque,
        power: torque.map((t, i) => t * speed[i]!),
        efficiency: torque.map((t, i) => motorEfficiency(motor, driver, t, speed[i]!, shelf).efficiency),
      };
    };
    return { constants: constantFigures(motor, driver, shelf), speed, peak: of('peak'), ever: of('continuous') };
  }, [motor, driver, shelf]);
  const series: Series[] = [
    { key: 'peak', name: 'peak', x: data.speed, y: data.peak[what], colour: 'var(--expected)', width: 2.2 },
    {
      key: 'ever',
      name: 'continuous',
      x: data.speed,
      y: data.ever[what],
      colour: 'var(--expected)',
      dash: '6 4',
      width: 1.4,
    },
  ];
  const points = report?.motor.points ?? [];
  const marks = points.map((p) => ({
    name: p.name,
    x: p.speed,
    y: what === 'torque' ? p.torque : what === 'power' ? p.shaftPower : p.efficiency,
    ok: p.margin >= 1,
    below: p.time === 'continuous',
    margin: p.margin,
  }));
  const say = (v: number, q: QuantityId) => plainNumber(fromSi(v, displayUnit(q, units)), 3);
  const unit = (q: QuantityId) => displayUnit(q, units).symbol;
  return (
    <div className="flex min-h-full flex-col pb-2">
      <div className="flex items-baseline justify-between gap-3">
        <h1 className="text-[15px]">{motor.name}</h1>
        <span className="flex gap-3" role="group" aria-label="Plot">
          {(['torque', 'power', 'efficiency'] as const).map((x) => (
            <button
              key={x}
              type="button"
              aria-pressed={what === x}
              className={what === x ? 'border-b border-ink' : 'btn-quiet !p-0'}
              onClick={() => setWhat(x)}
            >
              {x}
            </button>
          ))}
        </span>
      </div>
      <p className="label">
        <span className="text-expected">— peak</span> · <span className="text-expected">-- continuous</span> · the
        brief’s points as the motor meets them
      </p>
      <div className="h-[212px]">
        <LazyPlot
          name={`${what[0]!.toUpperCase()}${what.slice(1)} of the motor over its speed, with the brief’s points`}
          x="speed"
          y={what}
          xName="motor speed"
          yName={what}
          series={series}
          marks={thinned(marks)}
        />
      </div>
      <CurveImport />
      <div className="overflow-x-auto pt-2" role="region" aria-label="Operating points" tabIndex={0}>
        <table className="w-full text-[12px] [&_td]:pr-1.5 [&_th]:pr-1.5">
          <thead>
            <tr className="border-b border-strong align-bottom">
              <th>point</th>
              {(
                [
                  ['needed', 'torque'],
                  ['has', 'torque'],
                  ['speed', 'speed'],
                  ['current', 'current'],
                  ['heat', 'power'],
                  ['η', 'efficiency'],
                  ['winding', 'temperature'],
                ] as const
              ).map(([n, q]) => (
                <th key={n} className="whitespace-nowrap text-right">
                  {n}
                  <span className="num block text-[11px]">{unit(q)}</span>
                </th>
              ))}
              <th className="text-right">margin</th>
              <th>bound by</th>
            </tr>
          </thead>
          <tbody>
            {points.map((p) => (
              <tr key={p.name} className="rule-b" data-point={p.name}>
                <td className="max-w-[140px] truncate" title={p.name}>
                  <PointName p={p} />
                </td>
                {(
                  [
                    [p.torque, 'torque'],
                    [p.available, 'torque'],
                    [p.speed, 'speed'],
                    [p.current, 'current'],
                    [p.copperLoss, 'power'],
                    [p.efficiency, 'efficiency'],
                    [p.winding, 'temperature'],
                  ] as const
                ).map(([v, q], i) => (
                  <td key={i} className="num text-right">
                    {Number.isFinite(v) ? say(v, q) : 'runs away'}
                  </td>
                ))}
                <td className={`num text-right ${p.margin < 1 ? 'text-fail' : ''}`}>
                  {p.margin < 1 ? '✕ ' : ''}
                  {p.margin > 99 ? '>99' : `×${p.margin.toFixed(2)}`}
                </td>
                <td className="label max-w-[84px] truncate" title={p.bound}>
                  {p.bound}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {points.length === 0 ? (
          <p className="label py-2">Points appear once the line can be summed.</p>
        ) : (
          <p className="label">
            Heat, winding and mount as they settle if the point were held continuously at the temperature of the
            surroundings set in the shop.
          </p>
        )}
      </div>
      <p className="flex flex-wrap gap-x-5 pt-2 text-[12.5px]" role="group" aria-label="Constants of the motor">
        {data.constants.map((f) => (
          <span key={f.id}>
            {f.name} <FigureText figure={f} />
          </span>
        ))}
      </p>
    </div>
  );
}
