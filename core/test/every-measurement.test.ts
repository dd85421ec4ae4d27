import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  TEST_KINDS,
  blankTest,
  columnsOf,
  importFile,
  LIMIT_KINDS,
  parseQuantity,
  readJointFile,
  testKind,
  writeJointFile,
  type BenchTest,
  type TestKind,
} from '../src/index.ts';
import { demo } from './helpers.ts';
import { context } from './typed-bench.ts';

// What a kind of measurement promises, held against every one that is registered.

const each = (name: string, hold: (k: TestKind) => void): void => {
  for (const k of TEST_KINDS) it(`${k.id} ${name}`, () => hold(k));
};
const bytes = (text: string) => new TextEncoder().encode(text);
/** Kinds whose readings are named columns; the two at a lever keep theirs under names of their own. */
const typed = TEST_KINDS.filter((k) => testKind(k.id) && k.columns.length > 0);

describe('every measurement', () => {
  each('starts with a rig in bounds, each field with its help, and no two under one name', (k) => {
    expect(new Set(k.rig.map((f) => f.id)).size).toBe(k.rig.length);
    for (const f of k.rig) {
      expect(f.help.length, f.id).toBeGreaterThan(3);
      if (f.as === 'choice')
        expect(
          f.options.map((o) => o.value),
          f.id,
        ).toContain(f.start);
      else {
        expect(f.start, f.id).toBeGreaterThanOrEqual(f.min);
        expect(f.start, f.id).toBeLessThanOrEqual(f.max);
      }
    }
    // A heading must not be claimed by two columns of one table.
    for (const rig of [{}, { axis: 'straight' }] as Record<string, string>[]) {
      const words = columnsOf(k, rig).flatMap((c) => c.words);
      expect(words.length - new Set(words).size, words.join()).toBe(0);
    }
  });

  each('has examples that its own columns read, and lands on rows of the brief', (k) => {
    for (const c of columnsOf(k, {})) {
      if (c.as !== 'quantity') expect(c.options.length, c.id).toBeGreaterThan(1);
      else expect(parseQuantity(c.example, c.quantity), `${c.id}: ${c.example}`).toMatchObject({ ok: true });
    }
    for (const row of k.rows) expect(LIMIT_KINDS[row], row).toBeDefined();
    expect(k.columns.length > 0 || (k.channels?.length ?? 0) > 0).toBe(true);
  });

  it('written into a joint comes back as it was, raw readings and rig with it', () => {
    const joint = demo();
    const buildId = joint.builds[0]!.id;
    joint.tests = typed.map((k, i) => {
      const blank = blankTest(k, { id: `t${i}`, buildId, date: '2026-11-25' });
      const values = Object.fromEntries(
        columnsOf(k, {}).map((c) => [c.id, c.as === 'quantity' ? 0.125 * (i + 1) : c.options[0]!.value]),
      );
      return {
        ...blank,
        readings: [
          { id: 'a', text: 'as typed', values },
          { id: 'b', text: '', values, struck: 'bumped' },
        ],
      } as BenchTest;
    });
    const back = readJointFile(writeJointFile(joint));
    if (!back.ok) throw new Error(`${back.problem.what} ${back.problem.why}`);
    expect(back.value.tests).toEqual(joint.tests);
  });
});

describe('a table for any measurement', () => {
  for (const k of typed) {
    const columns = columnsOf(k, {});
    const rows = [1, 2, 3].map((n) =>
      columns.map((c) => (c.as === 'quantity' ? n * 1.5 : c.options[n % c.options.length]!.value)),
    );
    const table = (order: readonly number[], separator: string) =>
      [order.map((i) => columns[i]!.words[0] ?? columns[i]!.label), ...rows.map((r) => order.map((i) => r[i]!))]
        .map((r) => r.join(separator))
        .join('\n');
    const read = (text: string) => {
      const r = importFile(k, bytes(text));
      return r.ok ? r.value.readings.map((x) => x.values) : `${r.problem.what} ${r.problem.why}`;
    };

    it(`${k.id} is the same in any order of columns, with any separator, with a column nobody asked for`, () => {
      const straight = columns.map((_, i) => i);
      const plain = read(table(straight, ','));
      expect(Array.isArray(plain), String(plain)).toBe(true);
      expect((plain as unknown[]).length).toBe(3);
      for (const separator of [';', '\t'])
        expect(read(table([...straight].reverse(), separator)), separator).toEqual(plain);
      const wide = table(straight, ',')
        .split('\n')
        .map((l, i) => `${l},${i === 0 ? 'remark' : 'fine'}`)
        .join('\r\n');
      expect(read(wide)).toEqual(plain);
    });

    it(`${k.id} with lines that are not whole keeps the others and says how many it left out`, () => {
      const broken = table(
        columns.map((_, i) => i),
        ',',
      ).split('\n');
      broken.splice(2, 0, columns.map(() => '?').join(','));
      const r = importFile(k, bytes(broken.join('\n')));
      if (!r.ok) throw new Error(r.problem.what);
      expect(r.value.readings.length).toBe(3);
      expect(r.value.notes.join(' ')).toMatch(/1 row could not be read/);
    });
  }

  it('cut, doubled or muddled anywhere is read or refused in words, and analysed or refused in words', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...typed.map((k) => k.id)),
        fc.nat(),
        fc.string({ maxLength: 12 }),
        fc.constantFrom(',', ';', '\t', ' '),
        (id, at, mud, separator) => {
          const k = testKind(id)!;
          const columns = columnsOf(k, {});
          const whole = [
            columns.map((c) => c.words[0] ?? c.id),
            ...[1, 2, 3, 4].map((n) => columns.map((c) => (c.as === 'quantity' ? n * 0.7 : c.options[0]!.value))),
          ]
            .map((r) => r.join(separator))
            .join('\n');
          const cut = at % whole.length;
          const r = importFile(k, bytes(whole.slice(0, cut) + mud + whole.slice(cut)));
          if (!r.ok) return void expect(r.problem.mend.length).toBeGreaterThan(3);
          const blank = blankTest(k, { id: 't', buildId: 'b', date: '2026-11-25' });
          const out = k.analyse(
            { ...blank, rig: { ...blank.rig, ...r.value.rig }, readings: r.value.readings } as BenchTest,
            context,
          );
          if (!out.ok) return void expect(out.problem.mend.length).toBeGreaterThan(3);
          if (out.value.found) expect(Number.isFinite(out.value.found.value), k.id).toBe(true);
          expect(out.value.says.length).toBeGreaterThan(3);
        },
      ),
      { numRuns: 300 },
    );
  });
});
