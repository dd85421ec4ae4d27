import { lazy, Suspense } from 'react';
import type { PlotProps } from './Plot.tsx';

const Plot = lazy(() => import('./Plot.tsx'));

/** The plot, loaded when first shown. */
export const LazyPlot = (props: PlotProps) => (
  <Suspense fallback={<p className="label">Drawing the plot…</p>}>
    <Plot {...props} />
  </Suspense>
);
