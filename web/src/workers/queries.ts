import {
  confirmed,
  editsFor,
  worked,
  type Bill,
  type Course,
  type Duty,
  type FigureAddress,
  type Joint,
  type LineReport,
  type Mover,
  type Result,
  type SectionSheet,
  type ShopEdits,
  type StageMap,
  type StageReads,
  type StageRecord,
  type TwoMotors,
  type Variant,
} from '@gristmill/core';
import { keepPreviousData, useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { proxy } from 'comlink';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { useJoint, useOpen, useVariant } from '../state/open.ts';
import { useEdits } from '../state/shelf.ts';
import { useShop } from '../state/shop.ts';
import type { Analysing, HousingPart, LineOf } from './api.ts';
import { contentId } from './content.ts';
import { corePool } from './core.ts';
import { findingsOf, identity } from './findings.ts';
import { noteFigures } from './workings.ts';

/** Only what the line depends on: names and notes of a variant do not recompute it. */
const lineInputs = (brief: Joint['brief'], v: Variant): number[] =>
  [brief, v.motor, v.driver, v.sensor, v.mount, v.output, v.housing, v.stages].map(contentId);

const lineQueryOf = (of: LineOf) => ({
  queryKey: ['line', of.variant.id, ...lineInputs(of.brief, of.variant), contentId(of.edits)],
  queryFn: async ({ signal }: { signal: AbortSignal }) => {
    const made = await corePool.run((api) => api.line(of), { signal });
    noteFigures(made.report, of);
    return made;
  },
  staleTime: Infinity,
  gcTime: 60_000,
  // Figures are known by identity.
  structuralSharing: false,
});

/** What of the shop a line is analysed by: what lies in the drawer and how parts are made changes nothing of it. */
const analysedBy = new WeakMap<ShopEdits, ShopEdits>();
function ofLines(edits: ShopEdits): ShopEdits {
  let had = analysedBy.get(edits);
  if (!had) {
    const { drawer: _drawer, processes: _processes, ...rest } = edits;
    analysedBy.set(edits, (had = rest));
  }
  return had;
}

const lineQuery = (joint: Joint, variant: Variant, shop: ShopEdits) =>
  lineQueryOf({ brief: joint.brief, variant, edits: ofLines(editsFor(joint, shop)) });

/**
 * Lets the open joint keep what its lines were computed with. Asked again at every render: a joint that was loaded anew
 * may not have it, and where nothing is missing nothing is done.
 */
function useKeeping(joint: Joint, reports: readonly (LineReport | undefined)[]): void {
  useEffect(() => {
    for (const r of reports) if (r) useOpen.getState().keep(joint.id, r.reads);
  });
}

/** The open variant's line; while a new one is computed, or its stages are sized, the last one stays in sight. */
export function useLine(): { report: LineReport | undefined; ms: number | undefined; error: Error | null } {
  const joint = useJoint();
  const variant = useVariant();
  const edits = useShop((s) => s.edits);
  const sizing = useOpen((s) => s.sizing);
  const q = useQuery({
    ...lineQuery(joint, variant, edits),
    // What is about to be sized anew need not be computed as it stands.
    enabled: !(sizing && variant.follows),
    placeholderData: keepPreviousData,
  });
  useKeeping(joint, [q.isPlaceholderData ? undefined : q.data?.report]);
  return { report: q.data?.report, ms: q.data?.ms, error: q.error };
}

/** What so many joints of the open variant are made of; the last bill stays in sight while a new one is made. */
export function useBill(joints: number): Result<Bill> | undefined {
  const joint = useJoint();
  const variant = useVariant();
  const edits = useEdits();
  const { id, motor, driver, mount, output, housing, stages } = variant;
  const q = useQuery({
    queryKey: ['bill', joint.id, id, joints, ...[motor, driver, mount, output, housing, stages, edits].map(contentId)],
    queryFn: ({ signal }) => corePool.run((api) => api.bill(variant, joints, edits), { signal }),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });
  return q.data;
}

/** What the bodies of a variant depend on. */
const bodyInputs = ({ motor, mount, output, housing, stages }: Variant, edits: ShopEdits): number[] =>
  [motor, mount, output, housing, stages, edits].map(contentId);

/** The open variant cut along its axis; the last section stays in sight while a new one is made. */
export function useSectionSheet(crank: number): { sheet: Result<SectionSheet> | undefined; error: Error | null } {
  const variant = useVariant();
  const edits = useEdits();
  const q = useQuery({
    queryKey: ['section', variant.id, crank, ...bodyInputs(variant, edits)],
    queryFn: ({ signal }) => corePool.run((api) => api.section(variant, crank, edits), { signal }),
    staleTime: Infinity,
    gcTime: 10_000,
    placeholderData: keepPreviousData,
    structuralSharing: false,
  });
  return { sheet: q.data, error: q.error };
}

/** Parts of what stands round the open variant's stages; none where it has no housing. */
export function useHousingParts(): readonly HousingPart[] {
  const variant = useVariant();
  const edits = useEdits();
  return (
    useQuery({
      queryKey: ['housing', variant.id, ...bodyInputs(variant, edits)],
      queryFn: ({ signal }) => corePool.run((api) => api.housing(variant, edits), { signal }),
      enabled: variant.housing !== undefined,
      staleTime: Infinity,
      gcTime: 30_000,
      placeholderData: keepPreviousData,
    }).data ?? []
  );
}

/** The line of each variant of a joint, in order. */
export function useLines(joint: Joint): (LineReport | undefined)[] {
  const edits = useShop((s) => s.edits);
  const lines = useQueries({ queries: joint.variants.map((variant) => lineQuery(joint, variant, edits)) }).map(
    (q) => q.data?.report,
  );
  useKeeping(joint, lines);
  return lines;
}

/** Kinds of stage that read each family of factors; undefined until it is known. */
export function useReaders(): ReadonlyMap<string, readonly string[]> | undefined {
  const edits = useShop((s) => s.edits);
  return useQuery({
    queryKey: ['readers', contentId(edits)],
    queryFn: ({ signal }) => corePool.run((api) => api.readers(edits), { signal }),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  }).data;
}

/** What each stage of the open joint is computed from, as far as its lines are known; none where no joint is open. */
export function useStageReads(): readonly StageReads[] {
  const joint = useOpen((s) => s.joint);
  const edits = useShop((s) => s.edits);
  const variants = joint?.variants ?? [];
  const lines = useQueries({ queries: variants.map((variant) => lineQuery(joint!, variant, edits)) });
  return variants.flatMap((v, i) =>
    (lines[i]?.data?.report.stages ?? []).flatMap((s, j) =>
      s.report ? [{ name: `${v.name}${j + 1}`, reads: s.report.reads }] : [],
    ),
  );
}

/** The line of one variant of a joint that need not be the open one. */
export function useLineOf(joint: Joint, variant: Variant): LineReport | undefined {
  const edits = useShop((s) => s.edits);
  return useQuery(lineQuery(joint, variant, edits)).data?.report;
}

/** Lines as they would be with other inputs than the open joint's, in order. */
export const useTrials = (trials: readonly LineOf[]): (LineReport | undefined)[] =>
  useQueries({ queries: trials.map(lineQueryOf) }).map((q) => q.data?.report);

/** What changes over a turn of a stage's input; the last answer stays while a new one is worked out. */
export function useCourses(stage: StageRecord | undefined, duty: Duty | undefined): readonly Course[] {
  const edits = useEdits();
  return (
    useQuery({
      queryKey: ['courses', stage?.kind, contentId(stage?.params), contentId(duty), contentId(edits)],
      queryFn: ({ signal }) => corePool.run((api) => api.courses(stage!.kind, stage!.params, duty!, edits), { signal }),
      enabled: stage !== undefined && duty !== undefined,
      staleTime: Infinity,
      gcTime: 30_000,
      placeholderData: keepPreviousData,
    }).data ?? []
  );
}

/** A map of what every member goes through in a turn; null where the kind has none or the stage cannot be. */
export function useStageMap(stage: StageRecord | undefined, duty: Duty | undefined): StageMap | null {
  const edits = useEdits();
  return (
    useQuery({
      queryKey: ['map', stage?.kind, contentId(stage?.params), contentId(duty), contentId(edits)],
      queryFn: async ({ signal }) =>
        (await corePool.run((api) => api.map(stage!.kind, stage!.params, duty!, edits), { signal })) ?? null,
      enabled: stage !== undefined && duty !== undefined,
      staleTime: Infinity,
      gcTime: 30_000,
      placeholderData: keepPreviousData,
    }).data ?? null
  );
}

/** The ratio desk for the open variant's motor. */
export function useDesk(each: number, holds: boolean) {
  const joint = useJoint();
  const variant = useVariant();
  const edits = useEdits();
  return useQuery({
    queryKey: [
      'desk',
      ...[joint.brief, variant.motor, variant.driver, variant.sensor, edits].map(contentId),
      variant.stages.length,
      each,
      holds,
    ],
    queryFn: ({ signal }) =>
      corePool.run((api) => api.desk(joint.brief, variant, edits, each, holds), { signal, heavy: true }),
    staleTime: Infinity,
    gcTime: 30_000,
    placeholderData: keepPreviousData,
  });
}

/** Two motors on one output through the open variant's line, with an offset or with what holds the brief's peak. */
export function useTwoMotors(offset: number | undefined) {
  const { brief } = useJoint();
  const variant = useVariant();
  const edits = useEdits();
  return useQuery({
    queryKey: ['two-motors', ...lineInputs(brief, variant), contentId(ofLines(edits)), offset ?? 'own'],
    queryFn: async ({ signal }): Promise<Result<TwoMotors>> => {
      const made = await corePool.run((api) => api.twoMotors(brief, variant, edits, offset), { signal, heavy: true });
      if (!made.ok) return made;
      const figures = made.value.figures.map(({ working, ...f }) => worked(f, () => working));
      return { ok: true, value: { ...made.value, figures } };
    },
    staleTime: Infinity,
    gcTime: 30_000,
    placeholderData: keepPreviousData,
    structuralSharing: false,
  });
}

/** The spread of a line's play from many samples. */
export function usePlaySpread(report: LineReport | undefined, samples: number) {
  const numbers = report?.stages.map((s) => s.report?.numbers) ?? [];
  const whole = numbers.length > 0 && numbers.every((n) => n !== undefined);
  const ratios = whole ? numbers.map((n) => n!.ratio) : [];
  const play = whole ? numbers.map((n) => n!.play) : [];
  return useQuery({
    queryKey: ['play', ratios, play, samples],
    queryFn: ({ signal }) => corePool.run((api) => api.play(ratios, play, samples), { signal }),
    enabled: whole,
    staleTime: Infinity,
    gcTime: 30_000,
    placeholderData: keepPreviousData,
  });
}

/**
 * How far the recording that is being analysed is; what is shown of it follows from here wherever findings were asked
 * for.
 */
export const useAnalysing = create<{ at: Analysing | undefined }>(() => ({ at: undefined }));

/** What every test of a joint found, which need not be the open one. */
export function useFindingsOf(joint: Joint) {
  const edits = useShop((s) => s.edits);
  return useQuery({
    queryKey: [
      'findings',
      joint.id,
      ...[joint.tests, joint.builds, joint.variants, joint.brief, joint.factors, edits].map(identity),
    ],
    queryFn: async ({ signal }) => {
      let long = false;
      const tell = (at: Analysing | undefined) => {
        if (!signal.aborted) useAnalysing.setState({ at });
      };
      signal.addEventListener('abort', () => useAnalysing.setState({ at: undefined }), { once: true });
      // Handing hundreds of tests over takes a task of its own.
      await new Promise((done) => setTimeout(done));
      // Ending the worker loses what it knows of other recordings: only where one is under way.
      const found = await findingsOf(joint, editsFor(joint, edits), (part, shop) =>
        corePool.run(
          (api) =>
            api.findings(
              part,
              shop,
              proxy((at: Analysing) => ((long = true), tell(at))),
            ),
          { signal, heavy: () => long },
        ),
      );
      tell(undefined);
      return confirmed(found, joint);
    },
    staleTime: Infinity,
    gcTime: 10_000,
    placeholderData: keepPreviousData,
  });
}

/** What every test of the open joint found; `stop` ends the analysis of a recording, `stopped` says that it was. */
export function useFindings() {
  const joint = useJoint();
  const client = useQueryClient();
  const q = useFindingsOf(joint);
  return {
    data: q.data,
    stopped: q.fetchStatus === 'idle' && !q.isError && (q.isPending || q.isPlaceholderData),
    stop: () => void client.cancelQueries({ queryKey: ['findings', joint.id] }),
    again: () => void q.refetch(),
  };
}

/** The inputs that move a figure most, with the share done while they are worked out. */
export function useMovers(at: FigureAddress | undefined): {
  movers: Mover[] | undefined;
  progress: number;
  error: Error | null;
} {
  const joint = useJoint();
  const variant = useVariant();
  const edits = editsFor(
    joint,
    useShop((s) => s.edits),
  );
  const [progress, setProgress] = useState(0);
  const q = useQuery({
    queryKey: ['movers', at, ...lineInputs(joint.brief, variant), contentId(edits)],
    queryFn: ({ signal }) => {
      setProgress(0);
      const light = { ...joint, tests: [], builds: [] };
      return corePool.run((api) => api.movers(light, variant, edits, at!, proxy(setProgress)), { signal, heavy: true });
    },
    enabled: at !== undefined,
    staleTime: Infinity,
    gcTime: 30_000,
  });
  return { movers: q.data, progress, error: q.error };
}
