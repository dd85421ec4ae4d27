import Ajv from 'ajv';
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readJointFile, stageKinds, writeJointFile, type StageWish } from '../src/index.ts';
import { jointSchemaText } from '../../scripts/joint-schema.ts';
import { demo, dice, shelf } from './helpers.ts';

// The published JSON Schema against a validator that is not ours: what the reader takes it takes, what is plainly wrong it
// refuses as the reader does.

const at = (path: string) => new URL(`../../${path}`, import.meta.url);
const schema = JSON.parse(jointSchemaText) as object;
const valid = new Ajv({ strict: false, allErrors: false }).compile(schema);

type Raw = Record<string, unknown>;
const copy = (): Raw => JSON.parse(writeJointFile(demo())) as Raw;
const stageOf = (j: Raw): { kind: string; params: Raw } =>
  (j['variants'] as { stages: { kind: string; params: Raw }[] }[])[0]!.stages[0]!;

describe('the JSON Schema of a joint file', () => {
  it('is published as it is: npm run schema writes it', () =>
    expect(readFileSync(at('docs/joint-file.schema.json'), 'utf8') === jointSchemaText).toBe(true));

  for (const file of readdirSync(at('demo/')).filter((f) => f.endsWith('.json')))
    it(`takes ${file}`, () =>
      expect(valid(JSON.parse(readFileSync(at(`demo/${file}`), 'utf8'))), JSON.stringify(valid.errors)).toBe(true));

  for (const kind of stageKinds())
    it(`knows ${kind.id}, as it starts and when a parameter is of another sort`, () => {
      const wish: StageWish = { ratio: 20, torque: 2, size: Infinity, shelf };
      const j = copy();
      Object.assign(stageOf(j), { kind: kind.id, params: JSON.parse(JSON.stringify(kind.defaults(wish))) });
      expect(valid(j), JSON.stringify(valid.errors)).toBe(true);
      for (const field of kind.fields) {
        const odd = structuredClone(j);
        stageOf(odd).params[field.path] =
          field.as === 'text'
            ? 7
            : field.as === 'choice' && typeof stageOf(j).params[field.path] === 'string'
              ? 7
              : '5 bananas';
        expect(valid(odd), field.path).toBe(false);
        expect(readJointFile(JSON.stringify(odd)).ok, field.path).toBe(false);
      }
    });

  it('takes text with a unit, and refuses a kind it does not know, a missing list and an unknown version', () => {
    const j = copy();
    stageOf(j).params['width'] = '9 mm';
    expect(valid(j), JSON.stringify(valid.errors)).toBe(true);
    expect(readJointFile(JSON.stringify(j)).ok).toBe(true);
    for (const spoil of [
      (x: Raw) => void (stageOf(x).kind = 'perpetual'),
      (x: Raw) => void delete x['variants'],
      (x: Raw) => void (x['version'] = 99),
      (x: Raw) => void (stageOf(x).params['width'] = '9 kg'),
      (x: Raw) => void (stageOf(x).params['z1'] = 20.5),
    ]) {
      const odd = copy();
      spoil(odd);
      expect(valid(odd)).toBe(false);
      expect(readJointFile(JSON.stringify(odd)).ok).toBe(false);
    }
  });

  it('refuses nothing that the reader takes, whatever is spoiled', () => {
    const roll = dice(11);
    const values = [null, 0, -1, 1e9, 'x', '', true, [], {}, '3 mm', 0.5];
    let taken = 0;
    for (let i = 0; i < 200; i++) {
      const j = copy();
      let node: unknown = j;
      // Down to some leaf, and another value in its place.
      for (;;) {
        const keys = Object.keys(node as object);
        const key = keys[roll(keys.length)]!;
        const next = (node as Raw)[key];
        if (typeof next !== 'object' || next === null || Object.keys(next).length === 0) {
          (node as Raw)[key] = values[roll(values.length)];
          break;
        }
        node = next;
      }
      if (!readJointFile(JSON.stringify(j)).ok) continue;
      taken++;
      expect(valid(j), JSON.stringify(valid.errors)).toBe(true);
    }
    expect(taken).toBeGreaterThan(10);
  });
});
