import {
  ok,
  readParams,
  stageKind,
  type AnyStageKind,
  type AssemblyStep,
  type Course,
  type Duty,
  type Kinematics,
  type Layer,
  type Part,
  type Result,
  type Shelf,
  type Stage,
  type StageMap,
  type StageNumbers,
  type StageReport,
} from '../src/index.ts';
import { shelf as shipped } from './helpers.ts';

// A stage opened for one question: what tests of a kind ask most of the time.

export const analyseOf = (kind: AnyStageKind, p: unknown, at: Duty, shelf: Shelf = shipped): Result<StageReport> => {
  const opened = kind.open(p, shelf);
  return opened.ok ? ok(opened.value.report(at)) : opened;
};

export const screenOf = (kind: AnyStageKind, p: unknown, at: Duty, shelf: Shelf = shipped): Result<StageNumbers> => {
  const opened = kind.open(p, shelf);
  return opened.ok ? ok(opened.value.load(at)) : opened;
};

export const drawingOf = (
  kind: AnyStageKind,
  p: unknown,
  crank: number,
  { shelf = shipped, ...options }: { shelf?: Shelf; duty: Duty; glyph?: boolean },
): Result<readonly Layer[]> => {
  const opened = kind.open(p, shelf);
  if (opened.ok) return ok(opened.value.drawing(crank, options));
  return opened.sketch ? ok(opened.sketch.drawing(crank, options)) : opened;
};

export const partsOf = (kind: AnyStageKind, p: unknown, shelf: Shelf = shipped): Result<readonly Part[]> => {
  const opened = kind.open(p, shelf);
  return opened.ok ? opened.value.parts() : opened;
};

export const coursesOf = (
  kind: AnyStageKind,
  p: unknown,
  at: Duty,
  shelf: Shelf = shipped,
): Result<readonly Course[]> => {
  const opened = kind.open(p, shelf);
  return opened.ok ? ok(opened.value.courses!(at)) : opened;
};

export const mapOf = (kind: AnyStageKind, p: unknown, at: Duty, shelf: Shelf = shipped): Result<StageMap> => {
  const opened = kind.open(p, shelf);
  return opened.ok ? ok(opened.value.map!(at)) : opened;
};

/** A stage that is there to be asked more than once. */
export const stageOf = (kind: AnyStageKind, p: unknown, shelf: Shelf = shipped): Stage => {
  const opened = kind.open(p, shelf);
  if (!opened.ok) throw new Error(opened.problem.what);
  return opened.value;
};

export const kinematicsOf = (kind: AnyStageKind, p: unknown): Kinematics => stageOf(kind, p).kinematics;
export const assemblyOf = (kind: AnyStageKind, p: unknown): readonly AssemblyStep[] => stageOf(kind, p).assembly();

/** One kind with starting values that tests change one thing of at a time; what cannot be throws its own words. */
export function stageBench(id: string, plain: Record<string, unknown>, duty: Duty, shelf: Shelf) {
  const kind = stageKind(id)!;
  const params = (over: Record<string, unknown>): Record<string, unknown> => {
    const r = readParams(id, { ...plain, ...over });
    if (!r.ok) throw new Error(r.problem.what);
    return r.value as Record<string, unknown>;
  };
  const analyse = (over: Record<string, unknown>, at: Duty = duty): Result<StageReport> =>
    analyseOf(kind, params(over), at, shelf);
  const report = (over: Record<string, unknown>, at: Duty = duty): StageReport => {
    const r = analyse(over, at);
    if (!r.ok) throw new Error(r.problem.what);
    return r.value;
  };
  return { kind, params, analyse, report };
}

export const figureOf = (r: StageReport, id: string): number => r.figures.find((f) => f.id === id)!.value;
export const checkOf = (r: StageReport, id: string) => r.checks.find((c) => c.id === id)!;
