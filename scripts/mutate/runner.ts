// Runs test files of the copy it stands in, again and again, each time with another place changed. Told what to do by
// lines of JSON on its input, `{ "place": number, "tests": [files] }`; answers each with `{ "failed": true or false }`.
import { writeFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { createVitest } from 'vitest/node';

const vitest = await createVitest('test', {
  root: process.cwd(),
  config: 'mutate.config.ts',
  watch: false,
  maxWorkers: 1,
  reporters: [{}],
  silent: true,
});
const every = await vitest.globTestSpecifications();

for await (const line of createInterface({ input: process.stdin })) {
  const { place, tests } = JSON.parse(line) as { place: number; tests: string[] };
  writeFileSync(process.env.MUTATE_PLACE!, String(place));
  const specs = every.filter((s) => tests.includes(s.moduleId));
  if (specs.length !== tests.length) throw new Error(`Not every one is a test: ${tests.join(', ')}`);
  const result = await vitest.runTestSpecifications(specs);
  // What failed in an earlier run is told of again.
  const testModules = result.testModules.filter((m) => tests.includes(m.moduleId));
  // A process that is kept for the next run keeps its sources and what was changed in them.
  await vitest.pool?.close?.();
  vitest.pool = undefined;
  const failed = result.unhandledErrors.length > 0 || testModules.some((m) => !m.ok());
  const why = testModules.flatMap((m) => [
    ...m.errors().map((e) => e.message),
    ...[...m.children.allTests('failed')].map((t) => `${t.fullName}: ${t.result().errors?.[0]?.message}`),
  ]);
  console.log(JSON.stringify({ failed, why: why.slice(0, 2) }));
}
await vitest.close();
