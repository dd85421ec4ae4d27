// Set up before each test file while it is found out which of them runs which place: `__hit` counts, the file is named
// by the run.
import { appendFileSync } from 'node:fs';
import { afterAll, expect } from 'vitest';

const seen = new Set<number>();
(globalThis as { __hit?: (i: number) => void }).__hit = (i) => seen.add(i);

afterAll(() => {
  const file = expect.getState().testPath;
  appendFileSync(process.env.MUTATE_HITS!, JSON.stringify({ file, seen: [...seen] }) + '\n');
});
