import type {
  BodyOf,
  Build,
  BuildPlan,
  Motion,
  Outline,
  Process,
  Result,
  ShopEdits,
  Turning,
  Variant,
} from '@gristmill/core';
import type { Overlay } from '@gristmill/core/fit/overlay';
import type { Correction } from '@gristmill/core/solid/correction';
import type { GoingTogether } from '@gristmill/core/assembly/going-together';
import type { Learnt, PlanInput, Schedule } from '@gristmill/core/schedule/index';
import type { Clearances } from '@gristmill/core/reducer/clashes';
import type { LineFilesProgress, LineFilesWish } from '@gristmill/core/assembly/line-files';

export type SolidFormat = 'stl' | '3mf' | 'step';

/** Bodies that are wanted: one part, or every part of a stage where none is named. */
export interface BodyWish {
  readonly kind: string;
  readonly params: unknown;
  readonly shop: ShopEdits;
  readonly part?: string;
  /** Largest distance of a meshed surface from the exact one, m; STEP is exact. */
  readonly chordError: number;
  /** How far every contour is moved into the material, m. */
  readonly compensation: number;
  /** How parts are drawn for their processes, by part. */
  readonly corrections?: Readonly<Record<string, Correction>>;
}

/** A part whose contours are wanted three times over. */
export interface OverlayWish extends Omit<LineWish, 'chordError'> {
  /** The part, by its key. */
  readonly key: string;
  readonly printed: boolean;
  readonly day: string;
  readonly correction: Correction;
}

/** A coupon that is wanted as a file. */
export interface CouponWish {
  readonly process: Process;
  readonly format: SolidFormat | 'svg' | 'dxf';
  readonly title: string;
}

/** A solid file that is wanted. */
export interface SolidWish extends BodyWish {
  readonly format: SolidFormat;
  readonly title: string;
}

/** A part's surface for looking at, millimetres. */
export interface PartMesh {
  readonly id: string;
  readonly vertices: Float32Array;
  readonly triangles: Uint32Array;
}

/** A body of a whole line, with all that is told of it and how its pieces move. */
export interface LineBody extends PartMesh {
  readonly name: string;
  readonly of: BodyOf;
  /** Place of its stage in the line; −1 for what is of none. */
  readonly stage: number;
  readonly turns: Turning;
  readonly speed: number;
  readonly material: string;
  readonly note: string;
  readonly quantity: number;
  /** Of one piece, kg and money. */
  readonly mass: number;
  readonly money: number;
  readonly motions: readonly Motion[];
}

/** A whole line that is wanted as bodies. */
export interface LineWish {
  readonly variant: Variant;
  readonly shop: ShopEdits;
  readonly chordError: number;
}

/** A build that is to be laid out in time. */
export interface ScheduleWish extends Omit<LineWish, 'chordError'> {
  readonly build: Pick<Build, 'assembly'>;
  readonly plan: BuildPlan;
  /** What the bench still has to do with it. */
  readonly bench: Pick<PlanInput, 'tests' | 'running'>;
  /** By the clock on the wall, s, and minutes that it is ahead of universal time. */
  readonly now: number;
  readonly offset: number;
}

/** A build in time, with what its times have taught, and why no order of its steps is known where none is. */
export interface ScheduleMade {
  readonly schedule: Schedule;
  readonly learnt: readonly Learnt[];
  readonly unordered?: string;
}

/** Pieces that one print makes, by part with its shape, as a plan has them. */
export interface PlateWish extends Omit<LineWish, 'chordError'> {
  readonly title: string;
  readonly made: Readonly<Record<string, number>>;
  readonly bed: readonly [number, number];
  readonly gap: number;
  /** Largest distance of a surface from the exact one, and how far contours are moved into the material, m. */
  readonly chordError: number;
  readonly compensation: number;
  readonly corrections?: Readonly<Record<string, Correction>>;
}

/** Named contours by layer. */
export type Curves = readonly { readonly layer: string; readonly outline: Outline }[];

export interface SolidApi {
  /** A build laid out in time. */
  schedule(wish: ScheduleWish, onProgress: (share: number) => void): Promise<Result<ScheduleMade>>;
  /** One plate of a plan as 3MF. */
  plate(wish: PlateWish, onProgress: (share: number) => void): Promise<Result<Uint8Array>>;
  /** Every body of a line, told of as they are made. */
  line(wish: LineWish, onProgress: (share: number) => void): Promise<Result<readonly LineBody[]>>;
  /** The order of putting a line together. */
  order(wish: Omit<LineWish, 'chordError'>, onProgress: (share: number) => void): Promise<Result<GoingTogether>>;
  /** Bodies of a line that stand in one another. */
  clashes(wish: Omit<LineWish, 'chordError'>, onProgress: (share: number) => void): Promise<Result<Clearances>>;
  /** A part's contours as drawn, as drawn for its process, and as they come out; undefined where no process makes it. */
  overlay(wish: OverlayWish): Promise<Result<Overlay | undefined>>;
  /** The coupon of a process; one file, or a zip of the pieces where the format holds but one. */
  coupon(wish: CouponWish): Promise<Result<Uint8Array>>;
  file(wish: SolidWish, onProgress: (share: number) => void): Promise<Result<Uint8Array>>;
  /** A whole line as one STEP assembly, exact, every piece in its place. */
  assembly(
    wish: Omit<LineWish, 'chordError'> & { readonly title: string },
    onProgress: (share: number) => void,
  ): Promise<Result<Uint8Array>>;
  /** Contours as they are drawn for a process, as straight pieces. */
  corrected(curves: Curves, correction: Correction, chordError: number): Promise<Curves>;
  /** A part's contours moved into the material, as straight pieces. */
  outlines(wish: BodyWish): Promise<Result<readonly { layer: string; outline: Outline }[]>>;
  meshes(wish: BodyWish): Promise<Result<readonly PartMesh[]>>;
  /** Everything it takes to make some joints, as one zip. */
  bundle(
    wish: LineFilesWish,
    shop: ShopEdits,
    more: Readonly<Record<string, Uint8Array>>,
    onProgress: (at: LineFilesProgress) => void,
  ): Promise<Result<Uint8Array>>;
}
