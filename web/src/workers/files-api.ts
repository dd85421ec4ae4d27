import type { Joint, Result } from '@gristmill/core';
import type { Brought, Wish } from '../storage/bundle.ts';

/** Reading and writing files: whatever can be large is done here, beside the page. */
export interface FilesApi {
  /** A joint as a file with its recordings in it. */
  writeJoint(joint: Joint): Promise<{ readonly blob: Blob; readonly ending: string }>;
  writeBundle(wish: Wish, onProgress: (share: number) => void): Promise<Blob>;
  /** Reads a joint file or a bundle onto the shelf; nothing stored changes on refusal. */
  bring(file: File, onProgress: (share: number) => void): Promise<Result<Brought>>;
}
