// Writes docs/joint-file.schema.json from the Valibot schemas; with --check only says whether it is in step.
import { toJsonSchema } from '@valibot/to-json-schema';
import { readFileSync, writeFileSync } from 'node:fs';
import { beltSchema } from '../core/src/stage/belt/params.ts';
import { compoundSchema } from '../core/src/stage/compound-planetary/params.ts';
import { cycloidalSchema } from '../core/src/stage/cycloidal/params.ts';
import { planetarySchema } from '../core/src/stage/planetary/params.ts';
import { ringPlateSchema } from '../core/src/stage/ring-plate/params.ts';
import { spurSchema } from '../core/src/stage/spur/params.ts';
import { unitSchema } from '../core/src/stage/unit/params.ts';
import { wormSchema } from '../core/src/stage/worm/params.ts';
import { jointSchema } from '../core/src/schema/joint.ts';

const file = new URL('../docs/joint-file.schema.json', import.meta.url);
// What a quantity takes is a number in SI units or text with a unit; the transformation behind it has no counterpart in
// JSON Schema.
const options = { errorMode: 'ignore', typeMode: 'input' } as const;
const joint = toJsonSchema(jointSchema, options);
const belt = toJsonSchema(beltSchema, options);
const planetary = toJsonSchema(planetarySchema, options);
const spur = toJsonSchema(spurSchema, options);
const compound = toJsonSchema(compoundSchema, options);
const worm = toJsonSchema(wormSchema, options);
const cycloidal = toJsonSchema(cycloidalSchema, options);
const ringPlate = toJsonSchema(ringPlateSchema, options);
const unit = toJsonSchema(unitSchema, options);
const bare = (schema: object) => ({ ...schema, $schema: undefined });
const content = {
  title: 'Gristmill joint file, version 4',
  $comment: 'Made from the Valibot schemas by npm run schema.',
  ...joint,
  definitions: {
    ...joint.definitions,
    beltParameters: bare(belt),
    planetaryParameters: bare(planetary),
    spurParameters: bare(spur),
    sharedPlanetParameters: bare(compound),
    wormParameters: bare(worm),
    cycloidalParameters: bare(cycloidal),
    ringPlateParameters: bare(ringPlate),
    unitParameters: bare(unit),
  },
};
const text = `${JSON.stringify(content, null, 1)}\n`;

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
