import { formatQuantity, inUnits, stated } from '@gristmill/core';
import type { ProcessFit } from '@gristmill/core/fit/process-fit';
import { useUnits } from '../state/prefs.ts';

/** Expanded uncertainties are for 95 %. */
const K = 1.96;

const LENGTHS = [
  ['out', 'Outsides stand out, a side'],
  ['into', 'Holes close in, a side'],
] as const;
const SCALES = [
  ['scaleX', 'Longer along x by'],
  ['scaleY', 'Longer along y by'],
] as const;

const HOW =
  'Least squares of made − drawn: drawn·s + 2·c for outsides, drawn·s − 2·c for holes, 2·f more at the bed. It begins from the starting values of the type with their uncertainty, entry by entry; a year adds 0.03 mm to a contour and 0.1 % to a scale, by squares. ± is for 95 %.';

/** What a process does to sizes, with uncertainties. */
export function FitNumbers({ fit, printed }: { fit: ProcessFit; printed: boolean }) {
  const units = useUnits();
  const length = (x: number) => formatQuantity(Math.abs(x) < 5e-8 ? 0 : x, 'length', { length: 'µm', ...units }, 3);
  const about = (x: number) => formatQuantity(x, 'length', { length: 'µm', ...units }, 2);
  const percent = (x: number) => `${(100 * x).toFixed(2).replace('-', '−')} %`;
  const rows: [string, string, string][] = [
    ...LENGTHS.map(([id, name]): [string, string, string] => [name, length(fit[id].value), about(K * fit[id].u)]),
    ...SCALES.map(([id, name]): [string, string, string] => [name, percent(fit[id].value), percent(K * fit[id].u)]),
    ...(printed
      ? ([
          ['Foot spreads, a side', length(fit.foot.value), about(K * fit.foot.u)],
          ['Foot is high', length(fit.footHigh.value), about(K * fit.footHigh.u)],
        ] as [string, string, string][])
      : []),
    ['A size scatters by, standard deviation', length(fit.spread.value), about(K * fit.spread.u)],
  ];
  return (
    <>
      <table className="w-full" aria-label="What it does to sizes">
        <tbody>
          {rows.map(([name, value, u]) => (
            <tr key={name} className="rule-b">
              <th scope="row" className="text-left font-normal">
                {name}
              </th>
              <td className="num whitespace-nowrap text-right">{value}</td>
              <td className="num whitespace-nowrap pr-0 text-right text-muted">± {u}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <details>
        <summary className="label cursor-pointer">
          {fit.counted === 0
            ? 'starting values of its type'
            : `${fit.counted} readings${fit.age === undefined ? '' : `, the last ${fit.age === 0 ? 'today' : `${fit.age} days ago`}`}`}
          ; how it comes about
        </summary>
        <p className="label">{HOW}</p>
        {/* Uncertainty of what a size of that long comes out as. */}
        <p className="label">
          {inUnits(
            `An outside of ${stated(0.02, 'length', 3)} along x comes out at ${stated(
              0.02 * (1 + fit.scaleX.value) + 2 * fit.out.value,
              'length',
              6,
            )}, a hole of ${stated(0.01, 'length', 3)} at ${stated(
              0.01 * (1 + (fit.scaleX.value + fit.scaleY.value) / 2) - 2 * fit.into.value,
              'length',
              6,
            )}.`,
            units,
          )}
        </p>
      </details>
    </>
  );
}
