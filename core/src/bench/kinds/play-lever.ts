import { ok, refuse } from '../../result.ts';
import type { BenchTest } from '../../schema/joint.ts';
import { stated } from '../../units/stated.ts';
import type { PlanAsk, PlannedRig, TestKind } from '../contract.ts';
import { analysePlay } from '../play-lever.ts';
import { channelOf, samplesOf, type Recording } from '../recording.ts';
import { arm, circle, dimension, HOUSE, path, sketch, word } from '../rig-drawing.ts';
import { column, instrumentOf, LEVER, plainResult, rigChoice, rigOf, rigQuantity, rigText } from './rig-fields.ts';

const RIG = [
  ...LEVER.map((f) => (f.id === 'lever' && f.as === 'quantity' ? { ...f, start: 0.18 } : f)),
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
  rigChoice('correctWindUp', 'Wind-up of the push', 'What the expected stiffness gives at that push.', [
    { value: 'yes', label: 'taken out' },
    { value: 'no', label: 'left in' },
  ]),
];

/** A lever as long as is handy, u of a difference of two readings at radius L being 1.96·√(r²/6 + e²/3)/L. */
function plan({ instrument, wanted }: PlanAsk): PlannedRig {
  if (!instrument) return { says: 'as its sheet says', values: {}, enough: true };
  const u = 1.96 * Math.hypot((Math.SQRT2 * instrument.resolution) / Math.sqrt(12), instrument.error / Math.sqrt(3));
  const needed = Math.ceil((u / wanted) * 100) / 100;
  const lever = Math.min(0.6, Math.max(0.12, needed));
  const enough = needed <= 0.6;
  return {
    values: { lever, instrument: instrument.id },
    enough,
    says:
      `${instrument.name} at a lever of ${stated(lever, 'length', 5)}` +
      (enough ? '' : '; longer than is handy: a spot of light on a wall tells more'),
  };
}

/** Angles of the output at which the play programme pushes to and fro, rad. */
const PUSHED_AT = [0, (2 * Math.PI) / 3, (4 * Math.PI) / 3];
/** Share of the joint's torque with which it pushes. */
const PUSH = 0.06;

/**
 * What a dial at a lever would have read of the play programme: the swing of the output in each third of it.
 *
 * @param lever radius of the reading, m
 */
function pushesOf(recording: Recording, lever: number, newId: () => string): BenchTest['readings'] {
  const out = channelOf(recording, 'output');
  const third = Math.floor(samplesOf(recording) / PUSHED_AT.length);
  if (!out || third === 0) return [];
  return PUSHED_AT.map((angle, k) => {
    let [low, high] = [Infinity, -Infinity];
    for (let i = k * third; i < (k + 1) * third; i++) {
      if (out[i]! < low) low = out[i]!;
      if (out[i]! > high) high = out[i]!;
    }
    const difference = 2 * lever * Math.sin((high - low) / 2);
    return {
      id: newId(),
      text: `${stated(difference, 'length', 5)}, from the rig`,
      values: { angle, difference },
    };
  });
}

/** Radius of the lever the play programme is read at, m. */
const PUSH_LEVER = 0.18;

/** Play at a lever. */
export const playLever: TestKind = {
  id: 'play-lever',
  name: 'Play at a lever',
  summary: 'Hold the input, push a lever lightly both ways, read the difference at its end.',
  group: 'play and stiffness',
  rows: ['play'],
  measures: 'length',
  readWith: 'dial',
  answers: [{ row: 'play', rank: 1, plan }],
  // The programme pushes lightly: its loop gives play alone, read as a dial at a lever would.
  guided: {
    program: 'play',
    readings: (r, newId) => pushesOf(r, PUSH_LEVER, newId),
    rig: (truth) => ({ lever: PUSH_LEVER, push: PUSH * truth.torque, correctWindUp: 'yes' }),
  },
  goesAs: { play: { difference: 1, lever: -1 } },
  caution: 'Motor unpowered and its shaft held. Push with a fingertip: a lever on a jammed joint springs back.',
  steps: [
    'Hold the input still.',
    'Push the lever lightly one way, zero the dial; push the other way and read.',
    'Repeat at other output angles.',
  ],
  rig: RIG,
  columns: [
    column('angle', 'output angle', 'angle', '0°', ['angle', 'position'], {
      signed: true,
      optional: true,
      most: 1e3,
    }),
    column('difference', 'difference', 'length', '0.43 mm', ['difference', 'd', 'reading', 'travel'], {
      difference: true,
      most: 10,
    }),
  ],
  wrongReading: ({ difference }, rig) => {
    const lever = typeof rig['lever'] === 'number' ? rig['lever'] : Infinity;
    return typeof difference === 'number' && difference > 2 * lever
      ? refuse(
          `Difference: ${stated(difference, 'length', 4)} is longer than the lever can swing.`,
          'A point at the lever’s radius moves at most twice that radius.',
          'Check the unit, and the lever’s radius.',
        ).problem
      : undefined;
  },
  sketch: (rig) =>
    sketch([
      ...HOUSE,
      arm(),
      path('M162 38v26m-4 -8l4 8l4 -8M162 106v-26m-4 8l4 -8l4 8', 'hot'),
      path('M178 60h14M178 84h14M185 60v24', 'thin'),
      word(196, 76, 'd', 'found', 'start'),
      word(206, 28, 'push lightly both ways', 'found', 'end'),
      circle(168, 72, 2, 'none', 'found'),
      word(78, 104, 'input held', 'muted', 'start'),
      ...dimension(38, 168, 138, `L ${rig.said('lever', 4)} ± ${rig.said('leverError')}`),
    ]),
  analyse: (test, context) => {
    const rig = rigOf(RIG, test);
    const r = analysePlay(
      {
        rig: {
          lever: rig('lever'),
          leverError: rig('leverError'),
          push: rig('push'),
          correctWindUp: rigText(RIG, test)('correctWindUp') === 'yes',
        },
        readings: test.readings
          .filter((x) => Number.isFinite(x.values['difference']))
          .map((x) => ({
            id: x.id,
            text: x.text,
            struck: x.struck,
            angle: (x.values['angle'] as number | undefined) ?? 0,
            difference: Math.abs(x.values['difference'] as number),
          })),
      },
      instrumentOf(test, context),
      context.line?.figures.find((f) => f.id === 'stiffness')?.value,
    );
    if (!r.ok) return r;
    const p = r.value;
    const asked = context.line?.verdicts.find((v) => v.id === 'play')?.asked;
    return ok({
      ...plainResult(
        test,
        p.counted,
        `Mean of ${p.counted} reading${p.counted === 1 ? '' : 's'}${p.struck ? `, ${p.struck} struck out` : ''}; worst ` +
          `${stated(p.worst.play, 'smallAngle', 3)} at ${stated(p.worst.angle, 'angle', 3)}.` +
          (p.windUp > 0 ? ` Wind-up of the push taken out: ${stated(p.windUp, 'smallAngle', 2)}.` : ''),
      ),
      found: p.found,
      lands: [{ row: 'play', found: p.found }],
      figures: [
        {
          id: 'play',
          name: 'Play',
          quantity: 'smallAngle',
          value: p.found.value,
          U: p.found.U,
          how: 'play = 2·asin(d/2L), mean over the turn of the readings that count',
        },
        { id: 'worst', name: 'Worst', quantity: 'smallAngle', value: p.worst.play, how: 'largest mean of an angle' },
        ...(p.windUp > 0
          ? [
              {
                id: 'windUp',
                name: 'Wind-up of the push',
                quantity: 'smallAngle' as const,
                value: p.windUp,
                how: 'twice the push by the expected stiffness, taken out',
              },
            ]
          : []),
      ],
      each: { label: 'play', quantity: 'smallAngle', values: p.each },
      plots:
        p.perAngle.length > 1
          ? [
              {
                name: 'Play at each output angle',
                below: true,
                xName: 'output angle',
                x: 'angle',
                yName: 'play',
                y: 'smallAngle',
                series: [
                  {
                    key: 'play',
                    name: 'play',
                    x: p.perAngle.map((a) => a.angle),
                    y: p.perAngle.map((a) => a.play),
                    as: 'line',
                    role: 'raw',
                  },
                  {
                    key: 'angles',
                    name: 'mean at an angle',
                    x: p.perAngle.map((a) => a.angle),
                    y: p.perAngle.map((a) => a.play),
                    as: 'points',
                    role: 'raw',
                  },
                ],
                ...(asked !== undefined && Number.isFinite(asked) && { level: { name: 'asked', y: asked } }),
              },
            ]
          : [],
      advice: p.advice,
      struck: p.struck,
    });
  },
};
