import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { arm, dimension, HOUSE, hung, sketch, word } from '../rig-drawing.ts';
import { combine, fromBounds, fromResolution } from '../uncertainty.ts';
import { hungTorque } from '../torque-ladder.ts';
import { hangingPlan } from './hanging-plan.ts';
import { cell, column, countedRows, instrumentOf, LEVER, plainResult, rigOf, rigQuantity } from './rig-fields.ts';

const RIG = [
  ...LEVER,
  rigQuantity('leverMass', 'Lever mass', 'The lever weighs too; 0 where it is balanced.', 'mass', 0.2, 0.01, 0, 1e3, [
    'lever mass',
  ]),
  rigQuantity('leverCentre', 'Axis to its centre', 'Balance it on an edge.', 'length', 0.1, 1e-3, 0, 20, [
    'lever centre',
    'lever center',
  ]),
  rigQuantity('basket', 'Basket and hook', 'Weighed together.', 'mass', 0.05, 0.01, 0, 1e3, ['basket', 'tare']),
];
const WAYS = [
  { value: 'with', label: 'with the clock' },
  { value: 'against', label: 'against the clock' },
];
const OUTCOMES = [
  { value: 'held', label: 'held still' },
  { value: 'turned', label: 'turned' },
];

/** Torque at the output that turns the unpowered line back: a bracket each way. */
export const turnBack: TestKind = {
  id: 'turn-back',
  name: 'Turn-back',
  summary: 'Motor unpowered; growing masses until the output turns by itself, both ways.',
  group: 'torque',
  rows: ['turnBack'],
  measures: 'mass',
  answers: [{ row: 'turnBack', rank: 1, plan: hangingPlan }],
  goesAs: { turnBack: { mass: 1, lever: 1 } },
  loaded: true,
  caution:
    'Once it turns, the lever falls: tether the basket, keep feet and fingers out, stand clear of the lever’s plane.',
  steps: [
    'Switch the motor off and leave it free to turn.',
    'Level the lever, hang a mass and let go gently.',
    'Note whether it stays or begins to turn by itself; add mass in small steps.',
    'Repeat with the lever on the other side.',
  ],
  rig: RIG,
  columns: [
    { as: 'choice', id: 'way', label: 'way', options: WAYS, words: ['way', 'direction', 'dir'], yes: 'with' },
    column('mass', 'mass hung', 'mass', '0.35 kg', ['mass', 'weight', 'load', 'force']),
    {
      as: 'choice',
      id: 'outcome',
      label: 'what happened',
      options: OUTCOMES,
      words: ['outcome', 'result', 'happened', 'state', 'turned', 'moved'],
      yes: 'turned',
    },
  ],
  sketch: (rig) =>
    sketch([
      ...HOUSE,
      arm(),
      ...hung(160, 76, 32),
      word(108, 60, 'turns by itself?', 'found'),
      ...dimension(38, 160, 138, `L ${rig.said('lever')}`),
    ]),
  analyse: (test, context) => {
    const rows = countedRows(test, 'mass');
    if (rows.length === 0)
      return refuse(
        'There are no readings yet.',
        'Turn-back lies between a mass that stayed and one that turned.',
        'Hang a light mass and say what happened.',
      );
    const get = rigOf(RIG, test);
    const rig = {
      lever: get('lever'),
      leverMass: get('leverMass'),
      leverCentre: get('leverCentre'),
      basket: get('basket'),
      angle: 0,
    };
    const torque = (m: number) => hungTorque(rig, m, context.gravity);
    const instrument = instrumentOf(test, context);
    const turned = (r: (typeof rows)[number]) => r.values['outcome'] === 'turned' || r.values['outcome'] === 1;
    const ways = WAYS.map((w) => {
      const own = rows.filter((r) => (r.values['way'] ?? 'with') === w.value);
      const held = own.filter((r) => !turned(r)).map((r) => torque(cell(r, 'mass')));
      const moved = own.filter(turned).map((r) => torque(cell(r, 'mass')));
      return {
        ...w,
        count: own.length,
        held: held.length ? Math.max(...held) : undefined,
        moved: moved.length ? Math.min(...moved) : undefined,
      };
    }).filter((w) => w.count > 0);
    const known = ways.filter((w) => w.moved !== undefined);
    const uRig = (t: number) => [
      {
        id: 'mass',
        name: 'hung mass',
        u:
          Math.hypot(fromResolution(instrument?.resolution ?? 0), fromBounds(instrument?.error ?? 0)) *
          context.gravity *
          rig.lever,
        dof: Infinity,
        halve: 'a finer scale',
      },
      {
        id: 'lever',
        name: 'lever radius',
        // The lever’s own weight pulls wherever the masses hang.
        u: (fromBounds(get('leverError')) * (t - context.gravity * rig.leverMass * rig.leverCentre)) / rig.lever,
        dof: Infinity,
        halve: 'the radius measured to half the error',
      },
    ];
    if (known.length === 0) {
      const most = Math.max(...ways.map((w) => w.held ?? 0));
      const found = combine(most, 'torque', uRig(most));
      return ok({
        ...plainResult(
          test,
          rows.length,
          `It held at every mass: it does not turn back below ${stated(most, 'torque', 3)}.`,
        ),
        found,
        bound: 'atLeast',
        lands: [{ row: 'turnBack', found, bound: 'atLeast' }],
        advice: [
          'Add mass until it turns, or stop here if this is enough: holding was what was asked.',
          ...(ways.length < 2 ? ['Try the other way too: friction is seldom the same both ways.'] : []),
        ],
      });
    }
    const middles = known.map((w) => ((w.held ?? 0) + w.moved!) / 2);
    const mean = middles.reduce((a, b) => a + b, 0) / middles.length;
    const half = Math.max(...known.map((w) => (w.moved! - (w.held ?? 0)) / 2));
    const found = combine(mean, 'torque', [
      ...uRig(mean),
      {
        id: 'bracket',
        name: 'gap between held and turned',
        u: fromBounds(half) / Math.sqrt(known.length),
        dof: Infinity,
        halve: 'one more mass in the middle',
      },
      ...(middles.length > 1
        ? [
            {
              id: 'ways',
              name: 'difference of both ways',
              u: fromBounds(Math.abs(middles[0]! - middles[1]!) / 2),
              dof: Infinity,
              halve: 'run it in, or give each way for itself',
            },
          ]
        : []),
    ]);
    const odd = known.some((w) => w.held !== undefined && w.held >= w.moved!);
    return ok({
      ...plainResult(
        test,
        rows.length,
        known
          .map((w) => `${w.label}: between ${stated(w.held ?? 0, 'torque', 3)} and ${stated(w.moved!, 'torque', 3)}`)
          .join('; ') + '.',
      ),
      found,
      lands: [{ row: 'turnBack', found }],
      figures: known.map((w) => ({
        id: w.value,
        name: `Turned ${w.label}`,
        quantity: 'torque' as const,
        value: ((w.held ?? 0) + w.moved!) / 2,
        U: (w.moved! - (w.held ?? 0)) / 2,
        how: 'middle between the heaviest that stayed and the lightest that turned; whole gap',
      })),
      advice: [
        ...(found.dominant
          ? [`The largest part of the uncertainty is the ${found.dominant.name}; to halve it: ${found.dominant.halve}.`]
          : []),
        ...(ways.length < 2 ? ['Try the other way too: friction is seldom the same both ways.'] : []),
        ...(odd ? ['A heavier mass stayed than one that turned: tap the housing each time, or repeat those.'] : []),
        ...(known.some((w) => w.held === undefined)
          ? ['It turned at the lightest mass: begin lighter, or balance the lever.']
          : []),
      ],
    });
  },
};
