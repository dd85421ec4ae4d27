import { OUTCOMES, type LadderTest, type PlayTest } from '../../schema/joint.ts';
import { ok } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { analysePlay } from '../play-lever.ts';
import { analyseLadder, OUTCOME_WORDS } from '../torque-ladder.ts';
import { column, instrumentOf, LEVER, plainResult, rigOf, rigQuantity } from './rig-fields.ts';

const PLAY_RIG = [
  ...LEVER,
  rigQuantity(
    'push',
    'Push, each way',
    'Torque of the light push; 0 where it is not known.',
    'torque',
    0,
    0.01,
    0,
    1e5,
    ['push'],
  ),
];

/** Play at a lever, as any other kind of test is told; kept in a joint with fields of its own. */
export const playLever: TestKind = {
  id: 'play-lever',
  name: 'Play at a lever',
  summary: 'Hold the input, push a lever lightly both ways, read the difference at its end.',
  group: 'play and stiffness',
  rows: ['play'],
  measures: 'length',
  caution: 'Motor unpowered and its shaft held. Push with a fingertip: a lever on a jammed joint springs back.',
  steps: [
    'Hold the input still.',
    'Push the lever lightly one way, zero the dial; push the other way and read.',
    'Repeat at other output angles.',
  ],
  rig: PLAY_RIG,
  columns: [
    column('angle', 'output angle', 'angle', '0°', ['angle', 'position'], { signed: true, optional: true }),
    column('difference', 'difference', 'length', '0.43 mm', ['difference', 'd', 'reading', 'travel']),
  ],
  analyse: (test, context) => {
    const rig = rigOf(PLAY_RIG, test);
    const made = {
      ...test,
      kind: 'play-lever',
      rig: {
        lever: rig('lever'),
        leverError: rig('leverError'),
        instrument: String(test.rig['instrument'] ?? ''),
        push: rig('push'),
        correctWindUp: rig('push') > 0,
      },
      readings: test.readings
        .filter((r) => Number.isFinite(r.values['difference']))
        .map((r) => ({
          id: r.id,
          text: r.text,
          struck: r.struck,
          angle: (r.values['angle'] as number | undefined) ?? 0,
          difference: Math.abs(r.values['difference'] as number),
        })),
    } as unknown as PlayTest;
    const r = analysePlay(
      made,
      instrumentOf(test, context),
      context.line?.figures.find((f) => f.id === 'stiffness')?.value,
    );
    if (!r.ok) return r;
    const p = r.value;
    return ok({
      ...plainResult(test, p.counted, `Worst ${((p.worst.play * 10800) / Math.PI).toFixed(2)}′.`),
      found: p.found,
      lands: [{ row: 'play', found: p.found }],
      figures: [
        {
          id: 'play',
          name: 'Play',
          quantity: 'smallAngle',
          value: p.found.value,
          U: p.found.U,
          how: '2·asin(d/2L), mean',
        },
        { id: 'worst', name: 'Worst', quantity: 'smallAngle', value: p.worst.play, how: 'largest mean of an angle' },
      ],
      plots: [],
      advice: p.advice,
      struck: p.struck,
    });
  },
};

const LADDER_RIG = [
  ...LEVER,
  rigQuantity('leverMass', 'Lever mass', 'The lever weighs too.', 'mass', 0, 0.01, 0, 1e3, ['lever mass']),
  rigQuantity('leverCentre', 'Axis to its centre', 'Balance it on an edge.', 'length', 0, 1e-3, 0, 20, [
    'lever centre',
    'lever center',
  ]),
  rigQuantity('basket', 'Basket and hook', 'Weighed together.', 'mass', 0, 0.01, 0, 1e3, ['basket', 'tare']),
  rigQuantity('angle', 'Lever above level', 'The cosine counts.', 'angle', 0, 0.01, -Math.PI / 2, Math.PI / 2, [
    'lever angle',
  ]),
  rigQuantity('angleError', 'Its largest error', 'A level gives half a degree.', 'angle', 0, 0.01, 0, 1, [
    'angle error',
  ]),
];

/** The torque ladder in the same terms. */
export const torqueLadder: TestKind = {
  id: 'torque-ladder',
  name: 'Torque ladder',
  summary: 'Hang growing masses from a lever until the joint no longer carries them.',
  group: 'torque',
  rows: ['torque'],
  measures: 'mass',
  loaded: true,
  destructive: true,
  caution:
    'Hung masses fall: tether the basket, keep feet out of the drop zone, stand clear of the plane of the ' +
    'lever, wear eye protection. Know the driver’s current limit and the emergency stop before power.',
  steps: [
    'Hang a mass the joint should carry easily and lift it slowly.',
    'Add about a quarter each time until it no longer does.',
    'Halve the gap.',
  ],
  rig: LADDER_RIG,
  columns: [
    column('mass', 'mass hung', 'mass', '2.5 kg', ['mass', 'weight', 'load', 'force']),
    {
      as: 'choice',
      id: 'outcome',
      label: 'outcome',
      options: OUTCOMES.map((o) => ({ value: o, label: OUTCOME_WORDS[o] })),
      words: ['outcome', 'result', 'happened', 'state'],
    },
  ],
  analyse: (test, context) => {
    const rig = rigOf(LADDER_RIG, test);
    const made = {
      ...test,
      kind: 'torque-ladder',
      rig: {
        lever: rig('lever'),
        leverError: rig('leverError'),
        leverMass: rig('leverMass'),
        leverCentre: rig('leverCentre'),
        basket: rig('basket'),
        angle: rig('angle'),
        angleError: rig('angleError'),
        instrument: String(test.rig['instrument'] ?? ''),
      },
      readings: test.readings
        .filter((r) => Number.isFinite(r.values['mass']))
        .map((r) => ({
          id: r.id,
          text: r.text,
          struck: r.struck,
          mass: r.values['mass'] as number,
          outcome: r.values['outcome'] ?? 'lifted',
        })),
    } as unknown as LadderTest;
    const r = analyseLadder(made, instrumentOf(test, context), context.gravity);
    if (!r.ok) return r;
    const l = r.value;
    const bound = l.bound === 'bracket' ? 'both' : l.bound;
    return ok({
      ...plainResult(
        test,
        l.counted,
        (
          `${l.bestGood !== undefined ? `Carried up to ${l.bestGood.toPrecision(4)} N·m. ` : ''}` +
          `${l.leastBad !== undefined ? `At ${l.leastBad.toPrecision(4)} N·m it ${OUTCOME_WORDS[l.mode!]}.` : ''}`
        ).trim(),
      ),
      found: l.found,
      bound,
      lands: [{ row: 'torque', found: l.found, bound }],
      figures: [
        ...(l.bestGood !== undefined
          ? [
              {
                id: 'bestGood',
                name: 'Carried',
                quantity: 'torque' as const,
                value: l.bestGood,
                how: 'largest rung carried',
              },
            ]
          : []),
        ...(l.leastBad !== undefined
          ? [
              {
                id: 'leastBad',
                name: 'Not carried',
                quantity: 'torque' as const,
                value: l.leastBad,
                how: 'smallest rung that was not',
              },
            ]
          : []),
        ...(l.nextMass !== undefined
          ? [
              {
                id: 'nextMass',
                name: 'Mass to try next',
                quantity: 'mass' as const,
                value: l.nextMass,
                how: 'middle of the bracket',
              },
            ]
          : []),
      ],
      plots: [],
      advice: l.advice,
      struck: l.struck,
    });
  },
};
