import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { arm, dimension, HOUSE, path, sketch, word } from '../rig-drawing.ts';
import { clippedSays } from '../odd-readings.ts';
import { channelOf } from '../recording.ts';
import { CELL_COUNTS, CELL_LEVER, CELL_ZERO } from '../specimen.ts';
import { combine, fromBounds } from '../uncertainty.ts';
import { cell, column, countedRows, dominantAdvice, LEVER, plainResult, rigOf, rigQuantity } from './rig-fields.ts';

const RIG = [
  ...LEVER,
  rigQuantity('zeroCounts', 'Counts with nothing on it', 'First calibration point.', 'count', 0, 1, -1e12, 1e12, [
    'zero',
    'zero counts',
    'tare counts',
  ]),
  rigQuantity('knownMass', 'Known mass', 'Second calibration point.', 'mass', 1, 0.01, 1e-6, 1e5, [
    'known mass',
    'calibration mass',
  ]),
  rigQuantity(
    'knownCounts',
    'Counts with it',
    'Second calibration point; the same as the first leaves readings as forces.',
    'count',
    0,
    1,
    -1e12,
    1e12,
    ['known counts', 'calibration counts'],
  ),
  rigQuantity(
    'massError',
    'Error of the known mass',
    'A kitchen scale gives a few grams.',
    'mass',
    5e-3,
    1e-3,
    0,
    1e3,
    ['mass error'],
  ),
  rigQuantity('checkMass', 'Mass hung to check', 'A third one, 0 for none.', 'mass', 0, 0.01, 0, 1e5, ['check mass']),
  rigQuantity(
    'checkCounts',
    'Counts with that',
    'What the cell counts for the third mass.',
    'count',
    0,
    1,
    -1e12,
    1e12,
    ['check counts'],
  ),
  rigQuantity(
    'hold',
    'Sustained means for',
    'The largest torque that never fell below itself for so long.',
    'time',
    1,
    0.1,
    0.01,
    3600,
    ['hold', 'sustain'],
  ),
];

/** Least value over a sliding stretch, its greatest: what was held for so long. Source: monotonic queue. */
function sustained(t: ArrayLike<number>, y: ArrayLike<number>, hold: number): number {
  const queue: number[] = [];
  let [head, best, first] = [0, -Infinity, 0];
  for (let i = 0; i < y.length; i++) {
    while (queue.length > head && y[queue[queue.length - 1]!]! >= y[i]!) queue.pop();
    queue.push(i);
    while (t[i]! - t[first]! > hold) first++;
    // The stretch must really be that long.
    if (t[i]! - t[0]! >= hold) {
      const from = first > 0 ? first - 1 : first;
      while (queue[head]! < from) head++;
      best = Math.max(best, y[queue[head]!]!);
    }
  }
  return best;
}

/**
 * Torque by a load cell at a lever. Source: two-point calibration with a known mass, T = g·m·L; check mass gives the
 * residual.
 */
export const torqueCell: TestKind = {
  id: 'torque-cell',
  name: 'Torque by load cell',
  summary: 'A load cell at a lever, calibrated with a known mass: peak and sustained torque.',
  group: 'torque',
  rows: ['torque'],
  loaded: true,
  measures: 'force',
  answers: [
    {
      row: 'torque',
      rank: 2,
      plan: () => ({ says: 'a load cell at a lever, calibrated with a known mass', values: {}, enough: true }),
    },
  ],
  goesAs: { torque: { lever: 1, knownMass: 1 } },
  guided: { program: 'torque' },
  programs: ['torque'],
  rigOfSpecimen: () => ({
    lever: CELL_LEVER,
    leverError: 2e-4,
    zeroCounts: CELL_ZERO,
    knownMass: 1,
    knownCounts: Math.round(CELL_ZERO + 9.80665 * CELL_COUNTS),
  }),
  caution:
    'The lever pulls with the whole torque: bolt the cell down, stand clear of its plane, eye protection on, ' +
    'current limit set and emergency stop in reach before power.',
  steps: [
    'Hang nothing and read the counts; hang a known mass and read again; a third mass checks.',
    'Pull the lever against the cell at right angles to it.',
    'Raise the current slowly, record, hold at the top, let go.',
  ],
  rig: RIG,
  columns: [
    column('time', 'time', 'time', '0.5 s', ['time', 't']),
    column('counts', 'counts or force', 'count', '82340', ['counts', 'load', 'raw', 'force', 'cell'], { signed: true }),
  ],
  channels: [
    { id: 'time', label: 'time', quantity: 'time', words: ['time', 't'] },
    { id: 'counts', label: 'counts', quantity: 'count', words: ['counts', 'load', 'raw', 'force', 'cell'] },
  ],
  sketch: (rig) =>
    sketch([
      ...HOUSE,
      arm(),
      path('M152 76v20', 'ink'),
      path('M136 96h32v14h-32Z', 'ink', 'other'),
      path('M124 110h56', 'ink'),
      word(176, 106, 'cell', 'ink', 'start'),
      path('M70 56a34 34 0 0 1 30 -22m-8 -2l8 2l-4 7', 'hot'),
      ...dimension(38, 152, 138, `L ${rig.said('lever')}`),
    ]),
  analyse: (test, context) => {
    const rig = rigOf(RIG, test);
    const rows = countedRows(test, 'time', 'counts');
    const [rt, rc] = [channelOf(context.recording, 'time'), channelOf(context.recording, 'counts')];
    const [t, raw]: [ArrayLike<number>, ArrayLike<number>] =
      rt && rc ? [rt, rc] : [rows.map((r) => cell(r, 'time')), rows.map((r) => cell(r, 'counts'))];
    if (raw.length === 0)
      return refuse(
        'There is nothing recorded yet.',
        'Torque follows from the cell’s counts while the lever pulls.',
        'Record, import a file, or type time and counts.',
      );
    if (raw.length < 3)
      return refuse(
        `${raw.length === 1 ? 'One reading is' : 'Two readings are'} no course.`,
        'A peak is told from a spike by its neighbours.',
        'Record while the torque is raised, or type a few readings about the peak.',
      );
    const span = rig('knownCounts') - rig('zeroCounts');
    const calibrated = Math.abs(span) > 0;
    const g = context.gravity;
    const perCount = calibrated ? (rig('knownMass') * g) / span : 1;
    const L = rig('lever');
    const torque = Float64Array.from(
      { length: raw.length },
      (_, i) => perCount * (raw[i]! - (calibrated ? rig('zeroCounts') : 0)) * L,
    );
    const flip = Math.abs(Math.min(...arrayEnds(torque))) > Math.max(...arrayEnds(torque)) ? -1 : 1;
    const y = flip < 0 ? torque.map((v) => -v) : torque;
    // A single spike is not a torque: the peak is of the median of three.
    let peak = -Infinity;
    for (let i = 0; i < y.length; i++)
      peak = Math.max(
        peak,
        y.length < 3 ? y[i]! : median3(y[Math.max(0, i - 1)]!, y[i]!, y[Math.min(y.length - 1, i + 1)]!),
      );
    const held = sustained(t, y, rig('hold'));
    const check =
      rig('checkMass') > 0 && calibrated
        ? (perCount * (rig('checkCounts') - rig('zeroCounts'))) / g - rig('checkMass')
        : undefined;
    const value = Number.isFinite(held) ? held : peak;
    const found = combine(value, 'torque', [
      {
        id: 'lever',
        name: 'lever radius',
        u: (fromBounds(rig('leverError')) * value) / L,
        dof: Infinity,
        halve: 'a lever twice as long, or the radius measured to half the error',
      },
      {
        id: 'calibration',
        name: 'known mass',
        u: calibrated ? (fromBounds(rig('massError')) * value) / rig('knownMass') : 0,
        dof: Infinity,
        halve: 'a heavier known mass, or a better scale',
      },
      {
        id: 'counts',
        name: 'steps of the cell',
        u: (Math.abs(perCount) * L) / Math.sqrt(12),
        dof: Infinity,
        halve: 'a cell of half the range',
      },
      ...(check !== undefined
        ? [
            {
              id: 'linearity',
              name: 'calibration residual',
              u: (fromBounds(Math.abs(check)) * value) / rig('checkMass'),
              dof: Infinity,
              halve: 'a new calibration near the load that matters',
            },
          ]
        : []),
    ]);
    return ok({
      ...plainResult(
        test,
        raw.length,
        `Peak ${stated(peak, 'torque')}${Number.isFinite(held) ? `, held ${stated(held, 'torque')} for ${stated(rig('hold'), 'time', 3)}` : '; nothing was held long enough to call it sustained'}.`,
      ),
      found,
      lands: [{ row: 'torque', found, bound: 'atLeast' }],
      bound: 'atLeast',
      figures: [
        {
          id: 'peak',
          name: 'Peak',
          quantity: 'torque',
          value: peak,
          U: (found.U * peak) / Math.max(1e-12, value),
          how: 'largest median of three samples',
        },
        ...(Number.isFinite(held)
          ? [
              {
                id: 'sustained',
                name: 'Sustained',
                quantity: 'torque' as const,
                value: held,
                U: found.U,
                how: `largest that was not left for ${stated(rig('hold'), 'time', 3)}`,
              },
            ]
          : []),
        ...(check !== undefined
          ? [
              {
                id: 'residual',
                name: 'Calibration residual',
                quantity: 'mass' as const,
                value: check,
                how: 'check mass as read less as known',
              },
            ]
          : []),
        ...(calibrated
          ? [
              {
                id: 'perCount',
                name: 'Force a count',
                quantity: 'force' as const,
                value: perCount,
                how: 'm·g/(counts with − counts without)',
              },
            ]
          : []),
      ],
      plots: [
        {
          name: 'Torque over time',
          xName: 'time',
          x: 'time',
          yName: 'torque',
          y: 'torque',
          series: [{ key: 'raw', name: 'torque', x: t, y, as: 'line', role: 'raw' }],
        },
      ],
      advice: [
        ...clippedSays(context.recording, ['counts']),
        ...dominantAdvice(found),
        ...(calibrated
          ? []
          : ['Nothing is calibrated: counts are taken as newtons. Hang a known mass and type both readings.']),
        ...(check === undefined && calibrated
          ? ['Hang a third mass to check the calibration: two points always lie on a line.']
          : []),
        ...(flip < 0
          ? ['The cell reads negative: it was pulled where it was meant to be pushed. The sign is turned.']
          : []),
        ...(check !== undefined && Math.abs(check) > 0.02 * rig('checkMass')
          ? ['The check mass is off by more than 2 %: the cell is not linear, or a mass is not what it says.']
          : []),
      ],
    });
  },
};

function arrayEnds(a: Float64Array): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const v of a) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return [low, high];
}
const median3 = (a: number, b: number, c: number): number => Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
