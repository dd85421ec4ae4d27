// Writes docs/joint-file.schema.json; with --check only says whether it is in step.
import { readFileSync, writeFileSync } from 'node:fs';
import { jointSchemaText as text } from './joint-schema.ts';

const file = new URL('../docs/joint-file.schema.json', import.meta.url);

if (process.argv.includes('--check')) {
  let now = '';
  try {
    now = readFileSync(file, 'utf8');
  } catch {
    // A missing file is out of step too.
  }
  if (now !== text) {
    console.error('docs/joint-file.schema.json is out of step with the schemas. Run npm run schema.');
    process.exit(1);
  }
  console.log('in step');
} else {
  writeFileSync(file, text);
  console.log(`wrote ${file.pathname}`);
}
