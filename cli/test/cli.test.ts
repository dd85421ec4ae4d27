import { execFile, execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import cases from '../../core/test/cases/belts.json' with { type: 'json' };
import lines from '../../core/test/cases/line.json' with { type: 'json' };
import { stageKinds } from '@gristmill/core';
import { run as answer, type Answer } from '../src/run.ts';
import { COMMANDS, optionsOf } from '../src/table.ts';

const bin = fileURLToPath(new URL('../bin/gristmill.mjs', import.meta.url));
const demo = fileURLToPath(new URL('../../demo/body-yaw.json', import.meta.url));

/** The command as a shell starts it. */
const shell = (...args: string[]): Promise<Answer> =>
  new Promise((done) => {
    execFile(process.execPath, [bin, ...args], { maxBuffer: 1 << 26 }, (error, out, err) =>
      done({ code: error ? (Number(error.code) as 1) : 0, out, err }),
    );
  });
// What it says is tried in place: starting a process for each line takes a second.
const run = (...args: string[]): Promise<Answer> => answer(args);
const json = async (...args: string[]) => {
  const r = await run(...args, '--json');
  expect(r.code, r.err).toBe(0);
  return JSON.parse(r.out);
};

/** What is wrong with how a command is written ends with 2, what cannot be done with 1. */
const MISUSE =
  /(FILE|KIND|PART|--[a-z]+) is missing|^There is no (variant|kind|process|stage|part|command|parameter)|is not a format of|line cannot be read/;
const codeFor = (err: string) => (MISUSE.test(err) ? 2 : 1);

describe('the command line', () => {
  it('gives the worked belt cases through stage --json', async () => {
    for (const c of cases) {
      const section = ({ 2: 'R2', 3: 'R3', 5: 'R5', 2.032: 'MXL' } as Record<string, string>)[String(c.pitch_mm)]!;
      const r = await json(
        'stage',
        'belt',
        '--params',
        JSON.stringify({
          section,
          z1: c.z1,
          z2: c.z2,
          beltTeeth: c.belt_teeth,
          setBy: 'length',
          closure: 'closed',
          bore1: 0.003,
          bore2: 0.003,
        }),
      );
      expect(r.figures.centre.value * 1000).toBeCloseTo(c.centre_mm, 4);
      expect(r.figures.mesh.value).toBeCloseTo(c.teeth_in_mesh, 4);
      expect(r.kinematics.ratio).toBeCloseTo(c.z2 / c.z1, 12);
    }
  });

  it('gives the worked line cases through analyse --json, entered as bought units', async () => {
    const raw = JSON.parse(readFileSync(demo, 'utf8'));
    const base = {
      designation: '',
      form: 'inline',
      backEfficiency: 0.8,
      drag: 0,
      inertia: 0,
      ratedTorque: 1e3,
      peakTorque: 1e4,
      ratedSpeed: '3000 rpm',
      ratedLife: 0,
      maxSpeed: 1e4,
      outside: 0.05,
      length: 0.05,
      centre: 0,
      bore: 0,
      mass: 0.1,
      price: 1,
    };
    raw.variants = lines.map((c, i) => ({
      ...raw.variants[0],
      id: `v${i}`,
      name: `V${i}`,
      stages: c.stages.map((s, k) => ({
        id: `s${k}`,
        kind: 'unit',
        params: {
          ...base,
          ratio: s.ratio,
          efficiency: s.efficiency,
          play: s.backlash,
          playMost: s.backlash,
          stiffness: s.stiffness,
        },
      })),
    }));
    Object.assign(raw, { builds: [], tests: [], activeVariant: 'v0' });
    const file = join(mkdtempSync(join(tmpdir(), 'gristmill-')), 'lines.json');
    writeFileSync(file, JSON.stringify(raw));
    const r = await json('analyse', file);
    lines.forEach((c, i) => {
      const f = r.variants[i].figures;
      expect(f.ratio.value).toBeCloseTo(c.ratio, 9);
      expect(f.efficiency.value).toBeCloseTo(c.efficiency, 9);
      expect(f.playWorst.value).toBeCloseTo(c.play_rad, 12);
      expect(f.stiffness.value / c.stiffness_Nm_per_rad).toBeCloseTo(1, 9);
    });
  });

  it('gives loads by pattern, motor points and checks, text with units taken', async () => {
    const raw = JSON.parse(readFileSync(demo, 'utf8'));
    raw.brief.cases = [
      {
        id: 'l',
        name: 'Leg',
        pattern: 'leg',
        mass: '10 kg',
        share: 0.5,
        thigh: '200 mm',
        shank: '200 mm',
        kneeStand: '150°',
        kneeCrouch: '60°',
        dynamicFactor: 2,
        speed: '30 rpm',
        acceleration: 10,
        standTime: 1,
        crouchTime: 1,
      },
      {
        id: 't',
        name: 'Table',
        pattern: 'turning',
        inertia: 0.05,
        friction: 0.3,
        unbalance: 0.2,
        angle: 3,
        speed: 2,
        acceleration: 4,
        rest: 1,
        dynamicFactor: 1,
      },
      {
        id: 's',
        name: 'Axis',
        pattern: 'straight',
        mass: 4,
        friction: 0.1,
        slope: '30°',
        force: 15,
        drive: 'pinion',
        radius: '20 mm',
        stroke: 1,
        speed: '0.5 m/s',
        acceleration: 1,
        rest: 0,
        dynamicFactor: 1,
      },
      {
        id: 'p',
        name: 'Own',
        pattern: 'points',
        rows: [{ torque: '10 kgf·cm', speed: '60 rpm', seconds: 1 }],
        dynamicFactor: 1,
      },
    ];
    const file = join(mkdtempSync(join(tmpdir(), 'gristmill-')), 'cases.json');
    writeFileSync(file, JSON.stringify(raw));
    const r = await json('analyse', file);
    const [leg, table, axis, own] = r.demand.cases.map((c: { loads: unknown }) => c.loads);
    expect(leg.values.kneeCrouch).toBeCloseTo(10 * 9.80665 * 0.2 * Math.sin(Math.PI / 3), 9);
    expect(table.rms).toBeCloseTo(Math.sqrt(0.58 / 3), 9);
    expect(axis.values.peakForce).toBeCloseTo(42.0104, 3);
    expect(own.peak).toBeCloseTo(0.980665, 9);
    expect(leg.trace).toBeUndefined();
    const v = r.variants[0];
    expect(v.motor.points.map((x: { name: string }) => x.name)).toContain('peak, Table');
    expect(v.motor.constants.torqueConstant).toBeCloseTo(0.55 / (Math.SQRT2 * 1.7), 9);
    expect(v.checks.ever.limit).toBe(1);
    expect(v.demand).toBeUndefined();
  });

  it('asks a motor and the ratio desk, and says in words what cannot be', async () => {
    const own =
      '{"type":"brushless","speedConstant":"340 ' +
      'rpm/V","resistance":0.13,"idleCurrent":0.5,"peakCurrent":22,"thermalResistance":3.4,"allowedRise":80,"sensored":true}';
    const m = await json(
      'motor',
      '--motor',
      own,
      '--driver',
      '{"currentLimit":10,"sets":"line"}',
      '--speed',
      '0 rpm, 3000 rpm',
    );
    expect(m.points[1].peak.torque).toBeCloseTo((60 / (2 * Math.PI * 340)) * 9.5, 9);
    expect((await run('motor', '--motor', '{"type":"stepper"}')).err).toMatch(/motor cannot be read at/);
    expect((await run('motor', '--motor', own, '--speed', '3 kg')).err).toMatch(/unit of mass/);
    const curved = own.replace('}', ',"curve":{"speed":[0,10],"torque":[1,0.5]}}');
    expect((await run('motor', '--motor', curved, '--speed', '900 rpm')).err).toMatch(/outside the motor’s curve/);
    const d = await json('desk', demo);
    expect(d.rows).toHaveLength(4);
    expect(d.rows[1].both[0]).toBeGreaterThan(d.rows[0].both[0]);
    expect((await run('desk', demo, '--each', '300 %')).err).toMatch(/not an efficiency/);
    expect((await run('desk')).err).toMatch(/FILE is missing/);
  });

  it('tells a straight axis in newtons and micrometres, and of its motor in newton metres', async () => {
    const { out } = await run('analyse', fileURLToPath(new URL('../../demo/reed-lift.json', import.meta.url)));
    expect(out).toMatch(/Force, lifting +asked >= 20\.81 N, expected \d+ N /);
    expect(out).toMatch(/Play +asked <= 150 µm, expected \d+ µm/);
    expect(out).toMatch(/Accelerates as asked +[\d.]+ m\/s² >= 0\.6 m\/s²/);
    expect(out).toMatch(/Motor needed +[\d.]+ N·m/);
  });

  it('analyses the demo as the views do', async () => {
    const r = await json('analyse', demo);
    expect(r.variants.map((v: { name: string }) => v.name)).toEqual(['A', 'B']);
    const a = r.variants[0];
    expect(a.figures.ratio.value).toBe(14);
    expect(a.figures.torque.working.terms.length).toBeGreaterThan(2);
    expect(a.figures.torque.low).toBeLessThan(a.figures.torque.value);
    expect(a.stages[0].report.figures.centre.value).toBeGreaterThan(0.05);
    expect(
      r.tests.filter((t: { testId: string }) => !t.testId.startsWith('d-')).map((t: { row: string }) => t.row),
    ).toEqual(['play', 'torque']);
    // What was measured decides, as in the tally.
    const verdict = (id: string) => a.verdicts.find((v: { id: string }) => v.id === id);
    expect(verdict('play')).toMatchObject({ state: 'fails', by: 'found' });
    expect((await run('analyse', demo)).out).toMatch(/FAILS +Play .*found 15\.2 ± 0\.7′, which decides/);
    expect((await run('analyse', demo, '--variant', 'B')).out).toMatch(/^Body yaw, variant B/);
    expect((await run('analyse', demo, '--variant', 'Z')).code).toBe(2);
  });

  it('writes outlines as svg, dxf and json', async () => {
    const params = ['--params', '{"section":"R3","z1":16,"z2":56,"beltTeeth":84}'];
    expect((await run('outline', 'belt', 'driven', ...params, '--format', 'svg')).out).toMatch(/^<\?xml/);
    expect((await run('outline', 'belt', 'driven', ...params, '--format', 'dxf', '--chord', '1 um')).out).toContain(
      'AC1009',
    );
    const r = await json('outline', 'belt', 'driver', ...params);
    expect(r.unit).toBe('m');
    expect(r.curves[0].closed).toBe(true);
    expect(Math.max(...r.curves[0].points.map((p: number[]) => Math.hypot(p[0]!, p[1]!)))).toBeCloseTo(
      0.048 / Math.PI / 2 - 0.000381,
      8,
    );
  });

  it('writes a solid as STL and 3MF, and says its volume', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'gristmill-cli-'));
    const params = ['--params', '{"module":"1 mm","z1":20,"z2":60,"width":"8 mm","bore1":0,"bore2":0}'];
    const r = await json('solid', 'spur', 'driver', ...params, '--format', 'stl', '--out', join(folder, 'driver.stl'));
    // Twenty teeth of module 1 fill about the disc of their pitch circle.
    expect(r.volume / (Math.PI * 0.01 ** 2 * 0.008)).toBeGreaterThan(0.93);
    expect(r.volume / (Math.PI * 0.01 ** 2 * 0.008)).toBeLessThan(1.02);
    expect(statSync(join(folder, 'driver.stl')).size).toBe(84 + 50 * r.triangles);
    expect((await run('solid', 'spur', ...params, '--format', '3mf', '--out', join(folder, 'all.3mf'))).code).toBe(0);
    expect(readFileSync(join(folder, 'all.3mf')).subarray(0, 2).toString()).toBe('PK');
    expect(
      (await run('solid', 'spur', 'wing', ...params, '--format', 'stl', '--out', join(folder, 'x.stl'))).err,
    ).toMatch(/no part “wing”/);
    expect((await run('solid', 'spur', 'driver', ...params, '--format', 'stl')).err).toMatch(/--out is missing/);
  });

  it('checks a file, converts a unit and takes text with units', async () => {
    expect((await run('check', demo)).out).toMatch(/the file is whole.*Variant A: misses play/s);
    expect((await json('unit', '33 kgf·cm', 'torque')).si).toBeCloseTo(3.2361945, 9);
    const r = await json(
      'stage',
      'belt',
      '--params',
      '{"tension":"5 kgf","z1":20,"z2":60,"beltTeeth":110,"section":"R3"}',
      '--duty',
      '{"torque":"20 kgf·cm"}',
    );
    expect(r.params.tension).toBeCloseTo(49.03325, 9);
    expect(r.duty.torque).toBeCloseTo(1.96133, 9);
  });

  it('says in one sentence why not, with exit code 1, or 2 where the command is written wrongly', async () => {
    const bad: [string[], RegExp][] = [
      [['analyse', 'nothing.json'], /no such file/],
      [['analyse'], /FILE is missing/],
      [['stage'], /KIND is missing/],
      [['stage', 'wand', '--params', '{}'], /no stage of kind “wand”/],
      [['stage', 'belt', '--params', '{'], /not JSON/],
      [['stage', 'belt', '--params', '[]'], /not an object/],
      [['stage', 'belt', '--params', '{"z1":0}'], /z1 must be at least 6/],
      [['stage', 'belt', '--params', '{"z1":"NaN"}'], /z1/],
      [['stage', 'belt', '--params', '{"beltTeeth":20}'], /too short/],
      [['stage', 'belt', '--params', '{}', '--duty', '{"torque":-1}'], /duty torque/],
      [['outline', 'belt', 'wing', '--params', '{}'], /no part “wing”/],
      [['outline', 'belt', 'driver', '--params', '{}', '--format', 'doc'], /not a format/],
      [['outline', 'belt', 'driver', '--params', '{}', '--chord', '0'], /chord error/],
      [['unit', '3 kg', 'torque'], /mass/],
      [['frobnicate'], /no command/],
      [['analyse', '--wrong'], /cannot be read/],
    ];
    const results = await Promise.all(bad.map(([args]) => run(...args)));
    results.forEach((r, i) => {
      expect(r.code, bad[i]![0].join(' ')).toBe(codeFor(r.err));
      expect(r.out).toBe('');
      expect(r.err).toMatch(bad[i]![1]);
      expect(r.err).not.toMatch(/\n {4}at |Error:/);
    });
    const asked = await run('unit', '3 kg', 'torque', '--json');
    expect(JSON.parse(asked.out).ok).toBe(false);
  });

  it('says what every pair comes to by a process, and writes the coupon that tells it', async () => {
    const wing = fileURLToPath(new URL('../../demo/wing-root.json', import.meta.url));
    const own = await json('fit', wing);
    expect(own.process).toMatchObject({ id: 'desk-025' });
    // The joint's own coupon: 0.054 and 0.085 mm a side.
    expect(own.process.fit.out.value).toBeCloseTo(5.4e-5, 5);
    expect(own.jam.jams).toBeGreaterThan(0.1);
    expect(own.jam.jams).toBeLessThan(0.5);
    expect(Math.abs(own.jam.jamsThen - own.jam.looseThen)).toBeLessThan(0.001);
    expect(own.pairs.length).toBeGreaterThan(20);
    expect(own.corrections['stage1/ring'].out).toBeCloseTo(own.process.fit.out.value, 12);
    const told = await run('fit', wing, '--process', 'resin');
    expect(told.out).toMatch(/^Wing root, variant B/);
    expect(told.out).toMatch(/Process: Resin, 50 µm; .*Nothing is measured yet/s);
    expect(told.out).toMatch(/Planet pin, set 1 in Planet, set 1, run, ⌀ 3\.00 mm: .*; hole \+/);
    const folder = mkdtempSync(join(tmpdir(), 'gristmill-fit-'));
    const file = join(folder, 'coupon.zip');
    expect((await run('coupon', '--process', 'cutter', '--out', file, '--format', 'dxf')).code).toBe(0);
    const inside = unzipSync(readFileSync(file));
    expect(Object.keys(inside).sort()).toEqual(['gauge.dxf', 'ladder.dxf', 'measuring.md', 'plug.dxf', 'steps.dxf']);
    expect(strFromU8(inside['measuring.md']!)).toMatch(/\| 1 \| Step of 60 mm along x/);
    for (const [args, why] of [
      [['fit'], /FILE is missing/],
      [['fit', wing, '--process', 'gone'], /There is no process “gone”/],
      [['coupon'], /--process is missing/],
      [['coupon', '--process', 'filament'], /--out is missing/],
      [['coupon', '--process', 'filament', '--out', join(folder, 'x.obj')], /not written as obj/],
      [['coupon', '--process', 'filament', '--out', join(folder, 'no', 'x.3mf')], /cannot be written/],
    ] as const) {
      const r = await run(...args);
      expect(r.code).toBe(codeFor(r.err));
      expect(r.err).toMatch(why);
    }
  });

  it('helps: all commands, one command, its version', async () => {
    const all = (await run('--help')).out;
    for (const c of COMMANDS) {
      expect(all).toContain(`  ${c.name}`);
      const one = await run(c.name, '--help');
      expect(one.code).toBe(0);
      expect(one.out).toContain(`gristmill ${c.examples[0]}`);
      for (const o of optionsOf(c)) expect(one.out).toContain(`--${o}`);
      expect(await run('help', c.name)).toEqual(one);
    }
    expect(await run()).toEqual(await run('help'));
    expect((await run('--version')).out).toMatch(/^\d+\.\d+\.\d+\n$/);
    expect(JSON.parse((await run('--version', '--json')).out)).toEqual({
      name: 'gristmill',
      version: (await run('-v')).out.trim(),
    });
  });

  it('refuses options, words and parameters that a command does not know, with exit code 2', async () => {
    for (const [args, why] of [
      [['unit', '3 mm', 'length', '--bed', '200 mm'], /unit does not take --bed/],
      [['kinds', 'belt'], /“belt” is one word too many/],
      [['unit', '3', 'mm', 'length'], /“length” is one word too many/],
      [['stage', 'belt', '--params', '{"z9":3}'], /There is no parameter “z9”.*z1, z2.*gristmill params belt/],
      [['params', 'wand'], /There is no stage of kind “wand”/],
      [['params'], /KIND is missing/],
      [['desk', demo, '--variant', 'Z'], /There is no variant “Z”. The joint has A, B/],
      [['check', demo, '--variant', 'Z'], /There is no variant “Z”/],
      [['help', 'wand'], /There is no command “wand”/],
    ] as const) {
      const r = await run(...args);
      expect([r.code, r.out], args.join(' ')).toEqual([2, '']);
      expect(r.err).toMatch(why);
    }
  });

  it('tells the kinds of stage and what each is given by; those parameters make the stage', async () => {
    const { kinds } = await json('kinds');
    expect(kinds.map((k: { id: string }) => k.id)).toEqual(stageKinds().map((k) => k.id));
    for (const { id } of kinds) {
      const { params, format, version } = await json('params', id);
      expect([format, version]).toEqual(['gristmill-params', 1]);
      const given = Object.fromEntries(params.map((p: { name: string; start: unknown }) => [p.name, p.start]));
      expect((await run('stage', id, '--params', JSON.stringify(given))).code, id).toBe(0);
    }
    const worm = (await run('params', 'worm')).out;
    expect(worm).toMatch(/^starts +Starts \(1, 1 to 12\): /m);
    expect(worm).toMatch(/^module +Module \(2 mm\)/m);
  });

  it('ends with 1 where a must is missed and that is asked', async () => {
    const wing = fileURLToPath(new URL('../../demo/wing-root.json', import.meta.url));
    expect((await run('check', wing)).code).toBe(0);
    expect((await run('check', wing, '--variant', 'B', '--must')).code).toBe(0);
    const missed = await run('check', wing, '--variant', 'A', '--must');
    expect([missed.code, missed.out]).toEqual([1, '']);
    expect(missed.err).toMatch(/Wing root does not do what it must. Variant A: misses play/);
  });

  it('writes what it says to a file, and what is no text to standard output', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'gristmill-out-'));
    const file = join(folder, 'bill.md');
    const said = await run('bill', demo);
    expect(await run('bill', demo, '--out', file)).toEqual({ code: 0, out: '', err: '' });
    expect(readFileSync(file, 'utf8')).toBe(said.out);
    expect(await run('bill', demo, '--out', '-')).toEqual(said);
    expect(await run('bill', demo, '--out', join(folder, 'no', 'x'))).toMatchObject({ code: 1, out: '' });
    // The bytes of a body go where a shell can pipe them; what is said of them does not mix with them.
    const piped = await shell('solid', 'worm', 'worm', '--params', '{}', '--format', 'stl', '--out', '-');
    expect(piped.code).toBe(0);
    expect(piped.out.length).toBeGreaterThan(10_000);
    expect(piped.err).toMatch(/^-: /);
  });

  it('takes the shop everywhere: a test is held against the line as that shop makes it', async () => {
    const edits = JSON.stringify({ factors: { gravity: { value: 1.62, low: 1.62, high: 1.62 } } });
    const peak = async (...more: string[]) => (await json('analyse', demo, ...more)).demand.peak;
    expect((await peak('--shop', edits)) / (await peak())).toBeLessThan(0.9);
    const missed = async (...more: string[]) => (await json('check', demo, ...more)).variants;
    expect(await missed('--shop', edits)).not.toEqual(undefined);
  });

  it('writes its own manual page and completion for a shell', async () => {
    const page = (await run('man')).out;
    expect(page).toMatch(/^\.TH GRISTMILL 1/);
    for (const section of ['NAME', 'SYNOPSIS', 'COMMANDS', 'OPTIONS', 'EXIT STATUS', 'EXAMPLES'])
      expect(page).toContain(`.SH ${section}`);
    const script = (await run('completion')).out;
    const words = execFileSync(
      'bash',
      ['-c', `${script}\nCOMP_WORDS=(gristmill check --m); COMP_CWORD=2; _gristmill; echo "\${COMPREPLY[@]}"`],
      { encoding: 'utf8' },
    );
    expect(words).toBe('--must\n');
  });

  it('says from a shell what it says here: on its own streams, with its exit code', async () => {
    const bad = ['unit', '3 kg', 'torque', '--json'];
    const good = ['stage', 'planetary', '--params', '{}', '--json'];
    const [refused, answered] = await Promise.all([shell(...bad), shell(...good)]);
    expect(refused).toEqual(await run(...bad));
    expect(refused!.code).toBe(1);
    expect(answered).toEqual(await run(...good));
    expect(answered!.code).toBe(0);
  });

  it('finds lines as the sheet does, says why a kind is not among them, and refuses what it does not know', async () => {
    const r = await json('find', demo, '--kinds', 'belt, unit', '--stages', '1');
    expect(r.format).toBe('gristmill-found');
    expect(r.lines.length).toBeGreaterThan(0);
    for (const l of r.lines) {
      expect(l.stages).toHaveLength(1);
      expect(['belt', 'unit']).toContain(l.stages[0].kind);
      expect(l.chance.all).toBeGreaterThan(0);
    }
    const shown = new Set(r.lines.flatMap((l: { stages: { kind: string }[] }) => l.stages.map((s) => s.kind)));
    expect(r.whyNot.map((w: { kind: string }) => w.kind)).toEqual(['belt', 'unit'].filter((k) => !shown.has(k)));
    const plain = await run('find', demo, '--kinds', 'belt', '--stages', '1');
    expect(plain.out).toMatch(/^\d+ lines? out of \d+.*; \d+ stages\.\n1\. .*: Belt\n {3}money [\d.]+ \S+, mass/);
    for (const [args, why] of [
      [['find'], 'FILE is missing'],
      [['find', demo, '--kinds', 'clockwork'], 'There is no kind “clockwork”'],
      [['find', demo, '--stages', '9'], '--stages is not a number of stages'],
      [['find', demo, '--variant', 'Q'], 'There is no variant “Q”'],
    ] as const) {
      const bad = await run(...args);
      expect(bad.code).toBe(codeFor(bad.err));
      expect(bad.err).toContain(why);
    }
  });

  it('tells what a variant is made of, and writes all of its files as one zip', async () => {
    const made = await json('bill', demo, '--joints', '3');
    expect(made.joints).toBe(3);
    expect(made.rows[0].needed).toBe(3);
    const shown = await run('bill', demo, '--format', 'csv');
    expect(shown.out.split('\r\n')[0]).toMatch(/^name,for,how,/);
    expect((await run('bill', demo)).out).toMatch(/^# Body yaw, variant /);
    const out = join(mkdtempSync(join(tmpdir(), 'gristmill-files-')), 'yaw.zip');
    const told = await json('files', demo, '--out', out, '--chord', '50 um', '--bed', '250 mm x 210 mm');
    const zip = unzipSync(readFileSync(out));
    expect(Object.keys(zip).sort()).toEqual(told.files);
    expect(JSON.parse(strFromU8(zip['manifest.json']!)).bed).toEqual([250, 210]);
    expect(strFromU8(zip['assembly.md']!)).toContain('found by taking it apart');
    // A plan from a given day is the same whenever it is asked for.
    const plan = (await run('schedule', demo, '--start', '2026-12-01', '--joints', '2')).out;
    expect(plan).toMatch(/^# Body yaw, variant .*\n\nAll done on 2026-12-\d\d|2027-0/);
    expect(plan).toContain('## 2026-12-01');
    expect(plan).toContain('Joint 2: Put together');
    expect((await run('schedule', demo, '--start', '2026-12-01', '--joints', '2')).out).toBe(plan);
    expect((await run('schedule', demo, '--format', 'ics')).out).toMatch(/^BEGIN:VCALENDAR/);
    const told2 = await json('schedule', demo, '--start', '2026-12-01');
    expect(told2.placed.length).toBeGreaterThan(10);
    expect(told2.stuck).toEqual([]);
    for (const [args, says] of [
      [['bill', demo, '--joints', '0'], '--joints is not a number of joints'],
      [['schedule', demo, '--start', '30.2.2027'], '--start is not a day'],
      [['schedule', demo, '--joints', '21'], 'too many for a plan'],
      [['schedule', demo, '--format', 'xls'], 'not a format of plans'],
      [['schedule'], 'FILE is missing'],
      [['bill', demo, '--format', 'pdf'], 'not a format of bills'],
      [['bill'], 'FILE is missing'],
      [['files', demo], '--out is missing'],
      [['files', demo, '--out', out, '--bed', '3 mm'], '--bed is not a bed'],
      [['files', demo, '--out', out, '--bed', 'wide'], 'wide'],
      [['files', demo, '--out', '/nowhere/x.zip', '--chord', '0.2 mm'], 'cannot be written'],
    ] as const) {
      const r = await run(...args);
      expect(r.code).toBe(codeFor(r.err));
      expect(r.err).toContain(says);
    }
  });
});
