import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { METERED, sketch, word } from '../rig-drawing.ts';
import { bendSays } from '../bend.ts';
import { fitLine } from '../regress.ts';
import { combine, fromBounds } from '../uncertainty.ts';
import {
  cell,
  column,
  countedRows,
  dominantAdvice,
  plainResult,
  rigChoice,
  rigOf,
  rigQuantity,
  rigText,
} from './rig-fields.ts';

const RIG = [
  rigChoice(
    'by',
    'Read',
    'Motor current, or the supply’s power.',
    [
      { value: 'current', label: 'motor current' },
      { value: 'power', label: 'supply power' },
    ],
    ['by', 'read'],
  ),
  rigQuantity(
    'torqueConstant',
    'Torque constant',
    'Of the motor; 0 takes the variant’s own.',
    'torqueConstant',
    0,
    1e-3,
    0,
    1e3,
    ['kt', 'torque constant'],
  ),
  rigQuantity(
    'constantError',
    'Its largest error, share',
    'Data sheets are good to about 5 %.',
    'efficiency',
    0.05,
    0.01,
    0,
    1,
    ['constant error'],
  ),
  rigQuantity('idlePower', 'Power at rest', 'What the driver takes with the motor still.', 'power', 0, 0.1, 0, 1e5, [
    'idle',
    'rest power',
  ]),
];

/**
 * Drag and viscous part from current or power over speed. Source: k_t·I = T₀ + b·ω; from power (P − P₀)/ω, which still
 * has copper losses in it.
 */
export const noLoad: TestKind = {
  id: 'no-load',
  name: 'No-load',
  summary: 'Current or supply power over speed, nothing on the output: drag, viscous part, starting current.',
  group: 'torque',
  rows: [],
  caution: 'Cover belts, wheels and shafts before power; emergency stop in reach.',
  steps: [
    'Take everything off the output.',
    'Run at five or more speeds, each long enough to settle, and read current or power.',
    'Note the current at which it just begins to turn as a reading at speed 0.',
  ],
  rig: RIG,
  columns: [
    column('speed', 'motor speed', 'speed', '600 rpm', ['speed', 'rpm', 'omega']),
    column('current', 'current', 'current', '0.21 A', ['current', 'amp'], { optional: true }),
    column('power', 'supply power', 'power', '4.8 W', ['power', 'watt'], { optional: true }),
  ],
  sketch: () => sketch([...METERED, word(120, 92, 'nothing on the output', 'muted')]),
  analyse: (test, context) => {
    const rig = rigOf(RIG, test);
    const by =
      countedRows(test, 'speed', 'current').length === 0 && countedRows(test, 'speed', 'power').length > 0
        ? 'power'
        : rigText(RIG, test)('by');
    const rows = countedRows(test, 'speed', by);
    const kt = rig('torqueConstant') || context.torqueConstant || 0;
    if (by === 'current' && !(kt > 0))
      return refuse(
        'The motor’s torque constant is not known.',
        'Current becomes torque through it.',
        'Type it in the rig.',
        'torqueConstant',
      );
    const moving = rows.filter((r) => Math.abs(cell(r, 'speed')) > 1e-3);
    if (moving.length < 2)
      return refuse(
        rows.length === 0 ? 'There are no readings yet.' : 'One speed tells nothing about the part that grows with it.',
        'Drag is what is left at no speed, the viscous part is the slope.',
        'Read at three or more speeds.',
      );
    const x = moving.map((r) => Math.abs(cell(r, 'speed')));
    const y = moving.map((r, k) =>
      by === 'current' ? kt * Math.abs(cell(r, 'current')) : (cell(r, 'power') - rig('idlePower')) / x[k]!,
    );
    const fit = fitLine(x, y);
    if (!fit)
      return refuse(
        'Every reading is at the same speed.',
        'Then drag and viscous part cannot be told apart.',
        'Read at other speeds as well.',
      );
    const found = combine(fit.intercept, 'torque', [
      {
        id: 'scatter',
        name: 'scatter about the line',
        u: fit.uIntercept,
        dof: Math.max(1, fit.dof),
        halve: 'more speeds, some of them slow',
      },
      ...(by === 'current'
        ? [
            {
              id: 'constant',
              name: 'torque constant',
              u: fromBounds(rig('constantError')) * Math.abs(fit.intercept),
              dof: Infinity,
              halve: 'the constant measured',
            },
          ]
        : []),
    ]);
    const starts = rows.filter((r) => Math.abs(cell(r, 'speed')) <= 1e-3).map((r) => cell(r, by));
    const top = Math.max(...x);
    // Through two points a line goes exactly: nothing is left to tell what it is worth.
    const worth = (U: number) => (fit.dof > 0 ? { U } : {});
    return ok({
      ...plainResult(
        test,
        rows.length,
        `At the motor ${stated(fit.intercept, 'torque', 3)} of drag at a standstill, ` +
          `${stated(fit.intercept + fit.slope * top, 'torque', 3)} at ${stated(top, 'speed', 3)}.`,
      ),
      ...(fit.dof > 0 && { found }),
      figures: [
        {
          id: 'drag',
          name: 'Drag at the motor',
          quantity: 'torque',
          value: fit.intercept,
          ...worth(found.U),
          how: 'intercept of torque on speed',
        },
        {
          id: 'viscous',
          name: 'Viscous part',
          quantity: 'damping',
          value: fit.slope,
          ...worth(
            Math.hypot(fit.k * fit.uSlope, by === 'current' ? 1.96 * fromBounds(rig('constantError')) * fit.slope : 0),
          ),
          how: 'slope of torque on speed',
        },
        ...(starts.length && by === 'current'
          ? [
              {
                id: 'startingCurrent',
                name: 'Starting current',
                quantity: 'current' as const,
                value: Math.max(...starts),
                how: 'reading at no speed',
              },
              {
                id: 'startingTorque',
                name: 'Starting torque',
                quantity: 'torque' as const,
                value: Math.max(...starts) * kt,
                how: 'starting current times torque constant',
              },
            ]
          : []),
      ],
      plots: [
        {
          name: 'Torque at the motor over speed',
          xName: 'speed',
          x: 'speed',
          yName: 'torque',
          y: 'torque',
          series: [
            { key: 'raw', name: 'read', x, y, as: 'points', role: 'raw' },
            {
              key: 'fit',
              name: 'fitted',
              x: [0, top],
              y: [fit.intercept, fit.intercept + fit.slope * top],
              as: 'line',
              role: 'fit',
            },
          ],
        },
      ],
      advice: [
        ...dominantAdvice(found),
        ...bendSays(
          x,
          y,
          'grease that thins, a bearing that drags by the power of two thirds',
          'Read two speeds more at the slow end: drag at a standstill is told there.',
        ),
        ...(by === 'power' ? ['Power has the winding’s and the driver’s losses in it: the current tells more.'] : []),
        ...(fit.intercept < 0
          ? ['A negative drag cannot be: a slow reading is off, or the power at rest is too large.']
          : []),
        ...(starts.length ? [] : ['Note the current at which it just begins to turn, at speed 0.']),
      ],
    });
  },
};
