import { term, type Figure } from '../figure/index.ts';
import type { PointsCase } from '../schema/joint.ts';
import type { Problem } from '../result.ts';
import { sumCycle } from './cycle.ts';
import { cycleFigures, SHOCK_HELP } from './move-fields.ts';
import { rmsPoint, sure, type CaseLoads, type LoadPattern, type OperatingPoint } from './pattern.ts';

/** Points shown on the map and tried against the motor; the hardest ones of a long list. */
const TRIED = 12;

/** Points that no other covers with as much torque at as much speed, the one of most power first; magnitudes. */
function hardest(rows: PointsCase['rows']): { at: number; torque: number; speed: number }[] {
  const list = rows
    .map((r, at) => ({ at, torque: Math.abs(r.torque), speed: Math.abs(r.speed) }))
    .filter((r) => r.torque > 0)
    .sort((a, b) => b.torque - a.torque || b.speed - a.speed);
  let fastest = -1;
  const out = list.filter((r) => r.speed > fastest && ((fastest = r.speed), true));
  return out.sort((a, b) => b.torque * b.speed - a.torque * a.speed);
}

/** Torque and speed as listed, each held for its seconds. */
export function pointsLoads(c: PointsCase): CaseLoads {
  let position = 0;
  const sums = sumCycle(
    c.rows.map((r) => {
      const from = position;
      position += r.speed * r.seconds;
      return {
        duration: r.seconds,
        steady: true,
        at: (t: number) => ({ position: from + r.speed * t, speed: r.speed, torque: r.torque }),
      };
    }),
  );
  const most = c.rows.reduce((m, r) => Math.max(m, Math.abs(r.torque)), 0);
  const top = c.rows.reduce((m, r) => Math.max(m, Math.abs(r.speed)), 0);
  const hold = c.rows.reduce((m, r) => (r.speed === 0 ? Math.max(m, Math.abs(r.torque)) : m), 0);
  const peak = most * c.dynamicFactor;
  const points = hardest(c.rows)
    .slice(0, TRIED)
    .map((r): OperatingPoint => ({
      name: `point ${r.at + 1}`,
      torque: r.torque * c.dynamicFactor,
      speed: r.speed,
      time: 'peak',
    }));
  const rms = sums.cycle > 0 ? sums.rms : most;
  const swing = sums.trace.position.length
    ? sums.trace.position.reduce((m, x) => Math.max(m, x), -Infinity) -
      sums.trace.position.reduce((m, x) => Math.min(m, x), Infinity)
    : 0;
  return {
    ...sums,
    rms,
    peak,
    hold,
    speed: top,
    moveTime: sums.cycle * sums.duty,
    inertia: c.inertia,
    friction: 0,
    arm: c.radius,
    swing,
    points: [
      ...points,
      rmsPoint(sums, rms),
      ...(hold > 0 ? [{ name: 'hold', torque: hold, speed: 0, time: 'continuous' } as const] : []),
    ],
    values: { most, count: c.rows.length },
  };
}

function wrong(c: PointsCase): Problem | undefined {
  return c.rows.some((r) => r.seconds > 0)
    ? undefined
    : {
        what: 'No point lasts any time.',
        why: 'RMS and equivalent torque weigh points by their seconds.',
        mend: 'Give at least one point its seconds.',
      };
}

function figures(c: PointsCase): Figure[] {
  const l = pointsLoads(c);
  const n = term('n', 'points', c.rows.length, 'count', 'brief');
  return [
    sure('peak', 'Peak', 'torque', l.peak, () => ({
      formula: 'max |T|·shock',
      terms: [
        n,
        term('T', 'largest listed', l.values['most']!, 'torque', 'brief'),
        term('shock', 'shock factor', c.dynamicFactor, 'ratio', 'brief'),
      ],
      source: 'as listed',
    })),
    sure('rms', 'RMS', 'torque', l.rms, () => ({
      formula: '√(Σ T²·t / Σ t)',
      terms: [n, term('Σt', 'all seconds', l.cycle, 'time', 'computed')],
      source: 'as listed; the shock factor is not in it',
    })),
    sure('hold', 'Hold', 'torque', l.hold, () => ({
      formula: 'largest |T| at no speed',
      terms: [n],
      source: 'as listed',
    })),
    sure('speed', 'Speed', 'speed', l.speed, () => ({ formula: 'max |ω|', terms: [n], source: 'as listed' })),
    ...cycleFigures(l),
  ];
}

/** A list of torque, speed and seconds. */
export const pointsPattern: LoadPattern<PointsCase> = {
  id: 'points',
  name: 'Own points',
  summary: 'Torque, speed and seconds, measured or worked out elsewhere.',
  fields: [
    {
      as: 'quantity',
      path: 'inertia',
      label: 'Inertia of the load',
      group: 'Load',
      quantity: 'inertia',
      step: 1e-3,
      min: 0,
      max: 1e5,
      help: 'For acceleration and natural frequency; 0 where not known.',
    },
    {
      as: 'quantity',
      path: 'radius',
      label: 'Errors count at',
      group: 'Load',
      quantity: 'length',
      step: 0.01,
      min: 0,
      max: 100,
      help: 'Radius at which play and wind-up become a distance; 0 where none matters.',
    },
    {
      as: 'quantity',
      path: 'dynamicFactor',
      label: 'Shock factor',
      group: 'Load',
      quantity: 'ratio',
      step: 0.05,
      min: 1,
      max: 20,
      help: SHOCK_HELP,
    },
  ],
  blank: (id) => ({
    id,
    name: 'Own points',
    pattern: 'points',
    rows: [
      { torque: 2, speed: 0, seconds: 1 },
      { torque: 1.5, speed: 2, seconds: 0.5 },
      { torque: 0.3, speed: 4, seconds: 1 },
    ],
    inertia: 0,
    radius: 0,
    dynamicFactor: 1,
  }),
  wrong,
  loads: pointsLoads,
  figures,
};
