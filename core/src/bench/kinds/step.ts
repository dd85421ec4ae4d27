import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { path, sketch, word } from '../rig-drawing.ts';
import { channelOf } from '../recording.ts';
import { cell, column, countedRows, plainResult, rigOf, rigQuantity } from './rig-fields.ts';
import { fitLine } from '../regress.ts';
import { combine } from '../uncertainty.ts';

const RIG = [
  rigQuantity(
    'band',
    'Settled within',
    'Either side of where it comes to rest; 0 takes 2 % of the step.',
    'smallAngle',
    0,
    Math.PI / 10800,
    0,
    10,
    ['band', 'tolerance'],
  ),
];

/** What a step response shows. */
export interface StepFigures {
  readonly size: number;
  readonly rise: number;
  readonly overshoot: number;
  readonly settling: number;
  readonly steady: number;
  readonly huntAmplitude: number;
  readonly huntPeriod: number;
  readonly start: number;
  /** How far it has gone towards the target, as a share of the step: below nought it has gone the other way. */
  readonly gone: number;
  /** How far it still crept over the last quarter, rad, its sign that of the movement; 0 where it rests or hunts. */
  readonly creep: number;
}

/** Share of a step the wrong way from which it is no noise. */
const AWAY = 0.1;
/** Share of a step that is left or gone too far from which something holds or drives it. */
const SHORT = 0.05;
/** Share of a step that it has to creep, and how many times what the line's slope is uncertain by. */
const CREEP = 0.003;
const SURE = 4;

/** The median of five about each sample: one or two that jump neither overshoot nor leave the band. */
function withoutSpikes(a: ArrayLike<number>): Float64Array {
  const n = a.length;
  const out = Float64Array.from(a);
  const five = new Float64Array(5);
  for (let i = 2; i + 2 < n; i++) {
    const [low, high] = [Math.min(a[i - 1]!, a[i + 1]!), Math.max(a[i - 1]!, a[i + 1]!)];
    // Between its neighbours a sample is no spike, and a steep rise stays as it is.
    if (a[i]! >= low && a[i]! <= high) continue;
    for (let k = 0; k < 5; k++) five[k] = a[i - 2 + k]!;
    out[i] = five.sort()[2]!;
  }
  return out;
}

/** Movement along a straight line through samples, rad; 0 where it is not told from their scatter. */
function creepOf(t: ArrayLike<number>, y: ArrayLike<number>, from: number, span: number): number {
  const part = (a: ArrayLike<number>) => Array.from({ length: a.length - from }, (_, i) => a[from + i]!);
  const fit = fitLine(part(t), part(y));
  if (!fit) return 0;
  const moved = fit.slope * (t[t.length - 1]! - t[from]!);
  return Math.abs(moved) > CREEP * span && Math.abs(fit.slope) > SURE * fit.uSlope ? moved : 0;
}

/** What a step that does not end where it should points to, with its sign. */
function ending(s: StepFigures): string[] {
  const way = Math.sign(s.size);
  if (s.gone < -AWAY)
    return [
      `It runs away from its target, by ${stated(Math.abs(s.gone * s.size), 'angle', 3)} the other way: motor and sensor count in opposite senses. Turn the sign of one of them round before the loop is closed again.`,
    ];
  const out: string[] = [];
  const left = s.steady * way;
  if (left > SHORT * Math.abs(s.size))
    out.push(
      `It stops short of its target by ${stated(left, 'smallAngle', 3)} (error ${stated(s.steady, 'smallAngle', 3)}): friction holds wind-up, or the sensor sits before the play.`,
    );
  if (left < -SHORT * Math.abs(s.size))
    out.push(
      `It comes to rest beyond its target by ${stated(-left, 'smallAngle', 3)} (error ${stated(s.steady, 'smallAngle', 3)}): an integral that was wound up and is held by friction, or a sensor that counts more than the command does.`,
    );
  // Towards what is left is an integral at work, from it something else moves the joint.
  if (s.creep !== 0 && s.creep * s.steady > 0)
    out.push(
      `It still creeps towards its target, ${stated(s.creep, 'smallAngle', 2)} over the last quarter: a slow integral. Record for longer, or raise it.`,
    );
  if (s.creep !== 0 && s.creep * s.steady <= 0)
    out.push(
      `It still creeps away from its target, ${stated(s.creep, 'smallAngle', 2)} over the last quarter: warmth moves sensor or joint, or plastic gives way under the load.`,
    );
  return out;
}

/**
 * Rise 10 to 90 %, overshoot, settling, steady error and hunting; undefined where nothing is commanded. Source: usual
 * definitions of control practice (IEC 60050-351).
 */
export function stepFigures(
  t: ArrayLike<number>,
  commanded: ArrayLike<number>,
  raw: ArrayLike<number>,
  bandWanted: number,
): StepFigures | undefined {
  const n = t.length;
  const measured = withoutSpikes(raw);
  let at = -1;
  for (let i = 1; i < n && at < 0; i++) if (Math.abs(commanded[i]! - commanded[i - 1]!) > 1e-12) at = i;
  if (at < 0) return undefined;
  const goal = commanded[n - 1]!;
  const before = mean(measured, Math.max(0, at - 20), at);
  const size = goal - commanded[at - 1]!;
  if (Math.abs(size) < 1e-12) return undefined;
  const way = Math.sign(size);
  const span = Math.abs(size);
  const tail0 = Math.max(at, n - Math.max(4, Math.floor((n - at) * 0.25)));
  const end = mean(measured, tail0, n);
  const moved = Math.abs(end - before) || span;
  const reach = (share: number): number => {
    for (let i = at; i < n; i++) {
      const y = (measured[i]! - before) * way;
      if (y >= share * moved) {
        const y0 = i > at ? (measured[i - 1]! - before) * way : 0;
        const q = i > at && y > y0 ? (share * moved - y0) / (y - y0) : 1;
        return i > at ? t[i - 1]! + q * (t[i]! - t[i - 1]!) : t[i]!;
      }
    }
    return NaN;
  };
  let peak = -Infinity;
  for (let i = at; i < n; i++) peak = Math.max(peak, (measured[i]! - before) * way);
  const band = bandWanted > 0 ? bandWanted : 0.02 * span;
  let last = at - 1;
  for (let i = at; i < n; i++) if (Math.abs(measured[i]! - end) > band) last = i;
  // Hunting: what swings on about its own mean at the end.
  let [low, high, crossings, firstCross, lastCross] = [Infinity, -Infinity, 0, NaN, NaN];
  let side = 0;
  for (let i = tail0; i < n; i++) {
    const y = measured[i]! - end;
    low = Math.min(low, y);
    high = Math.max(high, y);
  }
  const amplitude = (high - low) / 2;
  for (let i = tail0; i < n; i++) {
    const y = measured[i]! - end;
    const s = y > 0.3 * amplitude ? 1 : y < -0.3 * amplitude ? -1 : 0;
    if (s !== 0 && s !== side) {
      if (side !== 0) {
        crossings++;
        if (Number.isNaN(firstCross)) firstCross = t[i]!;
        lastCross = t[i]!;
      }
      side = s;
    }
  }
  const period = crossings >= 3 ? (2 * (lastCross - firstCross)) / (crossings - 1) : NaN;
  return {
    size,
    rise: reach(0.9) - reach(0.1),
    overshoot: Math.max(0, (peak - moved) / span),
    settling: last >= n - 1 ? NaN : Math.max(0, t[last + 1]! - t[at]!),
    steady: goal - end,
    huntAmplitude: Number.isFinite(period) ? amplitude : 0,
    huntPeriod: period,
    start: t[at]!,
    gone: (way * (end - before)) / span,
    creep: Number.isFinite(period) ? 0 : creepOf(t, measured, tail0, span),
  };
}

function mean(a: ArrayLike<number>, from: number, to: number): number {
  let s = 0;
  for (let i = from; i < to; i++) s += a[i]!;
  return s / Math.max(1, to - from);
}

export const step: TestKind = {
  id: 'step',
  name: 'Step response',
  summary: 'Commanded and measured position over time: rise, overshoot, settling, steady error, hunting.',
  group: 'motion',
  rows: [],
  caution: 'The axis jumps: fingers and levers clear, current limit set and emergency stop in reach before power.',
  steps: [
    'Command a step of a few degrees while recording.',
    'Let it come to rest, and record as long again: hunting shows only then.',
    'Import the file, or stream it from the rig.',
  ],
  rig: RIG,
  columns: [
    column('time', 'time', 'time', '20 ms', ['time', 't']),
    column(
      'commanded',
      'commanded',
      'angle',
      '5°',
      ['commanded', 'command', 'setpoint', 'target', 'goal', 'cmd', 'reference', 'ref'],
      { signed: true },
    ),
    column('measured', 'measured', 'angle', '4.8°', ['measured', 'position', 'actual', 'output', 'pos', 'out'], {
      signed: true,
    }),
  ],
  channels: [
    { id: 'time', label: 'time', quantity: 'time', words: ['time', 't'] },
    {
      id: 'commanded',
      label: 'commanded',
      quantity: 'angle',
      words: ['commanded', 'command', 'setpoint', 'target', 'goal', 'cmd', 'reference', 'ref'],
    },
    {
      id: 'measured',
      label: 'measured',
      quantity: 'angle',
      words: ['measured', 'position', 'actual', 'output', 'pos', 'out'],
    },
  ],
  sketch: () =>
    sketch([
      path('M24 120V28M24 120H206', 'thin'),
      path('M24 110H70V50H206', 'ink', undefined, true),
      path('M24 110H70C82 110 84 36 100 40S116 56 128 51S150 50 206 50', 'hot'),
      word(120, 136, 'time'),
    ]),
  analyse: (test, context) => {
    const rows = countedRows(test, 'time', 'commanded', 'measured');
    const own = ['time', 'commanded', 'measured'].map((id) => channelOf(context.recording, id));
    const [t, c, m] = own.every(Boolean)
      ? (own as Float64Array[])
      : ['time', 'commanded', 'measured'].map((id) => rows.map((r) => cell(r, id)));
    if (t!.length < 10)
      return refuse(
        'There is not enough recorded yet.',
        `A step needs its course; there ${t!.length === 1 ? 'is one sample' : `are ${t!.length} samples`}.`,
        'Record, or import a file with time, commanded and measured.',
      );
    if (!(t![t!.length - 1]! > t![0]!))
      return refuse(
        'Time runs backwards in this record.',
        'Rise and settling are counted forwards from the step.',
        'Reverse its rows, or take the sign off its times.',
      );
    const s = stepFigures(t!, c!, m!, rigOf(RIG, test)('band'));
    if (!s)
      return refuse(
        'The command never steps.',
        'Rise and settling are counted from where the command changes.',
        'Record from before the step, with the command in its own column.',
      );
    const found = combine(s.steady, 'smallAngle', [
      {
        id: 'rest',
        name: 'movement at rest',
        u: s.huntAmplitude / Math.sqrt(2),
        dof: Infinity,
        halve: 'a longer record after the step',
      },
    ]);
    return ok({
      ...plainResult(
        test,
        t!.length,
        s.gone < -AWAY
          ? `A step of ${stated(s.size, 'angle', 3)}, and it went the other way.`
          : `A step of ${stated(s.size, 'angle', 3)}: ` +
              `${Number.isFinite(s.settling) ? `settled after ${stated(s.settling, 'time', 3)}` : 'never settled within the band'}, ` +
              `${(100 * s.overshoot).toFixed(1)} % over.`,
      ),
      found,
      figures: [
        {
          id: 'rise',
          name: 'Rise, 10 to 90 %',
          quantity: 'time',
          value: s.rise,
          how: 'between crossings of both shares',
        },
        { id: 'overshoot', name: 'Overshoot', quantity: 'efficiency', value: s.overshoot, how: '(peak − end)/step' },
        { id: 'settling', name: 'Settling', quantity: 'time', value: s.settling, how: 'last time outside the band' },
        {
          id: 'steady',
          name: 'Steady error',
          quantity: 'smallAngle',
          value: s.steady,
          how: 'commanded less the mean of the last quarter',
        },
        {
          id: 'huntAmplitude',
          name: 'Hunting, amplitude',
          quantity: 'smallAngle',
          value: s.huntAmplitude,
          how: 'half the swing of the last quarter, where it goes to and fro',
        },
        ...(Number.isFinite(s.huntPeriod)
          ? [
              {
                id: 'huntPeriod',
                name: 'Hunting, period',
                quantity: 'time' as const,
                value: s.huntPeriod,
                how: 'from its crossings',
              },
            ]
          : []),
      ].filter((f) => Number.isFinite(f.value)) as never,
      plots: [
        {
          name: 'Step over time',
          xName: 'time',
          x: 'time',
          yName: 'position',
          y: 'angle',
          series: [
            { key: 'raw', name: 'measured', x: t!, y: m!, as: 'line', role: 'raw' },
            { key: 'fit', name: 'commanded', x: t!, y: c!, as: 'line', role: 'fit' },
          ],
        },
      ],
      advice: [
        ...(s.huntAmplitude > 0
          ? [
              'It goes on swinging at rest: play with an integrating loop hunts. Lower the gain, or let the loop sleep inside a dead band.',
            ]
          : []),
        ...(Number.isFinite(s.settling) ? [] : ['It was still moving at the end: record for longer, or it hunts.']),
        ...ending(s),
      ],
    });
  },
};
