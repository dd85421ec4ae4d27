import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { circle, HOUSE, path, sketch, word } from '../rig-drawing.ts';
import { channelOf } from '../recording.ts';
import { mappedError } from '../calibrate.ts';
import { inseparable, orderLines } from '../order-lines.ts';
import { amplitudes } from '../spectrum.ts';
import { clippedSays } from '../odd-readings.ts';
import { suspectsFor } from '../suspects.ts';
import { thinned } from '../thin.ts';
import type { Sized } from '../error-curve.ts';
import { nearestFraction, transmissionRun, unwrapped } from '../transmission-error.ts';
import { combine } from '../uncertainty.ts';
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
    'ratio',
    'Ratio that is thought',
    'From input to output; 0 takes the variant’s own.',
    'ratio',
    0,
    0.1,
    -1e5,
    1e5,
    ['ratio', 'expected ratio'],
  ),
  rigQuantity(
    'sensorError',
    'Error of the output sensor',
    'Once round, from its data sheet or its own map.',
    'smallAngle',
    0,
    Math.PI / 108000,
    0,
    1,
    ['sensor error'],
  ),
];
const plain = (x: number): string => String(Number(x.toPrecision(6))).replace('-', '−');

/** Student’s factor where a noise floor is the middle of two blocks of 32 bins, whose median is worth 0.64 of them. */
const FLOOR_K = 2.02;

/** Transmission error, true ratio, play between both ways, and orders with their suspects. */
export const transmission: TestKind = {
  id: 'transmission',
  name: 'Transmission error',
  summary:
    'Input and output angle over a turn each way: error curve, true ratio, play, and which part made which order.',
  group: 'motion',
  rows: ['play'],
  measures: 'angle',
  caution: 'Runs by itself: cover belts and wheels, current limit set and emergency stop in reach before power.',
  steps: [
    'A sensor at the input and one at the output, both on the rig.',
    'Turn slowly and evenly through a little more than one turn of the output, two or more to tell orders apart.',
    'Stop, and turn back the same way.',
    'Stream it, or import the file.',
  ],
  rig: RIG,
  columns: [
    column('input', 'input angle', 'angle', '120°', ['input', 'in', 'motor'], { signed: true }),
    column('output', 'output angle', 'angle', '6.02°', ['output', 'out'], { signed: true }),
  ],
  channels: [
    { id: 'input', label: 'input angle', quantity: 'angle', words: ['input', 'in', 'motor'] },
    { id: 'output', label: 'output angle', quantity: 'angle', words: ['output', 'out'] },
  ],
  sketch: () =>
    sketch([
      ...HOUSE,
      path('M6 62h12v22h-12Z', 'ink', 'other'),
      circle(12, 46, 9, 'ink', 'panel'),
      word(12, 32, 'in'),
      circle(66, 72, 13, 'ink', 'panel'),
      word(66, 50, 'out'),
      path('M86 72C110 30 130 114 150 72S190 60 206 76', 'hot'),
      word(150, 118, 'error over a turn', 'found'),
    ]),
  answers: [
    {
      row: 'play',
      rank: 2,
      plan: () => ({ says: 'a sensor at input and output, two turns each way', values: {}, enough: true }),
    },
  ],
  mapsSensor: true,
  guided: { program: 'transmission' },
  programs: ['transmission'],
  analyse: (test, context) => {
    const rows = countedRows(test, 'input', 'output');
    const [ri, ro] = [channelOf(context.recording, 'input'), channelOf(context.recording, 'output')];
    const [rawIn, rawOut] =
      ri && ro
        ? [ri, ro]
        : [Float64Array.from(rows, (r) => cell(r, 'input')), Float64Array.from(rows, (r) => cell(r, 'output'))];
    if (rawIn.length < 12)
      return refuse(
        'There is not enough recorded yet.',
        'An error curve needs both angles over a turn of the output.',
        'Stream it from the rig, or import a file with input and output.',
      );
    const [i, o] = [unwrapped(rawIn), unwrapped(rawOut)];
    const map = instrumentOf(test, context)?.map;
    const run = transmissionRun(i.angles, map ? o.angles.map((a) => a - mappedError(map, a)) : o.angles, context.told);
    if (!run)
      return refuse(
        'Nothing turns in this recording.',
        'Input or output stays where it is.',
        'Check which column is which, and that both sensors count.',
      );
    const rig = rigOf(RIG, test);
    const found = 1 / run.slope;
    const uRatio = run.uSlope / run.slope ** 2;
    const thought = rig('ratio') || context.ratio || 0;
    const slip = thought !== 0 ? run.slope * thought - 1 : NaN;
    const wrongSign = thought !== 0 && Math.sign(thought) !== Math.sign(found);
    const wrong = thought !== 0 && Math.abs(found - thought) > Math.max(4 * uRatio, 5e-4 * Math.abs(thought));
    const near = nearestFraction(found, Math.max(2 * uRatio, 2e-4 * Math.abs(found)));
    const says = near ? `${near.q === 1 ? plain(near.p) : `${plain(near.p)}/${near.q}`} : 1` : `${plain(found)} : 1`;
    const playKnown = Number.isFinite(run.play);
    // Both ways are compared at the same angle, where the sensor's own error is the same.
    const play = playKnown
      ? combine(run.play, 'smallAngle', [
          {
            id: 'curve',
            name: 'noise of both curves',
            u: run.uPlay,
            dof: Math.max(24, Math.round(24 * run.turns)),
            halve: 'four times the samples or turns',
          },
        ])
      : undefined;
    // An error of the sensor goes into both ends of the curve, once round and at any phase.
    const sensor = rig('sensorError') && !map ? rig('sensorError') : 0;
    const sized = (x: Sized, share: number, tilt: number) =>
      combine(x.value, 'smallAngle', [
        {
          id: 'sensor',
          name: 'output sensor',
          u: share * sensor,
          dof: Infinity,
          halve: 'its error mapped and taken out',
        },
        {
          id: 'slope',
          name: 'ratio, which tilts the curve',
          u: tilt * run.tilt,
          dof: Infinity,
          halve: 'a turn more',
        },
        {
          id: 'noise',
          name: run.step > 0 ? 'noise on the curve, and the steps it was read in' : 'noise on the curve',
          u: x.u,
          dof: 47,
          halve: run.step > 0 ? 'a sensor of one bit more, or twice the samples a turn' : 'more turns, or more samples',
        },
      ]);
    const headline = run.clean && sized(run.clean.peakToPeak, 0.84, 0.4);
    const orders = run.wholeTurns >= 1 ? amplitudes(run.error) : undefined;
    const step = run.wholeTurns >= 1 ? 1 / run.wholeTurns : NaN;
    const known = context.orders.flatMap((o) => [1, 2, 3].map((h) => h * o.order));
    const peaks = orders
      ? orderLines(run.error, run.wholeTurns, known).map((l) => {
          const near = inseparable(l.order, known, run.wholeTurns);
          const peak = suspectsFor(l.order, l.amplitude, 'smallAngle', context.orders, step, true);
          return {
            ...peak,
            // A sensor’s own error goes once and twice round; a tilt looks like a slow wave.
            U: Math.hypot(FLOOR_K * Math.hypot(l.u, run.tilt / (Math.PI * l.order)), l.order < 2.5 ? sensor : 0),
            significance: l.significance,
            ...(l.order < 2.5 &&
              sensor > l.amplitude && {
                next: `Less than the sensor’s own error may be, which is all of it in U: a bound. ${peak.next}`,
              }),
            ...(near && {
              next:
                `Orders ${near.between.map((o) => Number(o.toPrecision(4))).join(' and ')} cannot be told apart in ${run.wholeTurns} ` +
                `turn${run.wholeTurns === 1 ? '' : 's'}: record ${near.turns}. ${peak.next}`,
            }),
          };
        })
      : [];
    const top = orders
      ? Math.min(orders.length, Math.ceil(Math.max(20, ...peaks.map((p) => p.order * 1.3)) / step))
      : 0;
    const curve = thinned(run.angles, run.error);
    const other = run.back && thinned(run.angles, run.back);
    return ok({
      ...plainResult(
        test,
        rawIn.length,
        (headline
          ? `Error ${stated(headline.value, 'smallAngle', 3)} from end to end over ${run.turns.toFixed(2)} turns`
          : `${run.turns.toFixed(2)} of a turn, which tells no error from end to end`) +
          `; the ratio is ${plain(found)} : ` +
          `1${wrong ? `, not ${plain(thought)} : 1${near ? `: ${says} fits` : ''}` : ''}.`,
      ),
      ...(headline && { found: headline }),
      lands: play ? [{ row: 'play', found: play }] : [],
      figures: [
        ...(headline && run.clean
          ? [
              {
                id: 'peakToPeak',
                name: 'Error from end to end',
                quantity: 'smallAngle' as const,
                value: headline.value,
                U: headline.U,
                how:
                  'largest less smallest of the curve, its noise taken out' +
                  (run.step > 0 ? '; the sensor’s steps beat with the samples: U may be a quarter too wide' : ''),
              },
              {
                id: 'worst',
                name: 'Worst error',
                quantity: 'smallAngle' as const,
                value: run.clean.worst.value,
                U: sized(run.clean.worst, 0.5, 0.25).U,
                how: 'largest distance from the mean line',
              },
              {
                id: 'rms',
                name: 'RMS error',
                quantity: 'smallAngle' as const,
                value: run.clean.rms.value,
                U: sized(run.clean.rms, 0.3, 0.08).U,
                how: 'over even angles of the output, its noise taken out',
              },
            ]
          : []),
        {
          id: 'ratio',
          name: 'Ratio found',
          quantity: 'ratio',
          value: found,
          U: 1.96 * uRatio,
          how: 'one over the slope of output on input; U leaves room for waves that look like a slope: a bound over whole turns',
        },
        ...(Number.isFinite(slip)
          ? [
              {
                id: 'slip',
                name: 'Slip against the thought ratio',
                quantity: 'efficiency' as const,
                value: slip,
                U: 1.96 * run.uSlope * Math.abs(thought),
                how: 'slope times thought ratio, less one',
              },
            ]
          : []),
        ...(play
          ? [
              {
                id: 'play',
                name: 'Play between both ways',
                quantity: 'smallAngle' as const,
                value: play.value,
                U: play.U,
                how: 'mean difference of the curves there and back',
              },
            ]
          : []),
        { id: 'turns', name: 'Turns of the output', quantity: 'count', value: run.turns, how: 'recorded and used' },
      ],
      plots: [
        {
          name: 'Error over the output’s angle',
          xName: 'output angle',
          x: 'angle',
          yName: 'error',
          y: 'smallAngle',
          series: [
            { key: 'there', name: 'there', ...curve, as: 'line', role: 'raw' },
            ...(other ? [{ key: 'back', name: 'back', ...other, as: 'line' as const, role: 'fit' as const }] : []),
          ],
        },
        ...(orders
          ? [
              {
                name: 'Orders',
                xName: 'events a turn of the output',
                x: 'count' as const,
                yName: 'amplitude',
                y: 'smallAngle' as const,
                series: [
                  {
                    key: 'orders',
                    name: 'amplitude',
                    x: Array.from({ length: top }, (_, k) => k * step),
                    y: Array.from(orders.subarray(0, top)),
                    as: 'line' as const,
                    role: 'raw' as const,
                  },
                ],
              },
            ]
          : []),
      ],
      peaks,
      advice: [
        ...(wrongSign
          ? [
              'The output turns the other way than thought: a channel’s sign is reversed, or the kind of stage is driven otherwise.',
            ]
          : []),
        ...(wrong && !wrongSign
          ? [
              'The ratio is not what was thought: it is ' +
                `${plain(found)}${near ? `, which ${says} fits` : ''}. Count teeth again, or a belt slips if ` +
                'it drifts with load.',
            ]
          : []),
        ...(run.turns < 1 ? ['Less than one turn of the output: orders need a whole one, better two or more.'] : []),
        ...(playKnown ? [] : ['Only one way was recorded: turn back the same way and play follows.']),
        ...dominantAdvice(headline ?? play),
        ...(play
          ? [
              'Play is told apart from noise alone: what the output sensor itself lags at a reversal is in it, and so is wind-up by friction.',
            ]
          : []),
        ...clippedSays(context.recording, ['input', 'output']),
        ...(run.glitches
          ? [
              `${run.glitches} sample${run.glitches === 1 ? ' jumps' : 's jump'} off ${run.glitches === 1 ? 'its' : 'their'} neighbours and ` +
                `${run.glitches === 1 ? 'was' : 'were'} left out: look for a loose plug, or a cable beside the motor’s.`,
            ]
          : []),
        ...(i.wraps || o.wraps
          ? [`An encoder wrapped ${i.wraps + o.wraps} times; the angles were joined up again.`]
          : []),
        ...(map ? [`The error of ${instrumentOf(test, context)!.name} over its turn was taken out by its map.`] : []),
        ...(context.recording?.notes ?? []),
      ],
    });
  },
};
