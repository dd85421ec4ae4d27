import { ok, refuse } from '../../result.ts';
import type { QuantityId } from '../../units/quantity.ts';
import type { ReadingColumn, TestKind } from '../contract.ts';
import { path, sketch, word } from '../rig-drawing.ts';
import { positioningBands, positioningIso, type PositioningResult, type TargetRuns } from '../iso230.ts';
import { fitTelling, trendBlock } from '../telling.ts';
import { stated } from '../../units/stated.ts';
import { siOf } from '../keyed-value.ts';
import { combine } from '../uncertainty.ts';
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
  type Row,
} from './rig-fields.ts';

const RIG = [
  rigChoice(
    'axis',
    'Axis',
    'Turning axes are read in angles, straight ones in lengths.',
    [
      { value: 'turning', label: 'turning' },
      { value: 'straight', label: 'straight' },
    ],
    ['axis'],
  ),
  rigQuantity(
    'radius',
    'Radius, to carry over',
    'Of the pinion or pulley, where a straight axis should land beside the joint’s angles; 0 for none.',
    'length',
    0,
    1e-3,
    0,
    10,
    ['radius'],
  ),
];
const UP = [
  { value: 'up', label: 'from below' },
  { value: 'down', label: 'from above' },
];

const columns = (straight: boolean): readonly ReadingColumn[] => [
  straight
    ? column('target', 'target', 'length', '50 mm', ['target', 'position', 'commanded'], { signed: true })
    : column('target', 'target', 'angle', '30°', ['target', 'position', 'commanded'], { signed: true }),
  {
    as: 'choice',
    id: 'way',
    label: 'approached',
    options: UP,
    words: ['way', 'direction', 'side', 'approached', 'dir'],
    yes: 'up',
  },
  straight
    ? column('deviation', 'deviation', 'length', '4 µm', ['deviation', 'error', 'dev', 'x'], { signed: true })
    : column('deviation', 'deviation', 'smallAngle', '1.2′', ['deviation', 'error', 'dev', 'x'], { signed: true }),
];

/** Units of length in the heading of a table: the axis is a straight one. */
const LENGTHS = /[\s_([/,](mm|µm|um|m|in)\s*[\])]?\s*([,;\t]|$)/i;

/** ISO 230-2 as targets and runs each way: `{ unit, targets, deviations_up, deviations_down }`. */
function targetRuns(
  raw: Readonly<Record<string, unknown>>,
  unit: string | undefined,
  rig: Readonly<Record<string, number | string>>,
): { rows: Record<string, number | string>[]; rig: Readonly<Record<string, string>> } | undefined {
  const targets = raw['targets'];
  if (!Array.isArray(targets)) return undefined;
  const straight = rig['axis'] === 'straight' || ['mm', 'm', 'um', 'µm'].includes(unit ?? '');
  const ways = [
    ['up', raw['deviations_up']],
    ['down', raw['deviations_down']],
  ] as const;
  const rows = ways.flatMap(([way, list]) =>
    targets.flatMap((t: unknown, i) => {
      const target = siOf(t, straight ? 'length' : 'angle', undefined, unit);
      const runs: unknown[] = Array.isArray(list) && Array.isArray(list[i]) ? (list[i] as unknown[]) : [];
      return runs.flatMap((d) => {
        const deviation = siOf(d, straight ? 'length' : 'smallAngle', undefined, unit);
        return target === undefined || deviation === undefined ? [] : [{ target, way, deviation }];
      });
    }),
  );
  return { rows, rig: straight ? { axis: 'straight' } : {} };
}

const fromAbove = (r: Row): boolean => r.values['way'] === 'down' || r.values['way'] === -1;

/**
 * How far stops at one target climb from the first reading to the last, in the unit of the readings; 0 where no more than
 * chance lets them.
 */
function driftOf(rows: readonly Row[], { targets }: PositioningResult): number {
  const left = Float64Array.from(rows, (r) => {
    const t = targets.reduce((a, b) =>
      Math.abs(b.target - cell(r, 'target')) < Math.abs(a.target - cell(r, 'target')) ? b : a,
    );
    return cell(r, 'deviation') - (fromAbove(r) ? t.meanDown : t.meanUp);
  });
  const fit = fitTelling(left, [new Float64Array(left.length).fill(1)], [trendBlock(left.length)]);
  const at = fit?.at('trend') ?? -1;
  return at < 0 ? 0 : fit!.values[at]!;
}

/** Below this, U of the largest spread holds the truth more often than it says (99 of 100 at five, 95 at twelve). */
const FEW_TARGETS = 10;

/** Accuracy and repeatability by ISO 230-2. */
export const positioning: TestKind = {
  id: 'positioning',
  name: 'Positioning',
  summary: 'Targets approached from both sides several times: accuracy, repeatability and reversal by ISO 230-2.',
  group: 'motion',
  rows: ['repeatability'],
  measures: 'length',
  answers: [
    {
      row: 'repeatability',
      rank: 1,
      plan: () => ({
        says: 'five targets, five runs each way, with the finest reading at hand',
        values: {},
        enough: true,
      }),
    },
  ],
  goesAs: { repeatability: { deviation: 1 } },
  rigFromHeading: (heading): Readonly<Record<string, string>> => (LENGTHS.test(heading) ? { axis: 'straight' } : {}),
  rowsFromJson: targetRuns,
  caution: 'The axis moves by itself: fingers off, current limit set and emergency stop in reach before power.',
  steps: [
    'Choose five or more targets over the travel, not all at the same place of a turn.',
    'Go to each from below, stop, read; then from above; five runs.',
    'Type target, side and deviation (read less commanded) of each.',
  ],
  rig: RIG,
  columns: columns(false),
  columnsFor: (rig) => columns(rig['axis'] === 'straight'),
  sketch: () =>
    sketch([
      path('M20 90H206', 'ink'),
      ...[40, 75, 110, 145, 180].map((x) => path(`M${x} 82v16`, 'thin')),
      path('M96 66h26l-13 16Z', 'ink', 'part'),
      path('M50 58h36m-7 -4l7 4l-7 4M170 58h-36m7 -4l-7 4l7 4', 'hot'),
      word(68, 48, 'from below', 'found'),
      word(156, 48, 'from above', 'found'),
      word(110, 118, 'each target, five runs'),
    ]),
  analyse: (test, context) => {
    const rows = countedRows(test, 'target', 'deviation');
    if (rows.length < 2)
      return refuse(
        rows.length === 0 ? 'There are no readings yet.' : 'One reading tells nothing about repeating.',
        'Each target is approached several times from both sides.',
        'Type target, side and deviation of each stop.',
      );
    const runs: { target: number; up: number[]; down: number[] }[] = [];
    for (const r of rows) {
      const target = cell(r, 'target');
      let at = runs.find((x) => Math.abs(x.target - target) <= 1e-9 + 1e-6 * Math.abs(target));
      if (!at) runs.push((at = { target, up: [], down: [] }));
      (fromAbove(r) ? at.down : at.up).push(cell(r, 'deviation'));
    }
    runs.sort((a, b) => a.target - b.target);
    if (runs.length < 2)
      return refuse(
        'Every reading is at one target.',
        'Accuracy is told over the travel: at one place there is only repeating.',
        'Measure at several targets; ISO 230-2 wants five or more over the travel.',
      );
    const result = positioningIso(runs as TargetRuns[]);
    const straight = rigText(RIG, test)('axis') === 'straight';
    const q: QuantityId = straight ? 'length' : 'smallAngle';
    const least = Math.min(...runs.flatMap((r) => [r.up.length, r.down.length].filter((n) => n > 0)));
    const dof = runs.reduce((s, r) => s + Math.max(0, r.up.length - 1) + Math.max(0, r.down.length - 1), 0);
    if (dof === 0)
      return refuse(
        'Each target was reached once from each side.',
        'A single run tells nothing about repeating: its spread would come out as nought, and would be believed.',
        'Go round at least once more; ISO 230-2 wants five runs.',
      );
    const bands = positioningBands(runs as TargetRuns[]);
    const drift = driftOf(rows, result);
    const instrument = instrumentOf(test, context);
    const found = combine(result.repeatability, q, [
      {
        id: 'runs',
        name: 'few runs',
        u: bands.repeatability.U / 1.96,
        dof: Infinity,
        halve: 'four times as many runs',
      },
      ...(straight ? instrumentBudget(instrument, Math.SQRT2) : []),
    ]);
    // Where nobody says at which radius, it is the one that the brief's straight axis counts with.
    const r = rigOf(RIG, test)('radius') || (context.line?.demand.travel ?? 0);
    const landing = straight
      ? r > 0
        ? combine(
            result.repeatability / r,
            'smallAngle',
            found.budget.map((c) => ({ ...c, u: c.u / r })),
          )
        : undefined
      : found;
    const one = runs.every((x) => x.up.length === 0 || x.down.length === 0);
    const fig = (id: keyof typeof bands, name: string, how: string) => ({
      id,
      name,
      quantity: q,
      value: result[id],
      U: id === 'repeatability' ? found.U : bands[id].U,
      how,
    });
    const line = (pick: (t: (typeof result.targets)[number]) => number) => ({
      x: result.targets.map((t) => t.target),
      y: result.targets.map(pick),
    });
    return ok({
      ...plainResult(
        test,
        rows.length,
        `${runs.length} targets, ${least} run${least === 1 ? '' : 's'} each way at least.`,
      ),
      found,
      lands: landing ? [{ row: 'repeatability', found: landing }] : [],
      figures: [
        fig(
          'repeatability',
          'Repeatability R',
          'max Rᵢ' + (runs.length < FEW_TARGETS ? '; the largest over so few targets: U is a bound' : ''),
        ),
        fig('repeatabilityUp', 'Repeatability from below R↑', '4·max sᵢ↑'),
        fig('repeatabilityDown', 'Repeatability from above R↓', '4·max sᵢ↓'),
        fig(
          'reversal',
          'Reversal B',
          'max |x̄ᵢ↑ − x̄ᵢ↓|' + (result.reversal <= bands.reversal.U ? '; within its own scatter: U is a bound' : ''),
        ),
        fig('meanReversal', 'Mean reversal', 'mean of x̄ᵢ↑ − x̄ᵢ↓'),
        fig('accuracy', 'Accuracy A', 'max(x̄ᵢ + 2sᵢ) − min(x̄ᵢ − 2sᵢ)'),
        fig('systematic', 'Systematic deviation E', 'range of the means, both sides'),
        fig('meanDeviation', 'Mean deviation M', 'range of the means of both sides'),
      ],
      plots: [
        {
          name: 'Deviation at each target',
          xName: 'target',
          x: straight ? 'length' : 'angle',
          yName: 'deviation',
          y: q,
          series: [
            {
              key: 'raw',
              name: 'stops',
              x: rows.map((x) => cell(x, 'target')),
              y: rows.map((x) => cell(x, 'deviation')),
              as: 'points',
              role: 'raw',
            },
            { key: 'up', name: 'mean from below', ...line((t) => t.meanUp), as: 'line', role: 'fit' },
            { key: 'down', name: 'mean from above', ...line((t) => t.meanDown), as: 'line', role: 'fit' },
            { key: 'upHigh', name: 'from below + 2s', ...line((t) => t.meanUp + 2 * t.sUp), as: 'line', role: 'other' },
            {
              key: 'downLow',
              name: 'from above − 2s',
              ...line((t) => t.meanDown - 2 * t.sDown),
              as: 'line',
              role: 'other',
            },
          ],
        },
      ],
      advice: [
        ...dominantAdvice(found),
        ...(bands.repeatability.high > 0.1 * result.repeatability
          ? [
              `The largest of ${runs.length} targets reads ${Math.round((100 * bands.repeatability.high) / result.repeatability)} % ` +
                'high with so few runs, as the standard takes it: the uncertainty counts that. More runs bring it down.',
            ]
          : []),
        ...(drift === 0
          ? []
          : [
              `Stops at one and the same target ${drift > 0 ? 'climb' : 'fall'} by ${stated(Math.abs(drift), q, 2)} from the first run to the ` +
                'last: the axis warms or its zero walks, and repeatability counts that. Let it run to and fro until it stands, then begin.',
            ]),
        ...(least < 5 ? ['ISO 230-2 wants five runs each way; with fewer the spread is hardly known.'] : []),
        ...(runs.length < 5 ? ['ISO 230-2 wants five targets a metre or more, and no fewer than five in all.'] : []),
        ...(one ? ['Only one side was approached: reversal is missing from accuracy and repeatability.'] : []),
        ...(result.reversal > 2 * Math.max(result.repeatabilityUp, result.repeatabilityDown)
          ? [
              'Most of it is reversal: play, or wind-up that friction holds. A sensor at the output, or always coming from one side, takes it out.',
            ]
          : []),
      ],
    });
  },
};
