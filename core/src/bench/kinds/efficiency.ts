import { stated } from '../../units/stated.ts';
import { ok, refuse } from '../../result.ts';
import type { TestKind } from '../contract.ts';
import { arm, hung, METERED, sketch } from '../rig-drawing.ts';
import { bendSays } from '../bend.ts';
import { fitLine } from '../regress.ts';
import { combine, fromBounds } from '../uncertainty.ts';
import { cell, column, countedRows, dominantAdvice, plainResult, rigOf, rigQuantity } from './rig-fields.ts';

const RIG = [
  rigQuantity(
    'ratio',
    'Ratio of the line',
    'From motor to output; 0 takes the variant’s own.',
    'ratio',
    0,
    0.1,
    0,
    1e5,
    ['ratio', 'i'],
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
    ['kt error', 'constant error'],
  ),
];

/**
 * Efficiency and drag from torque out against motor current. Source: T = η·i·k_t·(I − I₀): slope over i·k_t is η, the
 * current at no torque times k_t the drag at the motor.
 */
export const efficiency: TestKind = {
  id: 'efficiency',
  name: 'Efficiency',
  summary: 'Torque out against motor current over several loads: efficiency from the slope, drag from the intercept.',
  group: 'torque',
  rows: [],
  loaded: true,
  caution: 'Know the driver’s current limit and the emergency stop before power; stand clear of the lever’s plane.',
  steps: [
    'Lift a known load slowly and steadily, and read the motor’s current while it moves.',
    'Repeat with at least four loads, from light to heavy, all at one speed.',
    'Type the torque at the output and the current for each.',
  ],
  rig: RIG,
  columns: [
    column('torque', 'torque out', 'torque', '2.4 N·m', ['torque', 't_out', 'output']),
    column('current', 'motor current', 'current', '0.85 A', ['current', 'i_motor', 'amp']),
  ],
  sketch: () => sketch([...METERED, arm(90), ...hung(122, 76)]),
  analyse: (test, context) => {
    const rows = countedRows(test, 'torque', 'current');
    if (rows.length < 2)
      return refuse(
        rows.length === 0 ? 'There are no readings yet.' : 'One load gives no slope.',
        'Efficiency is how much torque each further ampere brings.',
        'Read the current at three or more loads.',
      );
    const rig = rigOf(RIG, test);
    const i = rig('ratio') || Math.abs(context.ratio ?? 0);
    const kt = rig('torqueConstant') || context.torqueConstant || 0;
    if (!(i > 0) || !(kt > 0))
      return refuse(
        i > 0 ? 'The motor’s torque constant is not known.' : 'The ratio is not known.',
        'The slope is torque per ampere: efficiency is that over ratio times torque constant.',
        i > 0 ? 'Type it in the rig; K_V gives it as 9.55/K_V.' : 'Type it in the rig.',
        i > 0 ? 'torqueConstant' : 'ratio',
      );
    const [x, y] = [rows.map((r) => cell(r, 'current')), rows.map((r) => cell(r, 'torque'))];
    const fit = fitLine(x, y);
    if (!fit || !(fit.slope > 0))
      return refuse(
        'The torque does not rise with the current.',
        fit ? 'More current went with less torque.' : 'Every reading has the same current.',
        'Read at loads that differ more, all while lifting.',
      );
    const eta = fit.slope / (i * kt);
    const found = combine(eta, 'efficiency', [
      {
        id: 'scatter',
        name: 'scatter about the line',
        u: fit.uSlope / (i * kt),
        dof: Math.max(1, fit.dof),
        halve: 'more loads, spread further apart',
      },
      {
        id: 'constant',
        name: 'torque constant',
        u: fromBounds(rig('constantError')) * eta,
        dof: Infinity,
        halve: 'the constant measured: spin the motor and read its voltage',
      },
    ]);
    const zero = -fit.intercept / fit.slope;
    // Var of −a/b by the delta method, slope and intercept correlated.
    const uZero =
      Math.sqrt(Math.max(0, fit.uIntercept ** 2 + zero * zero * fit.uSlope ** 2 + 2 * zero * fit.covariance)) /
      fit.slope;
    const top = Math.max(...x);
    // Through two points a line goes exactly: nothing is left to tell what it is worth.
    const worth = (U: number) => (fit.dof > 0 ? { U } : {});
    return ok({
      ...plainResult(
        test,
        rows.length,
        `Each ampere brings ${stated(fit.slope, 'torque')}; ${zero > 0 ? `${stated(zero, 'current', 3)} go into drag` : 'no drag shows'}.`,
      ),
      ...(fit.dof > 0 && { found }),
      figures: [
        ...(fit.dof > 0
          ? []
          : [
              {
                id: 'efficiency',
                name: 'Efficiency',
                quantity: 'efficiency' as const,
                value: eta,
                how: 'slope over ratio times torque constant, of two loads alone',
              },
            ]),
        {
          id: 'slope',
          name: 'Torque per ampere',
          quantity: 'torqueConstant',
          value: fit.slope,
          ...worth(fit.k * fit.uSlope),
          how: 'least squares of torque on current',
        },
        {
          id: 'drag',
          name: 'Drag at the motor',
          quantity: 'torque',
          value: zero * kt,
          ...worth(Math.hypot(fit.k * uZero, 1.96 * fromBounds(rig('constantError')) * zero) * kt),
          how: 'current at no torque times torque constant',
        },
        {
          id: 'noLoadCurrent',
          name: 'Current at no torque',
          quantity: 'current',
          value: zero,
          ...worth(fit.k * uZero),
          how: '−intercept/slope',
        },
        {
          id: 'residual',
          name: 'Scatter about the line',
          quantity: 'torque',
          value: fit.residual,
          how: 'standard deviation of the residuals',
        },
      ],
      plots: [
        {
          name: 'Torque against current',
          xName: 'current',
          x: 'current',
          yName: 'torque',
          y: 'torque',
          series: [
            { key: 'raw', name: 'read', x, y, as: 'points', role: 'raw' },
            {
              key: 'fit',
              name: 'fitted',
              x: [Math.min(0, zero), top],
              y: [fit.intercept + fit.slope * Math.min(0, zero), fit.intercept + fit.slope * top],
              as: 'line',
              role: 'fit',
            },
          ],
        },
      ],
      advice: [
        ...(fit.dof > 0
          ? dominantAdvice(found)
          : [
              'Through two loads a line goes exactly: nothing tells what it is worth, and none is stated. Read a third.',
            ]),
        ...bendSays(
          x,
          y,
          'drag that grows with the load, a motor that saturates',
          'Read two loads between the largest ones: if it bends there too, take the efficiency at the load that counts.',
        ),
        ...(eta > 1
          ? ['More than comes in goes out: the torque constant or the ratio is off, or the lever’s own weight helped.']
          : []),
        ...(rows.length === 3 ? ['With fewer than four loads the scatter is hardly known.'] : []),
      ],
    });
  },
};
