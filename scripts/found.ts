// Looks for the lines of every demo joint and writes them to demo/found, so that the demo opens with them.
// Usage: npm run found -- [joint ...]
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { activeVariant, countSays, editsFor, makeShelf, readJointFile } from '../core/src/index.ts';
import { registerKinds } from '../core/src/stage/catalogue.ts';
import { findOnAllCores } from '../cli/src/find-parts.ts';

registerKinds();
const named = process.argv.slice(2);
mkdirSync(new URL('../demo/found/', import.meta.url), { recursive: true });
for (const name of named.length ? named : ['body-yaw', 'neck-lift', 'wing-root', 'tide-dial', 'reed-lift']) {
  const read = readJointFile(readFileSync(new URL(`../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!read.ok) throw new Error(read.problem.what);
  const joint = read.value;
  const variant = activeVariant(joint);
  const edits = editsFor(joint, {});
  const result = await findOnAllCores({ joint, variant, shelf: makeShelf(edits), stages: 3 });
  const { sensor, mount, output } = variant;
  const asked = [joint.brief, sensor, mount ?? null, output ?? null, edits];
  const kept = { when: new Date().toISOString(), first: false, asked, result };
  writeFileSync(new URL(`../demo/found/${name}.json`, import.meta.url), `${JSON.stringify(kept)}\n`);
  console.log(`${name}: ${result.lines.length} lines of ${countSays(result.looked, result.pruned)}`);
}
