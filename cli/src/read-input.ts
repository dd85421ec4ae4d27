import { refuse, ok, type Result } from '@gristmill/core';
import { readFileSync, statSync } from 'node:fs';

const MAX = 20_000_000;

/** Reads a text file named on the command line, or standard input for "-". */
export function readInput(file: string): Result<string> {
  try {
    if (file !== '-' && statSync(file).size > MAX)
      return refuse(`${file} is too large.`, `Joint files stay under ${MAX / 1e6} MB.`, 'Name a joint file.');
    return ok(readFileSync(file === '-' ? 0 : file, 'utf8'));
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code;
    return refuse(
      `${file} cannot be read.`,
      code === 'ENOENT'
        ? 'There is no such file.'
        : code === 'EISDIR'
          ? 'It is a folder.'
          : `The system says ${code ?? 'no'}.`,
      'Check the name.',
    );
  }
}

/** Parses JSON given as an argument, or as @file. */
export function readJsonArgument(text: string | undefined, name: string): Result<unknown> {
  if (text === undefined)
    return refuse(`${name} is missing.`, 'The command needs it.', `Add ${name} '{…}' or ${name} @file.json.`);
  let source = text;
  if (text.startsWith('@')) {
    const read = readInput(text.slice(1));
    if (!read.ok) return read;
    source = read.value;
  }
  try {
    return ok(JSON.parse(source));
  } catch {
    return refuse(
      `${name} is not JSON.`,
      'It may be cut off, or a quote is missing.',
      `Write it like ${name} '{"z1":16}'.`,
    );
  }
}
