// Bundles the command line into cli/dist, so that it starts at once. Part of `npm run build`.
import { build } from 'esbuild';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const { version } = JSON.parse(readFileSync(`${root}/package.json`, 'utf8')) as { version: string };
await build({
  absWorkingDir: root,
  entryPoints: ['cli/src/main.ts', 'cli/src/find-parts.ts'],
  outdir: 'cli/dist',
  bundle: true,
  splitting: true,
  minify: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  // Kernels find their WebAssembly beside themselves.
  external: ['manifold-3d', 'replicad', 'replicad-opencascadejs', 'ical-generator'],
  define: { GRISTMILL_VERSION: JSON.stringify(version) },
  logLevel: 'warning',
});
