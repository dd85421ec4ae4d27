import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { circle, path, sketch, word } from '../rig-drawing.ts';
import { combine, fromBounds, typeA } from '../uncertainty.ts';
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
  rigQuantity('thigh', 'Thigh', 'Hip to knee.', 'length', 0.2, 1e-3, 1e-3, 5, ['thigh', 'upper', 'a']),
  rigQuantity('shank', 'Shank', 'Knee to foot.', 'length', 0.2, 1e-3, 1e-3, 5, ['shank', 'lower', 'b']),
  rigQuantity('lengthError', 'Largest error of both', 'How far off either could be.', 'length', 1e-3, 1e-4, 0, 0.5, [
    'length error',
  ]),
  rigQuantity(
    'angleError',
    'Largest error of the angle',
    'A phone’s level gives about a degree.',
    'angle',
    Math.PI / 180,
    Math.PI / 360,
    0,
    1,
    ['angle error'],
  ),
  rigQuantity('legMass', 'Weight of the leg on the scale', 'Read before the motor pushes.', 'mass', 0, 0.01, 0, 1e3, [
    'leg mass',
    'tare',
  ]),
  rigChoice(
    'driven',
    'Joint',
    'Which joint pushes.',
    [
      { value: 'knee', label: 'knee' },
      { value: 'hip', label: 'hip' },
    ],
    ['joint', 'driven'],
  ),
];

/**
 * Lever of the floor's push about the knee, the foot under the hip, m: a·b·sin κ/c, c from hip to foot.
 * @example kneeLever(0.3, 0.4, Math.PI / 2) // 0.24
 */
export const kneeLever = (thigh: number, shank: number, knee: number): number =>
  (thigh * shank * Math.sin(knee)) / Math.sqrt(thigh * thigh + shank * shank - 2 * thigh * shank * Math.cos(knee));

/** By how much that lever moves with errors of either length that know nothing of one another, both of 1. */
function perLength(a: number, b: number, knee: number): number {
  const c2 = a * a + b * b - 2 * a * b * Math.cos(knee);
  const by = (own: number, other: number) => 1 / own - (own - other * Math.cos(knee)) / c2;
  return kneeLever(a, b, knee) * Math.hypot(by(a, b), by(b, a));
}

/**
 * Torque of a knee or hip from a scale under the foot. Source: virtual work with the foot under the hip: T_knee =
 * F·a·b·sin κ/r, r² = a² + b² − 2ab·cos κ; the hip's lever is given by the foot's distance ahead.
 */
export const legPress: TestKind = {
  id: 'leg-press',
  name: 'Leg press',
  summary: 'A scale under the foot of a leg that pushes against a stop: torque of knee or hip.',
  group: 'torque',
  rows: ['torque'],
  measures: 'mass',
  goesAs: { torque: { mass: 1 } },
  loaded: true,
  caution:
    'The leg pushes with its whole torque: hold the hip in a frame, fingers and feet away, an emergency stop in reach.',
  steps: [
    'Hold the hip in a frame over the scale, the foot under it.',
    'Set the joint’s angle against a stop and read it inside the knee.',
    'Read the scale at rest, then at full push; note both.',
    'Repeat at other angles: the lever of the foot changes with them.',
  ],
  rig: RIG,
  columns: [
    column('angle', 'knee angle', 'angle', '110°', ['angle', 'knee']),
    column('mass', 'scale', 'mass', '6.4 kg', ['mass', 'scale', 'weight', 'force']),
    column('ahead', 'foot ahead of hip', 'length', '0 mm', ['ahead', 'offset'], { signed: true, optional: true }),
  ],
  sketch: (rig) =>
    sketch([
      path('M90 14h40', 'ink'),
      path('M110 14L150 62L110 112', 'bar'),
      circle(150, 62, 6, 'ink', 'panel'),
      path('M84 116h52v12h-52Z', 'ink', 'other'),
      word(162, 66, 'κ', 'ink', 'start'),
      word(144, 34, rig.said('thigh'), 'ink', 'start'),
      word(146, 96, rig.said('shank'), 'ink', 'start'),
      word(60, 126, 'scale'),
    ]),
  analyse: (test, context) => {
    const rows = countedRows(test, 'angle', 'mass');
    if (rows.length === 0)
      return refuse(
        'There are no readings yet.',
        'The torque follows from the scale and the leg’s pose.',
        'Read the scale at full push and the knee’s angle.',
      );
    const rig = rigOf(RIG, test);
    const [a, b] = [rig('thigh'), rig('shank')];
    const knee = rigText(RIG, test)('driven') !== 'hip';
    const lever = (kappa: number, ahead: number) => (knee ? kneeLever(a, b, kappa) : Math.abs(ahead));
    const flat = rows.find((r) => !(lever(cell(r, 'angle'), (r.values['ahead'] as number | undefined) ?? 0) > 1e-6));
    if (flat)
      return refuse(
        knee ? 'A straight or folded knee has no lever.' : 'The foot stands under the hip: there is no lever.',
        `The reading “${flat.text}” tells nothing about the torque.`,
        knee ? 'Read at angles well between.' : 'Set the foot ahead of the hip and give the distance.',
        flat.id,
      );
    const force = (r: (typeof rows)[number]) => (cell(r, 'mass') - rig('legMass')) * context.gravity;
    const torques = rows.map((r) => force(r) * lever(cell(r, 'angle'), (r.values['ahead'] as number | undefined) ?? 0));
    const odd = rows[torques.findIndex((t) => !Number.isFinite(t))];
    if (odd)
      return refuse(
        'A reading gives no torque.',
        `“${odd.text.slice(0, 60)}” is out of all measure.`,
        'Look at its unit, or strike it out.',
        odd.id,
      );
    const best = torques.indexOf(Math.max(...torques));
    if (!(torques[best]! > 0))
      return refuse(
        'The scale reads no more than the leg’s own weight.',
        'Nothing is left that the joint could have pushed.',
        'Set the scale to nought with the leg on it and no own weight in the rig, or look at its unit.',
      );
    const at = rows[best]!;
    const l = lever(cell(at, 'angle'), (at.values['ahead'] as number | undefined) ?? 0);
    const h = 1e-5;
    const same = rows
      .filter((r) => Math.abs(cell(r, 'angle') - cell(at, 'angle')) < 1e-3)
      .map((r) => torques[rows.indexOf(r)]!);
    const s = typeA(same);
    const found = combine(same.length > 1 ? s.mean : torques[best]!, 'torque', [
      {
        id: 'scatter',
        name: 'scatter of the readings',
        u: s.u,
        dof: s.dof,
        halve: 'four times as many pushes at this angle',
      },
      ...instrumentBudget(instrumentOf(test, context), context.gravity * l),
      {
        id: 'length',
        name: 'lengths of the leg',
        u: fromBounds(rig('lengthError')) * force(at) * (knee ? perLength(a, b, cell(at, 'angle')) : 1),
        dof: Infinity,
        halve: 'lengths measured to half the error',
      },
      {
        id: 'angle',
        name: 'angle of the knee',
        u: knee
          ? (fromBounds(rig('angleError')) *
              Math.abs(lever(cell(at, 'angle') + h, 0) - lever(cell(at, 'angle') - h, 0)) *
              force(at)) /
            (2 * h)
          : 0,
        dof: Infinity,
        halve: 'the angle read to half the error',
      },
    ]);
    return ok({
      ...plainResult(
        test,
        rows.length,
        `Most at ${stated(cell(at, 'angle'), 'angle', 3)}: ${stated(force(at), 'force', 3)} under the foot at a lever of ${stated(l, 'length', 4)}.`,
      ),
      found,
      bound: 'atLeast',
      lands: [{ row: 'torque', found, bound: 'atLeast' }],
      figures: [
        { id: 'force', name: 'Force under the foot', quantity: 'force', value: force(at), how: '(scale − leg)·g' },
        {
          id: 'lever',
          name: 'Lever of the foot',
          quantity: 'length',
          value: l,
          how: knee ? 'a·b·sin κ/r' : 'foot ahead of hip',
        },
      ],
      plots:
        rows.length > 1
          ? [
              {
                name: 'Torque by angle',
                xName: 'knee angle',
                x: 'angle',
                yName: 'torque',
                y: 'torque',
                series: [
                  {
                    key: 'torque',
                    name: 'torque',
                    x: rows.map((r) => cell(r, 'angle')),
                    y: torques,
                    as: 'points',
                    role: 'raw',
                  },
                ],
              },
            ]
          : [],
      advice: [
        ...dominantAdvice(found),
        ...(rig('legMass') === 0 ? ['The leg’s own weight is taken as nothing: read the scale before the push.'] : []),
      ],
    });
  },
};
