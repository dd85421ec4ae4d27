import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import * as core from '../src/index.ts';
import { shelf } from './helpers.ts';

// Every `@example call // result` in the docstrings of the core is run: what a reader is told is what is computed.

const SRC = fileURLToPath(new URL('../src/', import.meta.url));

interface Example {
  readonly file: string;
  readonly call: string;
  readonly result: string;
}

const examples: Example[] = readdirSync(SRC, { recursive: true, encoding: 'utf8' })
  .filter((f) => f.endsWith('.ts'))
  .flatMap((file) => {
    // A docstring's line may go on in the next one.
    const text = readFileSync(SRC + file, 'utf8').replace(/\n\s*\*\s{3}/g, ' ');
    return [...text.matchAll(/@example (.+?) \/\/ (.+?)(?: \*\/)?$/gm)].map((m) => ({
      file,
      call: m[1]!,
      result: m[2]!.trim(),
    }));
  });

/** Numbers in a value, in the order in which they are written down. */
function numbersIn(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  if (ArrayBuffer.isView(value)) return [...(value as Float64Array)];
  return typeof value === 'object' && value !== null ? Object.values(value).flatMap(numbersIn) : [];
}

/** Half of what the last digit that is written stands for. */
function slack(written: string): number {
  const [mantissa = '', exponent = '0'] = written.toLowerCase().split('e');
  const places = mantissa.includes('.') ? mantissa.length - mantissa.indexOf('.') - 1 : 0;
  return 0.500001 * 10 ** (Number(exponent) - places);
}

const evaluate = (text: string, names: Record<string, unknown>): unknown =>
  new Function(...Object.keys(names), `return (${text});`)(...Object.values(names));

describe('the examples in docstrings', () => {
  it('are there', () => expect(examples.length).toBeGreaterThan(15));

  for (const { file, call, result } of examples) {
    it(`${file}: ${call}`, async () => {
      const own = (await import(`../src/${file}`)) as Record<string, unknown>;
      const got = evaluate(call, { ...core, ...own, shelf });
      const written = result.match(/-?\d+(\.\d+)?(e[+-]?\d+)?/gi);
      if (written && !/['"`]/.test(result) && !/^(true|false|undefined)$/.test(result)) {
        const found = numbersIn(got);
        expect(found.length, String(found)).toBe(written.length);
        written.forEach((w, i) =>
          expect(Math.abs(found[i]! - Number(w)), `${found[i]} for ${w}`).toBeLessThanOrEqual(slack(w)),
        );
      } else expect(got).toEqual(evaluate(result, {}));
    });
  }
});
