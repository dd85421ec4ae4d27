import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import {
  blankTest,
  calibrated,
  columnsOf,
  corrected,
  findingsFor,
  GUIDED_SESSION,
  INSTRUMENTS,
  kindOfProgram,
  makeShelf,
  missingChannels,
  PROGRAMS,
  readEntry,
  RECORDING_KINDS,
  recordingFor,
  slipInputs,
  TEST_KIND_IDS,
  TEST_KINDS,
  testKind,
  type BenchTest,
  type LineReport,
  type Recording,
  type RigProgram,
} from '../src/index.ts';

const kind = (id: string) => testKind(id)!;
const test = (id: string, more: Partial<BenchTest> = {}): BenchTest => {
  const blank = blankTest(kind(id), { id: 't', buildId: 'b', date: '2026-11-27' });
  return { ...blank, ...more, rig: { ...blank.rig, ...more.rig } };
};
const readings = (rows: readonly Record<string, number | string>[]): BenchTest['readings'] =>
  rows.map((values, i) => ({ id: `r${i}`, text: 'typed', values }));
/** A line that expects one figure and nothing else; findings look only at its figures and verdicts. */
const expecting = (id: string, value: number, low: number, high: number): LineReport =>
  ({
    figures: [{ id, name: id, quantity: 'count', value, low, high }],
    verdicts: [],
    stages: [],
  }) as unknown as LineReport;

describe('one contract for every test', () => {
  it('names no kind outside its own file, the list of kinds and the schema', () => {
    const root = new URL('../src', import.meta.url).pathname;
    const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter((f) => f.endsWith('.ts'));
    const own = /^bench[\\/]kinds[\\/]|^schema[\\/]test-schema|^document[\\/]migrate/;
    const distinct = TEST_KIND_IDS.filter((id) => id.includes('-'));
    for (const f of files.filter((x) => !own.test(x))) {
      const text = readFileSync(join(root, f), 'utf8');
      for (const id of distinct)
        expect(text.includes(`'${id}'`) && !text.includes('@example'), `${f} ${id}`).toBe(false);
    }
    expect(TEST_KINDS.map((k) => k.id).sort()).toEqual([...TEST_KIND_IDS].sort());
  });

  it('draws every rig in finite numbers, with the dimensions as they are set', () => {
    for (const k of TEST_KINDS) {
      const drawn = k.sketch({ said: (id) => `<${id}>`, value: () => 0.2 });
      expect(drawn.items.length, k.id).toBeGreaterThan(3);
      for (const item of drawn.items) {
        const text = JSON.stringify(item);
        expect(text, k.id).not.toMatch(/NaN|null|undefined|Infinity/);
        for (const [, id] of text.matchAll(/<(\w+)>/g)) expect(k.rig.map((f) => f.id)).toContain(id);
      }
    }
  });

  it('lets a figure go only with columns and fields that there are', () => {
    for (const k of TEST_KINDS)
      for (const [row, goes] of Object.entries(k.goesAs ?? {})) {
        expect(k.rows, k.id).toContain(row);
        for (const id of Object.keys(goes))
          expect([...columnsOf(k, {}).map((c) => c.id), ...k.rig.map((f) => f.id)], `${k.id} ${row}`).toContain(id);
      }
  });

  it('records every programme of the rig, and guides through four of them', () => {
    for (const p of Object.keys(PROGRAMS) as RigProgram[]) expect(RECORDING_KINDS).toContain(kindOfProgram(p));
    expect(GUIDED_SESSION.map((s) => [s.program, s.kind.id])).toEqual([
      ['play', 'play-lever'],
      ['hysteresis', 'hysteresis'],
      ['torque', 'torque-cell'],
      ['transmission', 'transmission'],
    ]);
  });
});

describe('a slip', () => {
  // Stiffness 900 N·m/rad, play 2 mrad, a loop of ±6 N·m in steps: angle = T/900 ± 1 mrad.
  const loop = [0, 2, 4, 6, 4, 2, 0, -2, -4, -6, -4, -2, 0, 2, 4, 6].map((torque) => ({
    torque,
    angle: torque / 900 + Math.sign(torque) * 1e-3,
  }));
  const stiffnessOf = (t: BenchTest) =>
    findingsFor(t, undefined, expecting('stiffness', 900, 700, 1100), makeShelf()).find((f) => f.row === 'stiffness')!;

  it('of minutes for degrees in a hysteresis loop is taken out of the angle, the right way round', () => {
    const whole = stiffnessOf(test('hysteresis', { readings: readings(loop) }));
    expect(whole.found!.value).toBeCloseTo(900, 3);
    expect(whole.slips).toEqual([]);
    // Degrees were meant and minutes typed: every angle is sixty times too small, the stiffness sixty times too large.
    const slipped = test('hysteresis', { readings: readings(loop.map((r) => ({ ...r, angle: r.angle / 60 }))) });
    const seen = stiffnessOf(slipped);
    expect(seen.found!.value / 54_000).toBeCloseTo(1, 3);
    const { id, correction, value } = seen.slips[0]!;
    expect(id).toBe('minute-down');
    expect(value / 900).toBeCloseTo(1, 3);
    expect(correction).toMatchObject({ in: 'readings', id: 'angle' });
    expect(correction!.factor).toBeCloseTo(60, 9);
    const mended = corrected(slipped, correction!);
    expect(stiffnessOf(mended).found!.value / 900).toBeCloseTo(1, 3);
    expect(mended.readings[3]!.text).toBe('typed (× 60)');
    expect(mended.readings[3]!.values['torque']).toBe(6);
  });

  it('of newtons for kilograms is taken out of the mass; a diameter out of the rig alone', () => {
    const ladder = (mass: number, lever = 0.2) =>
      test('torque-ladder', {
        rig: { lever, basket: 0, leverMass: 0 },
        readings: readings([
          { mass, outcome: 'lifted' },
          { mass: mass * 1.1, outcome: 'stalled' },
        ]),
      });
    const of = (t: BenchTest) => findingsFor(t, undefined, expecting('torque', 8.2, 7, 9), makeShelf())[0]!;
    // 4 kg at 0.2 m is 7.85 N·m by hand, 8.24 N·m in the middle of the bracket.
    expect(of(ladder(4)).found!.value).toBeCloseTo(9.80665 * 0.2 * 4.2, 9);
    const g = of(ladder(4 * 9.80665)).slips[0]!;
    expect(g).toMatchObject({ id: 'g', correction: { in: 'readings', id: 'mass' } });
    expect(of(corrected(ladder(4 * 9.80665), g.correction!)).slips).toEqual([]);
    const wide = of(ladder(4, 0.4)).slips.find((s) => s.id === 'diameter')!;
    expect(corrected(ladder(4, 0.4), wide.correction!).rig['lever']).toBeCloseTo(0.2, 12);
  });

  it('of a recording is asked about without a button: no reading could be corrected', () => {
    const [torque, angle] = [loop.map((r) => r.torque), loop.map((r) => r.angle / 60)];
    const recording: Recording = {
      channels: [
        { id: 'torque', name: 'torque', quantity: 'torque' },
        { id: 'angle', name: 'angle', quantity: 'smallAngle' },
      ],
      data: [Float64Array.from(torque), Float64Array.from(angle)],
      rate: 10,
      malformed: 0,
      gaps: 0,
      notes: [],
    };
    const f = findingsFor(
      test('hysteresis'),
      undefined,
      expecting('stiffness', 900, 700, 1100),
      makeShelf(),
      recording,
    );
    expect(f[0]!.slips[0]).toMatchObject({ id: 'minute-down' });
    expect(f[0]!.slips[0]!.correction).toBeUndefined();
  });

  it('sits only where something was typed', () => {
    expect(slipInputs(kind('torque-ladder'), {}, 'torque').map((i) => [i.in, i.id, i.exponent])).toEqual([
      ['readings', 'mass', 1],
      ['rig', 'lever', 1],
    ]);
    expect(slipInputs(kind('efficiency'), {}, 'torque')).toEqual([]);
    expect(slipInputs(kind('positioning'), { axis: 'straight' }, 'repeatability')[0]!.quantity).toBe('length');
  });
});

describe('a calibration', () => {
  const dial = { ...INSTRUMENTS.find((i) => i.id === 'dial')!, factor: 2, zero: 1e-4 };
  it('is applied to the columns as the rig stands, and said only then', () => {
    const straight = test('positioning', {
      rig: { axis: 'straight' },
      readings: readings([{ target: 0.05, way: 'up', deviation: 1e-6 }]),
    });
    const c = calibrated(straight, kind('positioning'), dial);
    expect(c.test.readings[0]!.values['deviation']).toBeCloseTo(2e-6 - 1e-4, 15);
    expect(c.says.join()).toMatch(/corrected by the calibration/);
    const turning = { ...straight, rig: { axis: 'turning' } };
    expect(calibrated(turning, kind('positioning'), dial)).toMatchObject({ test: turning, says: [] });
  });

  it('leaves out the zero of a difference, and nothing else', () => {
    const c = calibrated(test('play-lever', { readings: readings([{ difference: 4e-4 }]) }), kind('play-lever'), dial);
    expect(c.test.readings[0]!.values['difference']).toBeCloseTo(8e-4, 15);
    const r = calibrated(test('runout', { readings: readings([{ angle: 0, reading: 4e-4 }]) }), kind('runout'), dial);
    expect(r.test.readings[0]!.values['reading']).toBeCloseTo(7e-4, 15);
  });

  it('of a cell whose counts the rig calibrates is not announced', () => {
    const cell = { ...INSTRUMENTS.find((i) => i.id === 'load-cell')!, factor: 3 };
    const t = test('torque-cell', { readings: readings([{ time: 1, counts: 5 }]) });
    expect(calibrated(t, kind('torque-cell'), cell)).toEqual({ test: t, recording: undefined, says: [] });
  });
});

describe('a recording for a kind', () => {
  const recording: Recording = {
    channels: [
      { id: 'time', name: 'time', quantity: 'time' },
      { id: 'output', name: 'out', quantity: 'angle' },
      { id: 'torque', name: 'T', quantity: 'torque' },
    ],
    data: [0, 1, 2].map((c) => Float64Array.from({ length: 4000 }, (_, i) => c * 1000 + i)),
    rate: 1000,
    malformed: 0,
    gaps: 0,
    notes: [],
  };
  it('has its channels under its own names, the output serving as the angle, thinned to means', () => {
    const r = recordingFor(kind('hysteresis'), recording);
    expect(r.channels.map((c) => c.id)).toEqual(['torque', 'angle']);
    expect(r.data[0]!.length).toBeLessThanOrEqual(1600);
    // Means of neighbours: the first of three samples 2000, 2001, 2002.
    expect(r.data[0]![0]).toBeCloseTo(2001, 9);
    expect(missingChannels(kind('hysteresis'), recording)).toEqual([]);
    expect(missingChannels(kind('transmission'), recording).map((c) => c.id)).toEqual(['input']);
  });

  it('of the play programme becomes what a dial at the lever would have read', () => {
    const step = GUIDED_SESSION[0]!;
    const swing = (i: number) => (i % 2 ? 1e-3 : -1e-3) * (1 + Math.floor(i / 1000));
    const out = {
      ...recording,
      channels: [recording.channels[1]!],
      data: [Float64Array.from({ length: 3000 }, (_, i) => swing(i))],
    };
    const got = step.readings!(out, () => 'x').map((r) => r.values['difference'] as number);
    // 2·0.18·sin(1, 2, 3 mrad) by hand.
    [3.6e-4, 7.2e-4, 1.08e-3].forEach((want, i) => expect(got[i]! / want).toBeCloseTo(1, 4));
    expect(step.readings!({ ...out, data: [new Float64Array(0)] }, () => 'x')).toEqual([]);
  });
});

describe('a typed row', () => {
  const play = kind('play-lever');
  it('is read in the reader’s units, optional cells left out', () => {
    const r = readEntry(play, {}, { difference: '0.5' }, { length: 'in' });
    if (!r.ok) throw new Error(r.problem.what);
    expect(r.value).toEqual({ text: '0.5', values: { difference: expect.closeTo(0.0127, 12) as number } });
  });
  it('is refused with the column’s name and what to do', () => {
    const why = (texts: Record<string, string>, rig: BenchTest['rig'] = {}) => {
      const r = readEntry(play, rig, texts, {});
      return r.ok ? '' : `${r.problem.what} ${r.problem.why} ${r.problem.mend}`;
    };
    expect(why({ difference: '' })).toMatch(/^Difference: /);
    expect(why({ difference: '3 kg' })).toMatch(/^Difference: .*unit of mass/);
    expect(why({ difference: '-3 mm' })).toMatch(/below nought/);
    expect(why({ difference: '400 mm' }, { lever: 0.18 })).toMatch(/longer than the lever can swing/);
    expect(why({ angle: '90000°', difference: '1 mm' })).toMatch(/^Output angle: 90000° cannot be read here/);
    expect(why({ difference: '20 m' })).toMatch(/at most 10/);
  });
  it('whose rig cannot be is refused by name when it is analysed', () => {
    const f = findingsFor(
      test('play-lever', { rig: { lever: 0 }, readings: readings([{ difference: 1e-4 }]) }),
      undefined,
      undefined,
      makeShelf(),
    );
    expect(f[0]!.problem!.what).toBe('Lever radius cannot be so.');
    expect(f[0]!.problem!.place).toBe('lever');
  });
});
