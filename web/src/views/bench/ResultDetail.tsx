import { differenceOf, formatQuantity, sayUncertain, type Finding, type TestPlot } from '@gristmill/core';
import { useMemo } from 'react';
import { LazyPlot } from '../../parts/LazyPlot.tsx';
import { useUnits } from '../../state/prefs.ts';
import { useSaid } from '../../state/said.ts';

const COLOUR = { raw: 'var(--found)', fit: 'var(--expected)', other: 'var(--muted)' };

/** Lines and dots of a plot in the colours of their roles. */
const shownOf = ({ series }: TestPlot) => ({
  lines: series
    .filter((s) => s.as === 'line')
    .map((s) => ({
      key: s.key,
      name: s.name,
      x: s.x,
      y: s.y,
      colour: COLOUR[s.role],
      width: s.role === 'raw' ? 1.1 : 1.6,
      ...(s.role === 'other' && { dash: '4 3' }),
    })),
  dots: series.filter((s) => s.as === 'points').map((s) => ({ key: s.key, x: s.x, y: s.y, colour: COLOUR[s.role] })),
});

/** A plot of a test: readings as dots, what was fitted as lines. */
export function TestPlotView({ plot, height }: { plot: TestPlot; height: string }) {
  // The same objects for the same plot: what is drawn of it is not made again at every render.
  const { lines, dots } = useMemo(() => shownOf(plot), [plot]);
  return (
    <div className={height}>
      <LazyPlot
        name={plot.name}
        x={plot.x}
        y={plot.y}
        xName={plot.xName}
        yName={plot.yName}
        level={plot.level}
        series={lines}
        dots={dots}
      />
    </div>
  );
}

/** Figures, plots, orders and advice of a test. */
export function ResultDetail({ finding }: { finding: Finding | undefined }) {
  const units = useUnits();
  const said = useSaid();
  const result = finding?.result;
  if (!result) return null;
  return (
    <section aria-label="What it rests on" className="space-y-2">
      <table className="w-full text-[13px]" aria-label="Figures of the test">
        <tbody>
          {result.figures.map((f) => (
            <tr key={f.id} className="rule-b" title={said(f.how)}>
              <td className="py-[2px] pr-3">{f.name}</td>
              <td className="num whitespace-nowrap py-[2px] pr-3 text-right text-found" data-test-figure={f.id}>
                {f.U === undefined
                  ? formatQuantity(f.value, f.quantity, units, 4)
                  : sayUncertain(f.value, f.U, f.quantity, units)}
              </td>
              <td className="label py-[2px]">{said(f.how)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {result.plots
        .filter((p, i) => i > 0 || p.below)
        .map((p) => (
          <TestPlotView key={p.name} plot={p} height="h-[230px]" />
        ))}
      {result.peaks?.length ? (
        <table className="w-full text-[12.5px]" aria-label="Orders and their suspects">
          <thead>
            <tr className="border-b border-strong">
              <th className="text-right">a turn</th>
              <th className="pr-3 text-right">amplitude</th>
              <th>likely made by</th>
            </tr>
          </thead>
          <tbody>
            {result.peaks.map((p) => (
              <tr key={p.order} className="rule-b align-top">
                <td className="num py-[2px] pr-3 text-right">{p.order.toPrecision(4)}</td>
                <td className="num whitespace-nowrap py-[2px] pr-3 text-right">
                  {p.quantity === 'count'
                    ? p.amplitude.toPrecision(2)
                    : p.U === undefined
                      ? formatQuantity(p.amplitude, p.quantity, units, 2)
                      : p.U < p.amplitude
                        ? sayUncertain(p.amplitude, p.U, p.quantity, units)
                        : `up to ${formatQuantity(p.amplitude + p.U, p.quantity, units, 2)}`}
                  {p.significance !== undefined && (
                    <span className="label block">{`${Number(p.significance.toPrecision(2))} × noise`}</span>
                  )}
                </td>
                <td className="py-[2px]">
                  {p.suspects.length
                    ? said(p.suspects.map((s) => `${s.name}: ${s.means}`).join('; or '))
                    : 'no part of the line'}
                  <span className="label block">{said(p.next)}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {result.advice.length ? (
        <ul className="list-disc pl-5 text-[13px]" aria-label="What to read next">
          {result.advice.map((a) => (
            <li key={a}>{said(a)}</li>
          ))}
        </ul>
      ) : null}
      {finding.found?.budget.length ? (
        <table className="w-full text-[12.5px]" aria-label="Budget of the uncertainty">
          <thead>
            <tr className="border-b border-strong">
              <th>part of the uncertainty</th>
              <th className="text-right">standard</th>
              <th className="pl-3">what would halve it</th>
            </tr>
          </thead>
          <tbody>
            {finding.found.budget
              .filter((c) => c.u > 0)
              .map((c) => (
                <tr key={c.id} className="rule-b">
                  <td className="py-[2px]">{c.name}</td>
                  <td className="num py-[2px] text-right">
                    {formatQuantity(c.u, differenceOf(finding.found!.quantity), units, 2)}
                  </td>
                  <td className="label py-[2px] pl-3">{said(c.halve)}</td>
                </tr>
              ))}
          </tbody>
        </table>
      ) : null}
    </section>
  );
}

/** The plot that tells most, above the readings. */
export function FirstPlot({ finding }: { finding: Finding | undefined }) {
  const plot = finding?.result?.plots[0];
  return plot && !plot.below ? (
    <div className="pt-2">
      <TestPlotView plot={plot} height="h-[236px]" />
    </div>
  ) : null;
}
