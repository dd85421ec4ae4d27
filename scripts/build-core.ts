// Builds the core as a library that plain Node imports, with types, into core/dist, and the page of what it exports.
// Usage: npm run build --workspace core; with --check it fails where docs/api.md is not in step.
import { execFileSync } from 'node:child_process';
import { copyFileSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

const root = fileURLToPath(new URL('..', import.meta.url));
const core = join(root, 'core');
const page = join(root, 'docs/api.md');

/** The first sentence of what is said of something. */
const firstSentence = (text: string): string =>
  /^.*?[.:](?=\s|$)/.exec(text.replace(/\s+/g, ' ').trim())?.[0].replace(/:$/, '.') ?? '';

/** What the index of the core exports, by the folder it comes from: name, shape and first sentence. */
function apiPage(): string {
  const config = ts.parseJsonConfigFileContent(
    ts.readConfigFile(join(core, 'tsconfig.build.json'), (f) => ts.sys.readFile(f)).config,
    ts.sys,
    core,
  );
  const index = join(core, 'src/index.ts');
  const program = ts.createProgram([index], config.options);
  const checker = program.getTypeChecker();
  const module = checker.getSymbolAtLocation(program.getSourceFile(index)!)!;
  const folders = new Map<string, string[]>();
  for (const exported of checker.getExportsOfModule(module)) {
    const symbol = exported.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(exported) : exported;
    const node = symbol.declarations?.[0];
    if (!node) continue;
    const file = relative(join(core, 'src'), node.getSourceFile().fileName);
    const kind = ts.isInterfaceDeclaration(node) || ts.isTypeAliasDeclaration(node) ? 'type' : 'value';
    const says = firstSentence(ts.displayPartsToString(symbol.getDocumentationComment(checker)));
    const signature =
      kind === 'value'
        ? checker
            .getTypeOfSymbolAtLocation(symbol, node)
            .getCallSignatures()[0]
            ?.getParameters()
            .map((p) => p.name)
        : undefined;
    const name = exported.name + (signature ? `(${signature.join(', ').replace(/__\d+/g, '{…}')})` : '');
    const folder = file.includes('/') ? file.slice(0, file.indexOf('/')) : '.';
    const line = `- \`${name}\`${kind === 'type' ? ', a type' : ''}${says ? `: ${says}` : ''} <small>${file}</small>`;
    folders.set(folder, [...(folders.get(folder) ?? []), line]);
  }
  return [
    '# What the core exports',
    '',
    'Written by `npm run build --workspace core`, from the sources: name, what is said of it in a sentence, where it stands. Units, errors and',
    'sources stand in the docstrings, which the types of the library bring along.',
    ...[...folders]
      .sort(([a], [b]) => a.localeCompare(b))
      .flatMap(([folder, list]) => ['', `## ${folder}`, '', ...list.sort()]),
    '',
  ].join('\n');
}

const text = apiPage();
if (process.argv.includes('--check')) {
  if (readFileSync(page, 'utf8') !== text) {
    console.error('docs/api.md is not in step with the core. Run npm run build --workspace core.');
    process.exit(1);
  }
} else {
  writeFileSync(page, text);
  rmSync(join(core, 'dist'), { recursive: true, force: true });
  execFileSync('node', ['node_modules/typescript-7/bin/tsc', '-p', 'core/tsconfig.build.json'], {
    cwd: root,
    stdio: 'inherit',
  });
  const own = JSON.parse(readFileSync(join(core, 'package.json'), 'utf8')) as Record<string, unknown>;
  const { version } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as { version: string };
  const { private: _private, devDependencies: _dev, scripts: _scripts, ...kept } = own;
  writeFileSync(
    join(core, 'dist/package.json'),
    `${JSON.stringify(
      {
        ...kept,
        version,
        description:
          'Reducers for robot joints and precision axes: sized, drawn, predicted with bands, held against the bench.',
        types: './index.d.ts',
        exports: {
          '.': { types: './index.d.ts', default: './index.js' },
          './*': { types: './*.d.ts', default: './*.js' },
        },
        files: ['**/*.js', '**/*.d.ts', 'README.md', 'LICENSE'],
        engines: { node: '>=20.19' },
      },
      null,
      2,
    )}\n`,
  );
  copyFileSync(join(core, 'README.md'), join(core, 'dist/README.md'));
  copyFileSync(join(root, 'LICENSE'), join(core, 'dist/LICENSE'));
}
