import { given } from './arriving.ts';
import { term, type Figure, type FigureMaker } from '../figure/index.ts';
import type { Duty, StageNumbers } from './contract.ts';
import { TURNS, type OutputUnits } from './output-units.ts';

/**
 * Share of what goes in that comes out with the drag counted, T/(T/η + τ₀·|i|): it falls as the load does, since the drag
 * stays.
 *
 * @param torque at the output, N·m
 * @example withDrag({ etaForward: 0.8, drag: 0.01, ratio: -20 }, 2) // 0.740741
 */
export const withDrag = (
  n: Pick<StageNumbers, 'etaForward' | 'branched' | 'drag' | 'ratio'>,
  torque: number,
): number => {
  const out = torque * given(n);
  return out / (out / n.etaForward + n.drag * Math.abs(n.ratio));
};

/** What is left of the peak where a joint is looked at lightly loaded. */
const PART = 0.25;

/**
 * Efficiencies that a bench finds, drag and all: at the peak and at a quarter of it. None without a load, or where a stage
 * cannot be driven.
 */
export function partLoadFigures<M extends { readonly numbers: StageNumbers }>(
  make: FigureMaker<M>,
  { numbers }: M,
  at: Duty,
  units: OutputUnits = TURNS,
): Figure[] {
  if (!(at.torque > 0) || !(numbers.etaForward > 0)) return [];
  const of = (id: string, name: string, torque: number) =>
    make.figure(
      id,
      name,
      'efficiency',
      (m) => withDrag(m.numbers, torque),
      () => ({
        formula: 'T/(T/η + τ₀·|i|)',
        terms: [
          term(
            'T',
            numbers.branched ? 'load at output and branches' : 'load at the output',
            torque * given(numbers),
            units.load,
            'brief',
          ),
          term('η', 'efficiency under load alone', numbers.etaForward, 'efficiency', 'computed'),
          term('τ₀', 'no-load torque at the input', numbers.drag, 'torque', 'computed'),
          term('i', 'ratio', numbers.ratio, 'ratio', 'computed'),
        ],
        source: 'power out over power in; the drag stays where the load falls',
      }),
    );
  return [
    of('efficiencyPeak', 'Efficiency at the peak, drag and all', at.torque),
    of('efficiencyPart', 'Efficiency at a quarter of it', PART * at.torque),
  ];
}
