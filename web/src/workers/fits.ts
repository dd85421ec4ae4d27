import type { Result } from '@gristmill/core';
import type { FitSheet } from '@gristmill/core/fit/fit-sheet';
import type { LineJam } from '@gristmill/core/fit/line-jam';
import { reservesOf } from '@gristmill/core/fit/reserves';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { proxy } from 'comlink';
import { useState } from 'react';
import { today } from '../state/bench.ts';
import { useJoint, useVariant } from '../state/open.ts';
import { useEdits } from '../state/shelf.ts';
import { contentId } from './content.ts';
import { corePool } from './core.ts';
import { useLine } from './queries.ts';

/** Specimens that are imagined. */
export const SAMPLES = 100_000;

/**
 * Fits of the open variant, and what its parts are drawn like for their processes.
 *
 * @param drawFits whether round faces are drawn as their fits ask for
 */
export function useFitSheet(drawFits = true): {
  readonly sheet: Result<FitSheet> | undefined;
  /** It is of the variant as it is now, and not of a moment ago. */
  readonly current: boolean;
} {
  const variant = useVariant();
  const shop = useEdits();
  const { report } = useLine();
  const reserves = reservesOf(report);
  const { motor, mount, output, housing, stages, making } = variant;
  const inputs = [motor, mount, output, housing, stages, making, shop].map(contentId);
  const day = today();
  const q = useQuery({
    queryKey: ['fit-sheet', variant.id, day, drawFits, reserves.join(), ...inputs],
    queryFn: ({ signal }) =>
      corePool.run(
        (api) =>
          api.fitSheet(
            { motor, mount, output, housing, stages, making } as typeof variant,
            shop,
            day,
            reserves,
            drawFits,
          ),
        { signal },
      ),
    staleTime: Infinity,
    gcTime: 30_000,
    placeholderData: keepPreviousData,
  });
  return { sheet: q.data, current: q.data !== undefined && !q.isPlaceholderData };
}

/** Imagined specimens of the open variant; the last ones stay in sight while new ones are drawn. */
export function useJam(
  moves: number | undefined,
  rise: number,
): { jam: Result<LineJam> | undefined; share: number; drawing: boolean; error: Error | null } {
  const { brief } = useJoint();
  const variant = useVariant();
  const shop = useEdits();
  const [share, setShare] = useState(0);
  const { stages, making, housing } = variant;
  const day = today();
  const q = useQuery({
    queryKey: [
      'jam',
      variant.id,
      day,
      moves ?? 'all',
      rise,
      ...[stages, making, housing, brief.limits, shop].map(contentId),
    ],
    queryFn: ({ signal }) => {
      setShare(0);
      return corePool.run(
        (api) =>
          api.jam(
            {
              variant: { stages, making, housing } as typeof variant,
              brief,
              day,
              ...(moves !== undefined && { moves }),
              rise,
              samples: SAMPLES,
            },
            shop,
            proxy(setShare),
          ),
        { signal },
      );
    },
    enabled: stages.length > 0,
    staleTime: Infinity,
    gcTime: 30_000,
    placeholderData: keepPreviousData,
    structuralSharing: false,
  });
  return { jam: q.data, share, drawing: q.isFetching, error: q.error };
}
