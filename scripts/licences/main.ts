// Lists what Gristmill is made of with its licences, and fails on what must not ship with it. Usage: npm run licences
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { mayShip, packageAt } from './notices.ts';

const root = fileURLToPath(new URL('../..', import.meta.url));
const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')) as {
  packages: Record<string, { dev?: boolean; link?: boolean; optional?: boolean }>;
};
const folders = Object.entries(lock.packages)
  .filter(([path, p]) => path.includes('node_modules/') && !p.dev && !p.link && !p.optional)
  .map(([path]) => join(root, path))
  .filter((folder) => existsSync(join(folder, 'package.json')));
const packages = folders.map(packageAt);
const refused = packages.filter((p) => !mayShip(p.name, p.licence));
const count = new Map<string, number>();
for (const p of packages) count.set(p.licence, (count.get(p.licence) ?? 0) + 1);
for (const [licence, n] of [...count].sort((a, b) => b[1] - a[1]))
  console.log(`${String(n).padStart(4)} ${licence || 'no licence said'}`);
for (const p of refused)
  console.error(
    `${p.name} ${p.version} must not ship: its licence is ${p.licence || 'not said'}. Take another package, or one version under other terms.`,
  );
if (!existsSync(join(root, 'LICENSE'))) console.error('LICENSE is missing.');
process.exit(refused.length || !existsSync(join(root, 'LICENSE')) ? 1 : 0);
