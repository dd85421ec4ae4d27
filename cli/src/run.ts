import { inUnits, refuse, sayProblem, type Result } from '@gristmill/core';
import { parseArgs } from 'node:util';
import { find } from './find.ts';
import { bill, files } from './make.ts';
import { coupon, fit } from './fit.ts';
import { schedule } from './schedule.ts';
import { solid } from './solid.ts';
import { test } from './test.ts';
import { analyse, check, desk, motor, outline, stage, toJson, unit, type Options } from './commands.ts';

const HELP = `gristmill: the computation of Gristmill on the command line

  gristmill analyse FILE [--variant NAME]           every line, stage and test of a joint
  gristmill stage KIND --params JSON [--duty JSON]  one stage
  gristmill outline KIND PART --params JSON --format svg|dxf|json [--chord "2 um"]
  gristmill solid KIND [PART] --params JSON --format stl|3mf|step --out FILE [--chord "10 um"] [--compensation "50 um"]
  gristmill bill FILE [--variant NAME] [--joints 2] [--format md|csv]  what it is made of, what there is to buy
  gristmill files FILE --out ZIP [--variant NAME] [--joints 2] [--bed "220 mm x 220 mm"]  bill, plates, parts, assembly
  gristmill schedule FILE [--variant NAME] [--joints 2] [--start 2026-12-01] [--format md|ics]  when what is done
  gristmill fit FILE [--variant NAME] [--process NAME]  does it jam, what every pair comes to by its process
  gristmill coupon --process NAME --out FILE [--format 3mf|stl|svg|dxf]  what is printed to know a process
  gristmill desk FILE [--variant NAME] [--each "94 %"]  ratio windows, and ways out where there are none
  gristmill find FILE [--variant NAME] [--kinds "belt, worm"] [--stages 3]  whole lines that do what the brief asks
  gristmill motor --motor JSON [--driver JSON] [--speed "0 rpm, 300 rpm"]
  gristmill test KIND FILE [--rig JSON] [--joint FILE] [--variant NAME]  readings or a recording (CSV, JSON, WAV)
  gristmill check FILE                              is the file whole, does anything stop it
  gristmill unit TEXT KIND                          a typed quantity in SI units

  --json   the reports as the views have them, in SI units, keys as in the joint file
  --shop   changes to the shop, or a shop file, as JSON or @file
  JSON may be given as @file.json; FILE may be - for standard input.
  Values are SI numbers or text with a unit ("62 ozf·in").
  Exit code 1 and a plain sentence when something cannot be done.
`;

async function answer(argv: string[]): Promise<{ result: Result<string>; json: boolean }> {
  let parsed;
  try {
    parsed = parseArgs({
      args: argv,
      allowPositionals: true,
      options: {
        json: { type: 'boolean', default: false },
        variant: { type: 'string' },
        params: { type: 'string' },
        duty: { type: 'string' },
        format: { type: 'string' },
        chord: { type: 'string' },
        shop: { type: 'string' },
        motor: { type: 'string' },
        driver: { type: 'string' },
        speed: { type: 'string' },
        each: { type: 'string' },
        out: { type: 'string' },
        compensation: { type: 'string' },
        rig: { type: 'string' },
        joint: { type: 'string' },
        kinds: { type: 'string' },
        stages: { type: 'string' },
        joints: { type: 'string' },
        bed: { type: 'string' },
        start: { type: 'string' },
        process: { type: 'string' },
        help: { type: 'boolean', short: 'h', default: false },
      },
    });
  } catch (error) {
    return {
      result: refuse(
        'The command line cannot be read.',
        (error as Error).message.split('.')[0] + '.',
        'See gristmill --help.',
      ),
      json: argv.includes('--json'),
    };
  }
  const o: Options = parsed.values;
  const [command, a, b] = parsed.positionals;
  const result = await ((): Result<string> | Promise<Result<string>> => {
    if (parsed.values.help || command === undefined || command === 'help') return { ok: true, value: HELP };
    switch (command) {
      case 'analyse':
        return analyse(a, o);
      case 'stage':
        return stage(a, o);
      case 'outline':
        return outline(a, b, o);
      case 'solid':
        return solid(a, b, o);
      case 'check':
        return check(a, o);
      case 'desk':
        return desk(a, o);
      case 'bill':
        return bill(a, o);
      case 'files':
        return files(a, o);
      case 'schedule':
        return schedule(a, o);
      case 'fit':
        return fit(a, o);
      case 'coupon':
        return coupon(o);
      case 'find':
        return find(a, o);
      case 'motor':
        return motor(o);
      case 'test':
        return test(a, b, o);
      case 'unit':
        return unit(a, b, o);
      default:
        return refuse(
          `There is no command “${command}”.`,
          'The commands are analyse, stage, outline, solid, bill, files, schedule, fit, coupon, desk, find, motor, test, check and unit.',
          'See gristmill --help.',
        );
    }
  })();
  return { result, json: o.json };
}

/** What a command line says and with which code it ends. */
export interface Answer {
  readonly code: 0 | 1;
  readonly out: string;
  readonly err: string;
}

/** Runs one command line. The kinds of stage must be registered. */
export async function run(argv: string[]): Promise<Answer> {
  const { result, json } = await answer(argv);
  if (result.ok) return { code: 0, out: `${inUnits(result.value).replace(/\n$/, '')}\n`, err: '' };
  // A script that asked for JSON gets the refusal as JSON too.
  return {
    code: 1,
    out: json ? inUnits(`${toJson({ ok: false, problem: result.problem })}\n`) : '',
    err: `${sayProblem(result.problem)}\n`,
  };
}
