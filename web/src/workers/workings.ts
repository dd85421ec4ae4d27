import { workingOf, type Figure, type FigureAddress, type LineReport, type Working } from '@gristmill/core';
import { useQuery } from '@tanstack/react-query';
import { corePool } from './core.ts';
import type { LineOf } from './api.ts';

/** Which line a figure stands in, and where. */
interface From {
  readonly line: LineOf;
  readonly at: FigureAddress;
}

/** Figures come from the worker without their workings; here is remembered what to ask for them by. */
const from = new WeakMap<Figure, From>();

/** Remembers of which line each figure of a report is. */
export function noteFigures(report: LineReport, line: LineOf): void {
  for (const f of report.figures) from.set(f, { line, at: { stageId: undefined, figureId: f.id } });
  for (const s of report.stages)
    for (const f of s.report?.figures ?? []) from.set(f, { line, at: { stageId: s.stageId, figureId: f.id } });
}

let asked = 0;
const keys = new WeakMap<Figure, number>();
const keyOf = (figure: Figure): number => {
  if (!keys.has(figure)) keys.set(figure, ++asked);
  return keys.get(figure)!;
};

/** The working of a figure, put into words when it is looked at; null where nobody knows it. */
export function useWorkingOf(figure: Figure): { working: Working | null | undefined; error: Error | null } {
  const own = workingOf(figure);
  const origin = from.get(figure);
  const q = useQuery({
    queryKey: ['working', keyOf(figure)],
    queryFn: async ({ signal }) =>
      (await corePool.run((api) => api.working(origin!.line, origin!.at), { signal })) ?? null,
    enabled: !own && origin !== undefined,
    staleTime: Infinity,
    gcTime: 10_000,
  });
  return { working: own ?? (origin ? q.data : null), error: q.error };
}
