import { ok, refuse } from '../../result.ts';
import { stated } from '../../units/stated.ts';
import type { PlanAsk, PlannedRig, TestKind } from '../contract.ts';
import { arm, HOUSE, path, sketch, word } from '../rig-drawing.ts';
import { fitHysteresis, type HysteresisFit } from '../hysteresis-fit.ts';
import { channelOf } from '../recording.ts';
import { thinned } from '../thin.ts';
import { combine, fromBounds } from '../uncertainty.ts';
import { cell, column, countedRows, dominantAdvice, plainResult, rigOf, rigQuantity } from './rig-fields.ts';

const RIG = [
  rigQuantity(
    'rated',
    'Rated torque',
    'Lost motion is told at ±3 % of it; 0 takes the most that was put on.',
    'torque',
    0,
    0.1,
    0,
    1e5,
    ['rated', 'rated torque'],
  ),
  rigQuantity(
    'torqueError',
    'Error of the torque, share',
    'Lever radius and scale together.',
    'efficiency',
    0.01,
    1e-3,
    0,
    1,
    ['torque error'],
  ),
  rigQuantity(
    'angleError',
    'Error of the angle, share',
    'Lever radius of the reading.',
    'efficiency',
    5e-3,
    1e-3,
    0,
    1,
    ['angle error'],
  ),
];

/** Torque up to what tells the slopes without hurting the joint. */
const plan = ({ expected, torque }: PlanAsk): PlannedRig => ({
  values: { rated: Math.max(1e-3, Math.min(expected, torque)) },
  enough: true,
  says: `torque up to ${stated(0.6 * torque, 'torque', 2)} in eight steps each way, or the rig`,
});

/** A spring stiffer than this is none: nothing turned, N·m/rad. */
const STIFFEST = 1e8;

/** How often torque turns round by more than so much. */
function turnsOf(torque: Float64Array, swing: number): number {
  let [from, way, count] = [torque[0]!, 0, 0];
  for (const t of torque) {
    if (way > 0 && t > from) from = t;
    else if (way < 0 && t < from) from = t;
    if (Math.abs(t - from) < swing) continue;
    const now = Math.sign(t - from);
    if (way !== 0 && now !== way) count++;
    way = now;
    from = t;
  }
  return count;
}

/** Whether the readings, taken from last to first, make a far better loop. */
function turnedRound(fit: HysteresisFit, torque: Float64Array, angle: Float64Array): boolean {
  const most = torque.reduce((m, t) => Math.max(m, Math.abs(t)), 0);
  if (fit.friction.value > Math.max(0.01 * most, fit.friction.u)) return false;
  const back = fitHysteresis(torque.slice().reverse(), angle.slice().reverse());
  return back !== undefined && back.residual < 0.7 * fit.residual && back.friction.value > 3 * back.friction.u;
}

/**
 * What the fit says of the readings themselves: those far off, a zero that wanders, what it does not know of.
 *
 * @param places of the readings that count among all, where they were typed
 */
function doubts(fit: HysteresisFit, torque: Float64Array, places: readonly number[]): string[] {
  const named = fit.off
    .slice(0, 3)
    .map(
      (i, k) => `${k === 0 ? 'Reading' : 'reading'} ${(places[i] ?? i) + 1} (at ${stated(torque[i]!, 'torque', 3)})`,
    );
  const out: string[] = [];
  if (fit.off.length)
    out.push(
      `${named.join(', ')}${fit.off.length > 3 ? ` and ${fit.off.length - 3} more` : ''} ${fit.off.length === 1 ? 'stands' : 'stand'} ` +
        'far off the loop and left out here: read again there, or strike out what slipped.',
    );
  if (Math.abs(fit.drift.value) > 3 * fit.drift.u && fit.drift.u > 0)
    out.push(
      `Zero wandered by ${stated(Math.abs(fit.drift.value), 'smallAngle', 2)} from the first reading to the last, which is taken out: ` +
        'let stand and joint warm up, clamp the dial afresh, and read faster.',
    );
  if (fit.swings)
    out.push(
      'What is left beside the loop goes up and down in step: the joint sticks and slips, or a motor that drives the load ' +
        'cogs. Friction is a mean of what it holds and what it slips at, and the uncertainty is widened. Read again with ' +
        'smaller steps of torque, each held until the angle stands.',
    );
  else if (fit.hangs >= 2)
    out.push(
      `What is left beside the loop hangs together over about ${Math.round(fit.hangs)} readings (steps of the sensor, teeth, ` +
        `a spring that bends elsewhere): the uncertainty is ${Math.sqrt(fit.hangs).toFixed(1)} times what scatter alone would give. ` +
        'Read the loop again with the output a few degrees on: what stays is the spring, what moves is the toothing.',
    );
  if (fit.step > 0 && fit.stiffness[0]!.value * fit.step > 0.2 * Math.max(...torque))
    out.push(
      `One step of the sensor, ${stated(fit.step, 'smallAngle', 2)}, is a fifth of the wind-up or more: read the angle on a lever with a dial.`,
    );
  return out;
}

/** Play, stiffness in up to three slopes, friction and lost motion from one loop of torque. */
export const hysteresis: TestKind = {
  id: 'hysteresis',
  name: 'Hysteresis loop',
  summary:
    'Torque up, back, down and back with the input held: play, stiffness, friction and lost motion from one loop.',
  group: 'play and stiffness',
  rows: ['stiffness', 'play'],
  loaded: true,
  answers: [{ row: 'stiffness', rank: 1, plan }],
  goesAs: { stiffness: { torque: 1, angle: -1 }, play: { angle: 1 } },
  // A loop is told by a few thousand points; means of neighbours also take the sensor's steps down.
  mostSamples: 1600,
  guided: { program: 'hysteresis' },
  programs: ['hysteresis', 'play'],
  caution: 'The lever stores the wind-up: load and unload it slowly, stand clear of its plane, tether hung masses.',
  steps: [
    'Hold the input still, and fix a lever and an angle reading to the output.',
    'Push to the most you dare once each way and let go: it settles.',
    'Raise the torque in steps to the most, lower it to nought, the same the other way, and back to nought.',
    'Read torque and angle at each step, in order.',
  ],
  rig: RIG,
  columns: [
    column('torque', 'torque', 'torque', '1.5 N·m', ['torque', 'load', 't'], { signed: true }),
    column('angle', 'angle', 'smallAngle', '4.2′', ['angle', 'theta', 'output', 'deflection'], { signed: true }),
  ],
  channels: [
    { id: 'torque', label: 'torque', quantity: 'torque', words: ['torque', 'load'] },
    {
      id: 'angle',
      label: 'angle',
      quantity: 'smallAngle',
      words: ['angle', 'output', 'theta', 'out'],
      instead: ['output'],
    },
  ],
  sketch: () =>
    sketch([
      ...HOUSE,
      arm(),
      path('M160 30v36m-4 -8l4 8l4 -8M160 114v-36m-4 8l4 -8l4 8', 'hot'),
      word(168, 34, '+T', 'found', 'start'),
      word(168, 116, '−T', 'found', 'start'),
      path('M84 72v-26h14', 'thin'),
      word(102, 50, 'angle', 'ink', 'start'),
      word(38, 128, 'input held'),
    ]),
  analyse: (test, context) => {
    const rows = countedRows(test, 'torque', 'angle');
    const [rt, ra] = [channelOf(context.recording, 'torque'), channelOf(context.recording, 'angle')];
    const [torque, angle] =
      rt && ra
        ? [rt, ra]
        : [Float64Array.from(rows, (r) => cell(r, 'torque')), Float64Array.from(rows, (r) => cell(r, 'angle'))];
    if (torque.length < 8)
      return refuse(
        torque.length === 0
          ? 'There are no readings yet.'
          : `There ${torque.length === 1 ? 'is one reading' : `are ${torque.length} readings`}.`,
        'A loop has four branches, each of several steps.',
        'Read at least four steps up, down and back, both ways.',
      );
    const [low, high] = torque.reduce(([a, b], v) => [Math.min(a, v), Math.max(b, v)], [0, 0]);
    if (!(low < -0.1 * high) || !(high > 0))
      return refuse(
        'The torque only goes one way.',
        'Play shows between pushing one way and the other.',
        'Go through nought to the other side as well, signs and all.',
      );
    const turns = turnsOf(torque, 0.1 * (high - low));
    if (turns > Math.max(8, torque.length / 6))
      return refuse(
        'These readings do not stand in the order of a loop.',
        `The torque turns round ${turns} times: friction and play follow from which reading came before which.`,
        'Put the rows in the order in which they were read, up, back, down and back.',
      );
    const fit = fitHysteresis(torque, angle);
    if (fit && turnedRound(fit, torque, angle))
      return refuse(
        'The loop runs the wrong way round.',
        'Read backwards these readings make a loop with friction; as they stand, the joint would give energy.',
        'Reverse the order of the rows, or the sign of either column.',
      );
    if (!fit)
      return refuse(
        'No loop fits these readings.',
        'The angle does not rise with the torque, or hardly any reading lies outside the play.',
        'Check signs and order: readings must stand in the order they were taken.',
      );
    if (fit.stiffness.some((k) => !(k.value < STIFFEST) || !(k.u < k.value)))
      return refuse(
        'These readings tell no stiffness.',
        'The angle hardly changes with the torque, or scatters by more than it changes.',
        'Check that the angle is read at the output and in the unit given; a longer lever or a finer dial shows more.',
      );
    const rig = rigOf(RIG, test);
    const rated = rig('rated') || Math.max(high, -low);
    const [eT, eA] = [fromBounds(rig('torqueError')), fromBounds(rig('angleError'))];
    const k1 = fit.stiffness[0]!;
    const known = (x: { value: number; u: number }, scale: number, quantity: Parameters<typeof combine>[1]) =>
      combine(x.value, quantity, [
        {
          id: 'fit',
          name: 'scatter about the loop',
          u: Number.isFinite(x.u) ? x.u : Math.abs(x.value),
          dof: Math.max(1, fit.dof / fit.hangs),
          halve: 'four times as many readings',
        },
        {
          id: 'scale',
          name: 'scale of torque and angle',
          u: scale * Math.abs(x.value),
          dof: Infinity,
          halve: 'the lever measured to half the error',
        },
      ]);
    // What counts for the joint is the slope that carries the load: the outermost that was reached.
    const outer = fit.stiffness[fit.stiffness.length - 1]!;
    const stiffness = known(outer, Math.hypot(eT, eA), 'stiffness');
    // A dead zone below nought is scatter about none.
    const play = known({ ...fit.play, value: Math.max(0, fit.play.value) }, eA, 'smallAngle');
    const reach = 0.03 * rated;
    const windUp =
      fit.bends[0] && reach > fit.bends[0].value
        ? fit.bends[0].value / k1.value + (reach - fit.bends[0].value) / fit.stiffness[1]!.value
        : reach / k1.value;
    const lost = play.value + 2 * windUp;
    const uLost = Math.hypot(play.u, (2 * reach * k1.u) / k1.value ** 2);
    const order = Array.from(fit.fitted, (_, i) => i).filter((i) => Number.isFinite(fit.fitted[i]!));
    const raw = thinned(torque, angle, 2500);
    const bounded = fit.hangs >= 1.5 ? '; neighbouring readings err alike, for which U leaves room: a bound' : '';
    return ok({
      ...plainResult(
        test,
        torque.length,
        `Play ${stated(play.value, 'smallAngle', 3)}, ` +
          `${stated(outer.value, 'stiffness', 3)}${fit.stiffness.length > 1 ? ` after ${stated(k1.value, 'stiffness', 3)} near the middle` : ''}, ` +
          `friction ${stated(fit.friction.value, 'torque', 2)}.`,
      ),
      found: stiffness,
      lands: [
        { row: 'stiffness', found: stiffness },
        { row: 'play', found: play },
      ],
      figures: [
        {
          id: 'play',
          name: 'Play',
          quantity: 'smallAngle',
          value: play.value,
          U: play.U,
          how: 'dead zone of the fit' + bounded,
        },
        ...fit.stiffness.map((k, j) => ({
          id: `stiffness${j + 1}`,
          name:
            fit.stiffness.length === 1
              ? 'Stiffness'
              : `Stiffness, ${['near the middle', fit.stiffness.length === 2 ? 'further out' : 'midway', 'outermost'][j]}`,
          quantity: 'stiffness' as const,
          value: k.value,
          U: known(k, Math.hypot(eT, eA), 'stiffness').U,
          how:
            'slope of the fit. Friction counts as the same at rest and in motion: one that holds more than it slides moves ' +
            'the slope by a per mille or two, which one loop does not show' +
            bounded,
        })),
        ...fit.bends.map((b, j) => ({
          id: `bend${j + 1}`,
          name: `Slope changes at${fit.bends.length > 1 ? ` (${j + 1})` : ''}`,
          quantity: 'torque' as const,
          value: b.value,
          U: known(b, eT, 'torque').U,
          how: 'bend of the fit',
        })),
        {
          id: 'friction',
          name: 'Friction',
          quantity: 'torque',
          value: fit.friction.value,
          U: known(fit.friction, eT, 'torque').U,
          how: 'half the width of the loop in torque; where the play is crossed tells more than U counts, which is a bound',
        },
        {
          id: 'frictionWidth',
          name: 'Width of the loop',
          quantity: 'torque',
          value: 2 * fit.friction.value,
          U: 2 * known(fit.friction, eT, 'torque').U,
          how: 'twice the friction',
        },
        {
          id: 'lostMotion',
          name: 'Lost motion at ±3 %',
          quantity: 'smallAngle',
          value: lost,
          U: fit.k * uLost,
          how: 'play and wind-up at ±3 % of the rated torque',
        },
        {
          id: 'residual',
          name: 'Scatter about the loop',
          quantity: 'smallAngle',
          value: fit.residual,
          how: 'standard deviation of the residuals',
        },
      ],
      plots: [
        {
          name: 'Angle against torque',
          xName: 'torque',
          x: 'torque',
          yName: 'angle',
          y: 'smallAngle',
          series: [
            { key: 'raw', name: 'read', ...raw, as: 'points', role: 'raw' },
            {
              key: 'fit',
              name: 'fitted',
              x: order.map((i) => torque[i]!),
              y: order.map((i) => fit.fitted[i]!),
              as: 'line',
              role: 'fit',
            },
          ],
        },
      ],
      advice: [
        ...doubts(fit, torque, rt && ra ? [] : rows.map((r) => test.readings.indexOf(r))),
        ...dominantAdvice(stiffness),
        ...(fit.friction.value > 0.2 * rated
          ? [
              'Friction takes more than a fifth of the torque: warm it up and grease it, or expect it to hold wind-up where it stops.',
            ]
          : []),
        ...(fit.used + fit.off.length < torque.length
          ? [`${torque.length - fit.used - fit.off.length} readings lie inside the play and tell only its ends.`]
          : []),
        ...(torque.length < 24
          ? ['With fewer than six steps a branch the slopes near the middle are hardly known.']
          : []),
      ],
    });
  },
};
