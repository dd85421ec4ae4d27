// Changes the arithmetic of the core, one place at a time, and runs the tests that reach the place: what none notices is
// a formula that nobody holds. Not part of the tests.
// Usage: npm run mutate -- [--in core/src/gear] [--count 50] [--seed 1] [--part 2/8] [--workers 2]
//   [--in core/src/gear/mesh.ts:120] [--without step,assembled] [--again FILE]
// `--again` tries what survived a run whose output is in the file.
// Test files left out by their names' beginnings notice nothing: the share told is then a lower bound, sooner found.
import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { placesUnder, sample, survivors } from './choice.ts';
import { instrumented } from './instrument.ts';
import type { Mutant } from './places.ts';

const here = fileURLToPath(new URL('../..', import.meta.url));
const text = (start: string) => ({ type: 'string', default: start }) as const;
const { values: option } = parseArgs({
  options: {
    in: text('core/src'),
    count: text('50'),
    seed: text('1'),
    part: text('1/1'),
    workers: text('2'),
    without: text(''),
    again: text(''),
  },
});

/** No place. */
const NONE = -1;

/** A test file that reaches a place, and how long it takes. */
interface Reaching {
  readonly file: string;
  readonly ms: number;
}

/** What the test runner writes of a run. */
interface Report {
  readonly testResults: readonly {
    readonly name: string;
    readonly status: string;
    readonly message: string;
    readonly assertionResults: readonly { readonly duration?: number; readonly failureMessages: readonly string[] }[];
  }[];
}

/** Test files that are left out, as the runner's patterns. */
const LEFT = option.without
  .split(',')
  .filter((name) => name !== '')
  .map((name) => `core/test/${name}.test.ts`);

const CONFIG = `import base from './vitest.config.ts';
const core = base.test.projects[0].test;
export default { test: { projects: [{ test: { ...core, include: ['core/test/*.test.ts'],
  exclude: ${JSON.stringify(LEFT)},
  // What runs as a source is read counts for every file that reads it.
  isolate: process.env.MUTATE_HITS !== undefined,
  setupFiles: ['scripts/mutate/switch.ts', ...core.setupFiles] } }] } };
`;

/** A copy of what the tests need, so that the sources stay as they are whatever happens, and may be worked on. */
function copyOf(root: string): string {
  const copy = mkdtempSync(join(tmpdir(), 'gristmill-mutate-'));
  const needed = 'core web server cli demo docs torture scripts package.json tsconfig.json tsconfig.base.json';
  for (const f of `${needed} vitest.config.ts`.split(' '))
    cpSync(join(root, f), join(copy, f), {
      recursive: true,
      filter: (from) => !/\/(node_modules|dist)(\/|$)/.test(from.slice(root.length)),
    });
  symlinkSync(join(here, 'node_modules'), join(copy, 'node_modules'));
  writeFileSync(join(copy, 'mutate.config.ts'), CONFIG);
  writeFileSync(placeOf(copy), String(NONE));
  return copy;
}

/** The file of a copy that says which place is changed. */
const placeOf = (copy: string): string => join(copy, 'place');

/** Which test files reach each place, the quick ones first. */
async function reaching(mutants: readonly Mutant[]): Promise<Reaching[][]> {
  const copy = copyOf(base);
  try {
    const [hits, written] = [join(copy, 'hits.jsonl'), join(copy, 'report.json')];
    const run = spawn(
      'npx',
      `vitest run --config mutate.config.ts --maxWorkers 2 --reporter json --outputFile ${written}`.split(' '),
      {
        cwd: copy,
        env: { ...process.env, CI: '1', MUTATE_HITS: hits, MUTATE_PLACE: placeOf(copy) },
        stdio: 'ignore',
      },
    );
    const code = await new Promise((done) => run.once('exit', done));
    const report = JSON.parse(readFileSync(written, 'utf8')) as Report;
    const wrong = report.testResults
      .filter((r) => r.status !== 'passed')
      .map((r) => [r.name, r.message, ...r.assertionResults.flatMap((a) => a.failureMessages)].join(' ').slice(0, 600));
    if (code !== 0)
      throw new Error(`The tests fail as they are, nothing can be learnt from a change: ${wrong.join('; ')}`);
    const took = new Map(
      report.testResults.map((r) => [r.name, r.assertionResults.reduce((sum, a) => sum + (a.duration ?? 0), 0)]),
    );
    const lists: Reaching[][] = mutants.map(() => []);
    for (const line of readFileSync(hits, 'utf8').trim().split('\n')) {
      const { file, seen } = JSON.parse(line) as { file: string; seen: number[] };
      for (const i of seen) lists[i]!.push({ file: file.slice(copy.length + 1), ms: took.get(file) ?? 0 });
    }
    return lists.map((l) => l.sort((a, b) => a.ms - b.ms));
  } finally {
    rmSync(copy, { recursive: true, force: true });
  }
}

/** Test files in the order in which they are asked: in bites, so that a mutant that is noticed soon costs little. */
function bites(list: readonly Reaching[]): string[][] {
  const out: string[][] = [];
  let ms = Infinity;
  for (const t of list) {
    if (ms + t.ms > 2000 * out.length) {
      out.push([]);
      ms = 0;
    }
    out.at(-1)!.push(t.file);
    ms += t.ms;
  }
  return out;
}

/** A process that runs tests of a copy; one that hangs is ended, and that counts as noticed. */
class Runner {
  private run: ChildProcess | undefined;
  private lines: AsyncIterator<string> | undefined;
  constructor(private readonly copy: string) {}

  async fails(place: number, tests: readonly string[]): Promise<string | undefined> {
    if (!this.run) {
      this.run = spawn('npx', ['tsx', 'scripts/mutate/runner.ts'], {
        cwd: this.copy,
        stdio: ['pipe', 'pipe', 'inherit'],
        env: { ...process.env, CI: '1', MUTATE_PLACE: placeOf(this.copy) },
        detached: true,
      });
      this.lines = createInterface({ input: this.run.stdout! })[Symbol.asyncIterator]();
    }
    const full = (f: string) => join(this.copy, f);
    this.run.stdin!.write(JSON.stringify({ place, tests: tests.map(full) }) + '\n');
    let late = false;
    const stop = setTimeout(() => {
      late = true;
      this.end();
    }, 180_000);
    for (;;) {
      const { value, done } = await this.lines!.next();
      if (!done && !value.startsWith('{"failed"')) continue;
      clearTimeout(stop);
      if (!done) {
        const { failed, why } = JSON.parse(value) as { failed: boolean; why: string[] };
        return failed ? why.join('; ') || 'failed' : undefined;
      }
      this.run = undefined;
      if (late) return 'did not end';
      throw new Error('The runner of the tests ended by itself.');
    }
  }

  end(): void {
    if (this.run) process.kill(-this.run.pid!, 'SIGKILL');
  }
}

const base = copyOf(here);
const all = option.again ? survivors(base, readFileSync(option.again, 'utf8')) : placesUnder(base, option.in);
const [part, parts] = option.part.split('/').map(Number) as [number, number];
const chosen = (option.again ? all : sample(all, Number(option.count), Number(option.seed))).filter(
  (_, i) => i % parts === part - 1,
);
console.log(JSON.stringify({ mutate: 'places', found: all.length, chosen: chosen.length }));

for (const file of new Set(chosen.map((m) => m.file)))
  writeFileSync(join(base, file), instrumented(readFileSync(join(base, file), 'utf8'), file, chosen));
const lists = await reaching(chosen);
console.log(JSON.stringify({ mutate: 'reached', of: lists.filter((l) => l.length > 0).length }));
let [tried, killed] = [0, 0];

/** Takes the next place until there is none. */
async function work(): Promise<void> {
  const copy = copyOf(base);
  const runner = new Runner(copy);
  try {
    for (let i = tried++; i < chosen.length; i = tried++) {
      const m = chosen[i]!;
      let seen: string | undefined;
      for (const tests of bites(lists[i]!)) if ((seen = await runner.fails(i, tests))) break;
      // What failed must pass again, or it was something else.
      const still = seen && i % 25 === 0 ? await runner.fails(NONE, bites(lists[i]!)[0]!) : undefined;
      if (still) throw new Error(`Tests fail with nothing changed: ${still}`);
      if (seen) killed++;
      else console.log(JSON.stringify({ survived: `${m.file}:${m.line}`, change: m.says, reached: lists[i]!.length }));
      if (i % 20 === 19) console.log(JSON.stringify({ mutate: 'so far', of: i + 1, killed }));
    }
  } finally {
    runner.end();
    rmSync(copy, { recursive: true, force: true });
  }
}

try {
  await Promise.all(Array.from({ length: Number(option.workers) }, work));
} finally {
  rmSync(base, { recursive: true, force: true });
}
console.log(
  JSON.stringify({ mutate: 'done', mutants: chosen.length, killed, share: killed / Math.max(1, chosen.length) }),
);
