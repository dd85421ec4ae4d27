import { readdirSync } from 'node:fs';
import type { Anchored } from './anchors/anchor.ts';

const names = readdirSync(new URL('./anchors/', import.meta.url))
  .map((f) => f.replace(/\.ts$/, ''))
  .filter((f) => f !== 'anchor');
/** The worked stages, a file a kind: a new kind brings its own. */
export const ANCHORED = (
  await Promise.all(names.map((name) => import(`./anchors/${name}.ts`) as Promise<Record<string, Anchored>>))
).flatMap((file) => Object.values(file));
