// Measures what a first visit loads: the entry script and what it imports before anything is asked for, compressed.
import { readdirSync, readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

const dist = new URL('../web/dist/', import.meta.url);
const html = readFileSync(new URL('index.html', dist), 'utf8');
const seen = new Set([...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map((m) => m[1]));
for (const file of seen) {
  const text = readFileSync(new URL(file, dist), 'utf8');
  // Static imports of a module come before its code; dynamic ones are calls.
  for (const [, name] of text.matchAll(/(?:^|[;}])import(?:[^"'();]*?from)?["']\.\/([^"']+\.js)["']/g))
    seen.add(`assets/${name}`);
}
const bytes = [...seen].reduce(
  (sum, file) => sum + gzipSync(readFileSync(new URL(file, dist)), { level: 9 }).length,
  0,
);
const limit = 250_000;
console.log(
  JSON.stringify({
    name: 'first load, compressed script',
    value: bytes,
    unit: 'B',
    limit,
    files: seen.size,
    of: readdirSync(new URL('assets/', dist)).filter((f) => f.endsWith('.js')).length,
  }),
);
if (bytes > limit) {
  console.error(`The first load is ${bytes} bytes of compressed script; the limit is ${limit}.`);
  process.exit(1);
}
