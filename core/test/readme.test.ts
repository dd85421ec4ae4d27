import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import * as core from '../src/index.ts';
import * as catalogue from '../src/stage/catalogue.ts';

// The examples of the library's README are run: a line `expression; // result` is held to what it says.

const text = readFileSync(fileURLToPath(new URL('../README.md', import.meta.url)), 'utf8');
const blocks = [...text.matchAll(/^## (.+)\n[^]*?```js\n([^]*?)```/gm)].map((m) => ({ name: m[1]!, code: m[2]! }));
const MODULES: Readonly<Record<string, Record<string, unknown>>> = {
  '@gristmill/core': core,
  '@gristmill/core/stage/catalogue': catalogue,
};

/** A block as the body of a function that takes what it imports, and says what its lines come to. */
function ran(code: string): { got: unknown; wanted: unknown }[] {
  const names = new Map<string, unknown>();
  const body = code
    .replace(/^import \{([^}]+)\} from '([^']+)';$/gm, (_, list: string, from: string) => {
      for (const name of list.split(',').map((n) => n.trim())) {
        expect(MODULES[from]![name], `${name} of ${from}`).toBeDefined();
        names.set(name, MODULES[from]![name]);
      }
      return '';
    })
    .replace(
      /^(.+); \/\/ (.+)$/gm,
      (_, call: string, result: string) => `said.push({ got: ${call}, wanted: ${result} });`,
    );
  const said: { got: unknown; wanted: unknown }[] = [];
  new Function(...names.keys(), 'said', body)(...names.values(), said);
  return said;
}

describe('the README of the library', () => {
  it('has three examples', () => expect(blocks).toHaveLength(3));

  it.each(blocks)('$name', ({ code }) => {
    const said = ran(code);
    expect(said.length).toBeGreaterThan(0);
    for (const { got, wanted } of said) expect(got).toEqual(wanted);
  });
});
