import { Suspense, useDeferredValue, useEffect } from 'react';
import { view } from '../app/view.tsx';
import { Later } from './Later.tsx';
import type { PlotProps } from './Plot.tsx';

const load = () => import('./Plot.tsx');
const Plot = view(load);

/** The plot, loaded when first shown; several of them come one after another. */
export function LazyPlot(props: PlotProps) {
  // What was typed is answered first, its plot follows.
  const shown = useDeferredValue(props);
  // What draws it is fetched at once, though it is drawn later; where the server has gone meanwhile, the plot waits for it.
  useEffect(() => void load().catch(() => undefined), []);
  return (
    <Later>
      <Suspense fallback={<p className="label">Drawing the plot…</p>}>
        <Plot {...shown} />
      </Suspense>
    </Later>
  );
}
