import type { Result } from '@gristmill/core';
import type { Options } from './commands.ts';

/** What an option means; those without a value are switches. */
export const OPTIONS = {
  json: { says: 'the report as the views have it, in SI units, with its format and version' },
  out: { value: 'FILE', says: 'write to a file, - for standard output' },
  shop: { value: 'JSON', says: 'changes to the shop, or a shop file, as JSON or @file' },
  variant: { value: 'NAME', says: 'a variant of the joint; else the active one, or all' },
  params: { value: 'JSON', says: 'parameters of the stage by name, or @file; what is left out takes its start' },
  duty: { value: 'JSON', says: 'torque, torqueRms and speed that it carries' },
  format: { value: 'NAME', says: 'what it is written as' },
  chord: { value: 'LENGTH', says: 'how far straight pieces may be from a curve' },
  compensation: { value: 'LENGTH', says: 'moves contours in by so much' },
  motor: { value: 'JSON', says: 'a motor, or @file' },
  driver: { value: 'JSON', says: 'its driver, or @file' },
  speed: { value: 'LIST', says: 'speeds, parted by commas' },
  each: { value: 'SHARE', says: 'what a stage passes on' },
  rig: { value: 'JSON', says: 'dimensions of the rig by name, or @file' },
  joint: { value: 'FILE', says: 'the joint that the test belongs to' },
  kinds: { value: 'LIST', says: 'only these kinds of stage' },
  stages: { value: 'N', says: 'stages at most' },
  joints: { value: 'N', says: 'for so many joints' },
  bed: { value: 'SIZE', says: 'the bed that plates are laid out on' },
  start: { value: 'DATE', says: 'the day it begins' },
  process: { value: 'NAME', says: 'a process of the shop, or a type of one' },
  must: { says: 'end with 1 where anything stops a variant or a must is missed' },
} as const satisfies Readonly<Record<string, { readonly value?: string; readonly says: string }>>;
export type OptionName = keyof typeof OPTIONS;

/** A command: what it is given, what it does, and how it is written. */
export interface Command {
  readonly name: string;
  readonly args: string;
  readonly says: string;
  readonly options: readonly OptionName[];
  readonly examples: readonly string[];
  /** What it makes is no text: where it writes to standard output, what it says goes beside it. */
  readonly makesFile?: true;
  readonly run: (a: string | undefined, b: string | undefined, o: Options) => Promise<Result<string>>;
}

/** Options that every command takes. */
const ALWAYS: readonly OptionName[] = ['json', 'out'];

/** Every command, in the order in which they are told. Each brings what it needs only when it is called. */
export const COMMANDS: readonly Command[] = [
  {
    name: 'analyse',
    args: 'FILE',
    says: 'every line, stage and test of a joint',
    options: ['variant', 'shop'],
    examples: ['analyse demo/body-yaw.json', 'analyse demo/wing-root.json --variant B --json'],
    run: async (a, _b, o) => (await import('./commands.ts')).analyse(a, o),
  },
  {
    name: 'check',
    args: 'FILE',
    says: 'is the file whole, does anything stop it',
    options: ['variant', 'shop', 'must'],
    examples: ['check demo/body-yaw.json', 'check demo/body-yaw.json --variant A --must'],
    run: async (a, _b, o) => (await import('./commands.ts')).check(a, o),
  },
  {
    name: 'find',
    args: 'FILE',
    says: 'whole lines that do what the brief asks',
    options: ['variant', 'kinds', 'stages', 'shop'],
    examples: ['find demo/neck-lift.json --kinds "belt, cycloidal" --stages 2'],
    run: async (a, _b, o) => (await import('./find.ts')).find(a, o),
  },
  {
    name: 'desk',
    args: 'FILE',
    says: 'ratio windows, and ways out where there are none',
    options: ['variant', 'each', 'shop'],
    examples: ['desk demo/wing-root.json --each "94 %"'],
    run: async (a, _b, o) => (await import('./commands.ts')).desk(a, o),
  },
  {
    name: 'kinds',
    args: '',
    says: 'the kinds of stage there are',
    options: [],
    examples: ['kinds'],
    run: async (_a, _b, o) => (await import('./kinds.ts')).kinds(o),
  },
  {
    name: 'params',
    args: 'KIND',
    says: 'what a kind of stage is given by',
    options: [],
    examples: ['params planetary'],
    run: async (a, _b, o) => (await import('./kinds.ts')).params(a, o),
  },
  {
    name: 'stage',
    args: 'KIND',
    says: 'one stage',
    options: ['params', 'duty', 'shop'],
    examples: [
      'stage belt --params \'{"section":"R3","z1":16,"z2":56,"beltTeeth":84}\' --duty \'{"torque":"20 kgf·cm"}\'',
      'stage planetary --params \'{"zs":18,"zp":27,"zr":72,"module":"0.8 mm"}\' --duty \'{"torque":"4 N·m"}\'',
    ],
    run: async (a, _b, o) => (await import('./commands.ts')).stage(a, o),
  },
  {
    name: 'outline',
    args: 'KIND PART',
    says: 'the outline of a part: svg, dxf or json',
    options: ['params', 'format', 'chord', 'shop'],
    examples: [
      'outline belt driver --params \'{"section":"R3","z1":16,"z2":56,"beltTeeth":84}\' --format dxf --out pulley.dxf',
    ],
    run: async (a, b, o) => (await import('./commands.ts')).outline(a, b, o),
  },
  {
    name: 'solid',
    args: 'KIND [PART]',
    says: 'bodies of parts: stl, 3mf or step',
    options: ['params', 'format', 'chord', 'compensation', 'shop'],
    examples: [
      'solid planetary ring --params \'{"zs":18,"zp":27,"zr":72}\' --out ring.stl',
      'solid worm worm --params \'{"starts":1,"z2":40}\' --out worm.step',
    ],
    makesFile: true,
    run: async (a, b, o) => (await import('./solid.ts')).solid(a, b, o),
  },
  {
    name: 'bill',
    args: 'FILE',
    says: 'what it is made of, what there is to buy: md or csv',
    options: ['variant', 'joints', 'format', 'shop'],
    examples: ['bill demo/wing-root.json --joints 2'],
    run: async (a, _b, o) => (await import('./make.ts')).bill(a, o),
  },
  {
    name: 'files',
    args: 'FILE',
    says: 'bill, plates, parts and assembly as one zip',
    options: ['variant', 'joints', 'bed', 'chord', 'shop'],
    examples: ['files demo/wing-root.json --out wing-root.zip --bed "220 mm x 220 mm"'],
    makesFile: true,
    run: async (a, _b, o) => (await import('./make.ts')).files(a, o),
  },
  {
    name: 'schedule',
    args: 'FILE',
    says: 'when what is done: md or ics',
    options: ['variant', 'joints', 'start', 'format', 'shop'],
    examples: ['schedule demo/wing-root.json --start 2026-12-01 --format ics --out plan.ics'],
    run: async (a, _b, o) => (await import('./schedule.ts')).schedule(a, o),
  },
  {
    name: 'fit',
    args: 'FILE',
    says: 'does it jam, what every pair comes to by its process',
    options: ['variant', 'process', 'shop'],
    examples: ['fit demo/wing-root.json --variant B'],
    run: async (a, _b, o) => (await import('./fit.ts')).fit(a, o),
  },
  {
    name: 'coupon',
    args: '',
    says: 'what is printed to know a process: 3mf, stl, svg or dxf',
    options: ['process', 'format', 'shop'],
    examples: ['coupon --process filament --out coupon.3mf'],
    makesFile: true,
    run: async (_a, _b, o) => (await import('./fit.ts')).coupon(o),
  },
  {
    name: 'motor',
    args: '',
    says: 'what a motor gives at speeds, and its constants',
    options: ['motor', 'driver', 'speed', 'shop'],
    examples: [
      'motor --motor \'{"type":"stepper","holdTorque":"62 ozf·in","ratedCurrent":1.7,"resistance":1.5,"inductance":"2.8 mH","stepsPerTurn":200}\' --speed "0 rpm, 300 rpm"',
    ],
    run: async (_a, _b, o) => (await import('./commands.ts')).motor(o),
  },
  {
    name: 'test',
    args: 'KIND FILE',
    says: 'readings or a recording: CSV, JSON, WAV',
    options: ['rig', 'joint', 'variant', 'shop'],
    examples: ['test hysteresis loop.csv --rig \'{"rated":"4 N·m"}\'', 'test positioning stops.json --json'],
    run: async (a, b, o) => (await import('./test.ts')).test(a, b, o),
  },
  {
    name: 'unit',
    args: 'TEXT KIND',
    says: 'a typed quantity in SI units',
    options: [],
    examples: ['unit "62 ozf·in" torque'],
    run: async (a, b, o) => (await import('./commands.ts')).unit(a, b, o),
  },
  {
    name: 'completion',
    args: '',
    says: 'what makes bash or zsh complete these words',
    options: [],
    examples: ['completion >> ~/.bashrc'],
    run: async () => (await import('./manual.ts')).completion(),
  },
  {
    name: 'man',
    args: '',
    says: 'the manual page',
    options: [],
    examples: ['man --out gristmill.1', 'man | man -l -'],
    run: async () => (await import('./manual.ts')).manual(),
  },
];

/** What a command may be given. */
export const optionsOf = (c: Command): readonly OptionName[] => [...c.options, ...ALWAYS];
