import type { BenchTest, LimitId, ReadingsTest } from '../schema/joint.ts';
import type { LineReport } from '../line/analyse.ts';
import type { Result } from '../result.ts';
import type { Instrument } from '../shop/instrument.ts';
import type { QuantityId } from '../units/quantity.ts';
import type { Recording } from './recording.ts';
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
}

/** A peak of a spectrum with what could have made it. */
export interface OrderPeak {
  /** Events per turn of the output. */
  readonly order: number;
  readonly amplitude: number;
  readonly quantity: QuantityId;
  readonly suspects: readonly { readonly name: string; readonly order: number; readonly means: string }[];
  /** What separates the suspects where there are several, or what to do where there is none. */
  readonly next: string;
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
  analyse(test: ReadingsTest, context: TestContext): Result<TestResult>;
}

/** The columns of a test as its rig stands. */
export const columnsOf = (kind: TestKind, rig: Readonly<Record<string, number | string>>): readonly ReadingColumn[] =>
  kind.columnsFor?.(rig) ?? kind.columns;
