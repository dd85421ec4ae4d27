#!/usr/bin/env node
// The bundle starts at once, where there is one that is newer than what it was made of; else the sources are read by tsx.
import { readdirSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const at = (path) => fileURLToPath(new URL(path, import.meta.url));
/** When anything under a folder was last changed, ms. */
const newest = (folder) =>
  readdirSync(folder, { withFileTypes: true }).reduce(
    (most, f) =>
      Math.max(most, f.isDirectory() ? newest(`${folder}/${f.name}`) : statSync(`${folder}/${f.name}`).mtimeMs),
    0,
  );
const bundle = at('../dist/main.js');
const built = statSync(bundle, { throwIfNoEntry: false })?.mtimeMs ?? 0;
if (built > Math.max(newest(at('../src')), newest(at('../../core/src')))) await import(bundle);
else {
  const { register } = await import('tsx/esm/api');
  register();
  await import('../src/main.ts');
}
