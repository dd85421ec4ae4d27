import { sumNthPowerDeviations } from 'simple-statistics';
import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { arm, HOUSE, path, sketch, word } from '../rig-drawing.ts';
import { bendSays } from '../bend.ts';
import { fitLine } from '../regress.ts';
import { student95 } from '../student.ts';
import { combine, fromBounds } from '../uncertainty.ts';
import {
  cell,
  column,
  countedRows,
  dominantAdvice,
  instrumentOf,
  plainResult,
  rigOf,
  rigQuantity,
} from './rig-fields.ts';

const RIG = [
  rigQuantity(
    'limit',
    'Worn out at, 0 as asked',
    '0 takes the brief’s own limit.',
    'smallAngle',
    0,
    Math.PI / 10800,
    0,
    1,
    ['limit', 'play limit'],
  ),
  rigQuantity(
    'playError',
    'Error of a reading',
    'From the play test’s own result.',
    'smallAngle',
    (0.3 * Math.PI) / 10800,
    Math.PI / 108000,
    0,
    1,
    ['play error'],
  ),
  rigQuantity('runIn', 'Running in, cycles', 'Cycles before which play still settles.', 'count', 0, 1000, 0, 1e12, [
    'run-in',
    'run in',
  ]),
];

/** A count in words: few digits, thousands apart. */
const counted = (n: number, digits: number): string =>
  n < 1e12 ? Number(n.toPrecision(digits)).toLocaleString('en').replaceAll(',', '\u202f') : n.toPrecision(digits);

/**
 * Wear from play at intervals. Source: least squares of play on cycles; cycles to the limit with the band of the line
 * (inverse prediction, Draper and Smith, 3.2).
 */
export const endurance: TestKind = {
  id: 'endurance',
  name: 'Endurance',
  summary: 'Cycles under load with play read at intervals: wear rate, cycles to the limit, what wore at teardown.',
  group: 'sound and heat',
  rows: [],
  destructive: true,
  loaded: true,
  caution:
    'Runs unattended only behind a guard, with a temperature cut-out and nothing that burns near it; charged packs are never left alone.',
  steps: [
    'Measure play before the first cycle.',
    'Run the load cycle; stop at intervals, let it cool, and measure play the same way.',
    'Note load and temperature each time.',
    'At the end take it apart and record each part’s condition.',
  ],
  rig: RIG,
  columns: [
    column('cycles', 'cycles', 'count', '20000', ['cycles', 'cycle', 'n']),
    column('play', 'play', 'smallAngle', '6.4′', ['play', 'backlash']),
    column('load', 'load', 'torque', '3 N·m', ['load', 'torque'], { optional: true }),
    column('temperature', 'temperature', 'temperature', '41 °C', ['temperature', 'temp'], { optional: true }),
  ],
  teardown: true,
  sketch: () =>
    sketch([
      ...HOUSE,
      arm(100),
      path('M160 60a24 24 0 1 1 -10 -6m1 9l-1 -9l9 -1', 'hot'),
      word(120, 130, 'cycles, then play'),
    ]),
  analyse: (test, context) => {
    const get = rigOf(RIG, test);
    const all = countedRows(test, 'cycles', 'play');
    const rows = all.filter((r) => cell(r, 'cycles') >= get('runIn'));
    if (rows.length < 2)
      return refuse(
        all.length === 0 ? 'There are no readings yet.' : 'One reading of play shows no wear.',
        'Wear is how much play grows with the cycles.',
        all.length > rows.length
          ? 'Read again later, or count the running in as well.'
          : 'Read play again after more cycles.',
      );
    const [x, y] = [rows.map((r) => cell(r, 'cycles')), rows.map((r) => cell(r, 'play'))];
    const fit = fitLine(x, y);
    if (!fit)
      return refuse(
        'Every reading is at the same number of cycles.',
        'Wear is how much play grows with them.',
        'Read again after more cycles.',
      );
    const limit = get('limit') || context.line?.verdicts.find((v) => v.id === 'play')?.asked || 0;
    const instrument = instrumentOf(test, context);
    const perMillion = fit.slope * 1e6;
    const u0 = fromBounds(Math.max(get('playError'), instrument?.error ?? 0));
    const found = combine(perMillion, 'wear', [
      {
        id: 'scatter',
        name: 'scatter about the trend',
        u: fit.uSlope * 1e6,
        dof: Math.max(1, fit.dof),
        halve: 'more readings, and a longer run',
      },
      {
        id: 'play',
        name: 'error of each play reading',
        // Each reading is off by itself: the slope's variance is theirs over the squares of the cycles about their mean.
        u: (u0 / Math.sqrt(sumNthPowerDeviations(x, 2))) * 1e6,
        dof: Infinity,
        halve: 'twice as many cycles',
      },
    ]);
    const k = fit.dof > 0 ? student95(fit.dof) : 12.7;
    const bandAt = (n: number) =>
      k * Math.sqrt(Math.max(0, fit.uIntercept ** 2 + n * n * fit.uSlope ** 2 + 2 * n * fit.covariance));
    const worn = limit > 0 && fit.slope > 0 ? (limit - fit.intercept) / fit.slope : Infinity;
    // Where the upper and the lower edge of the trend's band meet the limit.
    const crossing = (sign: 1 | -1): number => {
      const f = (n: number) => fit.intercept + fit.slope * n + sign * bandAt(n) - limit;
      let [lo, hi] = [0, Math.max(...x)];
      if (f(0) >= 0) return 0;
      while (f(hi) < 0 && hi < 1e14) [lo, hi] = [hi, hi * 2];
      if (f(hi) < 0) return Infinity;
      for (let q = 0; q < 80; q++) f((lo + hi) / 2) < 0 ? (lo = (lo + hi) / 2) : (hi = (lo + hi) / 2);
      return hi;
    };
    const [early, late] = Number.isFinite(worn) ? [crossing(1), crossing(-1)] : [Infinity, Infinity];
    const ends = [
      Math.min(...x),
      Number.isFinite(worn) ? Math.max(Math.max(...x), Math.min(worn, 4 * Math.max(...x))) : Math.max(...x),
    ];
    const grid = Array.from({ length: 25 }, (_, i) => ends[0]! + ((ends[1]! - ends[0]!) * i) / 24);
    const word = Number.isFinite(worn)
      ? `at this rate the limit comes at ${counted(worn, 3)} cycles${Number.isFinite(early) ? `, not before ${counted(early, 2)}` : ''}`
      : limit > 0
        ? 'play does not grow'
        : 'no limit is set';
    return ok({
      ...plainResult(
        test,
        rows.length,
        `Play ${perMillion < 0 ? 'falls by' : 'grows'} ${stated(Math.abs(perMillion), 'smallAngle', 3)} a million cycles; ${word}.`,
      ),
      found,
      figures: [
        { id: 'rate', name: 'Wear', quantity: 'wear', value: perMillion, U: found.U, how: 'slope of play on cycles' },
        {
          id: 'start',
          name: 'Play at the start',
          quantity: 'smallAngle',
          value: fit.intercept,
          U: k * fit.uIntercept,
          how: 'intercept',
        },
        ...(Number.isFinite(worn)
          ? [
              {
                id: 'cyclesToLimit',
                name: 'Cycles to the limit',
                quantity: 'count' as const,
                value: worn,
                how: '(limit − start)/slope',
              },
              {
                id: 'cyclesEarliest',
                name: 'Earliest, 95 %',
                quantity: 'count' as const,
                value: early,
                how: 'where the trend’s upper band meets the limit',
              },
              ...(Number.isFinite(late)
                ? [
                    {
                      id: 'cyclesLatest',
                      name: 'Latest, 95 %',
                      quantity: 'count' as const,
                      value: late,
                      how: 'where its lower band does',
                    },
                  ]
                : []),
            ]
          : []),
      ],
      plots: [
        {
          name: 'Play over cycles',
          xName: 'cycles',
          x: 'count',
          yName: 'play',
          y: 'smallAngle',
          series: [
            { key: 'raw', name: 'read', x, y, as: 'points', role: 'raw' },
            {
              key: 'fit',
              name: 'trend',
              x: grid,
              y: grid.map((n) => fit.intercept + fit.slope * n),
              as: 'line',
              role: 'fit',
            },
            ...(fit.dof > 0
              ? [
                  {
                    key: 'up',
                    name: 'band',
                    x: grid,
                    y: grid.map((n) => fit.intercept + fit.slope * n + bandAt(n)),
                    as: 'line' as const,
                    role: 'other' as const,
                  },
                  {
                    key: 'down',
                    name: 'band, low',
                    x: grid,
                    y: grid.map((n) => fit.intercept + fit.slope * n - bandAt(n)),
                    as: 'line' as const,
                    role: 'other' as const,
                  },
                ]
              : []),
          ],
          ...(limit > 0 && { level: { name: 'limit', y: limit } }),
        },
      ],
      advice: [
        ...dominantAdvice(found),
        ...bendSays(
          x,
          y,
          'running in, or wear that speeds up',
          'Read play twice as often from here: a straight end is the wear, the bend before it is running in.',
        ),
        ...(rows.length < 4 ? ['With fewer than four readings the trend’s band is wide: read more often.'] : []),
        ...(fit.slope > 0 && fit.k * fit.uSlope > fit.slope
          ? ['The wear is smaller than what is not known of it: run on.']
          : []),
        ...(test.teardown?.length
          ? []
          : ['Take it apart at the end and record each part’s condition: play tells that it wears, not what.']),
      ],
    });
  },
};
