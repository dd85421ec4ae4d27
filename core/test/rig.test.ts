import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hangingPlan } from '../src/bench/kinds/hanging-plan.ts';
import {
  TEST_KINDS,
  analyseLine,
  analyseTest,
  blankTest,
  calibratedReading,
  contextFor,
  drawTruth,
  findingsOf,
  fitHysteresis,
  LineCutter,
  lineOrders,
  LineReader,
  makeShelf,
  mappedError,
  PROGRAMS,
  readJointFile,
  sensorMap,
  Specimen,
  testKind,
  testPlan,
  transmissionRun,
  twoPoint,
  type Joint,
  type RigProgram,
  type Truth,
} from '../src/index.ts';

const arcmin = Math.PI / 10800;
const shelf = makeShelf();
const demo = (name: string): Joint => {
  const r = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const neck = demo('neck-lift');
const variant = neck.variants.find((v) => v.id === 'c')!;
const line = analyseLine(neck, variant, shelf);
const context = contextFor(variant, line, shelf);
const truthOf = (seed: number): Truth =>
  drawTruth(line, lineOrders(variant, line), context.ratio!, context.torqueConstant!, seed);
const recorded = (truth: Truth, program: RigProgram) => {
  const s = new Specimen(truth, program, undefined, 5);
  const reader = new LineReader();
  reader.line(s.header());
  while (!s.done) reader.line(s.line());
  return reader;
};

describe('the simulated rig', () => {
  it('is the same specimen for a seed, within the expected bands, and others for others', () => {
    expect(truthOf(3)).toEqual(truthOf(3));
    expect(truthOf(3).play).not.toBe(truthOf(4).play);
    const band = line.figures.find((f) => f.id === 'stiffness')!;
    for (let seed = 1; seed < 40; seed++) {
      const k = truthOf(seed).stiffness[1];
      expect(k).toBeGreaterThanOrEqual(band.low * 0.999);
      expect(k).toBeLessThanOrEqual(band.high * 1.001);
    }
  });

  it('analysis finds what was put in: play and stiffness by the loop, ratio and play by the turn', () => {
    for (const seed of [1, 2, 5]) {
      const truth = truthOf(seed);
      const loop = recorded(truth, 'hysteresis');
      const thin = (a: Float64Array) =>
        Float64Array.from(
          { length: Math.floor(a.length / 10) },
          (_, i) => a.subarray(i * 10, i * 10 + 10).reduce((s, v) => s + v, 0) / 10,
        );
      const fit = fitHysteresis(thin(loop.column('torque')!), thin(loop.column('output')!))!;
      expect(fit.play.value / truth.play).toBeCloseTo(1, 1);
      // The stretch above the bend is short at this push: what a loop tells of so stiff a joint is good to a quarter.
      const stiff = fit.stiffness[fit.stiffness.length - 1]!.value / truth.stiffness[1];
      expect(stiff).toBeGreaterThan(0.75);
      expect(stiff).toBeLessThan(1.25);
      const turn = recorded(truth, 'transmission');
      const run = transmissionRun(turn.column('input')!, turn.column('output')!)!;
      expect(1 / run.slope / truth.ratio).toBeCloseTo(1, 3);
      expect(Math.abs(run.play - truth.play) / arcmin).toBeLessThan(0.6 + 0.1 * (truth.play / arcmin));
    }
  });

  it('analysis finds how it warms: where it settles and how fast, inside the uncertainty it states, from nothing but what the rig sends', () => {
    const kind = testKind('temperature')!;
    const blank = blankTest(kind, { id: 't', buildId: '', date: '' });
    let inside = 0;
    for (let seed = 1; seed <= 20; seed++) {
      const { heating } = truthOf(seed);
      const reader = recorded(truthOf(seed), 'warming');
      expect(reader.samples).toBe(PROGRAMS.warming.seconds * PROGRAMS.warming.rate);
      const r = analyseTest(
        { ...blank, rig: { ...blank.rig, torque: heating.torque, ambient: heating.ambient } },
        {
          instruments: [],
          gravity: 9.81,
          orders: [],
          materials: [{ name: 'a mount', limit: heating.ambient + 4 * heating.rise }],
          recording: reader.recording()!,
        },
      );
      if (!r.ok) throw new Error(r.problem.what);
      const figure = (id: string) => r.value.figures.find((f) => f.id === id)!;
      expect(figure('settles').value).toBeCloseTo(heating.ambient + heating.rise, 0);
      expect(figure('timeConstant').value / heating.time).toBeCloseTo(1, 1);
      if (Math.abs(figure('settles').value - heating.ambient - heating.rise) < figure('settles').U!) inside++;
      // Four times the rise takes twice the torque.
      expect(figure('torque0').value / heating.torque).toBeCloseTo(2, 1);
    }
    expect(inside).toBeGreaterThanOrEqual(17);
  });

  it('a million samples are taken apart in little time', () => {
    const n = 1_000_000;
    const input = Float64Array.from({ length: n }, (_, i) => (i < n / 2 ? i : n - i) * 1e-3);
    const output = input.map((x, i) => x / 20 + 2e-4 * Math.sin(x / 20) + (i < n / 2 ? -3e-4 : 3e-4));
    const kind = testKind('transmission')!;
    const r = analyseTest(blankTest(kind, { id: 't', buildId: '', date: '' }), {
      instruments: [],
      gravity: 9.81,
      orders: [{ name: 'output', order: 1, lever: 0.05 }],
      materials: [],
      ratio: 20,
      recording: {
        channels: [
          { id: 'input', name: 'in', quantity: 'angle' },
          { id: 'output', name: 'out', quantity: 'angle' },
        ],
        data: [input, output],
        rate: 0,
        malformed: 0,
        gaps: 0,
        notes: [],
      },
    });
    if (!r.ok) throw new Error(r.problem.what);
    expect(r.value.figures.find((f) => f.id === 'play')!.value).toBeCloseTo(6e-4, 6);
    expect(r.value.peaks![0]!.suspects[0]!.name).toBe('output');
  });
});

describe('the rig’s protocol', () => {
  it('takes objects and rows, scales counts, counts what is not whole, marks gaps, never throws', () => {
    const r = new LineReader();
    r.line(
      '{"channels":[{"name":"t"},{"name":"out","quantity":"angle","counts":1000},{"name":"load","unit":"kg"}],"rate":100}',
    );
    for (let i = 0; i < 50; i++) r.line(i % 2 ? `{"t":${i * 0.01},"out":${i},"load":5}` : `${i * 0.01},${i},5`);
    r.line('{"t":0.5,"out":');
    r.line('garbage');
    r.line('{"t":0.51,"out":"x","load":1}');
    r.line('9.0,60,5');
    r.line('1.0,60,5');
    expect([r.samples, r.malformed, r.gaps]).toEqual([51, 4, 1]);
    expect(r.column('output')![10]).toBeCloseTo((10 * 2 * Math.PI) / 1000, 12);
    expect(r.recording()!.notes.join()).toContain('backwards');
    r.calibrate(1, { scale: -r.channels[1]!.scale, zero: 4 });
    expect(r.column('output')![10]).toBeCloseTo((-6 * 2 * Math.PI) / 1000, 12);
    // Degrees Fahrenheit and Celsius: as many kelvins, by their factor and their zero.
    const warm = new LineReader();
    warm.line(
      '{"channels":["t",{"name":"a","quantity":"temperature","unit":"°F"},{"name":"b","quantity":"temperature","unit":"°C"}]}',
    );
    warm.line('0,212,100');
    warm.line('1,32,0');
    for (const name of ['a', 'b']) {
      expect(warm.column(name)![0]).toBeCloseTo(373.15, 9);
      expect(warm.column(name)![1]).toBeCloseTo(273.15, 9);
    }
    // What was set holds for the next recording of that name, over what its header says.
    const again = new LineReader({ out: { scale: 2, zero: 1 } });
    again.line('{"channels":["t","out"]}');
    again.line('0,5');
    expect(again.column('output')![0]).toBe(8);
    fc.assert(
      fc.property(fc.array(fc.string({ maxLength: 60 }), { maxLength: 40 }), (lines) => {
        const any = new LineReader();
        for (const l of lines) any.line(l);
        for (const c of any.channels) expect(any.column(c.id)!.every(Number.isFinite)).toBe(true);
      }),
      { numRuns: 200 },
    );
  });

  it('lines cut anywhere come together again; an endless one does not fill the memory', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(9), { maxLength: 30 }), (cuts) => {
        const text = 'a,1\nb,2\r\nc,3\n';
        const cutter = new LineCutter();
        const out: string[] = [];
        let at = 0;
        for (const c of cuts) {
          out.push(...cutter.feed(text.slice(at, at + c)));
          at += c;
        }
        out.push(...cutter.feed(text.slice(at)));
        expect(out.filter(Boolean)).toEqual(['a,1', 'b,2', 'c,3']);
      }),
    );
    const endless = new LineCutter();
    for (let i = 0; i < 100; i++) endless.feed('x'.repeat(1000));
    expect(endless.feed('\nok\n').at(-1)).toBe('ok');
  });
});

describe('instruments and plan', () => {
  it('a lever for hanging is about as long as six kilograms need for what matters, 10 to 50 cm, in steps of 5', () => {
    const instrument = makeShelf().instruments.find((i) => i.measures === 'mass')!;
    const lever = (expected: number, asked: number) =>
      hangingPlan({ expected, asked, wanted: 1, torque: expected, instrument }).values['lever'];
    // 10 N·m over 6 kg·g is 170 mm, 14 N·m 238 mm.
    expect(lever(10, 4)).toBeCloseTo(0.2, 9);
    expect(lever(10, 14)).toBeCloseTo(0.25, 9);
    expect(lever(10, NaN)).toBeCloseTo(0.2, 9);
    expect(lever(0.5, 0.4)).toBeCloseTo(0.1, 9);
    expect(lever(100, 4)).toBeCloseTo(0.5, 9);
    // Resolution and error as even spreads, on the lever, doubled for 95 %: g·L·1.96·√(r²/12 + e²/3).
    const u = 1.96 * 9.81 * 0.2 * Math.sqrt(instrument.resolution ** 2 / 12 + instrument.error ** 2 / 3);
    for (const [wanted, enough] of [
      [u * 1.01, true],
      [u * 0.99, false],
    ] as const)
      expect(hangingPlan({ expected: 10, asked: 4, wanted, torque: 10, instrument }).enough).toBe(enough);
  });

  it('two known values make factor and zero; readings follow', () => {
    const c = twoPoint([0, 2], [0.05, 2.15])!;
    expect(calibratedReading(c, 2.15)).toBeCloseTo(2, 12);
    expect(calibratedReading(c, 0.05)).toBeCloseTo(0, 12);
    expect(twoPoint([0, 1], [3, 3])).toBeUndefined();
    const kind = testKind('leg-press')!;
    const blank = blankTest(kind, { id: 't', buildId: '', date: '' }, 'hanging');
    const test = {
      ...blank,
      rig: { ...blank.rig, thigh: 0.2, shank: 0.2 },
      readings: [
        { id: 'a', text: '6 kg', values: { angle: 2, mass: 6 } },
        { id: 'b', text: '60 kg', values: { angle: 2, mass: 6 } },
      ],
    };
    const at = (over: object) => {
      const r = analyseTest(test, {
        instruments: shelf.instruments.map((i) => (i.id === 'hanging' ? { ...i, ...over } : i)),
        gravity: 9.80665,
        orders: [],
        materials: [],
      });
      if (!r.ok) throw new Error(r.problem.what);
      return r.value;
    };
    expect(at({ factor: 1.02, calibrated: '2026-11-01' }).found!.value / at({}).found!.value).toBeCloseTo(1.02, 9);
    expect(at({ factor: 1.02 }).advice.join()).toContain('corrected by the calibration');
    expect(at({ range: 5 }).advice.join()).toContain('beyond what');
  });

  it('a sensor’s error is mapped from a turn and taken out', () => {
    const angles = Float64Array.from({ length: 512 }, (_, i) => (2 * Math.PI * i) / 512);
    const error = angles.map((a) => 4e-3 * Math.cos(a + 0.5) + 1e-3 * Math.cos(2 * a - 1));
    const map = sensorMap(angles, error);
    expect(map.map((h) => h.order)).toEqual([1, 2]);
    for (let i = 0; i < 512; i += 17) expect(mappedError(map, angles[i]!)).toBeCloseTo(error[i]!, 9);
  });

  it('the plan answers the brief in a safe order, with levers fine enough, and knows what is done', () => {
    const joint = demo('body-yaw');
    const variant = joint.variants[0]!;
    const line = analyseLine(joint, variant, shelf);
    const plan = testPlan(joint, variant, line, shelf.instruments);
    expect(plan.map((p) => p.order)).toEqual([...plan.map((p) => p.order)].sort());
    expect(plan.find((p) => p.kind === 'play-lever')!.done).toBe(true);
    expect(plan.at(-1)!.kind).toBe('torque-ladder');
    for (const p of plan) {
      const v = line.verdicts.find((x) => x.id === p.row)!;
      expect(p.margin, p.row).toBeCloseTo(
        Number.isFinite(v.asked)
          ? Math.max(v.asked, v.figure!.value) - Math.min(v.asked, v.figure!.value)
          : v.figure!.value,
        12,
      );
    }
    for (const p of plan) expect(TEST_KINDS.some((k) => k.id === p.kind)).toBe(true);
    expect(testPlan({ ...joint, tests: [] }, variant, line, shelf.instruments).every((p) => !p.done)).toBe(true);
  });

  it('every test of the demo has a result or says why; every kind appears among the four joints', () => {
    const kinds = new Set<string>();
    for (const name of ['body-yaw', 'neck-lift', 'wing-root', 'tide-dial']) {
      const joint = demo(name);
      for (const t of joint.tests) kinds.add(t.kind);
      for (const f of findingsOf(joint, shelf))
        expect(f.found, `${name} ${f.testId}: ${f.problem?.what}`).toBeDefined();
    }
    expect([...kinds].sort()).toEqual(TEST_KINDS.map((k) => k.id).sort());
  });
});
