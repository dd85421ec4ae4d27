import { readParams, stageKind, type Duty, type Result, type Shelf, type StageReport } from '../src/index.ts';

/** One kind with starting values that tests change one thing of at a time; what cannot be throws its own words. */
export function stageBench(id: string, plain: Record<string, unknown>, duty: Duty, shelf: Shelf) {
  const kind = stageKind(id)!;
  const params = (over: Record<string, unknown>): Record<string, unknown> => {
    const r = readParams(id, { ...plain, ...over });
    if (!r.ok) throw new Error(r.problem.what);
    return r.value as Record<string, unknown>;
  };
  const analyse = (over: Record<string, unknown>, at: Duty = duty): Result<StageReport> =>
    kind.analyse(params(over), at, shelf);
  const report = (over: Record<string, unknown>, at: Duty = duty): StageReport => {
    const r = analyse(over, at);
    if (!r.ok) throw new Error(r.problem.what);
    return r.value;
  };
  return { kind, params, analyse, report };
}

export const figureOf = (r: StageReport, id: string): number => r.figures.find((f) => f.id === id)!.value;
export const checkOf = (r: StageReport, id: string) => r.checks.find((c) => c.id === id)!;
