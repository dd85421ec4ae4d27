import { ok, type Result } from '@gristmill/core';
import { COMMANDS, OPTIONS, optionsOf, type Command, type OptionName } from './table.ts';
import { VERSION } from './version.ts';

const optionText = (name: OptionName): string => {
  const o: { readonly value?: string; readonly says: string } = OPTIONS[name];
  return `--${name}${o.value ? ` ${o.value}` : ''}`;
};

const ENDS = [
  'Values are SI numbers or text with a unit ("62 ozf·in"). JSON may be given as @file.json; FILE may be - for standard input.',
  'It ends with 0; with 1 and a plain sentence where something cannot be done; with 2 where the command itself is not understood.',
];

/** Every command in a line each. */
export function help(): string {
  const width = Math.max(...COMMANDS.map((c) => `${c.name} ${c.args}`.length));
  return [
    `gristmill ${VERSION}: the computation of Gristmill on the command line`,
    '',
    ...COMMANDS.map((c) => `  ${`${c.name} ${c.args}`.padEnd(width)}  ${c.says}`),
    '',
    'gristmill COMMAND --help tells its options, with examples; gristmill --version its version.',
    ...ENDS,
  ].join('\n');
}

/** One command with its options and examples. */
export function helpOf(c: Command): string {
  const names = optionsOf(c);
  const width = Math.max(...names.map((n) => optionText(n).length));
  return [
    `gristmill ${[c.name, c.args, '[options]'].filter(Boolean).join(' ')}`,
    '',
    `  ${c.says[0]!.toUpperCase()}${c.says.slice(1)}.`,
    '',
    ...names.map((n) => `  ${optionText(n).padEnd(width)}  ${OPTIONS[n].says}`),
    '',
    ...c.examples.map((e) => `  gristmill ${e}`),
    '',
    ...ENDS,
  ].join('\n');
}

/** A script for bash, and for zsh by its own way of reading such. */
export function completion(): Result<string> {
  const each = COMMANDS.map(
    (c) =>
      `    ${c.name}) words="${optionsOf(c)
        .map((o) => `--${o}`)
        .join(' ')} --help" ;;`,
  ).join('\n');
  return ok(
    `# Completion of gristmill for bash and zsh: add it to ~/.bashrc or ~/.zshrc.
[ -n "\${ZSH_VERSION:-}" ] && autoload -U +X bashcompinit && bashcompinit
_gristmill() {
  local words=""
  if [ "$COMP_CWORD" = 1 ]; then
    words="${COMMANDS.map((c) => c.name).join(' ')} --help --version"
  else case "\${COMP_WORDS[1]}" in
${each}
  esac; fi
  COMPREPLY=($(compgen -W "$words" -- "\${COMP_WORDS[COMP_CWORD]}"))
}
complete -o default -F _gristmill gristmill`,
  );
}

/** What roff reads as a command of its own is kept from it. */
const roff = (text: string): string =>
  text
    .replace(/\\/g, '\\e')
    .replace(/-/g, '\\-')
    .replace(/^([.'])/gm, '\\&$1');

/** The manual page, as man(7) writes them. */
export function manual(): Result<string> {
  return ok(
    [
      `.TH GRISTMILL 1 "" "gristmill ${VERSION}" "Gristmill"`,
      '.SH NAME',
      roff('gristmill - compact reducers: sized, drawn, predicted and measured'),
      '.SH SYNOPSIS',
      '.B gristmill\n.I COMMAND\n[options]',
      '.SH COMMANDS',
      ...COMMANDS.map((c) =>
        [
          `.TP\n.B ${roff(`${c.name} ${c.args}`.trim())}`,
          roff(`${c.says}.`),
          roff(
            `Options: ${optionsOf(c)
              .map((o) => `--${o}`)
              .join(', ')}.`,
          ),
        ].join('\n'),
      ),
      '.SH OPTIONS',
      ...(Object.keys(OPTIONS) as OptionName[]).map((n) => `.TP\n.B ${roff(optionText(n))}\n${roff(OPTIONS[n].says)}`),
      '.SH EXIT STATUS',
      ...ENDS.map((e) => roff(e)),
      '.SH EXAMPLES',
      ...COMMANDS.flatMap((c) => c.examples.map((e) => `.PP\n${roff(`gristmill ${e}`)}`)),
    ].join('\n'),
  );
}
