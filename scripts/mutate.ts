// Changes the arithmetic of the core, one place at a time, and runs its tests: what no test notices is a formula that
// nobody holds. Not part of the tests; takes about ten seconds a mutant that is noticed and a minute for one that is not.
// Usage: npm run mutate -- [--in core/src/gear] [--count 50] [--seed 1] [--part 2/8] [--workers 1]
//   [--only core/src/gear/mesh.ts:120]
import { spawn } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

const root = fileURLToPath(new URL('..', import.meta.url));
const args = process.argv.slice(2);
const option = (name: string, start: string): string => {
  const at = args.indexOf(`--${name}`);
  return at >= 0 ? (args[at + 1] ?? start) : start;
};

/** Files whose arithmetic is looked at by eye or held by their own tests of shape: pictures, forms, writers of files. */
const LEFT_OUT =
  /(drawing|fields|tables|parts|outlines|views|marks|words|candidates|params|counts)\.ts$|\/(shape|solid|units|document|schema)\//;

interface Mutant {
  readonly file: string;
  readonly line: number;
  readonly start: number;
  readonly end: number;
  readonly to: string;
  readonly says: string;
}

const SWAPS = new Map<ts.SyntaxKind, string>([
  [ts.SyntaxKind.PlusToken, '-'],
  [ts.SyntaxKind.MinusToken, '+'],
  [ts.SyntaxKind.AsteriskToken, '/'],
  [ts.SyntaxKind.SlashToken, '*'],
  [ts.SyntaxKind.AsteriskAsteriskToken, '*'],
  [ts.SyntaxKind.PlusEqualsToken, '-='],
]);

const CALLS: Readonly<Record<string, string>> = {
  sin: 'cos',
  cos: 'sin',
  tan: 'sin',
  min: 'max',
  max: 'min',
  sqrt: 'abs',
  cbrt: 'abs',
  abs: 'sign',
  floor: 'ceil',
  ceil: 'floor',
};

/** Every place of a file where one change makes another formula. Text, types and indices are no formulas. */
function mutantsOf(file: string): Mutant[] {
  const text = readFileSync(join(root, file), 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const out: Mutant[] = [];
  const put = (node: ts.Node, to: string) => {
    const [start, end] = [node.getStart(), node.getEnd()];
    const line = source.getLineAndCharacterOfPosition(start).line + 1;
    out.push({ file, line, start, end, to, says: `${text.slice(start, end)} → ${to}` });
  };
  const words = (n: ts.Node): boolean =>
    ts.isTemplateExpression(n) || ts.isTypeNode(n) || ts.isElementAccessExpression(n.parent ?? n) || wording(n);
  const visit = (n: ts.Node): void => {
    if (drawn(n)) return;
    if (n.parent && words(n) && !(ts.isElementAccessExpression(n.parent) && n.parent.expression === n)) return;
    if (ts.isBinaryExpression(n)) {
      const swap = SWAPS.get(n.operatorToken.kind);
      const strings = [n.left, n.right].some((x) => ts.isStringLiteralLike(x) || ts.isTemplateExpression(x));
      if (swap && !strings) put(n.operatorToken, swap);
    }
    if (ts.isNumericLiteral(n) && n.parent && ts.isBinaryExpression(n.parent)) put(n, `(${n.getText()} * 2 + 0.01)`);
    if (ts.isPrefixUnaryExpression(n) && n.operator === ts.SyntaxKind.MinusToken && !ts.isNumericLiteral(n.operand))
      put(n, n.operand.getText());
    if (ts.isPropertyAccessExpression(n) && n.expression.getText() === 'Math' && CALLS[n.name.text])
      put(n.name, CALLS[n.name.text]!);
    ts.forEachChild(n, visit);
  };
  visit(source);
  return out;
}

/** What a rig's sketch is drawn by is looked at by eye. */
const drawn = (n: ts.Node): boolean =>
  (ts.isPropertyAssignment(n) || ts.isMethodDeclaration(n) || ts.isFunctionDeclaration(n)) &&
  /^(sketch|draw)/.test(n.name?.getText() ?? '');

/** A call that only says something. */
const wording = (n: ts.Node): boolean =>
  ts.isCallExpression(n) &&
  /^(refuse|stop|check|term|exact|formatQuantity|stated|steppedUp|rigQuantity)$|\.figure$/.test(n.expression.getText());

const files = (folder: string): string[] =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .map((f) => `${folder}/${f}`)
    .filter((f) => f.endsWith('.ts') && !LEFT_OUT.test(f))
    .sort();

function sample<T>(list: readonly T[], count: number, seed: number): T[] {
  let s = seed >>> 0;
  const roll = () => (s = (Math.imul(s, 1664525) + 1013904223) >>> 0) / 4294967296;
  return [...list]
    .map((x) => [roll(), x] as const)
    .sort((a, b) => a[0] - b[0])
    .slice(0, count)
    .map(([, x]) => x);
}

/** Test files that take long and seldom notice what the others do not: asked last. */
const SLOW =
  /(assembled|step|solid|shape|every-kind|json-schema|kept|joint-file|line-fuzz|read-files|rig|examples)\.test\.ts$/;
const tests = readdirSync(join(root, 'core/test'))
  .filter((f) => f.endsWith('.test.ts'))
  .map((f) => `core/test/${f}`);
const ROUNDS = [tests.filter((f) => !SLOW.test(f)), tests.filter((f) => SLOW.test(f))];

/** Whether any of these test files fails; one that hangs does. */
function fails(folder: string, which: readonly string[]): Promise<boolean> {
  const workers = option('workers', '2');
  const run = spawn(
    'npx',
    `--no-install vitest run --project core --bail 1 --reporter dot --maxWorkers ${workers}`.split(' ').concat(which),
    { cwd: folder, stdio: 'ignore', detached: true },
  );
  return new Promise((done) => {
    const stop = setTimeout(() => process.kill(-run.pid!, 'SIGKILL'), 400_000);
    run.once('exit', (code) => {
      clearTimeout(stop);
      done(code !== 0);
    });
  });
}

/** Whether the core's tests notice, the quick ones first. */
async function noticed(folder: string): Promise<boolean> {
  for (const which of ROUNDS) if (await fails(folder, which)) return true;
  return false;
}

const only = option('only', '');
const all = (only ? [only.split(':')[0]!] : option('in', 'core/src').split(',').flatMap(files)).flatMap(mutantsOf);
const [part, parts] = option('part', '1/1').split('/').map(Number) as [number, number];
const chosen = only
  ? all.filter((m) => `${m.file}:${m.line}` === only)
  : sample(all, Number(option('count', '50')), Number(option('seed', '1'))).filter((_, i) => i % parts === part - 1);
console.log(JSON.stringify({ mutate: 'places', found: all.length, chosen: chosen.length }));

// In a copy, so that the sources stay as they are whatever happens.
const copy = mkdtempSync(join(tmpdir(), 'gristmill-mutate-'));
for (const f of [
  'core',
  'web',
  'server',
  'cli',
  'demo',
  'docs',
  'torture',
  'scripts',
  'package.json',
  'tsconfig.json',
  'tsconfig.base.json',
  'vitest.config.ts',
])
  cpSync(join(root, f), join(copy, f), {
    recursive: true,
    filter: (from) => !/\/(node_modules|dist)(\/|$)/.test(from.slice(root.length)),
  });
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
let killed = 0;
try {
  if (await noticed(copy)) throw new Error('The tests fail as they are: nothing can be learnt from a change.');
  for (const [i, m] of chosen.entries()) {
    // Of the copy: the sources may have moved on.
    const text = readFileSync(join(copy, m.file), 'utf8');
    writeFileSync(join(copy, m.file), text.slice(0, m.start) + m.to + text.slice(m.end));
    const seen = await noticed(copy);
    writeFileSync(join(copy, m.file), text);
    if (seen) killed++;
    else console.log(JSON.stringify({ survived: `${m.file}:${m.line}`, change: m.says }));
    if (i % 10 === 9) console.log(JSON.stringify({ mutate: 'so far', of: i + 1, killed }));
  }
} finally {
  rmSync(copy, { recursive: true, force: true });
}
console.log(
  JSON.stringify({ mutate: 'done', mutants: chosen.length, killed, share: killed / Math.max(1, chosen.length) }),
);
