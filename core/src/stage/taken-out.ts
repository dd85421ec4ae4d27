import {
  check,
  exact,
  term,
  type Check,
  type Figure,
  type FigureMaker,
  type Mend,
  type Working,
} from '../figure/index.ts';
import { taperMove, type PlayOut, type TakenOut } from '../gear/taken-out.ts';
import { stated } from '../units/stated.ts';
import type { Duty } from './contract.ts';
import { IN_HAND } from './limits.ts';

/** How a stage's play is taken out. */
interface Ways {
  readonly takenOut: TakenOut;
  readonly preload: number;
  readonly taper: number;
}

const sprung = (p: Ways): boolean => p.takenOut === 'split' || p.takenOut === 'spring';

/**
 * What taking the play out of a mesh leaves and costs: none where it is not.
 *
 * @param working pressure angle of the mesh, rad
 */
export function takenOutFigures<M extends { readonly out: PlayOut; readonly before: number }>(
  p: Ways,
  working: number,
  m: M,
  make: FigureMaker<M>,
): Figure[] {
  const Fs = term('F_s', 'spring force', p.preload, 'force', 'field', 'preload');
  const angle = term('α_wt', 'working angle', working, 'angle', 'computed');
  if (sprung(p))
    return [
      make.figure(
        'opens',
        'Tooth force that opens the play again',
        'force',
        (x) => x.out.opens,
        () => ({
          formula: p.takenOut === 'split' ? 'F_s' : 'F_s/tan α_wt',
          terms: [Fs, angle],
          source: 'force balance on the flanks',
        }),
      ),
      make.figure(
        'braking',
        'Friction of the springs’ force',
        'force',
        (x) => x.out.drag,
        () => ({
          formula: p.takenOut === 'split' ? '2·F_s·(1 − η)' : 'F_s/tan α_wt·(1 − η)',
          terms: [Fs, angle],
          source: 'both flanks rub all the time, along the working circle',
        }),
      ),
    ];
  if (p.takenOut !== 'taper') return [];
  return [
    exact(
      'move',
      'Tapered wheel moved along its axis',
      'length',
      taperMove(m.before, p.taper, Math.tan(working)),
      () => ({
        formula: 'j/(2·tan θ·tan α)',
        terms: [
          term('j', 'play taken out', m.before, 'length', 'computed'),
          term('θ', 'taper', p.taper, 'angle', 'field', 'taper'),
        ],
        source: 'the shift runs with the width',
      }),
    ),
  ];
}

/** Springs that hold; none that nobody could hook in. */
const springMend = (needs: number, path = 'preload'): Mend | undefined =>
  needs > 0 && needs < 1e5 ? { path, value: needs, label: `Spring force ${stated(needs, 'force', 4)}` } : undefined;

/**
 * Whether springs that take the play out hold under the peak.
 *
 * @param radius of the wheel at the output, m
 */
export function takenOutChecks(p: Ways, at: Duty, out: PlayOut, radius: number): Check[] {
  if (!sprung(p)) return [];
  const needs = Math.ceil((at.torque / radius / Math.max(out.opens, 1e-9)) * p.preload * IN_HAND);
  return [
    check({
      id: 'opens',
      of: 'opens',
      name: 'Stays without play under the peak',
      figure: at.torque / radius,
      limit: out.opens,
      sense: 'max',
      quantity: 'force',
      severity: 'warn',
      why: 'Beyond it the load overcomes the springs, and the play of the pair is there again.',
      mend: springMend(needs),
      advice: 'Stronger springs cost friction; or let the play come back where the load is high.',
    }),
  ];
}

/** A stage whose play springs take out. */
interface Sprung {
  /** Load at which the play is back, N·m at the output. */
  readonly opens: number;
  /** What the springs cost, N·m at the output. */
  readonly braking: number;
}

/** What springs that take play out hold and cost at an output that turns, with how either comes about. */
export const sprungFigures = <M extends Sprung>(
  make: FigureMaker<M>,
  opens: () => Working,
  braking: () => Working,
): Figure[] => [
  make.figure('opens', 'Torque that opens the play again', 'torque', (x) => x.opens, opens),
  make.figure('braking', 'Friction of the springs’ force', 'torque', (x) => x.braking, braking),
];

/** The same of springs on planets. */
export function sprungPlanetFigures<M extends Sprung>(preload: number, make: FigureMaker<M>): Figure[] {
  const terms = [term('F_s', 'spring force, each planet', preload, 'force', 'field', 'preload')];
  return sprungFigures(
    make,
    () => ({
      formula: 'F_s over the mean tooth force of a newton metre; half of it where planets are pushed in pairs',
      terms,
      source: 'force balance on the flanks',
    }),
    () => ({
      formula:
        'Σ F_s·(1 − η) over the flanks that are pressed, along the planets’ circles, and pushed pins in their bores',
      terms,
      source: 'they rub all the time, whatever the load is; of one set, at its output',
    }),
  );
}

/**
 * Whether springs that hold a torque hold the peak.
 *
 * @param path of the force that their field sets, N
 */
export function sprungChecks(
  pressed: boolean,
  preload: number,
  at: Duty,
  m: Pick<Sprung, 'opens'>,
  path = 'preload',
): Check[] {
  if (!pressed) return [];
  const needs = Math.ceil((at.torque / Math.max(m.opens, 1e-9)) * preload * IN_HAND);
  return [
    check({
      id: 'opens',
      of: 'opens',
      name: 'Stays without play under the peak',
      figure: at.torque,
      limit: m.opens,
      sense: 'max',
      quantity: 'torque',
      severity: 'warn',
      why: 'Beyond it the load overcomes the springs, and the play of the teeth is there again.',
      mend: springMend(needs, path),
      advice: 'Stronger springs cost friction; or let the play come back where the load is high.',
    }),
  ];
}
