import { readFileSync, readdirSync } from 'node:fs';
import {
  TEST_KINDS,
  analyseTest,
  contextFor,
  findingsFor,
  formatQuantity,
  importFile,
  JointCheck,
  LineCutter,
  LineReader,
  makeShelf,
  packRecording,
  parseQuantity,
  QUANTITIES,
  readJointFile,
  readRecord,
  readShopFile,
  repairJoint,
  sayProblem,
  unpackRecording,
  writeJointFile,
  writeShopFile,
  writeWav,
  type QuantityId,
  type BenchTest,
  type TestKind,
} from '@gristmill/core';
import { dice } from '../core/test/helpers.ts';

/** Words that no sentence may hold: they are what a program says when it has nothing to say. */
const NONSENSE = /\bundefined\b|\bNaN\b|Infinity|\[object|\b\d(\.\d+)?e30\d\b|\be-1[5-9]\d\b/;
/** Time that no reader may take for one input of this size, ms, on a quiet machine. */
const HANG = 1000;

export class Fault extends Error {}

/** What is done with a fault; it is thrown unless somebody collects. */
let report = (fault: Fault): void => {
  throw fault;
};

/** Has faults collected instead of thrown. */
export function collectFaults(by: (fault: Fault) => void): void {
  report = by;
}

/** Runs one input after the other; a fault of one is told, and the next goes on. */
function each(count: number, run: (i: number) => void): void {
  for (let i = 0; i < count; i++) {
    try {
      run(i);
    } catch (error) {
      if (!(error instanceof Fault)) throw error;
      report(error);
    }
  }
}

type Roll = (n: number) => number;
const pick = <T>(roll: Roll, list: readonly T[]): T => list[roll(list.length)]!;
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const shelf = makeShelf();
const demos = readdirSync(new URL('../demo/', import.meta.url))
  .filter((f) => f.endsWith('.json'))
  .sort()
  .map((f) => readFileSync(new URL(`../demo/${f}`, import.meta.url), 'utf8'));

/** Runs one input; a throw, a hang or nonsense in what it says is a fault, told with what it came from. */
function one<T>(what: string, input: () => string, run: () => T): T {
  const begun = process.cpuUsage();
  let out: T;
  try {
    out = run();
  } catch (error) {
    throw new Fault(
      `${what} threw ${String(error)}\n${error instanceof Error ? error.stack : ''}\n${input().slice(0, 3000)}`,
    );
  }
  // Time of its own: on a busy machine much passes in which nothing of it is done.
  const ms = process.cpuUsage(begun).user / 1000;
  if (ms > HANG) throw new Fault(`${what} took ${ms.toFixed(0)} ms\n${input().slice(0, 3000)}`);
  return out;
}

const says = (what: string, text: string, input: () => string): void => {
  // What was typed or stood in the file is said back; our own words are looked at.
  if (NONSENSE.test(text.replace(/“[^”]*”?/g, '').replace(/The heading has .*?\. /g, '')))
    throw new Fault(`${what} says “${text.slice(0, 300)}”\n${input().slice(0, 3000)}`);
};

const JUNK = [
  'null',
  '-1',
  '1e999',
  '-1e308',
  '1e-320',
  '"x"',
  '[]',
  '{}',
  '0',
  'true',
  '""',
  '"   "',
  '[[[[]]]]',
  '[null]',
  '{"channels":[null]}',
  '"<svg onload=alert(1)>"',
  '"5 kg·cm"',
  '9007199254740993',
  '"27.11.2026"',
  '"\\u0000"',
  '"\\ud800"',
  '[1,2,3]',
  '{"id":"a"}',
];

/** A text damaged as files are: cut, altered, doubled, with values of another kind. */
function damaged(text: string, roll: Roll): string {
  let out = text;
  for (let k = 0; k <= roll(3); k++) {
    const at = roll(out.length + 1);
    switch (roll(8)) {
      case 0:
        out = out.slice(0, at);
        break;
      case 1:
        out = out.slice(0, at) + String.fromCharCode(roll(256)) + out.slice(at + 1);
        break;
      case 2:
        out = out.slice(0, at) + out.slice(at + roll(200));
        break;
      case 3:
        out = out.slice(0, at) + out.slice(roll(out.length + 1)).slice(0, 4000) + out.slice(at);
        break;
      case 4:
      case 5:
      case 6: {
        // A value replaced by another keeps the JSON whole and tries what reads it.
        const values = [...out.slice(at, at + 4000).matchAll(/: ?("[^"\n]*"|-?[\d.e+-]+|true|false|null)/g)];
        const hit = values.length ? pick(roll, values) : undefined;
        if (hit)
          out = `${out.slice(0, at + hit.index)}: ${pick(roll, JUNK)}${out.slice(at + hit.index + hit[0].length)}`;
        break;
      }
      default:
        out = out.replace(
          new RegExp(`"[a-zA-Z0-9]{${1 + roll(8)}}"`),
          pick(roll, ['"__proto__"', '"constructor"', '"id"', '""']),
        );
    }
  }
  return out;
}

/**
 * Damaged joint files: refused in words, or whole: exported and read again the same, checked alike, repaired where it
 * can be.
 */
export function tortureJoints(count: number, seed: number): { read: number; refused: number; repaired: number } {
  const roll = dice(seed);
  const tally = { read: 0, refused: 0, repaired: 0 };
  each(count, (i) => {
    const text = damaged(pick(roll, demos), roll);
    const input = () => text;
    const result = one('readJointFile', input, () => readJointFile(text));
    if (result.ok) {
      tally.read++;
      const out = one('writeJointFile', input, () => writeJointFile(result.value));
      const again = one('readJointFile again', input, () => readJointFile(out));
      if (!again.ok)
        throw new Fault(`What was read is refused when it is read again: ${sayProblem(again.problem)}\n${text}`);
      if (writeJointFile(again.value) !== out)
        throw new Fault(`What was read is another when it is read again\n${text}`);
      if (one('JointCheck', input, () => new JointCheck().problem(result.value)))
        throw new Fault(`What was read could not be saved\n${text}`);
      return;
    }
    tally.refused++;
    says('readJointFile', sayProblem(result.problem), input);
    if (i % 10 !== 0) return;
    let raw: unknown;
    try {
      raw = JSON.parse(text);
    } catch {
      return;
    }
    const repaired = one('repairJoint', input, () => repairJoint(raw, { id: 'r', now: '2026-11-27T00:00:00.000Z' }));
    if (repaired.ok) {
      tally.repaired++;
      if (!readRecord(JSON.parse(writeJointFile(repaired.value.joint))).ok)
        throw new Fault(`A repaired joint is refused\n${text}`);
      says('repairJoint', repaired.value.leftOut.join('\n').replace(/received|undefined/g, ''), input);
    } else says('repairJoint', sayProblem(repaired.problem), input);
  });
  return tally;
}

/** A whole file of a kind of test in one of its forms. */
function wholeFile(kind: TestKind, roll: Roll): Uint8Array {
  const columns = kind.columns.length
    ? kind.columns
    : (kind.channels ?? []).map((c) => ({ as: 'quantity' as const, ...c, example: '' }));
  const number = () =>
    pick(roll, [
      '0',
      '1',
      '-1',
      '0.5',
      '1e3',
      '1e30',
      '1e-30',
      '1e308',
      '-1e308',
      'nan',
      '',
      '12,5',
      '3 mm',
      '7 parsecs',
      '0x10',
      '1e999',
      String(roll(1000) / 7),
    ]);
  const sane = () => String((roll(2000) - 500) / 77);
  const cell = roll(4) === 0 ? number : sane;
  const rows = pick(roll, [0, 1, 2, 3, 10, 60, 450]);
  const value = (c: (typeof columns)[number]) => (c.as === 'choice' ? pick(roll, c.options).value : cell());
  const form = roll(kind.channels?.some((c) => c.id === 'sound') ? 5 : 4);
  if (form === 0) {
    const separator = pick(roll, [',', ';', '\t', ' ', '|']);
    return bytes(
      [
        ...(roll(2) ? ['# lever: 180 mm', `# ${pick(roll, kind.rig)?.id ?? 'x'}: ${number()}`] : []),
        columns
          .map(
            (c) => `${c.words[0] ?? c.id}${c.as === 'quantity' && roll(2) ? ` (${QUANTITIES[c.quantity].shown})` : ''}`,
          )
          .join(separator),
        ...Array.from({ length: rows }, () => columns.map(value).join(separator)),
      ].join(pick(roll, ['\n', '\r\n', '\r'])),
    );
  }
  if (form === 1)
    return bytes(
      JSON.stringify({
        rig: Object.fromEntries(kind.rig.map((f) => [f.id, pick(roll, [1, 0, -1, 1e300, 'x', null])])),
        readings: Array.from({ length: rows }, () =>
          Object.fromEntries(
            columns.map((c) => [c.id, c.as === 'choice' ? pick(roll, c.options).value : Number(sane())]),
          ),
        ),
      }),
    );
  if (form === 2) {
    const channels = kind.channels ?? [{ id: 'time', label: 'time', quantity: 'time' as const }];
    const data = channels.map(() =>
      Float64Array.from({ length: Math.max(1, rows) }, (_, i) => i * 0.01 + roll(100) / 1000),
    );
    return bytes(
      JSON.stringify({
        kind: kind.id,
        recording: packRecording({
          channels: channels.map((c) => ({ id: c.id, name: c.label, quantity: c.quantity })),
          data,
          rate: pick(roll, [0, 1000, 8000]),
          malformed: 0,
          gaps: 0,
          notes: [],
        }),
      }),
    );
  }
  if (form === 3) return bytes(Array.from({ length: rows + 1 }, (_, i) => rigLine(roll, i)).join('\n'));
  return writeWav(
    Array.from(
      { length: pick(roll, [0, 1, 2, 3, 5, 255, 256, 3000]) },
      (_, i) => Math.sin(i / (1 + roll(9))) * pick(roll, [0, 0.01, 1, 2]),
    ),
    pick(roll, [1, 8000, 44100]),
  );
}

/**
 * Damaged imports of every kind of test: refused in words, or stored, exported, read again and analysed with numbers or
 * a refusal.
 */
export function tortureImports(
  count: number,
  seed: number,
  kinds: readonly TestKind[] = TEST_KINDS,
): { taken: number; refused: number; analysed: number } {
  const roll = dice(seed);
  const tally = { taken: 0, refused: 0, analysed: 0 };
  const demo = readJointFile(demos[0]!);
  if (!demo.ok) throw new Fault('the demo is refused');
  for (const kind of kinds) {
    each(count, () => {
      const whole = wholeFile(kind, roll);
      let file = whole;
      if (roll(3) > 0) {
        if (whole[0] === 0x52 || roll(4) === 0) {
          file = whole.slice(0, roll(3) === 0 ? roll(whole.length + 1) : whole.length);
          for (let k = 0; k < roll(6) && file.length; k++) file[roll(file.length)] = roll(256);
        } else file = bytes(damaged(new TextDecoder().decode(whole), roll));
      }
      const input = () => `${kind.id}: ${new TextDecoder().decode(file).slice(0, 2500)}`;
      const read = one(`importFile of ${kind.id}`, input, () => importFile(kind, file.slice()));
      if (!read.ok) {
        tally.refused++;
        says(`importFile of ${kind.id}`, sayProblem(read.problem), input);
        return;
      }
      tally.taken++;
      for (const n of read.value.notes) says(`importFile of ${kind.id}`, n, input);
      const recording = read.value.recording && {
        name: 'file',
        ...one('packRecording', input, () => packRecording(read.value.recording!)),
      };
      const test = {
        id: 't',
        buildId: 'b',
        date: '2026-11-27',
        notes: '',
        kind: kind.id,
        rig: read.value.rig,
        readings: read.value.readings,
        ...(recording && { recording }),
      } as BenchTest;
      const joint = { ...demo.value, builds: [{ ...demo.value.builds[0]!, id: 'b' }], tests: [test] };
      const refused = one('JointCheck', input, () => new JointCheck().problem(joint));
      if (refused) throw new Fault(`What was imported cannot be kept: ${sayProblem(refused)}\n${input()}`);
      const again = readJointFile(writeJointFile(joint));
      if (!again.ok)
        throw new Fault(`What was imported cannot be read again: ${sayProblem(again.problem)}\n${input()}`);
      const back = again.value.tests[0] as BenchTest;
      if (back.recording) {
        const u = one('unpackRecording', input, () => unpackRecording(back.recording!));
        if (!u.ok) throw new Fault(`What was recorded cannot be unpacked\n${input()}`);
      }
      const variant = joint.variants[0]!;
      for (const f of one(`findingsFor ${kind.id}`, input, () => findingsFor(back, variant, undefined, shelf))) {
        if (f.problem?.why.startsWith('The fault is')) {
          // Caught for the reader's sake; here it is a fault.
          one(`analysis of ${kind.id}`, input, () => analyseTest(back, contextFor(variant, undefined, shelf)));
          throw new Fault(`${kind.id}: ${sayProblem(f.problem)}\n${input()}`);
        }
        if (f.problem) says(`finding of ${kind.id}`, sayProblem(f.problem), input);
        if (f.found && !(Number.isFinite(f.found.value) && Number.isFinite(f.found.U)))
          throw new Fault(`${kind.id} finds ${f.found.value} ± ${f.found.U}\n${input()}`);
        for (const x of f.result?.figures ?? [])
          if (!Number.isFinite(x.value) || (x.U !== undefined && !Number.isFinite(x.U)))
            throw new Fault(`${kind.id}: ${x.id} is ${x.value} ± ${x.U}\n${input()}`);
        for (const t of [...(f.result ? [f.result.says] : []), ...(f.result?.advice ?? [])])
          says(`finding of ${kind.id}`, t, input);
        if (f.found) tally.analysed++;
      }
    });
  }
  return tally;
}

/** Damaged shop files. */
export function tortureShops(count: number, seed: number): { read: number; refused: number } {
  const roll = dice(seed);
  const whole = writeShopFile({
    factors: { gravity: { value: 9.81, low: 9.8, high: 9.82, source: 'mine' } },
    motors: shelf.motors.slice(0, 3),
    materials: shelf.materials.slice(0, 2),
    bearings: shelf.bearings.slice(0, 2),
    instruments: shelf.instruments.slice(0, 3),
  });
  const tally = { read: 0, refused: 0 };
  each(count, () => {
    const text = damaged(whole, roll);
    const read = one(
      'readShopFile',
      () => text,
      () => readShopFile(text),
    );
    if (!read.ok) {
      tally.refused++;
      says('readShopFile', sayProblem(read.problem), () => text);
      return;
    }
    tally.read++;
    const again = readShopFile(writeShopFile(read.value));
    if (!again.ok) throw new Fault(`A shop that was read is refused when it is read again\n${text}`);
    one(
      'makeShelf',
      () => text,
      () => makeShelf(read.value),
    );
  });
  return tally;
}

/** What people type: read, or refused in words; what is read is written so that it can be read again. */
export function tortureUnits(count: number, seed: number): { read: number; refused: number } {
  const roll = dice(seed);
  const ids = Object.keys(QUANTITIES) as QuantityId[];
  const symbols = [...new Set(ids.flatMap((q) => QUANTITIES[q].units.flatMap((u) => [u.symbol, ...(u.also ?? [])])))];
  const numbers = [
    '1',
    '-1',
    '0',
    '.5',
    '5.',
    '1e3',
    '1e308',
    '1e-308',
    '1e309',
    '1 1/8',
    '1/0',
    '1/3',
    '12,5',
    '1,234',
    '1 234',
    '1_000',
    "1'000",
    '−3',
    '+4',
    '٣',
    '0x10',
    'NaN',
    'Infinity',
    '',
    ' ',
    '1e',
    '--1',
    '1..2',
    '9'.repeat(400),
    '½',
  ];
  const tally = { read: 0, refused: 0 };
  each(count, () => {
    const id = pick(roll, ids);
    let text =
      `${pick(roll, numbers)}${pick(roll, ['', ' ', '  ', '\u00a0', '\t'])}` +
      `${roll(4) ? pick(roll, roll(3) ? QUANTITIES[id].units.map((u) => u.symbol) : symbols) : ''}`;
    if (roll(12) === 0)
      text += `${pick(roll, [' @ ', '@', ' / ', '·', '^2'])}${pick(roll, numbers)} ${pick(roll, symbols)}`;
    for (let k = 0; k < roll(3); k++) {
      const at = roll(text.length + 1);
      text = roll(2)
        ? text.slice(0, at) + String.fromCharCode(roll(4) ? 32 + roll(95) : roll(65536)) + text.slice(at)
        : text.slice(0, at) + text.slice(at + 1);
    }
    const read = one(
      `parseQuantity as ${id}`,
      () => JSON.stringify(text),
      () => parseQuantity(text, id),
    );
    if (!read.ok) {
      tally.refused++;
      // What was typed is said back; only our own words are looked at.
      if (!NONSENSE.test(text)) says(`parseQuantity as ${id}`, sayProblem(read.problem), () => JSON.stringify(text));
      return;
    }
    tally.read++;
    if (!Number.isFinite(read.value.si))
      throw new Fault(`parseQuantity reads ${JSON.stringify(text)} as ${read.value.si}`);
    const written = one(
      'formatQuantity',
      () => text,
      () => formatQuantity(read.value.si, id, {}, 9),
    );
    if (/NaN|Infinity|undefined/.test(written))
      throw new Fault(`formatQuantity writes ${written} for ${JSON.stringify(text)} as ${id}`);
  });
  return tally;
}

/** What a rig's header may say of its channels and its rate. */
const HEADS = [
  '["t","out"]',
  '[null]',
  '[{"name":"t","unit":"s"},{"name":"out","counts":16384}]',
  '[{"name":"out","counts":0}]',
  '[{"name":"__proto__"},{"name":"constructor"}]',
  '"t"',
  '[]',
  '[[]]',
  '[{"name":"t"},{"name":"t"}]',
  '[{"name":{},"quantity":"__proto__"}]',
  '[{"name":"x","scale":1e999,"zero":1e999}]',
  '[{"name":"temp","unit":"°C"},{"name":"load","scale":0}]',
];
const RATES = ['1000', '0', '-1', '1e999', 'null', '"x"'];

/** A line as a rig might print it. */
function rigLine(roll: Roll, i: number): string {
  const number = () =>
    pick(roll, [String(i), String(roll(9999) / 7), '1e999', '-1e308', 'null', '"x"', '[]', '{}', '1e31', '0']);
  switch (roll(i === 0 ? 4 : 12)) {
    case 0:
      return `{"channels":${pick(roll, HEADS)},"rate":${pick(roll, RATES)}}`;
    case 1:
      return 't,out';
    case 2:
      return `{"t":${i},"out":${roll(16384)}}`;
    case 3:
      return pick(roll, [
        '',
        '#',
        '{',
        '}',
        '[]',
        'null',
        '{"t":',
        '\u0000',
        ',,,',
        '1,2',
        '{}',
        '"x"',
        '0',
        '{"channels":',
        'NaN,NaN',
      ]);
    case 4:
      return `{"t":${number()},"out":${number()}}`;
    case 5:
      return `${number()},${number()}`;
    default:
      return roll(2) ? `{"t":${i / 10},"out":${roll(16384)}}` : `${i / 10},${roll(16384)}`;
  }
}

/** Lines of rigs, whole, damaged, cut in the middle: counted or taken, with finite samples. */
export function tortureRigLines(count: number, seed: number): { samples: number; malformed: number } {
  const roll = dice(seed);
  const tally = { samples: 0, malformed: 0 };
  for (let done = 0; done < count;) {
    const reader = new LineReader(roll(3) ? {} : { out: { scale: 1e-3, zero: 5 } });
    const cutter = new LineCutter();
    const lines = Array.from({ length: 1 + roll(60) }, (_, i) => {
      const line = rigLine(roll, i);
      return roll(6)
        ? line
        : line.slice(0, roll(line.length + 1)) + String.fromCharCode(roll(256)) + line.slice(roll(line.length + 1));
    });
    done += lines.length;
    const text = `${lines.join(pick(roll, ['\n', '\r\n']))}\n`;
    one(
      'LineReader',
      () => text,
      () => {
        for (let at = 0; at < text.length;) {
          const to = at + 1 + roll(80);
          for (const line of cutter.feed(text.slice(at, to))) reader.line(line);
          at = to;
        }
      },
    );
    const recording = one(
      'recording',
      () => text,
      () => reader.recording(),
    );
    tally.samples += reader.samples;
    tally.malformed += reader.malformed;
    if (!recording) continue;
    if (!Number.isFinite(recording.rate) || recording.data.some((d) => d.some((x) => !Number.isFinite(x))))
      throw new Fault(`A rig’s lines give samples that are no numbers\n${text}`);
    for (const n of recording.notes) says('recording', n, () => text);
    const u = unpackRecording(
      one(
        'packRecording',
        () => text,
        () => packRecording(recording),
      ),
    );
    if (!u.ok) throw new Fault(`A recording of a rig cannot be unpacked\n${text}`);
  }
  return tally;
}
