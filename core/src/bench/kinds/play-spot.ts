import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { circle, dimension, HOUSE, path, sketch, word } from '../rig-drawing.ts';
import { roundMean } from '../round-mean.ts';
import { combine, fromBounds } from '../uncertainty.ts';
import {
  cell,
  column,
  countedRows,
  dominantAdvice,
  instrumentBudget,
  instrumentOf,
  plainResult,
  rigChoice,
  rigOf,
  rigQuantity,
  rigText,
} from './rig-fields.ts';

const RIG = [
  rigQuantity(
    'distance',
    'Axis to wall',
    'Along the beam, from the axis (or mirror) to where the spot falls.',
    'length',
    3,
    0.01,
    1e-3,
    200,
    ['distance', 'wall'],
  ),
  rigQuantity(
    'distanceError',
    'Its largest error',
    'A tape is good to a few millimetres.',
    'length',
    5e-3,
    1e-3,
    0,
    5,
    ['distance error'],
  ),
  rigChoice(
    'beam',
    'Beam',
    'A mirror on the output doubles the angle.',
    [
      { value: 'pointer', label: 'pointer on the output' },
      { value: 'mirror', label: 'mirror on the output' },
    ],
    ['mirror', 'beam'],
  ),
];

/**
 * Play by a spot of light on a wall. Source: d/D, a mirror turning the beam by twice the angle; exact with
 * 2·atan(d/2D).
 */
export const playSpot: TestKind = {
  id: 'play-spot',
  name: 'Play by a spot of light',
  summary: 'A laser pointer or mirror on the output; how far the spot moves on a wall.',
  group: 'play and stiffness',
  rows: ['play'],
  measures: 'length',
  goesAs: { play: { shift: 1, distance: -1 } },
  caution:
    'Laser: class 2 at most, never into eyes; keep the beam off head height and away from mirrors that are not yours.',
  steps: [
    'Hold the input still.',
    'Tape the pointer (or a mirror) to the output, the beam square to a wall some metres off.',
    'Push the output lightly one way and mark the spot, then the other way.',
    'Read the distance between the marks; repeat at other output angles.',
  ],
  rig: RIG,
  columns: [
    column('angle', 'output angle', 'angle', '0°', ['angle', 'position'], { signed: true, optional: true }),
    column('shift', 'spot moved by', 'length', '6.5 mm', ['shift', 'spot', 'difference', 'moved', 'd'], {
      difference: true,
    }),
  ],
  sketch: (rig) =>
    sketch([
      ...HOUSE,
      path('M38 72L206 44M38 72L206 100', 'hot', undefined, true),
      path('M208 20V126', 'edge'),
      circle(206, 44, 3, 'none', 'found'),
      circle(206, 100, 3, 'none', 'found'),
      word(196, 76, 'd', 'found', 'end'),
      ...dimension(38, 206, 138, `D ${rig.said('distance')}`),
    ]),
  analyse: (test, context) => {
    const rows = countedRows(test, 'shift');
    if (rows.length === 0)
      return refuse(
        'There are no readings yet.',
        'Play follows from how far the spot moves.',
        'Type the distance between both marks.',
      );
    const rig = rigOf(RIG, test);
    const D = rig('distance');
    const fold = rigText(RIG, test)('beam') === 'mirror' ? 2 : 1;
    const plays = rows.map((r) => (2 * Math.atan(cell(r, 'shift') / (2 * D))) / fold);
    const over = roundMean(
      rows.map((r) => (r.values['angle'] as number | undefined) ?? 0),
      plays,
      'play',
    );
    const instrument = instrumentOf(test, context);
    const found = combine(over.mean, 'smallAngle', [
      ...over.budget,
      ...instrumentBudget(instrument, 1 / (D * fold), true, rows.length),
      {
        id: 'distance',
        name: 'distance to the wall',
        u: fromBounds(rig('distanceError')) * (over.mean / D),
        dof: Infinity,
        halve: 'the distance measured to half the error',
      },
    ]);
    return ok({
      ...plainResult(
        test,
        rows.length,
        `Mean of ${rows.length} reading${rows.length === 1 ? '' : 's'}, worst ${stated(Math.max(...plays), 'smallAngle', 3)}.`,
      ),
      found,
      lands: [{ row: 'play', found }],
      figures: [
        {
          id: 'worst',
          name: 'Worst',
          quantity: 'smallAngle',
          value: Math.max(...plays),
          how: 'largest of the readings',
        },
      ],
      plots:
        rows.length > 1
          ? [
              {
                name: 'Play by reading',
                xName: 'reading',
                x: 'count',
                yName: 'play',
                y: 'smallAngle',
                series: [
                  { key: 'play', name: 'play', x: rows.map((_, i) => i + 1), y: plays, as: 'points', role: 'raw' },
                ],
              },
            ]
          : [],
      advice: [
        ...over.says,
        ...dominantAdvice(found),
        ...(rows.length < 3 ? ['Read at least three times, at different output angles.'] : []),
        'A wall twice as far away halves what the reading adds.',
      ],
    });
  },
};
