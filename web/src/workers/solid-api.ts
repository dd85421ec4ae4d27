import type { Outline, Result, ShopEdits } from '@gristmill/core';
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

export interface SolidApi {
  file(wish: SolidWish, onProgress: (share: number) => void): Promise<Result<Uint8Array>>;
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
