import type { Outline } from './outline.ts';

/** What an outline file holds: named curves on layers by meaning, with a title and a note on how they were made. */
export interface ExportSheet {
  readonly title: string;
  readonly note: string;
  readonly curves: readonly { readonly layer: string; readonly outline: Outline }[];
}
