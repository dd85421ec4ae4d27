// Sends specimens with a hidden truth through the analyses of the bench, and counts how often the stated uncertainty for
// 95 % holds it. Specimens are made by other means than the analyses: stepped through time, encoders, bodies that warm
// one another.
// Usage: npm run coverage -- [--seeds 200] [--only hysteresis] [--write] [--check]
// `--write` puts the table into docs/method.md; `--check` tries the families that decide with 100 specimens each, the same
// ones each time, and fails below 88.5 % (100 tell a share of 95 to 2.2 %, one standard deviation).
import { spawn } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { format } from 'prettier';
import {
  analyseTest,
  blankTest,
  contextFor,
  makeShelf,
  testKind,
  type LineOrder,
  type Recording,
} from '../core/src/index.ts';
import { LOOPS, loopSpecimen } from '../core/test/specimens/hysteresis.ts';
import { TURNS, turnSpecimen } from '../core/test/specimens/transmission.ts';
import {
  EFFICIENCIES,
  efficiencySpecimen,
  LADDERS,
  ladderSpecimen,
  PLAYS,
  playSpecimen,
  ROUNDS,
  roundSpecimen,
  STOPS,
  stopSpecimen,
  type TypedSpecimen,
} from '../core/test/specimens/typed.ts';
import { WARMINGS, warmingSpecimen } from '../core/test/specimens/warming.ts';

const { values: option } = parseArgs({
  options: {
    seeds: { type: 'string', default: '' },
    only: { type: 'string', default: '' },
    part: { type: 'string', default: '' },
    write: { type: 'boolean', default: false },
    check: { type: 'boolean', default: false },
  },
});
const LEAST = option.check ? 0.885 : 0.905;
const WORKERS = 2;

/** What one specimen gives: each figure with its uncertainty and its truth. */
type Held = readonly { readonly figure: string; readonly off: number; readonly U: number; readonly size: number }[];

interface Family {
  readonly kind: string;
  readonly name: string;
  /** Left out of `--check`, which has little time. */
  readonly slow?: boolean;
  /** The readings cannot tell it, and the sheet says so. */
  readonly said?: boolean;
  one(seed: number): Held | undefined;
}

const shelf = makeShelf();
const recorded = (
  channels: readonly (readonly [string, 'angle' | 'smallAngle' | 'torque' | 'time' | 'temperature', Float64Array])[],
): Recording => ({
  channels: channels.map(([id, quantity]) => ({ id, name: id, quantity })),
  data: channels.map(([, , data]) => data),
  rate: 0,
  malformed: 0,
  gaps: 0,
  notes: [],
});

/** Analyses a recording as a test of a kind, without a variant. */
function analysed(
  kindId: string,
  recording: Recording,
  rig: Readonly<Record<string, number>>,
  orders: LineOrder[] = [],
) {
  const kind = testKind(kindId)!;
  const blank = blankTest(kind, { id: 'coverage', buildId: '', date: '' });
  const context = { ...contextFor(undefined, undefined, shelf, recording), orders };
  const r = analyseTest({ ...blank, rig: { ...blank.rig, ...rig } }, context);
  return r.ok ? r.value : undefined;
}

type Result = NonNullable<ReturnType<typeof analysed>>;
const figureOf = (r: Result, id: string, truth: number): Held => {
  const f = r.figures.find((x) => x.id === id);
  return f?.U === undefined ? [] : [{ figure: f.name, off: f.value - truth, U: f.U, size: Math.abs(truth) }];
};

/** Analyses a typed test with the instrument it was read with. */
function typed({ kind: kindId, rig, rows, instrument, truth }: TypedSpecimen): Held | undefined {
  const kind = testKind(kindId)!;
  const blank = blankTest(kind, { id: 'coverage', buildId: '', date: '' });
  const own = instrument && { id: 'own', name: 'own', source: '', ...instrument };
  const context = contextFor(undefined, undefined, shelf);
  const r = analyseTest(
    {
      ...blank,
      rig: { ...blank.rig, ...rig, instrument: own?.id ?? '' },
      readings: rows.map((values, i) => ({ id: `r${i}`, text: '', values })),
    },
    { ...context, instruments: own ? [...context.instruments, own] : context.instruments },
  );
  if (!r.ok) return undefined;
  return Object.entries(truth).flatMap(([id, value]) =>
    id === 'found' && r.value.found
      ? [{ figure: 'Headline', off: r.value.found.value - value, U: r.value.found.U, size: Math.abs(value) }]
      : figureOf(r.value, id, value),
  );
}

const SAID = new Set([
  'a stand that creeps, angle by angle',
  'a stand that creeps, round and round',
  'a zero that drifts, once round',
  'stick and slip',
]);

const typedFamilies = <F>(
  kind: string | ((f: F) => string),
  families: Readonly<Record<string, F>>,
  specimen: (family: F, seed: number) => TypedSpecimen,
): Family[] =>
  Object.entries(families).map(([name, family]) => ({
    kind: typeof kind === 'string' ? kind : kind(family),
    name,
    said: SAID.has(name),
    one: (seed) => typed(specimen(family, seed)),
  }));

const DECIDE = new Set([
  'two turns each way, 12 bits',
  'a sensor with an error of its own',
  'a third of a turn',
  'orders two bins apart',
]);

const FAMILIES: readonly Family[] = [
  ...Object.entries(LOOPS).map(([name, family]): Family => ({
    kind: 'hysteresis',
    name,
    said: SAID.has(name),
    slow: family.by === 'streamed' ? family.slopes !== 2 : family.uneven === true || !family.play,
    one: (seed) => {
      const { torque, angle, truth } = loopSpecimen(family, seed);
      // Scales are true here: what is counted is what the readings tell.
      const r = analysed(
        'hysteresis',
        recorded([
          ['torque', 'torque', torque],
          ['angle', 'smallAngle', angle],
        ]),
        {
          torqueError: 0,
          angleError: 0,
        },
      );
      if (!r?.found) return undefined;
      const outer = truth.slopes[truth.slopes.length - 1]!;
      return [
        { figure: 'Stiffness', off: r.found.value - outer, U: r.found.U, size: outer },
        ...figureOf(r, 'play', truth.play),
        ...(truth.friction > 0 ? figureOf(r, 'friction', truth.friction) : []),
      ];
    },
  })),
  ...Object.entries(TURNS).map(([name, family]): Family => ({
    kind: 'transmission',
    name,
    slow: !DECIDE.has(name),
    one: (seed) => {
      const { input, output, truth } = turnSpecimen(family, seed);
      const sensor = ((family.sensor ?? 0) * Math.PI) / 10800;
      const orders = [Math.abs(truth.ratio), 1].map((order) => ({ name: `order ${order}`, order, lever: 1 }));
      const r = analysed(
        'transmission',
        recorded([
          ['input', 'angle', input],
          ['output', 'angle', output],
        ]),
        { sensorError: sensor },
        orders,
      );
      if (!r) return undefined;
      const peaks = truth.orders.flatMap((o) => {
        // What goes once round in the play goes into the curve of one way as well.
        if (family.uneven !== undefined && o.order === 1) return [];
        // Teeth have orders of their own, those of the line among them.
        if (family.teeth !== undefined) return [];
        const p = r.peaks?.find((x) => Math.abs(x.order - o.order) < 0.15);
        return p?.U === undefined
          ? []
          : [{ figure: 'Amplitude of an order', off: p.amplitude - o.amplitude, U: p.U, size: o.amplitude }];
      });
      return [
        ...figureOf(r, 'peakToPeak', truth.peakToPeak),
        ...figureOf(r, 'play', truth.play),
        ...figureOf(r, 'ratio', truth.ratio),
        ...peaks,
      ];
    },
  })),
  ...Object.entries(WARMINGS).map(([name, family]): Family => ({
    kind: 'temperature',
    name,
    one: (seed) => {
      const { time, temperature, truth } = warmingSpecimen(family, seed);
      const r = analysed(
        'temperature',
        recorded([
          ['time', 'time', time],
          ['temperature', 'temperature', temperature],
        ]),
        {},
      );
      return r?.found && [{ figure: 'Settles at', off: r.found.value - truth.settles, U: r.found.U, size: 20 }];
    },
  })),
  ...typedFamilies((f) => f.kind, PLAYS, playSpecimen),
  ...typedFamilies('torque-ladder', LADDERS, ladderSpecimen),
  ...typedFamilies('runout', ROUNDS, roundSpecimen),
  ...typedFamilies('efficiency', EFFICIENCIES, efficiencySpecimen),
  ...typedFamilies('positioning', STOPS, stopSpecimen),
];

interface Row {
  readonly kind: string;
  readonly family: string;
  readonly figure: string;
  readonly held: number;
  readonly of: number;
  readonly refused: number;
  /** Root mean square of what it was off, and mean U, as shares of the truth. */
  readonly rms: number;
  readonly U: number;
}

function count(family: Family, seeds: number): Row[] {
  const by = new Map<string, { held: number; of: number; square: number; U: number }>();
  let refused = 0;
  for (let seed = 1; seed <= seeds; seed++) {
    const one = family.one(seed);
    if (!one) refused++;
    for (const { figure, off, U, size } of one ?? []) {
      const sum = by.get(figure) ?? { held: 0, of: 0, square: 0, U: 0 };
      by.set(figure, sum);
      sum.of++;
      if (Math.abs(off) <= U) sum.held++;
      sum.square += (off / Math.max(size, 1e-9)) ** 2;
      sum.U += U / Math.max(size, 1e-9);
    }
  }
  return [...by].map(([figure, s]) => ({
    kind: family.kind,
    family: family.said ? `${family.name} †` : family.name,
    figure,
    held: s.held,
    of: s.of,
    refused,
    rms: Math.sqrt(s.square / s.of),
    U: s.U / s.of,
  }));
}

const chosen = FAMILIES.filter((f) => f.kind.startsWith(option.only) && !(option.check && (f.slow || f.said)));
const seeds = Number(option.seeds || (option.check ? 100 : 200));

/** The rows of every family, counted by two processes. */
async function counted(): Promise<Row[]> {
  const parts = await Promise.all(
    Array.from({ length: WORKERS }, async (_, k) => {
      const own = fileURLToPath(import.meta.url);
      const child = spawn('npx', ['--no-install', 'tsx', own, ...process.argv.slice(2), '--part', `${k}`], {
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      let text = '';
      for await (const chunk of child.stdout) text += String(chunk);
      return JSON.parse(text) as Row[];
    }),
  );
  const order = new Map(chosen.map((f, i) => [`${f.kind} ${f.said ? `${f.name} †` : f.name}`, i]));
  return parts.flat().sort((a, b) => order.get(`${a.kind} ${a.family}`)! - order.get(`${b.kind} ${b.family}`)!);
}

const percent = (x: number): string => `${(100 * x).toFixed(1)} %`;
// A play of nought has no share.
const shareOf = (x: number): string => (x > 100 ? '' : `${(100 * x).toPrecision(2)} %`);
const table = (rows: readonly Row[]): string =>
  [
    '| test | specimens | figure | held | off, RMS | U |',
    '|---|---|---|---|---|---|',
    ...rows.map(
      (r) =>
        `| ${r.kind} | ${r.family} | ${r.figure} | ${percent(r.held / r.of)} of ${r.of} | ${shareOf(r.rms)} | ${shareOf(r.U)} |`,
    ),
  ].join('\n');

if (option.part !== '') {
  const own = chosen.filter((_, i) => i % WORKERS === Number(option.part));
  process.stdout.write(JSON.stringify(own.flatMap((f) => count(f, seeds))));
} else {
  const rows = await counted();
  console.log(table(rows));
  const low = rows.filter((r) => r.held / r.of < LEAST);
  for (const r of low) console.log(`Too narrow: ${r.kind}, ${r.family}, ${r.figure}: ${percent(r.held / r.of)}.`);
  if (option.write) {
    const file = new URL('../docs/method.md', import.meta.url);
    const text = readFileSync(file, 'utf8');
    const [begin, end] = ['<!-- coverage -->', '<!-- /coverage -->'];
    const [from, to] = [text.indexOf(begin) + begin.length, text.indexOf(end)];
    writeFileSync(
      file,
      await format(`${text.slice(0, from)}\n\n${table(rows)}\n\n${text.slice(to)}`, {
        parser: 'markdown',
        printWidth: 120,
      }),
    );
  }
  if (option.check && low.length) process.exit(1);
}
