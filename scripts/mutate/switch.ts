// Set up before each test file: which place is changed, and, where that is asked for, which places the file runs.
import { appendFileSync, readFileSync } from 'node:fs';
import { afterAll, expect } from 'vitest';

const changed = Number(readFileSync(process.env.MUTATE_PLACE!, 'utf8'));
const seen = new Set<number>();
const note = process.env.MUTATE_HITS;
(globalThis as { __changed?: (i: number) => boolean }).__changed = note
  ? (i) => (seen.add(i), false)
  : (i) => i === changed;

if (note)
  afterAll(() => {
    appendFileSync(note, JSON.stringify({ file: expect.getState().testPath, seen: [...seen] }) + '\n');
  });
