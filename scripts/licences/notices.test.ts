import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { mayShip, shippedOf, writeNotices } from './notices.ts';

const root = mkdtempSync(join(tmpdir(), 'gristmill-notices-'));
const made = (name: string, said: object, texts: Record<string, string> = {}) => {
  const folder = join(root, 'node_modules', name);
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, 'package.json'), JSON.stringify({ name, version: '1.2.3', ...said }));
  for (const [file, text] of Object.entries(texts)) writeFileSync(join(folder, file), text);
  return join(folder, 'lib/main.js');
};
afterAll(() => rmSync(root, { recursive: true }));

describe('licences', () => {
  it.each([
    ['MIT', true],
    ['(MIT OR GPL-3.0-only)', true],
    ['MIT AND ISC AND BSD-3-Clause', true],
    ['MIT AND GPL-3.0-only', false],
    ['GPL-3.0-or-later', false],
    ['LGPL-2.1-only', false],
    ['SEE LICENSE IN FILE', false],
    ['', false],
  ])('%s may ship: %s', (licence, may) => expect(mayShip('any', licence)).toBe(may));

  it('the kernel that can be replaced may ship under the LGPL, and under nothing stricter', () => {
    expect(mayShip('replicad-opencascadejs', 'LGPL-2.1-only')).toBe(true);
    expect(mayShip('replicad-opencascadejs', 'AGPL-3.0-only')).toBe(false);
  });

  it('finds the packages of files, each once, and gives what they say in their own words', () => {
    const files = [
      made('plain', { license: 'MIT', repository: { url: 'git+https://example.org/plain.git' } }, { LICENSE: 'words' }),
      made('@some/scoped', { license: { type: 'ISC' } }, { 'NOTICE.md': 'a notice', 'licence.txt': 'terms' }),
      made('bare', {}),
    ];
    const shipped = shippedOf([...files, ...files.map((f) => `\0${f}?commonjs`), join(root, 'own.ts')]);
    expect(shipped.map((p) => [p.name, p.licence, p.source, p.text])).toEqual([
      ['@some/scoped', 'ISC', '', expect.stringMatching(/^(terms\n\na notice|a notice\n\nterms)$/)],
      ['bare', '', '', ''],
      ['plain', 'MIT', 'https://example.org/plain', 'words'],
    ]);
    const text = writeNotices(shipped);
    for (const part of ['plain 1.2.3', 'a notice', 'The package brings no text']) expect(text).toContain(part);
  });

  it('offers the source of what is under the LGPL, and says how it is replaced', () => {
    const [kernel] = shippedOf([made('replicad-opencascadejs', { license: 'LGPL-2.1-only', homepage: 'https://a.b' })]);
    expect(writeNotices([kernel!])).toMatch(/Source: https:\/\/a\.b[^]*put a changed kernel in place/);
  });
});
