import { currencyOf, inUnits, moneyUnits, sayProblem, type Problem, type Result } from '@gristmill/core';
import { parseArgs } from 'node:util';
import { toJson, type Options } from './commands.ts';
import { help, helpOf } from './manual.ts';
import { isMisuse, misuse } from './misuse.ts';
import { COMMANDS, OPTIONS, optionsOf, type Command } from './table.ts';
import { VERSION } from './version.ts';
import { writeOutput } from './write-output.ts';

/** What a command line says and with which code it ends: 1 where something cannot be done, 2 where it is not understood. */
export interface Answer {
  readonly code: 0 | 1 | 2;
  readonly out: string;
  readonly err: string;
}

const CONFIG = {
  ...Object.fromEntries(
    Object.entries(OPTIONS).map(([name, o]) => [name, { type: 'value' in o ? 'string' : 'boolean' } as const]),
  ),
  help: { type: 'boolean', short: 'h' },
  version: { type: 'boolean', short: 'v' },
} as const;

/** The version of the reports that --json prints. */
const REPORT = 1;

/** A report says what it is and which version of it, unless it does already. */
const withFormat = (command: string, text: string): string =>
  /^\{\s*"format"/.test(text) || !text.startsWith('{')
    ? text
    : text.replace(/^\{/, `{\n  "format": "gristmill-${command}",\n  "version": ${REPORT},`);

/** Money as it is written where the shell is. */
const here = moneyUnits(currencyOf(new Intl.DateTimeFormat().resolvedOptions().locale));
const said = (text: string): string => inUnits(text, here);
const done = (text: string): Answer => ({ code: 0, out: `${text.replace(/\n$/, '')}\n`, err: '' });

/** A refusal; a script that asked for JSON gets it as JSON too. */
const refused = (problem: Problem, json: boolean): Answer => ({
  code: isMisuse(problem) ? 2 : 1,
  out: json ? said(`${toJson({ ok: false, problem })}\n`) : '',
  err: `${sayProblem(problem)}\n`,
});

/** What of a command line was not understood; undefined where all was. */
function notTaken(c: Command, given: object, extra: readonly string[]): Problem | undefined {
  const may = optionsOf(c);
  const odd = Object.keys(given).find((name) => !(may as readonly string[]).includes(name));
  if (odd)
    return misuse(
      `gristmill ${c.name} does not take --${odd}.`,
      `It takes ${may.map((o) => `--${o}`).join(', ')}.`,
      `See gristmill ${c.name} --help.`,
    ).problem;
  const most = c.args.split(' ').filter(Boolean).length;
  if (extra.length > most)
    return misuse(
      `“${extra[most]}” is one word too many.`,
      `gristmill ${c.name} takes ${c.args || 'no words'}.`,
      'Put what has spaces into quotes.',
    ).problem;
  return undefined;
}

/** Runs one command line. The kinds of stage must be registered. */
export async function run(argv: string[]): Promise<Answer> {
  let parsed;
  try {
    parsed = parseArgs({ args: argv, allowPositionals: true, options: CONFIG });
  } catch (error) {
    const why = `${(error as Error).message.split('.')[0]}.`;
    return refused(
      misuse('The command line cannot be read.', why, 'See gristmill --help.').problem,
      argv.includes('--json'),
    );
  }
  const { help: asksHelp, version: asksVersion, ...given } = parsed.values as Record<string, unknown>;
  const o = { json: false, ...given } as Options;
  const [name, ...rest] = parsed.positionals;
  if (asksVersion === true) return done(o.json ? toJson({ name: 'gristmill', version: VERSION }) : VERSION);
  const command = COMMANDS.find((c) => c.name === (name === 'help' ? rest[0] : name));
  if (name === undefined || (name === 'help' && (!rest.length || command)))
    return done(command ? helpOf(command) : help());
  if (!command)
    return refused(
      misuse(
        `There is no command “${name === 'help' ? rest[0] : name}”.`,
        `The commands are ${COMMANDS.map((c) => c.name).join(', ')}.`,
        'See gristmill --help.',
      ).problem,
      o.json,
    );
  if (asksHelp === true) return done(helpOf(command));
  const odd = notTaken(command, given, rest);
  if (odd) return refused(odd, o.json);
  const result: Result<string> = await command.run(rest[0], rest[1], o);
  if (!result.ok) return refused(result.problem, o.json);
  const text = said(o.json ? withFormat(command.name, result.value) : result.value);
  if (command.makesFile) return o.out === '-' ? { code: 0, out: '', err: `${text}\n` } : done(text);
  if (o.out === undefined || o.out === '-') return done(text);
  const written = await writeOutput(o.out, `${text.replace(/\n$/, '')}\n`);
  return written.ok ? { code: 0, out: '', err: '' } : refused(written.problem, o.json);
}
