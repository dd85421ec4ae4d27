// Packs the built app and its server into one zip that runs with Node alone: gristmill-VERSION.zip under dist.
// Usage: npm run pack, then unzip it anywhere and `node gristmill.mjs` in its folder.
import { build } from 'esbuild';
import { execFileSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { zipSync, type Zippable } from 'fflate';
import { shippedOf, writeNotices } from './licences/notices.ts';

const root = fileURLToPath(new URL('..', import.meta.url));
const { version } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as { version: string };
const name = `gristmill-${version}`;

execFileSync('npm', ['run', 'build', '--silent'], { cwd: root, stdio: 'inherit' });
const folder = mkdtempSync(join(tmpdir(), 'gristmill-pack-'));
try {
  /** One file for Node, and what it was made of. */
  const bundled = async (entry: string, file: string, external: readonly string[] = []) => {
    const { metafile } = await build({
      entryPoints: [join(root, entry)],
      outfile: join(folder, file),
      absWorkingDir: root,
      bundle: true,
      minify: true,
      platform: 'node',
      target: 'node20',
      format: 'esm',
      metafile: true,
      logLevel: 'error',
      external: [...external],
      define: { GRISTMILL_VERSION: JSON.stringify(version) },
      // What was written for Node's older way of modules asks for its own by name.
      banner: {
        js: "import { createRequire as $require } from 'node:module'; const require = $require(import.meta.url);",
      },
    });
    return Object.keys(metafile.inputs).map((f) => join(root, f));
  };
  const used = await bundled('server/src/main.ts', 'gristmill.mjs');
  cpSync(join(root, 'web/dist'), join(folder, 'app'), {
    recursive: true,
    filter: (from) => !from.endsWith('/.built'),
  });
  for (const file of ['LICENSE', 'CHANGELOG.md']) cpSync(join(root, file), join(folder, file));
  writeFileSync(join(folder, 'notices-server.txt'), writeNotices(shippedOf(used)));
  writeFileSync(
    join(folder, 'README.txt'),
    `Gristmill ${version}\n\nWith Node 20 or later: node gristmill.mjs, then open the address that it prints. ` +
      'PORT=4171 node gristmill.mjs takes another port.\n\nJoints live in the browser, by address: always use the same. ' +
      '*Everything* on the first page exports all of them to one file.\n\nThe folder app can be served by any ' +
      'server of files at the root of an address; only the bridge to a rig needs this one.\n',
  );
  const files: Zippable = {};
  const take = (path: string, inside: string) => {
    for (const entry of readdirSync(join(folder, path), { withFileTypes: true })) {
      const [from, to] = [join(path, entry.name), `${inside}/${entry.name}`];
      if (entry.isDirectory()) take(from, to);
      // Squeezed once already.
      else files[to] = [readFileSync(join(folder, from)), { level: entry.name.endsWith('.gz') ? 0 : 6 }];
    }
  };
  take('', name);
  mkdirSync(join(root, 'dist'), { recursive: true });
  const zip = zipSync(files);
  writeFileSync(join(root, 'dist', `${name}.zip`), zip);
  console.log(`dist/${name}.zip: ${(zip.length / 1e6).toFixed(1)} MB`);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
