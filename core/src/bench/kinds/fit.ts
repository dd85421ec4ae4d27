import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { BenchTest } from '../../schema/joint.ts';
import type { FoundFigure, TestKind } from '../contract.ts';
import { circle, dimension, path, sketch, word } from '../rig-drawing.ts';
import { fitColumns } from '../regress.ts';
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
  rigChoice,
  rigText,
  type Row,
} from './rig-fields.ts';

const RIG = [
  rigChoice(
    'made',
    'Compensation so far',
    'It may live in the drawing or in the slicer, never in both.',
    [
      { value: 'none', label: 'none' },
      { value: 'outline', label: 'in the exported outline' },
      { value: 'slicer', label: 'in the slicer' },
    ],
    ['compensation'],
  ),
];
const FEATURES = [
  { value: 'outside', label: 'outside' },
  { value: 'hole', label: 'hole' },
  { value: 'span', label: 'span over teeth' },
];

/** A feature beyond so many standard deviations of the others is no scatter. */
const FAR = 4;

/** The feature that lies far off what the others say, in words; nothing where none does or too few are left to tell. */
function farOff(test: BenchTest, rows: readonly Row[], left: Float64Array, dof: number): string[] {
  if (dof < 4) return [];
  const worst = left.reduce((w, v, i) => (Math.abs(v) > Math.abs(left[w]!) ? i : w), 0);
  const others = left.reduce((s, v, i) => (i === worst ? s : s + v * v), 0) / (dof - 1);
  if (!(Math.abs(left[worst]!) > FAR * Math.sqrt(others)) || !(Math.abs(left[worst]!) > 1e-6)) return [];
  return [
    `Row ${test.readings.indexOf(rows[worst]!) + 1} (drawn ${stated(cell(rows[worst]!, 'drawn'), 'length', 4)}) lies ${stated(Math.abs(left[worst]!), 'length', 2)} ` +
      'off what the others say: a seam, a spread first layer, or a slip of the caliper. Measure it again higher up, or strike it out.',
  ];
}

/**
 * How a process makes sizes: scale along x and y, contours out, holes in. Source: least squares of measured on drawn,
 * outside d(1 + s) + 2c_out, holes d(1 + s) − 2c_in, a span as an outside (ΔW = 2c).
 */
export const fit: TestKind = {
  id: 'fit',
  name: 'Made against drawn',
  summary: 'Steps, holes and spans of a coupon or a gear, drawn and measured: what to compensate.',
  group: 'made size',
  rows: [],
  measures: 'length',
  caution: 'Let parts cool before measuring; cut and grind with eye protection.',
  steps: [
    'Print a coupon of steps and holes, or take a gear that is there.',
    'Measure outsides and holes along x and along y, small and large ones.',
    'Type the drawn and the measured size of each.',
  ],
  rig: RIG,
  teachesProcess: true,
  columns: [
    { as: 'choice', id: 'feature', label: 'what', options: FEATURES, words: ['feature', 'what', 'kind', 'type'] },
    {
      as: 'choice',
      id: 'axis',
      label: 'along',
      options: [
        { value: 'x', label: 'x' },
        { value: 'y', label: 'y' },
      ],
      words: ['axis', 'along', 'direction'],
    },
    column('drawn', 'drawn', 'length', '20 mm', ['drawn', 'nominal', 'design'], { positive: true }),
    column('measured', 'measured', 'length', '20.14 mm', ['measured', 'made', 'actual'], { positive: true }),
  ],
  sketch: () =>
    sketch([
      path('M24 40h60v60h-60Z', 'ink', 'part'),
      circle(54, 70, 14, 'ink', 'panel'),
      path('M120 40h66v60h-66Z', 'ink', 'other', true),
      path('M116 36h74v68h-74Z', 'hot'),
      word(153, 74, 'made', 'found'),
      word(153, 124, 'drawn, dashed'),
      ...dimension(24, 84, 132, 'x'),
    ]),
  analyse: (test, context) => {
    const rows = countedRows(test, 'drawn', 'measured');
    if (rows.length < 2)
      return refuse(
        rows.length === 0 ? 'There are no readings yet.' : 'One size cannot tell scale from contour.',
        'Both change a size, one by its share, the other by a fixed amount.',
        'Measure a small and a large feature at least.',
      );
    const hole = (r: (typeof rows)[number]) => r.values['feature'] === 'hole';
    const alongY = (r: (typeof rows)[number]) => r.values['axis'] === 'y';
    const spread = (list: number[]) => list.length > 1 && Math.max(...list) > 1.2 * Math.min(...list);
    const parts: {
      id: string;
      name: string;
      how: string;
      pick: (r: (typeof rows)[number]) => number;
      scale: boolean;
    }[] = [
      {
        id: 'scaleX',
        name: 'Scale along x, off by',
        how: 's_x',
        pick: (r) => (alongY(r) ? 0 : cell(r, 'drawn')),
        scale: true,
      },
      {
        id: 'scaleY',
        name: 'Scale along y, off by',
        how: 's_y',
        pick: (r) => (alongY(r) ? cell(r, 'drawn') : 0),
        scale: true,
      },
      {
        id: 'out',
        name: 'Outer contours out by',
        how: 'c_out: half of what outsides gain',
        pick: (r) => (hole(r) ? 0 : 2),
        scale: false,
      },
      {
        id: 'in',
        name: 'Holes in by',
        how: 'c_in: half of what holes lose',
        pick: (r) => (hole(r) ? -2 : 0),
        scale: false,
      },
    ];
    // Scale needs sizes that differ along its axis; otherwise it is taken as true.
    const used = parts.filter(
      (p) =>
        rows.some((r) => p.pick(r) !== 0) &&
        (!p.scale || spread(rows.filter((r) => p.pick(r) !== 0).map((r) => cell(r, 'drawn')))),
    );
    const off = Float64Array.from(rows, (r) => cell(r, 'measured') - cell(r, 'drawn'));
    const columnsOfFit = used.map((p) => Float64Array.from(rows, p.pick));
    const f = rows.length >= used.length ? fitColumns(columnsOfFit, off) : undefined;
    if (!f)
      return refuse(
        'These sizes do not tell the parts of the fit apart.',
        'Scale and contour change them alike.',
        'Add features of other sizes, outsides as well as holes.',
      );
    const dof = rows.length - used.length;
    const k = dof > 0 ? student95(dof) : 12.7;
    const at = (id: string) => used.findIndex((p) => p.id === id);
    const head = at('out') >= 0 ? at('out') : at('in');
    const instrument = instrumentOf(test, context);
    const found = combine(f.values[head]!, 'length', [
      {
        id: 'scatter',
        name: 'scatter about the fit',
        u: Math.sqrt(f.covariance[head]![head]!),
        dof: Math.max(1, dof),
        halve: 'four times as many features',
      },
      ...instrumentBudget(instrument, 0.5),
    ]);
    const figures: FoundFigure[] = used.map((p, i) => ({
      id: p.id,
      name: p.name,
      quantity: p.scale ? ('efficiency' as const) : ('length' as const),
      value: f.values[i]!,
      U: k * Math.sqrt(f.covariance[i]![i]!),
      how: p.how,
    }));
    const sigma = dof > 0 ? Math.sqrt(f.rss / dof) : 0;
    const made = rigText(RIG, test)('made');
    // To a tenth of a micrometre: below it is arithmetic.
    const mm = (x: number) => `${stated(Math.round(Math.abs(x) * 1e7) / 1e7, 'length', 5)}`;
    const out = f.values[at('out')] ?? 0;
    const into = f.values[at('in')] ?? 0;
    const fitted = rows.map((_, i) => used.reduce((s, _p, j) => s + columnsOfFit[j]![i]! * f.values[j]!, 0));
    return ok({
      ...plainResult(
        test,
        rows.length,
        [
          ...(at('out') >= 0
            ? [out < 0 ? `put ${mm(out)} onto every outer contour` : `take ${mm(out)} off every outer contour`]
            : []),
          ...(at('in') >= 0 ? [`${into < 0 ? 'close' : 'open'} every hole’s contour by ${mm(into)}`] : []),
        ]
          .join(' and ')
          .replace(/^./, (c) => c.toUpperCase()) +
          `${made === 'none' ? '' : `, on top of what is already in the ${made === 'slicer' ? 'slicer' : 'outline'}`}.`,
      ),
      found,
      figures: [
        ...figures,
        {
          id: 'spread',
          name: 'Spread of a made size',
          quantity: 'length',
          value: sigma,
          how: 'standard deviation of the residuals',
        },
      ],
      plots: [
        {
          name: 'Off the drawing by size',
          xName: 'drawn',
          x: 'length',
          yName: 'measured − drawn',
          y: 'length',
          series: [
            { key: 'raw', name: 'measured', x: rows.map((r) => cell(r, 'drawn')), y: off, as: 'points', role: 'raw' },
            { key: 'fit', name: 'fitted', x: rows.map((r) => cell(r, 'drawn')), y: fitted, as: 'points', role: 'fit' },
          ],
        },
      ],
      advice: [
        ...farOff(
          test,
          rows,
          Float64Array.from(off, (v, i) => v - fitted[i]!),
          dof,
        ),
        ...dominantAdvice(found),
        ...(at('in') < 0 ? ['No hole was measured: holes come out small, and by another amount.'] : []),
        ...(at('out') < 0 ? ['No outside was measured.'] : []),
        ...parts
          .filter((p) => p.scale && !used.includes(p))
          .map(
            (p) =>
              `Sizes along ${p.id === 'scaleX' ? 'x' : 'y'} are too much alike to tell its scale: it is taken as true.`,
          ),
        ...(dof < 3 ? ['With so few features the scatter is hardly known: measure ten or more.'] : []),
        'Put it into the exported outline or into the slicer, never into both. Taken over to its process, it is right for every joint that is made by it.',
      ],
    });
  },
};
