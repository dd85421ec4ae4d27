import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { arm, HOUSE, hung, MOTOR, path, sketch, word } from '../rig-drawing.ts';
import { misfitOf } from '../misfit.ts';
import { fitWarming } from '../warming-fit.ts';
import { student95 } from '../student.ts';
import { combine } from '../uncertainty.ts';
import { channelOf, neighbourMeans } from '../recording.ts';
import {
  cell,
  column,
  countedRows,
  dominantAdvice,
  instrumentBudget,
  instrumentOf,
  plainResult,
  rigOf,
  rigQuantity,
} from './rig-fields.ts';

/** A limit no warmer than this is none, K: 0 °C, which reads as nothing given. */
const NONE = 273.15;

const RIG = [
  rigQuantity('torque', 'Torque carried', 'At the output; 0 where it is not known.', 'torque', 0, 0.1, 0, 1e5, [
    'torque',
    'load',
  ]),
  rigQuantity(
    'ambient',
    'Surroundings',
    'Beside the test, in the shade of the motor.',
    'temperature',
    293.15,
    0.5,
    200,
    400,
    ['ambient', 'surroundings', 'room'],
  ),
  rigQuantity(
    'limit',
    'Highest allowed',
    `${stated(273.15, 'temperature')} takes the lowest limit of the variant’s materials.`,
    'temperature',
    NONE,
    1,
    0,
    2000,
    ['limit', 'softening'],
  ),
];

/** Points of a recording that are fitted and shown: what warms up in minutes needs no more. */
const MOST = 360;

/**
 * Settling temperature and time constant. Source: heating of one body or two (`fitWarming`); losses with the square of torque give the torque a limit allows.
 */
export const temperature: TestKind = {
  id: 'temperature',
  name: 'Temperature',
  summary: 'Readings over time under a steady load: where it settles, how fast, and what torque every material allows.',
  group: 'sound and heat',
  rows: [],
  loaded: true,
  measures: 'temperature',
  caution:
    'Motors and printed mounts get hot enough to burn and to soften: watch the first run, with a cut-out, and nothing that burns near it.',
  steps: [
    'Fix the sensor to the motor’s face or its mount with a drop of paste.',
    'Note the surroundings, start the steady load and the clock together.',
    'Read every few minutes, well past where it bends over.',
  ],
  rig: RIG,
  columns: [
    column('time', 'time', 'time', '5 min', ['time', 't', 'minutes']),
    column('temperature', 'temperature', 'temperature', '34.5 °C', ['temperature', 'temp', 'theta']),
  ],
  channels: [
    { id: 'time', label: 'time', quantity: 'time', words: ['time', 't'] },
    { id: 'temperature', label: 'temperature', quantity: 'temperature', words: ['temperature', 'temp'] },
  ],
  programs: ['warming'],
  rigOfSpecimen: ({ heating }) => ({ torque: heating.torque, ambient: heating.ambient }),
  sketch: (rig) =>
    sketch([
      ...HOUSE,
      MOTOR,
      path('M12 60V34H120', 'hot'),
      path('M120 22h52v24h-52Z', 'ink', 'panel'),
      word(146, 38, 'ϑ(t)', 'found'),
      arm(80),
      ...hung(112, 76),
      word(150, 104, rig.said('torque')),
    ]),
  analyse: (test, context) => {
    const [rt, rv] = [channelOf(context.recording, 'time'), channelOf(context.recording, 'temperature')];
    const rows = countedRows(test, 'time', 'temperature');
    const [t, y] =
      rt && rv
        ? [Array.from(neighbourMeans(rt, MOST)), Array.from(neighbourMeans(rv, MOST))]
        : [rows.map((r) => cell(r, 'time')), rows.map((r) => cell(r, 'temperature'))];
    const counted = rt?.length ?? t.length;
    if (t.length < 4)
      return refuse(
        t.length === 0
          ? 'There are no readings yet.'
          : `${t.length} reading${t.length === 1 ? '' : 's'} cannot tell where it settles.`,
        'Start, end and how fast are three unknowns.',
        'Read on, every few minutes.',
      );
    const rig = rigOf(RIG, test);
    const [t0, t1] = [Math.min(...t), Math.max(...t)];
    if (!(t1 > t0))
      return refuse('Every reading is at the same time.', 'A course over time is needed.', 'Read again later.');
    const swing = Math.max(...y) - Math.min(...y);
    const instrument = instrumentOf(test, context);
    if (!(swing > Math.max(0.2, 2 * (instrument?.resolution ?? 0))))
      return refuse(
        'The temperature hardly changed.',
        `It moved by ${stated(swing, 'temperatureRise', 2)}, which the sensor’s steps hide.`,
        'Load it more, or read for longer.',
      );
    const fit = fitWarming(t, y);
    if (!fit)
      return refuse(
        'No course of warming fits these readings.',
        'They do not bend towards where they would settle.',
        'Read on until it bends over, and look for readings that are out of order.',
      );
    const settle = fit.settles;
    const tau = fit.times[0]!;
    const [uEnd, uTau] = [fit.uSettles, fit.uTime];
    const k = student95(fit.dof);
    const far = t1 - t0 < 1.2 * tau || !Number.isFinite(uEnd);
    const found = combine(settle, 'temperature', [
      {
        id: 'fit',
        name: 'scatter about the curve',
        u: Number.isFinite(uEnd) ? uEnd : swing,
        dof: fit.dof,
        halve: far ? 'reading on until it has settled' : 'more readings',
      },
      ...instrumentBudget(instrument, 1),
    ]);
    const ambient = rig('ambient');
    const limits = rig('limit') > NONE ? [{ name: 'the limit given', limit: rig('limit') }] : context.materials;
    const rise = settle - ambient;
    const torque = rig('torque');
    const allowed = limits
      .filter((m) => rise > 0.5 && m.limit > ambient)
      .map((m) => ({ ...m, torque: torque * Math.sqrt((m.limit - ambient) / rise) }))
      .sort((a, b) => a.torque - b.torque);
    const grid = Array.from({ length: 60 }, (_, i) => t0 + ((t1 - t0) * 1.3 * i) / 59);
    return ok({
      ...plainResult(
        test,
        counted,
        `Settles at ${stated(settle, 'temperature', 3)} with a time constant of ${stated(tau, 'time', 3)}` +
          `${allowed[0] && torque > 0 ? `; ${allowed[0].name} allows ${stated(allowed[0].torque, 'torque', 3)} continuously` : ''}.`,
      ),
      found,
      figures: [
        {
          id: 'settles',
          name: 'Settles at',
          quantity: 'temperature',
          value: settle,
          U: found.U,
          how: fit.times.length > 1 ? 'θ∞ of the fit of two bodies' : 'θ∞ of the fit',
        },
        {
          id: 'timeConstant',
          name: 'Time constant',
          quantity: 'time',
          value: tau,
          ...(Number.isFinite(uTau) && { U: k * uTau }),
          how: 'τ of the fit',
        },
        {
          id: 'rise',
          name: 'Rise over the surroundings',
          quantity: 'temperatureRise',
          value: rise,
          U: found.U,
          how: 'θ∞ − surroundings',
        },
        ...(torque > 0
          ? allowed.map((m, i) => ({
              id: `torque${i}`,
              name: `Torque ${m.name} allows`,
              quantity: 'torque' as const,
              value: m.torque,
              U: (m.torque * found.U) / (2 * Math.max(1e-9, rise)),
              how: 'T·√((limit − surroundings)/rise): losses with the square of torque',
            }))
          : []),
      ],
      plots: [
        {
          name: 'Temperature over time',
          xName: 'time',
          x: 'time',
          yName: 'temperature',
          y: 'temperature',
          series: [
            { key: 'raw', name: 'read', x: t, y, as: 'points', role: 'raw' },
            {
              key: 'fit',
              name: 'fitted',
              x: grid,
              y: grid.map(fit.at),
              as: 'line',
              role: 'fit',
            },
          ],
          ...(limits[0] && {
            level: {
              name: limits.reduce((a, b) => (a.limit < b.limit ? a : b)).name,
              y: Math.min(...limits.map((m) => m.limit)),
            },
          }),
        },
      ],
      advice: [
        ...(fit.times.length > 1
          ? [
              `It warms in two steps, with ${stated(fit.times[1]!, 'time', 2)} and ${stated(tau, 'time', 2)}: motor and housing each have their own. ` +
                'What settles is the slow one: read until that has bent over.',
            ]
          : []),
        ...misfitOf(
          fit.residuals,
          1 + 2 * fit.times.length,
          'surroundings that drift, a load that is not steady',
          'Note the surroundings beside each reading, shade them from draughts, and read on for as long again.',
        ).says,
        ...dominantAdvice(found),
        ...(far
          ? [
              'It was still rising: where it settles is largely guessed from the bend. Read at least twice the time constant.',
            ]
          : []),
        ...(torque > 0
          ? []
          : ['Give the torque carried meanwhile, and the torque that every material allows follows.']),
      ],
    });
  },
};
