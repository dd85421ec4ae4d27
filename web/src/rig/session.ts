import {
  builtAsNow,
  calibrationsOf,
  contextFor,
  drawTruth,
  GUIDED_SESSION,
  LineReader,
  lineOrders,
  missingChannels,
  packRecording,
  recordingFor,
  type BenchTest,
  type LineReport,
  type Recording,
  type RigProgram,
  type Shelf,
  type TestKind,
  type Truth,
  type Variant,
} from '@gristmill/core';
import { create } from 'zustand';
import { kindOf, newBuild, newTest } from '../state/bench.ts';
import { newId } from '../state/identifier.ts';
import { useOpen } from '../state/open.ts';
import { useShop } from '../state/shop.ts';
import { saveNow } from '../storage/autosave.ts';
import type { Interrupted } from '../storage/live.ts';
import { TAB } from '../storage/messages.ts';
import { liveRecordings, recordings } from '../storage/shelf.ts';
import { storageProblem } from '../storage/trouble.ts';
import { BridgeSource, FileSource, SerialSource, SimulatedSource, type LineSource } from './sources.ts';

/** What came is put into storage so often, ms, so that a reload loses little. */
const KEEP_EVERY = 2000;
/** Pace of the guided session, times real time. */
const GUIDED_PACE = 12;
/** Build on which a guided session's tests are recorded. */
const SIMULATED_BUILD = 'S-1';

/** What is on the rig: a variant with its line and the shop it is computed with. */
export interface OnRig {
  readonly jointId: string;
  readonly variant: Variant;
  readonly line: LineReport | undefined;
  readonly shelf: Shelf;
}

export interface Counts {
  readonly samples: number;
  readonly malformed: number;
  readonly gaps: number;
}

const NONE: Counts = { samples: 0, malformed: 0, gaps: 0 };
const NO_SPECIMEN =
  'There is no specimen to simulate: the line of this variant does not add up yet. Mend it in the Line.';

const countsOf = ({ samples, malformed, gaps }: LineReader): Counts => ({ samples, malformed, gaps });

/** A reader with what channels were last said to be worth; a simulated specimen says so itself. */
const readerFor = (source: string): LineReader =>
  new LineReader(source.startsWith('simulated') ? {} : calibrationsOf(useShop.getState().shelf.instruments));

/** What the specimen truly is: drawn from the expected bands of the line; undefined where that does not add up. */
function truthOf({ line, variant, shelf }: OnRig, seed: number): Truth | undefined {
  const { ratio, torqueConstant } = contextFor(variant, line, shelf);
  if (!line || ratio === undefined) return undefined;
  return drawTruth(line, lineOrders(variant, line), ratio, torqueConstant ?? 0.05, seed);
}

interface RigState {
  /** The joint that what is shown was recorded for. */
  readonly jointId: string;
  /** What is recorded, or was last. */
  readonly reader: LineReader;
  readonly running: boolean;
  readonly counts: Counts;
  /** What the source or the last step says. */
  readonly says: string;
  /** Recordings that are in no test yet. */
  readonly kept: readonly Interrupted[];
  /** What the guided session does now; empty when there is none. */
  readonly guided: string;
  /** Whether what is shown came from the simulated specimen. */
  readonly simulated: boolean;
  /** Name of the source that gave what is shown. */
  readonly source: string;
  /** Recordings of a joint that were interrupted. */
  look(jointId: string): Promise<void>;
  simulate(on: OnRig, program: RigProgram, pace: number, seed: number): Promise<void>;
  bridge(on: OnRig): Promise<void>;
  serial(on: OnRig, baud: number): Promise<void>;
  file(on: OnRig, file: File): Promise<void>;
  stop(): void;
  /** Makes a test of what was recorded; its id, or undefined where that was refused, which `says` tells. */
  take(on: OnRig, kind: BenchTest['kind'], seed: number): Promise<string | undefined>;
  recover(which: Interrupted): Promise<void>;
  forget(session: string): Promise<void>;
  /** Play, hysteresis, torque and transmission on the simulated specimen; the id of the last test. */
  guide(on: OnRig, seed: number): Promise<string | undefined>;
}

/** The recording that is shown, under the name it is kept by. */
let session = '';
let stopNow: () => void = () => undefined;

/** A test of the variant's build, the build made where there is none yet; undefined where the joint refused it. */
function addTest(
  on: OnRig,
  kind: TestKind,
  more: Partial<BenchTest>,
  build: { name?: string } = {},
): string | undefined {
  // The joint as it is now: a session takes several in a row.
  const builds = useOpen.getState().joint!.builds;
  const mine = builds.filter(
    (b) => b.variantId === on.variant.id && (build.name === undefined || b.name === build.name),
  );
  // A specimen is drawn from the design as it is now; what is recorded of a real one goes on a build of it, or any.
  const own = mine.find((b) => builtAsNow(b, on.variant)) ?? (build.name === undefined ? mine[0] : undefined);
  const made = newBuild(
    on.variant,
    build.name ?? `${on.variant.name}-1`,
    build.name ? 'Simulated specimen, drawn from the expected bands.' : '',
  );
  const buildId = (own ?? made).id;
  const blank = newTest(kind.id, buildId, on.shelf);
  const test = { ...blank, ...more, rig: { ...blank.rig, ...more.rig } };
  const refused = useOpen.getState().edit(`Take a recording: ${kind.name.toLowerCase()}`, (d) => {
    if (!own) d.builds.push(made);
    d.tests.push(test as BenchTest);
  });
  return refused ? undefined : test.id;
}

export const useRig = create<RigState>()((set, get) => {
  /** Runs a source into a new reader, what comes kept as it comes. */
  const run = (on: OnRig, from: LineSource): Promise<LineReader> =>
    new Promise((resolve) => {
      stopNow();
      const reader = readerFor(from.name);
      const simulated = from instanceof SimulatedSource;
      set({ reader, counts: NONE, says: '', running: true, simulated, source: from.name });
      let lines: string[] = [];
      let ended = false;
      // Of this joint and this tab alone: a recording elsewhere, or one that was interrupted before, keeps its own.
      session = `${on.jointId} ${TAB} ${Date.now().toString(36)}`;
      // A simulated one can be made again: the last one that nobody took makes room.
      if (simulated)
        void liveRecordings.interrupted(on.jointId).then(
          (all) => all.filter((k) => k.source.startsWith('simulated')).forEach((k) => void get().forget(k.session)),
          () => undefined,
        );
      // What comes from a file is kept by the file.
      const keeper = from instanceof FileSource ? undefined : liveRecordings.begin(session, on.jointId, from.name);
      const keep = async () => {
        const taken = lines;
        lines = [];
        // Where storage is full or blocked the recording goes on in memory, and taking it into a test says so.
        await keeper?.keep(taken).catch(() => undefined);
      };
      const timers = [
        setInterval(() => void keep(), KEEP_EVERY),
        setInterval(() => set({ counts: countsOf(reader) }), 250),
      ];
      const end = (says: string) => {
        if (ended) return;
        ended = true;
        timers.forEach(clearInterval);
        void keep().then(() => keeper?.end());
        set({ running: false, says, counts: countsOf(reader) });
        resolve(reader);
      };
      stopNow = () => (from.stop(), end('Stopped.'));
      const take = (line: string) => {
        reader.line(line);
        lines.push(line);
      };
      from
        .start(take, end, (says) => set({ says }))
        .catch((error: Error) =>
          end(error.name === 'NotFoundError' ? 'No port was chosen.' : `The source does not start: ${error.message}`),
        );
    });

  /** The recording as a kind wants it, or what of it is missing. */
  const wanted = (kind: TestKind, whole: Recording): Recording | undefined => {
    const missing = missingChannels(kind, whole);
    if (missing.length === 0) return recordingFor(kind, whole);
    set({
      says:
        `${kind.name} wants ${missing.map((c) => c.label).join(' and ')}, and the rig sent ` +
        `${whole.channels.map((c) => c.name).join(', ')}. Choose another test, or name the channels so in the header.`,
    });
    return undefined;
  };

  const take = async (
    on: OnRig,
    kind: TestKind,
    name: string,
    truth: Truth | undefined,
    build?: { name: string },
  ): Promise<string | undefined> => {
    const whole = get().reader.recording();
    const recording = whole && wanted(kind, whole);
    if (!recording) return undefined;
    let packed;
    try {
      packed = await recordings.keep(name, packRecording(recording));
    } catch (error) {
      set({ says: `${storageProblem(error).what} The recording is still here: free space, then take it again.` });
      return undefined;
    }
    const rig = truth && kind.rigOfSpecimen?.(truth);
    const id = addTest(on, kind, { recording: packed, ...(rig && { rig }) }, build);
    // What was kept while it ran has served once the test is stored, and not before.
    const taken = session;
    if (id) void saveNow().then(() => (useOpen.getState().save === 'saved' ? get().forget(taken) : undefined));
    return id;
  };

  return {
    jointId: '',
    reader: new LineReader(),
    running: false,
    counts: NONE,
    says: '',
    kept: [],
    guided: '',
    simulated: true,
    source: 'recording',
    look: async (jointId) => {
      // What was recorded for one joint is not shown, or taken, in another.
      if (get().jointId !== jointId) {
        session = '';
        set({ jointId, reader: new LineReader(), counts: NONE, says: '', source: 'recording' });
      }
      set({ kept: [] });
      await liveRecordings.interrupted(jointId).then(
        (kept) => set({ kept: kept.filter((k) => k.session !== session) }),
        () => undefined,
      );
    },
    simulate: async (on, program, pace, seed) => {
      const truth = truthOf(on, seed);
      if (truth) await run(on, new SimulatedSource(truth, program, pace, seed));
      else set({ says: NO_SPECIMEN });
    },
    bridge: async (on) => void (await run(on, new BridgeSource())),
    serial: async (on, baud) => void (await run(on, new SerialSource(baud))),
    file: async (on, file) => void (await run(on, new FileSource(file))),
    stop: () => stopNow(),
    take: (on, kindId, seed) =>
      take(on, kindOf(kindId)!, get().source, get().simulated ? truthOf(on, seed) : undefined),
    forget: async (which) => {
      await liveRecordings.forget(which).catch(() => undefined);
      set({ kept: get().kept.filter((k) => k.session !== which) });
    },
    recover: async (which) => {
      const reader = readerFor(which.source);
      for (const l of await liveRecordings.lines(which)) reader.line(l);
      session = which.session;
      set({
        reader,
        counts: countsOf(reader),
        simulated: false,
        source: which.source,
        says: `Recovered ${reader.samples} samples of ${which.source}.`,
        kept: get().kept.filter((k) => k !== which),
      });
    },
    guide: async (on, seed) => {
      const truth = truthOf(on, seed);
      if (!truth) return void set({ says: NO_SPECIMEN });
      const build = { name: SIMULATED_BUILD };
      let last: string | undefined;
      for (const step of GUIDED_SESSION) {
        set({ guided: step.says });
        const source = new SimulatedSource(truth, step.program, GUIDED_PACE, seed);
        const reader = await run(on, source);
        const { kind } = step;
        if (step.readings) {
          const recording = reader.recording();
          const readings = recording ? step.readings(recording, newId) : [];
          if (readings.length) addTest(on, kind, { readings, rig: { ...step.rig?.(truth) } }, build);
        } else last = (await take(on, kind, source.name, truth, build)) ?? last;
      }
      set({ guided: '' });
      return last;
    },
  };
});
