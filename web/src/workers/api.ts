import type {
  Bill,
  Comma,
  Imported,
  Result,
  Course,
  StageMap,
  Duty,
  Brief,
  DeskRow,
  Finding,
  FindProgress,
  Composing,
  FindResult,
  Analysed,
  Worth,
  Part,
  Problem,
  Screening,
  Figure,
  FigureAddress,
  Joint,
  LineReport,
  Mover,
  PlaySpread,
  Reach,
  ShopEdits,
  SectionSheet,
  StageRecord,
  TwoMotors,
  Variant,
  Working,
} from '@gristmill/core';
import type { FitSheet, FitVariant } from '@gristmill/core/fit/fit-sheet';
import type { JamWish, LineJam } from '@gristmill/core/fit/line-jam';
import type { KeptRecording } from '../storage/recordings.ts';

/** How far the analysis of one test's recording is. */
export interface Analysing {
  readonly testId: string;
  readonly samples: number;
  readonly share: number;
}

/** What a line is computed from. */
export interface LineOf {
  readonly brief: Brief;
  readonly variant: Variant;
  readonly edits: ShopEdits;
}

/** A search for lines, as a worker is told of it. */
export interface SearchFor {
  readonly brief: Brief;
  readonly variant: Variant;
  readonly edits: ShopEdits;
  /** Kinds of stage allowed, by id, and the most stages of a line. */
  readonly kinds: readonly string[];
  readonly stages: number;
  /** A first look: a few lines at once, before the whole search. */
  readonly first?: boolean;
  /** The same for all steps of one search: what a worker sets up for it is kept from step to step. */
  readonly key?: string;
}

/** A part of the housing, without its body. */
export type HousingPart = Pick<
  Part,
  'id' | 'name' | 'quantity' | 'made' | 'material' | 'mass' | 'money' | 'note' | 'curves' | 'reference'
>;

/** What a worker computes. Inputs and outputs are plain data; progress comes through a callback. */
/** A figure that takes its working along. */
export type SentFigure = Figure & { readonly working: Working };

export interface CoreApi {
  line(of: LineOf): Promise<{ report: LineReport; ms: number }>;
  /** How a figure of a line came about; undefined where the line has no such figure. */
  working(of: LineOf, at: FigureAddress): Promise<Working | undefined>;
  /** What each test found, test by test; progress is told of recordings only, which alone take long. */
  findings(joint: Joint, shop: ShopEdits, onProgress: (at: Analysing) => void): Promise<Finding[][]>;
  /** Stages of a variant sized to the brief, as they would stand then. */
  size(brief: Brief, variants: readonly Variant[], shop: ShopEdits): Promise<StageRecord[][]>;
  /** What some joints of a variant are made of. */
  bill(variant: Variant, joints: number, shop: ShopEdits): Promise<Result<Bill>>;
  /** A variant's line cut along its axis, the motor turned by so much, rad. */
  section(variant: Variant, crank: number, shop: ShopEdits): Promise<Result<SectionSheet>>;
  /** Parts of what stands round the stages, with their outlines. */
  housing(variant: Variant, shop: ShopEdits): Promise<readonly HousingPart[]>;
  /** Fits of a variant: its pairs, and what each part is drawn like; `reserves` of its stages by place. */
  fitSheet(
    variant: FitVariant,
    shop: ShopEdits,
    day: string,
    reserves: readonly number[],
    drawFits: boolean,
  ): Promise<Result<FitSheet>>;
  /** Imagined specimens of a line: which jam, and which have too much play. */
  jam(wish: JamWish, shop: ShopEdits, onProgress: (share: number) => void): Promise<Result<LineJam>>;
  /** Ratio that a line still lacks, for one stage more. */
  lacks(brief: Brief, variant: Variant, shop: ShopEdits): Promise<number>;
  /** Parameters of a stage of a ratio for the output's end of a line; undefined for a kind that is not known. */
  stageFor(
    brief: Brief,
    kind: string,
    ratio: number,
    outside: number,
    shop: ShopEdits,
  ): Promise<StageRecord['params'] | undefined>;
  /** The same for a stage that is there: of another ratio or outside, made of what it is made of. */
  resized(
    stage: Pick<StageRecord, 'kind' | 'params'>,
    ratio: number,
    outside: number,
    at: Duty,
    shop: ShopEdits,
  ): Promise<StageRecord['params'] | undefined>;
  /** Ratio windows for one to four stages, and the ways out where no ratio does. */
  desk(
    brief: Brief,
    variant: Variant,
    shop: ShopEdits,
    each: number,
    holds: boolean,
  ): Promise<{ rows: DeskRow[]; reach: Reach }>;
  /** Two motors on one output, against one another by an offset, or by what holds the brief's peak. */
  twoMotors(
    brief: Brief,
    variant: Variant,
    shop: ShopEdits,
    offset: number | undefined,
  ): Promise<Result<Omit<TwoMotors, 'figures'> & { readonly figures: readonly SentFigure[] }>>;
  /** Kinds of stage that read each family of the shop's factors. */
  readers(shop: ShopEdits): Promise<ReadonlyMap<string, readonly string[]>>;
  play(
    ratios: readonly number[],
    play: readonly (readonly [number, number, number])[],
    samples: number,
  ): Promise<{ spread: PlaySpread; ms: number }>;
  /** Why nothing can be looked for; undefined where it can. */
  cannotFind(search: SearchFor): Promise<Problem | undefined>;
  /**
   * Goes through a first look and forgets it, until a step of a search is asked for: code that has run once is quicker, and
   * who has the sheet open will soon press.
   */
  rehearse(search: SearchFor): Promise<void>;
  /** One of several parts of the screening of a search. */
  screen(search: SearchFor, part: number, parts: number, onProgress: (at: FindProgress) => void): Promise<Screening>;
  /** One of several parts of composing what all parts screened. */
  compose(
    search: SearchFor,
    screenings: readonly Screening[],
    part: number,
    parts: number,
    onProgress: (at: FindProgress) => void,
  ): Promise<Composing[]>;
  /** One of several parts of summing lines whole. */
  sum(
    search: SearchFor,
    screenings: readonly Screening[],
    worth: Worth,
    part: number,
    parts: number,
    onProgress: (at: FindProgress) => void,
  ): Promise<(Float64Array | undefined)[]>;
  /** One of several parts of analysing lines with their bands. */
  analyseFound(
    search: SearchFor,
    screenings: readonly Screening[],
    worth: Worth,
    chosen: readonly number[],
    part: number,
    parts: number,
    onProgress: (at: FindProgress) => void,
  ): Promise<Analysed[]>;
  /** The choice between the steps of a search, each a moment’s work: what is summed, what is analysed, what was found. */
  worth(search: SearchFor, screenings: readonly Screening[], composed: readonly Composing[]): Promise<Worth>;
  chosen(search: SearchFor, worth: Worth, aims: readonly (Float64Array | undefined)[]): Promise<number[]>;
  found(
    search: SearchFor,
    screenings: readonly Screening[],
    worth: Worth,
    lines: readonly Analysed[],
  ): Promise<FindResult>;
  movers(
    joint: Joint,
    variant: Variant,
    shop: ShopEdits,
    at: FigureAddress,
    onProgress: (share: number) => void,
  ): Promise<Mover[]>;
  /** What changes over a turn of a stage's input; nothing where its kind has no courses or it cannot be. */
  courses(kind: string, params: StageRecord['params'], duty: Duty, shop: ShopEdits): Promise<readonly Course[]>;
  /** The same of every member at once, where a kind has such a map. */
  map(kind: string, params: StageRecord['params'], duty: Duty, shop: ShopEdits): Promise<StageMap | undefined>;
  /**
   * Reads a file or a pasted table for a kind of test; a recording comes back as a test keeps it, its samples stored.
   */
  importTest(
    kind: string,
    bytes: Uint8Array,
    name: string,
    comma: Comma,
    onProgress: (says: string) => void,
  ): Promise<Result<{ imported: Omit<Imported, 'recording'>; recording: KeptRecording | undefined }>>;
}
