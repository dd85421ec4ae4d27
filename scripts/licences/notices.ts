import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** A package that something of Gristmill is made of, and what it may be used under. */
export interface Shipped {
  readonly name: string;
  readonly version: string;
  /** As SPDX writes it; empty where the package says none. */
  readonly licence: string;
  readonly source: string;
  /** The text of its licence and of its notices, as it brings them; empty where it brings none. */
  readonly text: string;
}

/** What may be part of a product under the MIT licence without more than a notice. */
const FREE = new Set([
  'MIT',
  'ISC',
  '0BSD',
  'BSD-2-Clause',
  'BSD-3-Clause',
  'Apache-2.0',
  'OFL-1.1',
  'CC0-1.0',
  'Unlicense',
  'Zlib',
  'BlueOak-1.0.0',
]);

/** What may ship as a file of its own that can be replaced, with its source offered. */
const REPLACEABLE: Readonly<Record<string, string>> = {
  'replicad-opencascadejs':
    'It is used as it comes, in two files of its own under assets: the kernel, replicad_single-….wasm, and the script ' +
    'beside it that calls it (part of step.worker-….js). Whoever has these files may put a changed kernel in place of the first: build ' +
    'it from the source named above with the same exports, keep the file’s name, and clear the files that the browser has kept of this address. For ' +
    'three years whoever asks us gets the source it was made from, at the price of a copy.',
};

/**
 * Whether a licence, as SPDX writes it, allows its package to be part of Gristmill.
 *
 * @example mayShip('any', '(MIT OR GPL-3.0-only)') // true
 * @example mayShip('any', 'MIT AND GPL-3.0-only') // false
 * @example mayShip('any', '') // false
 */
export function mayShip(name: string, licence: string): boolean {
  if (name in REPLACEABLE && /^LGPL-2\.1/.test(licence)) return true;
  const plain = licence.replace(/^\(|\)$/g, '').trim();
  if (plain.includes(' OR ')) return plain.split(' OR ').some((one) => mayShip(name, one));
  if (plain.includes(' AND ')) return plain.split(' AND ').every((one) => mayShip(name, one));
  return FREE.has(plain);
}

/** The packages that files lie in, each once, by name. */
export function shippedOf(files: Iterable<string>): Shipped[] {
  const folders = new Set<string>();
  for (const file of files) {
    const at = file.lastIndexOf('/node_modules/');
    if (at < 0) continue;
    const [first, second] = file.slice(at + 14).split(/[/?]/);
    const name = first!.startsWith('@') ? `${first}/${second}` : first!;
    folders.add(`${file.slice(0, at).replace(/^[^/]*(?=\/)/, '')}/node_modules/${name}`);
  }
  return (
    [...folders]
      .filter((folder) => existsSync(join(folder, 'package.json')))
      .map(packageAt)
      .filter((p) => !p.name.startsWith('@gristmill/'))
      // A package that is installed twice is named once.
      .filter((p, i, all) => all.findIndex((o) => o.name === p.name && o.version === p.version) === i)
      .sort((a, b) => a.name.localeCompare(b.name))
  );
}

/** What a package says of itself. */
export function packageAt(folder: string): Shipped {
  const said = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8')) as {
    name: string;
    version: string;
    license?: string | { type?: string };
    repository?: string | { url?: string };
    homepage?: string;
  };
  const texts = readdirSync(folder)
    .filter((f) => /^(licen[cs]e|copying|notice)([.-].*)?$/i.test(f))
    .sort()
    .map((f) => readFileSync(join(folder, f), 'utf8').trim());
  const source = typeof said.repository === 'string' ? said.repository : (said.repository?.url ?? said.homepage ?? '');
  return {
    name: said.name,
    version: said.version,
    licence: typeof said.license === 'string' ? said.license : (said.license?.type ?? ''),
    source: source.replace(/^git\+/, '').replace(/\.git$/, ''),
    text: texts.join('\n\n'),
  };
}

/** The notices that go with what ships: who made what, under which terms, in their own words. */
export function writeNotices(packages: readonly Shipped[]): string {
  const each = packages.map((p) =>
    [
      `${p.name} ${p.version}`,
      `Licence: ${p.licence || 'none said'}`,
      ...(p.source ? [`Source: ${p.source}`] : []),
      ...(REPLACEABLE[p.name] ? ['', REPLACEABLE[p.name]] : []),
      '',
      p.text || 'The package brings no text of its licence.',
    ].join('\n'),
  );
  return [
    'Gristmill is made with the following packages. Their makers’ terms are given in their own words.',
    ...each,
  ].join(`\n\n${'-'.repeat(72)}\n\n`);
}
