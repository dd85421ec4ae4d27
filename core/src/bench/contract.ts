import type { BenchTest, LimitId } from '../schema/joint.ts';
import type { LineReport } from '../line/analyse.ts';
import type { Problem, Result } from '../result.ts';
import type { Instrument } from '../shop/instrument.ts';
import type { QuantityId } from '../units/quantity.ts';
import type { Recording } from './recording.ts';
import type { RigProgram, Truth } from './specimen.ts';
import type { RigDrawing, SketchRig } from './rig-drawing.ts';
import type { Uncertain } from './uncertainty.ts';

/** What a rig is made of, as a person types it. */
export type RigField =
  | {
      readonly as: 'quantity';
      readonly id: string;
      readonly label: string;
      readonly help: string;
      readonly quantity: QuantityId;
      readonly start: number;
      readonly step: number;
      readonly min: number;
      readonly max: number;
      readonly words?: readonly string[];
    }
  | {
      readonly as: 'choice';
      readonly id: string;
      readonly label: string;
      readonly help: string;
      readonly start: string;
      readonly options: readonly { readonly value: string; readonly label: string }[];
      readonly words?: readonly string[];
    };

/** A column of typed readings. */
export type ReadingColumn =
  | {
      readonly as: 'quantity';
      readonly id: string;
      readonly label: string;
      readonly quantity: QuantityId;
      readonly example: string;
      readonly words: readonly string[];
      /** Signed values are taken. */ readonly signed?: boolean;
      /** Nought is no value of it. */ readonly positive?: boolean;
      /** The largest size that can be read, SI. */ readonly most?: number;
      /** A difference of two readings of an instrument, whose zero falls out. */ readonly difference?: boolean;
      readonly optional?: boolean;
    }
  | {
      readonly as: 'choice';
      readonly id: string;
      readonly label: string;
      readonly options: readonly { readonly value: string; readonly label: string }[];
      readonly words: readonly string[];
      /** What 1, true and yes stand for in a file; 0, −1, false and no for the other. */ readonly yes?: string;
    };

/** A channel that a recorded test needs. */
export interface ChannelWish {
  readonly id: string;
  readonly label: string;
  readonly quantity: QuantityId;
  readonly words: readonly string[];
  readonly optional?: boolean;
  /** Channels of a rig that serve where none bears its own name. */
  readonly instead?: readonly string[];
}

/** A figure beside the headline: with its uncertainty where it has one. */
export interface FoundFigure {
  readonly id: string;
  readonly name: string;
  readonly quantity: QuantityId;
  readonly value: number;
  /** Expanded uncertainty for 95 %; absent where it is counted or exact. */
  readonly U?: number;
  /** How it came about. */
  readonly how: string;
}

export interface PlotSeries {
  readonly key: string;
  readonly name: string;
  readonly x: ArrayLike<number>;
  readonly y: ArrayLike<number>;
  readonly as: 'line' | 'points';
  readonly role: 'raw' | 'fit' | 'other';
}

export interface TestPlot {
  readonly name: string;
  readonly xName: string;
  readonly x: QuantityId;
  readonly yName: string;
  readonly y: QuantityId;
  readonly series: readonly PlotSeries[];
  readonly level?: { readonly name: string; readonly y: number };
  /** Stands below the readings: they tell as much. */
  readonly below?: boolean;
}

/** A peak of a spectrum with what could have made it. */
export interface OrderPeak {
  /** Events per turn of the output. */
  readonly order: number;
  readonly amplitude: number;
  /** Expanded uncertainty of the amplitude for 95 %; absent where it is not told. */
  readonly U?: number;
  /** Amplitude over the scatter of the noise about it. */
  readonly significance?: number;
  readonly quantity: QuantityId;
  readonly suspects: readonly { readonly name: string; readonly order: number; readonly means: string }[];
  /** What separates the suspects where there are several, or what to do where there is none. */
  readonly next: string;
}

/** A load or a size that was tried, and whether the joint stood it; `rig` where the rig gave way first. */
export interface Rung {
  readonly id: string;
  readonly value: number;
  readonly says: 'good' | 'bad' | 'rig';
}

/** What one test found. */
export interface TestResult {
  /** The headline figure; absent where the test ends in words. */
  readonly found?: Uncertain;
  readonly bound: 'both' | 'atLeast' | 'atMost';
  /** Where it lands beside the asked and the expected. */
  readonly lands: readonly {
    readonly row: LimitId;
    readonly found: Uncertain;
    readonly bound?: 'both' | 'atLeast' | 'atMost';
  }[];
  /** One plain sentence. */
  readonly says: string;
  readonly figures: readonly FoundFigure[];
  readonly plots: readonly TestPlot[];
  readonly peaks?: readonly OrderPeak[];
  /** What each reading comes to, by its id: a column beside those that were typed. */
  readonly each?: {
    readonly label: string;
    readonly quantity: QuantityId;
    readonly values: ReadonlyMap<string, number>;
  };
  /** What was tried in turn, where the result is a bracket between carried and not carried. */
  readonly rungs?: { readonly quantity: QuantityId; readonly list: readonly Rung[] };
  /** What to try next. */
  readonly next?: { readonly quantity: QuantityId; readonly value: number };
  readonly advice: readonly string[];
  readonly counted: number;
  readonly struck: number;
}

/** An event of the line by name: how often per turn of the joint's output, and what a millimetre there would do. */
export interface LineOrder {
  readonly name: string;
  readonly order: number;
  /** Metres of run-out at that part for a radian of error at the joint's output. */
  readonly lever: number;
}

export interface TestContext {
  readonly instruments: readonly Instrument[];
  /** m/s². */
  readonly gravity: number;
  readonly line?: LineReport | undefined;
  /** Ratio of the whole line with its sign, where known. */
  readonly ratio?: number | undefined;
  readonly orders: readonly LineOrder[];
  /** Torque constant of the motor, N·m/A, where it has one. */
  readonly torqueConstant?: number | undefined;
  /** Materials with the temperature each may reach, K. */
  readonly materials: readonly { readonly name: string; readonly limit: number }[];
  readonly recording?: Recording | undefined;
  /** Told the share done by analyses that take long. */
  readonly told?: ((share: number) => void) | undefined;
}

/** What a plan asks a kind: the row's figure and limit, how fine the answer must be, and the instrument at hand. */
export interface PlanAsk {
  /** Expected, SI. */
  readonly expected: number;
  /** Asked; not finite where nothing is. */
  readonly asked: number;
  /** Expanded uncertainty that would still tell the two apart. */
  readonly wanted: number;
  /** Torque the joint is expected to carry, N·m. */
  readonly torque: number;
  readonly instrument: Instrument | undefined;
}

/** A rig proposed for a test: in words, the fields that it sets, and whether it is fine enough. */
export interface PlannedRig {
  readonly says: string;
  readonly values: Readonly<Record<string, number | string>>;
  readonly enough: boolean;
}

/** How well a kind answers a row of the brief: the lowest rank is asked first. */
export interface Answer {
  readonly row: LimitId;
  readonly rank: number;
  plan(ask: PlanAsk): PlannedRig;
}

/**
 * How a found figure goes with what was typed: column or rig field → exponent. Play at a lever goes as difference ÷
 * lever: `{ difference: 1, lever: -1 }`. By it a slip of units in one of them is corrected.
 */
export type GoesAs = Readonly<Record<string, number>>;

/** How a kind takes part in a guided session on the simulated rig. */
export interface Guided {
  readonly program: RigProgram;
  /** What a recording becomes; absent where it is kept as such. */
  readings?(recording: Recording, newId: () => string): BenchTest['readings'];
  /** How the rig stands for it, where `rigOfSpecimen` does not say. */
  rig?(truth: Truth): Readonly<Record<string, number | string>>;
}

/** One kind of measurement: rig, readings, arithmetic. Adding one is a file and a line in `kinds/index.ts`. */
export interface TestKind {
  readonly id: BenchTest['kind'];
  readonly name: string;
  readonly summary: string;
  readonly group: 'play and stiffness' | 'torque' | 'motion' | 'sound and heat' | 'made size';
  /** Limits of the brief that it can answer. */
  readonly rows: readonly LimitId[];
  readonly caution: string;
  /** Whether it can hurt the specimen: such tests come last. */
  readonly destructive?: boolean;
  readonly loaded?: boolean;
  /** What to do, step by step. */
  readonly steps: readonly string[];
  readonly rig: readonly RigField[];
  readonly columns: readonly ReadingColumn[];
  /** Columns where they depend on how the rig is set. */
  columnsFor?(rig: Readonly<Record<string, number | string>>): readonly ReadingColumn[];
  readonly channels?: readonly ChannelWish[];
  /** What instruments serve. */
  readonly measures?: Instrument['measures'];
  /** The instrument it is usually read with, by its standard name on the shelf. */
  readonly readWith?: string;
  /** Rows it answers in a test plan, and with what rig. */
  readonly answers?: readonly Answer[];
  /** What the figure of a row goes with. */
  readonly goesAs?: Readonly<Partial<Record<LimitId, GoesAs>>>;
  /** Samples a recording is thinned to by means of neighbours, where more of them tell nothing. */
  readonly mostSamples?: number;
  /** Programmes of the simulated rig that it records. */
  readonly programs?: readonly RigProgram[];
  readonly guided?: Guided;
  /** How the simulated rig is set for it: what a person would measure of a real one. */
  rigOfSpecimen?(truth: Truth): Readonly<Record<string, number | string>>;
  /** Set where parts are looked at afterwards. */
  readonly teardown?: boolean;
  /** Set where the error over a turn can be kept as the map of a sensor. */
  readonly mapsSensor?: boolean;
  /** Set where its readings are sizes by which a process is known. */
  readonly teachesProcess?: boolean;
  /** What one of its readings is called; a reading where it has no name of its own. */
  readonly one?: string;
  /** Why a typed reading cannot be, as the rig stands. */
  wrongReading?(
    values: Readonly<Record<string, number | string>>,
    rig: Readonly<Record<string, number | string>>,
  ): Problem | undefined;
  /** What the heading of a table says of the rig. */
  rigFromHeading?(heading: string): Readonly<Record<string, string>>;
  /** Readings of a JSON object in a form of its own; undefined where it is not in that form. */
  rowsFromJson?(
    raw: Readonly<Record<string, unknown>>,
    unit: string | undefined,
    rig: Readonly<Record<string, number | string>>,
  ): { readonly rows: Record<string, number | string>[]; readonly rig: Readonly<Record<string, string>> } | undefined;
  /** What to rig, with the dimensions that matter. */
  sketch(rig: SketchRig): RigDrawing;
  analyse(test: BenchTest, context: TestContext): Result<TestResult>;
}

/** The columns of a test as its rig stands. */
export const columnsOf = (kind: TestKind, rig: Readonly<Record<string, number | string>>): readonly ReadingColumn[] =>
  kind.columnsFor?.(rig) ?? kind.columns;
