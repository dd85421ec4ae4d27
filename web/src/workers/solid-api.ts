import type { Result, ShopEdits } from '@gristmill/core';

/** A solid file that is wanted: one part, or every part of a stage where none is named. */
export interface SolidWish {
  readonly kind: string;
  readonly params: unknown;
  readonly shop: ShopEdits;
  readonly part?: string;
  readonly format: 'stl' | '3mf';
  /** Largest distance of the surface from the exact one, m. */
  readonly chordError: number;
  readonly title: string;
}

export interface SolidApi {
  file(wish: SolidWish, onProgress: (share: number) => void): Promise<Result<Uint8Array>>;
}
