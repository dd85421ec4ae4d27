import { lazy, Suspense } from 'react';
import { Later } from './Later.tsx';
import type { PlotProps } from './Plot.tsx';

const Plot = lazy(() => import('./Plot.tsx'));

/** The plot, loaded when first shown; several of them come one after another. */
export const LazyPlot = (props: PlotProps) => (
  <Later>
    <Suspense fallback={<p className="label">Drawing the plot…</p>}>
      <Plot {...props} />
    </Suspense>
  </Later>
);
