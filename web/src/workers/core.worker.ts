import {
  billOf,
  TEST_KINDS,
  analyseLine,
  cannotFind,
  analyseFound,
  composeBlocks,
  findLines,
  factorReaders,
  findingsFor,
  foundOf,
  housingParts,
  importFile,
  findFigure,
  makeShelf,
  packRecording,
  unpackRecording,
  movers,
  playSpread,
  ratioDesk,
  sizeLine,
  lackingRatio,
  resizedStage,
  stageFor,
  rememberingOpener,
  screenStages,
  sectionSheet,
  sumWhole,
  worthAnalysing,
  worthComputing,
  waysOut,
  twoMotors,
  workingOf,
  type FindAsk,
  type Finding,
  type FindProgress,
  type Joint,
  type LineReport,
  type Variant,
  type BenchTest,
  type Shelf,
  type ShopEdits,
} from '@gristmill/core';
import { fitSheet } from '@gristmill/core/fit/fit-sheet';
import { lineJam } from '@gristmill/core/fit/line-jam';
import { registerKinds } from '@gristmill/core/stage/catalogue';
import { expose, transfer } from 'comlink';
import { Recordings, sha256 } from '../storage/recordings.ts';
import { BrowserVault } from '../storage/vault.ts';
import type { Analysing, CoreApi, SearchFor } from './api.ts';
import { Kept } from './kept.ts';

const recordings = new Recordings(new BrowserVault());
let kept: { key: string; shelf: Shelf } | undefined;

/** An edit of one stage leaves the others of its line as they are. */
const open = rememberingOpener(64);

/** Building the shelf costs more than a line; the same edits give the same shelf. */
function shelfFor(edits: ShopEdits): Shelf {
  const key = JSON.stringify(edits);
  if (kept?.key !== key) kept = { key, shelf: makeShelf(edits) };
  return kept.shelf;
}

/** Lines that are remembered: of every variant of a large joint, and those before the last few edits. */
const LINES = 120;
const lines = new Kept<{ report: LineReport; ms: number }>(LINES);

/** The line of a variant, computed once for the tally, the tests and the comparison. */
function lineOf(brief: Joint['brief'], variant: Variant, shop: ShopEdits): { report: LineReport; ms: number } {
  const { motor, driver, sensor, mount, output, housing, stages, id } = variant;
  const key = JSON.stringify([brief, id, motor, driver, sensor, mount, output, housing, stages, shop]);
  const known = lines.get(key);
  if (known) return known;
  const shelf = shelfFor(shop);
  const start = performance.now();
  const report = analyseLine({ brief }, variant, shelf, { open });
  const made = { report, ms: performance.now() - start };
  lines.set(key, made);
  return made;
}

/**
 * Findings of recorded tests by what they were made from, samples by their hash: a recording of a million samples is
 * analysed once, not at every change of another test. Kept by the numbers they hold, plots above all.
 */
const known = new Kept<Finding[]>(8e6);

/** Numbers a finding holds, roughly. */
const weightOf = (list: readonly Finding[]): number =>
  list.reduce(
    (sum, f) => sum + 200 + (f.result?.plots ?? []).flatMap((p) => p.series).reduce((n, s) => n + 2 * s.x.length, 0),
    0,
  );

/** Samples below which an analysis is over before it could be read that it is under way. */
const LONG = 50_000;

/** What a recorded test found; its samples are fetched only where it is not known yet. */
async function recordedFindings(
  test: BenchTest,
  variant: Variant | undefined,
  line: LineReport | undefined,
  shelf: Shelf,
  onProgress: (at: Analysing) => void,
): Promise<Finding[]> {
  const recording = test.recording!;
  const { data: _data, ...head } = recording;
  const content = recording.sha256 ?? (recording.data === undefined ? undefined : await sha256(recording.data));
  const key = JSON.stringify([
    test.id,
    test.readings,
    test.rig,
    head,
    content,
    shelf.instruments.find((i) => i.id === test.rig['instrument']),
    variant?.id,
    line?.figures.map((f) => f.value),
  ]);
  const made = content === undefined ? undefined : known.get(key);
  if (made) return made;
  const tell = (share: number) => {
    if (recording.rows > LONG) onProgress({ testId: test.id, samples: recording.rows, share });
  };
  tell(0);
  const data = (await recordings.data(recording).catch(() => null)) ?? undefined;
  const r = unpackRecording({ ...recording, ...(data !== undefined && { data }) });
  const found = findingsFor(test, variant, line, shelf, r.ok ? r.value : undefined, (share) => tell(0.2 + 0.8 * share));
  known.set(key, found, weightOf(found));
  return found;
}

async function allFindings(joint: Joint, shop: ShopEdits, onProgress: (at: Analysing) => void): Promise<Finding[][]> {
  const shelf = shelfFor(shop);
  const builds = new Map(joint.builds.map((b) => [b.id, b.variantId]));
  const variants = new Map(joint.variants.map((v) => [v.id, v]));
  const out: Finding[][] = [];
  for (const test of joint.tests) {
    const variant = variants.get(builds.get(test.buildId) ?? '');
    const line = variant && lineOf(joint.brief, variant, shop).report;
    out.push(
      test.recording
        ? await recordedFindings(test, variant, line, shelf, onProgress)
        : findingsFor(test, variant, line, shelf),
    );
  }
  return out;
}

/** Searches that steps were asked for, by their keys, the last ones. */
const asked = new Map<string, FindAsk>();
const ASKED = 4;

/** What a search asks; the same object for all of its steps, by which what it starts from is set up once. */
function askOf({ brief, variant, edits, kinds, stages, first = false, key }: SearchFor): FindAsk {
  const known = key === undefined ? undefined : asked.get(key);
  if (known) return known;
  const ask: FindAsk = { joint: { brief }, variant, shelf: shelfFor(edits), kinds, stages, first };
  if (key !== undefined) asked.set(key, ask);
  if (asked.size > ASKED) asked.delete(asked.keys().next().value!);
  return ask;
}

/** How long a rehearsal holds its worker at a stretch, ms. */
const STRETCH = 15;
let steps = 0;

async function rehearsed(ask: FindAsk): Promise<void> {
  if (cannotFind(ask)) return;
  const look = findLines(ask);
  const begun = steps;
  while (steps === begun) {
    const from = performance.now();
    while (performance.now() - from < STRETCH) if (look.next().done) return;
    // Word of a search gets through between stretches.
    await new Promise((next) => setTimeout(next));
  }
}

/** Runs a search to its end and tells of it ten times a second. */
function runTold<T>(search: Generator<FindProgress, T>, onProgress: (at: FindProgress) => void): T {
  steps++;
  let told = 0;
  for (;;) {
    const step = search.next();
    if (step.done) return step.value;
    const now = performance.now();
    if (now - told < 100) continue;
    told = now;
    onProgress(step.value);
  }
}

const api: CoreApi = {
  line: async ({ brief, variant, edits }) => lineOf(brief, variant, edits),
  working: async ({ brief, variant, edits }, at) => {
    const figure = findFigure(lineOf(brief, variant, edits).report, at);
    return figure && workingOf(figure);
  },
  findings: allFindings,
  size: async (brief, variants, shop) => {
    const shelf = shelfFor(shop);
    return variants.map((v) => sizeLine({ brief }, v, shelf));
  },
  bill: async (variant, joints, shop) => billOf(variant, joints, shelfFor(shop)),
  housing: async (variant, shop) =>
    housingParts(variant, shelfFor(shop)).map(({ solid: _s, seen: _n, places: _p, ...told }) => told),
  section: async (variant, crank, shop) => sectionSheet(variant, crank, shelfFor(shop), open),
  fitSheet: async (variant, shop, day, reserves, drawFits) =>
    fitSheet(variant, shelfFor(shop), day, (k) => reserves[k] ?? NaN, drawFits),
  jam: async (wish, shop, onProgress) => {
    const drawing = lineJam(wish, shelfFor(shop));
    let step = drawing.next();
    for (; !step.done; step = drawing.next()) {
      onProgress(step.value);
      // Word of a stop gets through between samples.
      await new Promise((next) => setTimeout(next));
    }
    const made = step.value;
    if (!made.ok) return made;
    const { turnsFrom, allowedTo, play } = made.value.drawn;
    return transfer(made, [turnsFrom.buffer, allowedTo.buffer, play.buffer]);
  },
  lacks: async (brief, variant, shop) => lackingRatio({ brief }, variant, shelfFor(shop)),
  resized: async (stage, ratio, outside, at, shop) =>
    resizedStage(stage, ratio, outside > 0 ? outside : Infinity, at, shelfFor(shop)),
  stageFor: async (brief, kind, ratio, outside, shop) =>
    stageFor({ brief }, kind, ratio, shelfFor(shop), outside > 0 ? outside : Infinity),
  importTest: async (kindId, bytes, name, comma, onProgress) => {
    const kind = TEST_KINDS.find((k) => k.id === kindId)!;
    onProgress('Reading the file…');
    const read = importFile(kind, bytes, () => crypto.randomUUID().slice(0, 8), comma);
    if (!read.ok) return read;
    const { recording, ...imported } = read.value;
    if (recording) onProgress(`Packing ${recording.data[0]?.length ?? 0} samples…`);
    return {
      ok: true,
      value: { imported, recording: recording && (await recordings.keep(name, packRecording(recording))) },
    };
  },
  desk: async (brief, variant, shop, each, holds) => {
    const shelf = shelfFor(shop);
    return {
      rows: ratioDesk({ brief }, variant, shelf, each, 4, holds),
      reach: waysOut({ brief }, variant, shelf, each ** Math.max(1, variant.stages.length), holds),
    };
  },
  twoMotors: async (brief, variant, shop, offset) => {
    const made = twoMotors({ brief }, variant, shelfFor(shop), offset);
    return made.ok
      ? {
          ok: true,
          value: { ...made.value, figures: made.value.figures.map((f) => ({ ...f, working: workingOf(f)! })) },
        }
      : made;
  },
  readers: async (shop) => factorReaders(shelfFor(shop)),
  play: async (ratios, play, samples) => {
    const start = performance.now();
    const spread = playSpread(
      ratios.map((ratio) => ({ ratio })),
      play,
      samples,
    );
    return { spread, ms: performance.now() - start };
  },
  courses: async (kind, params, duty, shop) => {
    const opened = open({ id: '', kind, params }, shelfFor(shop));
    return opened.ok ? (opened.value.courses?.(duty) ?? []) : [];
  },
  map: async (kind, params, duty, shop) => {
    const opened = open({ id: '', kind, params }, shelfFor(shop));
    return opened.ok ? opened.value.map?.(duty) : undefined;
  },
  cannotFind: async (search) => {
    steps++;
    return cannotFind(askOf(search));
  },
  rehearse: async (search) => rehearsed(askOf({ ...search, first: true })),
  screen: async (search, part, parts, onProgress) => runTold(screenStages(askOf(search), part, parts), onProgress),
  compose: async (search, screenings, part, parts, onProgress) =>
    runTold(composeBlocks(askOf(search), screenings, part, parts), onProgress),
  sum: async (search, screenings, worth, part, parts, onProgress) =>
    runTold(sumWhole(askOf(search), screenings, worth, part, parts), onProgress),
  analyseFound: async (search, screenings, worth, chosen, part, parts, onProgress) =>
    runTold(analyseFound(askOf(search), screenings, worth, chosen, part, parts), onProgress),
  worth: async (search, screenings, composed) => worthComputing(askOf(search), screenings, composed),
  chosen: async (search, worth, aims) => worthAnalysing(askOf(search), worth, aims),
  found: async (search, screenings, worth, lines) => foundOf(askOf(search), screenings, worth, lines),
  movers: async (joint, variant, shop, at, onProgress) => {
    let told = 0;
    return movers(joint, variant, shelfFor(shop), at, 3, (share) => {
      if (share - told >= 0.1) {
        told = share;
        onProgress(share);
      }
      return true;
    });
  },
};

registerKinds();
expose(api);
