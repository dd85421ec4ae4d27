import { execFile } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import cases from '../../core/test/cases/belts.json' with { type: 'json' };

const bin = fileURLToPath(new URL('../bin/gristmill.mjs', import.meta.url));
const demo = fileURLToPath(new URL('../../demo/body-yaw.json', import.meta.url));

const run = (...args: string[]): Promise<{ code: number; out: string; err: string }> =>
  new Promise((done) => {
    execFile(process.execPath, [bin, ...args], { maxBuffer: 1 << 26 }, (error, out, err) => done({ code: error ? Number(error.code) : 0, out, err }));
  });
const json = async (...args: string[]) => {
  const r = await run(...args, '--json');
  expect(r.code, r.err).toBe(0);
  return JSON.parse(r.out);
};

describe.concurrent('the command line', () => {
  it('gives the worked belt cases through stage --json', async () => {
    for (const c of cases) {
      const section = ({ 2: 'R2', 3: 'R3', 5: 'R5', 2.032: 'MXL' } as Record<string, string>)[String(c.pitch_mm)]!;
      const r = await json('stage', 'belt', '--params', JSON.stringify({ section, z1: c.z1, z2: c.z2, beltTeeth: c.belt_teeth, setBy: 'length', closure: 'closed', bore1: 0.003, bore2: 0.003 }));
      expect(r.figures.centre.value * 1000).toBeCloseTo(c.centre_mm, 4);
      expect(r.figures.mesh.value).toBeCloseTo(c.teeth_in_mesh, 4);
      expect(r.kinematics.ratio).toBeCloseTo(c.z2 / c.z1, 12);
    }
  });

  it('analyses the demo as the views do', async () => {
    const r = await json('analyse', demo);
    expect(r.variants.map((v: { name: string }) => v.name)).toEqual(['A', 'B']);
    const a = r.variants[0];
    expect(a.figures.ratio.value).toBe(14);
    expect(a.figures.torque.low).toBeLessThan(a.figures.torque.value);
    expect(a.stages[0].report.figures.centre.value).toBeGreaterThan(0.05);
    expect(r.tests.map((t: { row: string }) => t.row)).toEqual(['play', 'torque']);
    expect((await run('analyse', demo, '--variant', 'B')).out).toMatch(/^Body yaw, variant B/);
    expect((await run('analyse', demo, '--variant', 'Z')).code).toBe(1);
  });

  it('writes outlines as svg, dxf and json', async () => {
    const params = ['--params', '{"section":"R3","z1":16,"z2":56,"beltTeeth":84}'];
    expect((await run('outline', 'belt', 'driven', ...params, '--format', 'svg')).out).toMatch(/^<\?xml/);
    expect((await run('outline', 'belt', 'driven', ...params, '--format', 'dxf', '--chord', '1 um')).out).toContain('AC1009');
    const r = await json('outline', 'belt', 'driver', ...params);
    expect(r.unit).toBe('m');
    expect(r.curves[0].closed).toBe(true);
    expect(Math.max(...r.curves[0].points.map((p: number[]) => Math.hypot(p[0]!, p[1]!)))).toBeCloseTo(0.048 / Math.PI / 2 - 0.000381, 8);
  });

  it('checks a file, converts a unit and takes text with units', async () => {
    expect((await run('check', demo)).out).toMatch(/the file is whole.*Variant A: misses play/s);
    expect((await json('unit', '33 kgf·cm', 'torque')).si).toBeCloseTo(3.2361945, 9);
    const r = await json('stage', 'belt', '--params', '{"tension":"5 kgf","z1":20,"z2":60,"beltTeeth":110,"section":"R3"}', '--duty', '{"torque":"20 kgf·cm"}');
    expect(r.params.tension).toBeCloseTo(49.03325, 9);
    expect(r.duty.torque).toBeCloseTo(1.96133, 9);
  });

  it('says in one sentence why not, with exit code 1', async () => {
    const bad: [string[], RegExp][] = [
      [['analyse', 'nothing.json'], /no such file/], [['analyse'], /FILE is missing/], [['stage'], /KIND is missing/], [['stage', 'wand', '--params', '{}'], /no stage of kind “wand”/],
      [['stage', 'belt', '--params', '{'], /not JSON/], [['stage', 'belt', '--params', '[]'], /not an object/], [['stage', 'belt', '--params', '{"z1":0}'], /z1 must be at least 6/], [['stage', 'belt', '--params', '{"z1":"NaN"}'], /z1/],
      [['stage', 'belt', '--params', '{"beltTeeth":20}'], /too short/], [['stage', 'belt', '--params', '{}', '--duty', '{"torque":-1}'], /duty torque/], [['outline', 'belt', 'wing', '--params', '{}'], /no part “wing”/],
      [['outline', 'belt', 'driver', '--params', '{}', '--format', 'doc'], /not a format/], [['outline', 'belt', 'driver', '--params', '{}', '--chord', '0'], /chord error/], [['unit', '3 kg', 'torque'], /mass/], [['frobnicate'], /no command/], [['analyse', '--wrong'], /cannot be read/],
    ];
    const results = await Promise.all(bad.map(([args]) => run(...args)));
    results.forEach((r, i) => {
      expect(r.code, bad[i]![0].join(' ')).toBe(1);
      expect(r.out).toBe('');
      expect(r.err).toMatch(bad[i]![1]);
      expect(r.err).not.toMatch(/\n {4}at |Error:/);
    });
    const asked = await run('unit', '3 kg', 'torque', '--json');
    expect(JSON.parse(asked.out).ok).toBe(false);
  });

  it('helps', async () => {
    expect((await run('--help')).out).toMatch(/analyse FILE/);
  });
});
