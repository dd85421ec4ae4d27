import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { circle, path, sketch, word } from '../rig-drawing.ts';
import { fisher95, fitTelling, roundBlock, trendBlock, type ToldFit } from '../telling.ts';
import { student95 } from '../student.ts';
import { combine } from '../uncertainty.ts';
import {
  cell,
  column,
  countedRows,
  dominantAdvice,
  instrumentBudget,
  instrumentOf,
  plainResult,
} from './rig-fields.ts';

/** Whether three lobes stand above what the readings scatter. */
const lobesTell = ({ values, covariance, dof }: ToldFit, at: number): boolean =>
  values[at]! ** 2 / covariance[at]![at]! + values[at + 1]! ** 2 / covariance[at + 1]![at + 1]! > 2 * fisher95(2, dof);

/**
 * Standard uncertainty of a wave's size, and of its place times its size: along the vector of its cosine and sine, and
 * across it.
 *
 * @param at where both stand among the coefficients
 * Source: JCGM 100:2008, 5.2.2.
 */
function ellipseOf(covariance: ToldFit['covariance'], at: number, cos: number, sin: number): [number, number] {
  const [c, s, both] = [covariance[at]![at]!, covariance[at + 1]![at + 1]!, covariance[at]![at + 1]!];
  const size = Math.hypot(cos, sin);
  const [x, y] = size > 0 ? [cos / size, sin / size] : [1, 0];
  const along = x * x * c + y * y * s + 2 * x * y * both;
  const across = y * y * c + x * x * s - 2 * x * y * both;
  return [Math.sqrt(Math.max(0, along)), Math.sqrt(Math.max(0, across))];
}

/**
 * Run-out by a dial: first harmonic is eccentricity, second ovality. Source: least squares of r(φ) = r0 + a1·cos φ +
 * b1·sin φ + a2·cos 2φ + b2·sin 2φ; ISO 1101 for the total.
 */
export const runout: TestKind = {
  id: 'runout',
  name: 'Run-out',
  summary: 'A dial on a round surface at several angles: total, off-centre and its angle, oval.',
  group: 'motion',
  rows: [],
  measures: 'length',
  readWith: 'dial',
  caution: 'Turn by hand, motor unpowered; a dial’s foot catches on teeth and keys.',
  steps: [
    'Fix the dial’s stand to what the part runs in, its foot square to the surface.',
    'Turn to evenly spaced angles, at least five, better eight or twelve.',
    'Read the dial at each, outwards positive; go round twice.',
  ],
  rig: [],
  columns: [
    column('angle', 'angle', 'angle', '45°', ['angle', 'position', 'phi'], { signed: true }),
    column('reading', 'dial', 'length', '0.03 mm', ['reading', 'dial', 'deviation', 'indicator', 'r'], {
      signed: true,
      most: 0.1,
    }),
  ],
  sketch: () =>
    sketch([
      circle(84, 76, 42, 'ink', 'part'),
      circle(90, 72, 3, 'none', 'found'),
      circle(84, 76, 1.6, 'none', 'ink'),
      path('M126 76h24', 'edge'),
      circle(166, 76, 16, 'ink', 'panel'),
      path('M166 76l8 -9', 'hot'),
      path('M166 92v34h-40', 'ink'),
      path('M48 52a44 44 0 0 1 30 -20m-8 -2l8 2l-5 7', 'hot'),
      word(166, 48, 'dial'),
    ]),
  analyse: (test, context) => {
    const rows = countedRows(test, 'angle', 'reading');
    if (rows.length < 3)
      return refuse(
        rows.length === 0
          ? 'There are no readings yet.'
          : `There ${rows.length === 1 ? 'is one reading' : 'are two readings'}.`,
        'A circle off its middle has a size, an angle and a zero: three readings at least, five to tell oval from off-centre.',
        'Read the dial at more angles, evenly round.',
      );
    const angle = Float64Array.from(rows, (r) => cell(r, 'angle'));
    const y = Float64Array.from(rows, (r) => cell(r, 'reading'));
    const distinct = new Set(
      rows.map((r) => (((cell(r, 'angle') % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI)).toFixed(3)),
    ).size;
    const both = distinct >= 5;
    const base = [y.map(() => 1), ...roundBlock('once', 1, angle).columns];
    const twice = both ? roundBlock('twice', 2, angle).columns : [];
    const three = roundBlock('lobes', 3, angle);
    // Where readings are many lobes are always fitted: on uneven angles they pass for off-centre before they show.
    const many = distinct >= 8 && rows.length >= 14;
    const blocks = [...(distinct >= 8 && !many ? [three] : []), trendBlock(rows.length)];
    const known = [...base, ...twice, ...(many ? three.columns : [])];
    const fit = distinct >= 3 ? fitTelling(y, known, blocks) : undefined;
    if (!fit)
      return refuse(
        'The angles do not go round.',
        'Readings at nearly the same angle cannot tell where it is high.',
        'Read at angles spread over the whole turn.',
      );
    const [, a1, b1, a2 = 0, b2 = 0] = fit.values;
    const e = Math.hypot(a1!, b1!);
    const oval = Math.hypot(a2, b2);
    const total = Math.max(...y) - Math.min(...y);
    const { dof } = fit;
    const lobes = many ? 5 : fit.at('lobes');
    const lobed = lobes >= 0 && lobesTell(fit, lobes);
    const trend = fit.at('trend');
    const [uE, across] = ellipseOf(fit.covariance, 1, a1!, b1!);
    const instrument = instrumentOf(test, context);
    const found = combine(e, 'length', [
      {
        id: 'scatter',
        name: 'scatter about the fitted circle',
        u: uE,
        dof: Math.max(1, dof),
        halve: `about ${rows.length * 4} readings in place of ${rows.length}`,
      },
      ...instrumentBudget(instrument, Math.sqrt(2 / rows.length)),
    ]);
    const uO = both ? ellipseOf(fit.covariance, 3, a2, b2)[0] : 0;
    const k = dof > 0 ? student95(dof) : 0;
    const smooth = Array.from({ length: 73 }, (_, i) => (2 * Math.PI * i) / 72);
    const order = rows.map((_, i) => i).sort((p, q) => angle[p]! - angle[q]!);
    const turn = (Math.atan2(b1!, a1!) + 2 * Math.PI) % (2 * Math.PI);
    return ok({
      ...plainResult(
        test,
        rows.length,
        `Off centre by ${stated(e, 'length', 3)}, high at ${stated(turn, 'angle', 3)}.`,
      ),
      found,
      figures: [
        {
          id: 'total',
          name: 'Total run-out',
          quantity: 'length',
          value: total,
          U:
            1.96 *
            Math.hypot(
              (Math.SQRT2 * (instrument?.resolution ?? 0)) / Math.sqrt(12),
              (instrument?.error ?? 0) / Math.sqrt(3),
            ),
          how: 'largest less smallest reading',
        },
        {
          id: 'eccentricity',
          name: 'Off centre',
          quantity: 'length',
          value: e,
          U: found.U,
          how: 'first harmonic √(a₁² + b₁²)',
        },
        {
          id: 'angle',
          name: 'High at',
          quantity: 'angle',
          value: turn,
          ...(e > 0 && { U: (found.k * Math.sqrt(found.u ** 2 - uE ** 2 + across ** 2)) / e }),
          how: 'atan2(b₁, a₁)',
        },
        ...(both
          ? [
              {
                id: 'ovality',
                name: 'Oval, amplitude',
                quantity: 'length' as const,
                value: oval,
                U: k * uO,
                how: 'second harmonic √(a₂² + b₂²); diameters differ by four times it',
              },
            ]
          : []),
      ],
      plots: [
        {
          name: 'Dial over a turn',
          xName: 'angle',
          x: 'angle',
          yName: 'dial',
          y: 'length',
          series: [
            {
              key: 'raw',
              name: 'read',
              x: order.map((i) => angle[i]!),
              y: order.map((i) => y[i]!),
              as: 'points',
              role: 'raw',
            },
            {
              key: 'fit',
              name: 'fitted',
              x: smooth,
              y: smooth.map(
                (t) =>
                  fit.values[0]! +
                  a1! * Math.cos(t) +
                  b1! * Math.sin(t) +
                  a2 * Math.cos(2 * t) +
                  b2 * Math.sin(2 * t) +
                  (lobes >= 0 ? fit.values[lobes]! * Math.cos(3 * t) + fit.values[lobes + 1]! * Math.sin(3 * t) : 0),
              ),
              as: 'line',
              role: 'fit',
            },
          ],
        },
      ],
      advice: [
        ...dominantAdvice(found),
        ...(lobed
          ? [
              `It has three lobes as well, ${stated(Math.hypot(fit.values[lobes]!, fit.values[lobes + 1]!), 'length', 2)} each, ` +
                'as three jaws or three planets leave them: they are taken out of off-centre and oval.',
            ]
          : []),
        ...(trend >= 0
          ? [
              `From the first reading to the last the dial ${fit.values[trend]! > 0 ? 'climbs' : 'falls'} by ` +
                `${stated(Math.abs(fit.values[trend]!), 'length', 2)} besides: its stand gives or the part walks. It is taken out ` +
                'of the fit, but not of the total. Clamp the stand anew, go round once more and end at the first angle.',
            ]
          : []),
        ...(trend < 0 && rows.length === distinct
          ? ['Each angle was read once: a dial that drifts looks like a part off its middle. Go round twice.']
          : []),
        ...(both ? [] : ['With fewer than five angles oval and off-centre cannot be told apart: read at eight.']),
        ...(dof <= 0
          ? ['As many readings as unknowns: nothing is left to tell their scatter. Go round once more.']
          : []),
      ],
    });
  },
};
