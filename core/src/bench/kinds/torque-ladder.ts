import { ok } from '../../result.ts';
import { stated } from '../../units/stated.ts';
import type { TestKind } from '../contract.ts';
import { arm, dimension, HOUSE, hung, path, sketch, word } from '../rig-drawing.ts';
import { analyseLadder, OUTCOME_WORDS, OUTCOMES, rungSays, type Outcome } from '../torque-ladder.ts';
import { hangingPlan } from './hanging-plan.ts';
import { column, instrumentOf, LEVER, plainResult, rigOf, rigQuantity } from './rig-fields.ts';

const RIG = [
  ...LEVER.map((f) => (f.id === 'lever' && f.as === 'quantity' ? { ...f, start: 0.15 } : f)),
  rigQuantity('leverMass', 'Lever mass', 'The lever weighs too.', 'mass', 0.15, 0.01, 0, 1e3, ['lever mass']),
  rigQuantity('leverCentre', 'Axis to its centre', 'Balance it on an edge.', 'length', 0.075, 1e-3, 0, 20, [
    'lever centre',
    'lever center',
  ]),
  rigQuantity('basket', 'Basket and hook', 'Weighed together.', 'mass', 0.1, 0.01, 0, 1e3, ['basket', 'tare']),
  rigQuantity(
    'angle',
    'Lever above level',
    'The cosine counts.',
    'angle',
    0,
    Math.PI / 180,
    -Math.PI / 2,
    Math.PI / 2,
    ['lever angle'],
  ),
  rigQuantity(
    'angleError',
    'Its largest error',
    'A spirit level gives about half a degree.',
    'angle',
    Math.PI / 90,
    Math.PI / 180,
    0,
    1,
    ['angle error'],
  ),
];

/** What it carried and what it did not, in a sentence. */
const sayBracket = (carried: number | undefined, not: number | undefined, mode: Outcome | undefined): string =>
  [
    carried === undefined ? '' : `Carried up to ${stated(carried, 'torque', 4)}.`,
    not === undefined ? '' : `At ${stated(not, 'torque', 4)} it ${OUTCOME_WORDS[mode!]}.`,
  ]
    .filter(Boolean)
    .join(' ');

/** Capacity as a bracket between masses that were carried and masses that were not. */
export const torqueLadder: TestKind = {
  id: 'torque-ladder',
  name: 'Torque ladder',
  summary: 'Hang growing masses from a lever until the joint no longer carries them.',
  group: 'torque',
  rows: ['torque'],
  measures: 'mass',
  readWith: 'kitchen',
  loaded: true,
  destructive: true,
  answers: [{ row: 'torque', rank: 1, plan: hangingPlan }],
  goesAs: { torque: { mass: 1, lever: 1 } },
  caution:
    'Hung masses fall: tether the basket, keep feet out of the drop zone, stand clear of the plane of the ' +
    'lever, wear eye protection. Know the driver’s current limit and the emergency stop before power.',
  steps: [
    'Hang a mass the joint should carry easily and lift it slowly.',
    'Add about a quarter each time until it no longer does.',
    'Halve the gap.',
  ],
  one: 'rung',
  rig: RIG,
  columns: [
    column('mass', 'mass hung', 'mass', '2.5 kg', ['mass', 'weight', 'load', 'force'], { most: 1e4 }),
    {
      as: 'choice',
      id: 'outcome',
      label: 'what happened',
      options: OUTCOMES.map((o) => ({ value: o, label: OUTCOME_WORDS[o] })),
      words: ['outcome', 'result', 'happened', 'state', 'what happened'],
    },
  ],
  sketch: (rig) => {
    const tilt = Math.max(-0.4, Math.min(0.4, rig.value('angle') || 0));
    const [ex, ey] = [38 + 130 * Math.cos(tilt), 72 - 130 * Math.sin(tilt)];
    const share = Math.min(1, rig.value('leverCentre') / rig.value('lever'));
    const [cx, cy] = [38 + 130 * share * Math.cos(tilt), 72 - 130 * share * Math.sin(tilt)];
    const level = tilt === 0;
    return sketch(
      [
        ...HOUSE,
        level ? arm() : path(`M38 72L${ex} ${ey}`, 'bar'),
        ...hung(ex, ey + 4, 32),
        path(`M${cx} ${cy}v26`, 'hot'),
        word(cx, cy - 9, rig.said('leverMass'), 'found'),
        word(ex - 20, ey + 34, `${rig.said('basket')} +`, 'ink', 'end'),
        word(14, 156, 'motor at its limit, or held', 'muted', 'start'),
        ...dimension(38, ex, 136, `L ${rig.said('lever', 4)} ± ${rig.said('leverError')}`),
      ],
      160,
    );
  },
  analyse: (test, context) => {
    const rig = rigOf(RIG, test);
    const r = analyseLadder(
      {
        rig: {
          lever: rig('lever'),
          leverError: rig('leverError'),
          leverMass: rig('leverMass'),
          leverCentre: rig('leverCentre'),
          basket: rig('basket'),
          angle: rig('angle'),
          angleError: rig('angleError'),
        },
        readings: test.readings
          .filter((x) => Number.isFinite(x.values['mass']))
          .map((x) => ({
            id: x.id,
            struck: x.struck,
            mass: x.values['mass'] as number,
            outcome: (x.values['outcome'] ?? 'lifted') as Outcome,
          })),
      },
      instrumentOf(test, context),
      context.gravity,
    );
    if (!r.ok) return r;
    const l = r.value;
    const bound = l.bound === 'bracket' ? 'both' : l.bound;
    const carried = { id: 'bestGood', name: 'Carried', how: 'largest rung carried', value: l.bestGood };
    const not = { id: 'leastBad', name: 'Not carried', how: 'smallest rung that was not', value: l.leastBad };
    return ok({
      ...plainResult(test, l.counted, sayBracket(l.bestGood, l.leastBad, l.mode)),
      found: l.found,
      bound,
      lands: [{ row: 'torque', found: l.found, bound }],
      figures: [
        {
          id: 'capacity',
          name: bound === 'atLeast' ? 'Carried at least' : bound === 'atMost' ? 'Carried less than' : 'Torque carried',
          quantity: 'torque',
          value: l.found.value,
          U: l.found.U,
          how:
            bound === 'both'
              ? 'T = g·cos φ·((m + basket)·L + m_lever·c), the middle between the best rung carried and the least that was not'
              : 'T = g·cos φ·((m + basket)·L + m_lever·c)',
        },
        ...[carried, not].flatMap((f) =>
          f.value === undefined ? [] : [{ ...f, quantity: 'torque' as const, value: f.value }],
        ),
        ...(l.nextMass === undefined
          ? []
          : [
              {
                id: 'nextMass',
                name: 'Mass to try next',
                quantity: 'mass' as const,
                value: l.nextMass,
                how: bound === 'both' ? 'middle of the bracket' : bound === 'atLeast' ? 'a quarter more' : 'lighter',
              },
            ]),
      ],
      each: { label: 'torque', quantity: 'torque', values: new Map(l.rungs.map((x) => [x.id, x.torque])) },
      rungs: {
        quantity: 'torque',
        list: l.rungs
          .filter((x) => x.struck === undefined)
          .map((x) => ({ id: x.id, value: x.torque, says: rungSays(x.outcome) })),
      },
      ...(l.nextMass !== undefined && { next: { quantity: 'mass', value: l.nextMass } }),
      plots: [],
      advice: l.advice,
      struck: l.struck,
    });
  },
};
