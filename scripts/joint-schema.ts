// The JSON Schema of a joint file, made from the Valibot schemas of the joint and of every kind of stage.
import { toJsonSchema, type ConversionConfig, type JsonSchema } from '@valibot/to-json-schema';
import { QUANTITIES, stageKinds, type QuantityId } from '../core/src/index.ts';
import { jointSchema, VERSION } from '../core/src/schema/joint.ts';
import { registerKinds } from '../core/src/stage/catalogue.ts';

registerKinds();

const escaped = (text: string): string => text.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&');

/** Text with a unit as the reader takes it: a number in any usual spelling, then one of the quantity's units. */
function withUnit(id: QuantityId): string {
  const spellings = QUANTITIES[id].units.flatMap((u) => [u.symbol, ...(u.also ?? [])]);
  const units = [...new Set(spellings)].map((u) =>
    escaped(u).replace(/·/g, '\\s*[·*.⋅∙×\\s-]\\s*').replace(/[µμ]/g, '[µμ]'),
  );
  return `^\\s*[+\\-−]?\\s*[\\d.,'_\\s/]*\\d[\\d.,]*([eE][+\\-−]?\\d+)?\\s*(${units.join('|')})\\s*$`;
}

interface QuantityMark {
  readonly quantity: QuantityId;
  readonly least: number;
  readonly most: number;
}

const bound = (key: 'minimum' | 'maximum', x: number) => (Number.isFinite(x) ? { [key]: x } : {});

/** What a quantity takes: a number in SI units within its bounds, or text with a unit. */
const options: ConversionConfig = {
  errorMode: 'ignore',
  typeMode: 'input',
  overrideAction: ({ valibotAction, jsonSchema }): JsonSchema | undefined => {
    const mark = (valibotAction as { metadata?: Partial<QuantityMark> }).metadata as QuantityMark | undefined;
    if (!mark?.quantity) return undefined;
    const { least: _least, most: _most, ...rest } = jsonSchema as JsonSchema & Partial<QuantityMark>;
    return {
      ...rest,
      anyOf: [
        { type: 'number', ...bound('minimum', mark.least), ...bound('maximum', mark.most) },
        { type: 'string', pattern: withUnit(mark.quantity) },
      ],
    };
  },
};

const bare = (schema: object) => ({ ...schema, $schema: undefined });
const kinds = stageKinds();
const joint = toJsonSchema(jointSchema, options) as JsonSchema & {
  properties: { variants: { items: { properties: { stages: { items: JsonSchema } } } } };
};
const stage = joint.properties.variants.items.properties.stages.items;
// What the parameters are depends on the kind; a kind that is not known has none.
joint.properties.variants.items.properties.stages.items = {
  ...stage,
  properties: { ...stage.properties, kind: { enum: kinds.map((k) => k.id) } },
  allOf: kinds.map((k) => ({
    if: { properties: { kind: { const: k.id } } },
    then: { properties: { params: { $ref: `#/definitions/${k.id}` } } },
  })),
};
const content = {
  title: `Gristmill joint file, version ${VERSION}`,
  $comment: 'Made from the Valibot schemas by npm run schema.',
  ...joint,
  definitions: {
    ...joint.definitions,
    ...Object.fromEntries(kinds.map((k) => [k.id, bare(toJsonSchema(k.schema, options))])),
  },
};
/** The schema as it is published. */
export const jointSchemaText = `${JSON.stringify(content, null, 1)}\n`;
