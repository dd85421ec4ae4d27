// Runs test files of the copy it stands in, again and again, and reads anew only what changed. Told what to do by lines
// of JSON on its input, `{ "changed": [files], "tests": [files] }`; answers each with `{ "failed": true or false }`.
import { createInterface } from 'node:readline';
import { createVitest } from 'vitest/node';

// A run that is not cut short: what is still being read at its end would be taken for what comes next.
const vitest = await createVitest('test', {
  root: process.cwd(),
  config: 'mutate.config.ts',
  project: ['core'],
  watch: false,
  maxWorkers: 1,
  reporters: [{}],
  silent: true,
});
const every = await vitest.globTestSpecifications();

for await (const line of createInterface({ input: process.stdin })) {
  const { changed, tests } = JSON.parse(line) as { changed: string[]; tests: string[] };
  for (const file of changed) vitest.invalidateFile(file);
  const specs = every.filter((s) => tests.includes(s.moduleId));
  if (specs.length !== tests.length)
    throw new Error(`Not every one is a test, ${specs.length} of ${every.length}: ${tests.join(', ')}`);
  const { testModules, unhandledErrors } = await vitest.runTestSpecifications(specs);
  const failed = unhandledErrors.length > 0 || testModules.some((m) => !m.ok());
  const why = testModules.flatMap((m) => [
    ...m.errors().map((e) => e.message),
    ...[...m.children.allTests('failed')].map((t) => `${t.fullName}: ${t.result().errors?.[0]?.message}`),
  ]);
  console.log(JSON.stringify({ failed, why: why.slice(0, 2) }));
}
await vitest.close();
