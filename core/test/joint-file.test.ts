import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  createJoint,
  findingsOf,
  makeShelf,
  readJointFile,
  sayProblem,
  VERSION,
  writeJointFile,
} from '../src/index.ts';
import { demo, demoText } from './helpers.ts';

const problem = (text: string) => {
  const r = readJointFile(text);
  expect(r.ok).toBe(false);
  return r.ok ? '' : sayProblem(r.problem);
};
// The tests spoil a parsed file in ways no type allows.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
const altered = (change: (j: any) => void): string => {
  const j = JSON.parse(demoText);
  change(j);
  return JSON.stringify(j);
};

describe('joint files', () => {
  it('come back the same, unknown fields included', () => {
    const raw = JSON.parse(demoText);
    raw.ownField = { deep: [1, 2] };
    raw.brief.cases[0].colour = 'green';
    raw.variants[0].stages[0].params.later = 'x';
    raw.tests.find((t: { id: string }) => t.id === 'test-play').readings[0].photo = 'a.jpg';
    raw.tests.find((t: { id: string }) => t.id === 'd-pluck').readings[0].values.later = 3;
    const read = readJointFile(JSON.stringify(raw));
    if (!read.ok) throw new Error(sayProblem(read.problem));
    expect(JSON.parse(writeJointFile(read.value))).toEqual(raw);
  });

  it('take text with units wherever a quantity stands', () => {
    const read = readJointFile(
      altered((joint) => {
        joint.brief.cases[0]!.load = '2 lb';
        joint.brief.cases[0]!.length = '12 in';
        joint.brief.limits.find((l: { id: string }) => l.id === 'play').value = '0.4 mm @ 180 mm';
        joint.variants[0]!.motor.holdTorque = '62 ozf·in';
        joint.variants[0]!.stages[0]!.params.width = '1/4 in';
      }),
    );
    if (!read.ok) throw new Error(sayProblem(read.problem));
    expect(read.value.brief.cases[0]!.load).toBeCloseTo(0.90718474, 9);
    expect(read.value.brief.cases[0]!.length).toBeCloseTo(0.3048, 12);
    expect(read.value.brief.limits.find((l) => l.id === 'play')!.value).toBeCloseTo(2 * Math.asin(0.4 / 360), 12);
    expect((read.value.variants[0]!.motor as { holdTorque: number }).holdTorque).toBeCloseTo(0.437816212, 8);
    expect(read.value.variants[0]!.stages[0]!.params['width']).toBeCloseTo(0.00635, 12);
  });

  it('of version 1 are brought up with everything they said', () => {
    const text = readFileSync(new URL('./fixtures/version-1.json', import.meta.url), 'utf8');
    const read = readJointFile(text);
    if (!read.ok) throw new Error(sayProblem(read.problem));
    const j = read.value;
    expect(j.version).toBe(VERSION);
    expect(j.brief.cases).toHaveLength(1);
    expect(j.brief.cases[0]).toMatchObject({ pattern: 'arm', load: 0.6, length: 0.2, rest: 1 });
    expect(j.brief.limits).toEqual([
      { id: 'play', sense: 'max', value: 0.0023271056693257726, need: 'must' },
      { id: 'torque', sense: 'min', value: 2, need: 'must' },
      { id: 'mass', sense: 'max', value: 0.9, need: 'must' },
    ]);
    expect(j.variants[0]).toMatchObject({ follows: false, sensor: { place: 'none' } });
    expect((j as Record<string, unknown>)['ownField']).toEqual({ kept: true });
  });

  it('of version 2 come up with what is new at its starting value, and nothing else changed', () => {
    const raw = JSON.parse(readFileSync(new URL('./fixtures/version-2.json', import.meta.url), 'utf8'));
    const read = readJointFile(JSON.stringify(raw));
    if (!read.ok) throw new Error(sayProblem(read.problem));
    expect(read.value.version).toBe(VERSION);
    expect(read.value).toMatchObject({ ...raw, version: VERSION, tests: read.value.tests });
    expect(read.value.brief.cases[0]).toMatchObject({ given: 'limits', profile: 'trapezoid', ownInertia: 0 });
    expect(read.value.variants[0]!.sensor).toMatchObject({ outputCounts: 16384, error: 0 });
  });

  it('of version 4 give the tests at a lever the form of every other, and read as before', () => {
    const old = {
      ...JSON.parse(writeJointFile(demo())),
      version: 4,
      tests: [
        {
          id: 'p',
          kind: 'play-lever',
          buildId: demo().builds[0]!.id,
          date: '2026-10-05',
          notes: 'n',
          rig: { lever: 0.18, leverError: 5e-4, instrument: 'dial', push: 0.1, correctWindUp: true, own: 'kept' },
          readings: [{ id: 'r', angle: 0.5, difference: 4e-4, text: '0.4 mm', struck: 'bumped', mine: 1 }],
        },
        {
          id: 't',
          kind: 'torque-ladder',
          buildId: demo().builds[0]!.id,
          date: '2026-10-06',
          notes: '',
          rig: { lever: 0.15, leverError: 0, leverMass: 0.1, leverCentre: 0.07, basket: 0.1, angle: 0, angleError: 0 },
          readings: [{ id: 'r', mass: 2.5, outcome: 'lifted', text: '2.5 kg' }],
        },
      ],
    };
    const read = readJointFile(JSON.stringify(old));
    if (!read.ok) throw new Error(sayProblem(read.problem));
    const [play, ladder] = read.value.tests;
    expect(play).toMatchObject({ rig: { lever: 0.18, correctWindUp: 'yes', own: 'kept' }, notes: 'n' });
    expect(play!.readings).toEqual([
      { id: 'r', text: '0.4 mm', struck: 'bumped', mine: 1, values: { angle: 0.5, difference: 4e-4 } },
    ]);
    expect(ladder!.readings[0]!.values).toEqual({ mass: 2.5, outcome: 'lifted' });
    const found = findingsOf(read.value, makeShelf());
    // 9.80665·((2.5 + 0.1)·0.15 + 0.1·0.07) by hand is 3.8933 N·m.
    expect(found.find((f) => f.testId === 't')!.found!.value).toBeCloseTo(3.8932, 3);
  });

  it('are refused with the place and the reason', () => {
    expect(problem('')).toMatch(/empty/);
    expect(problem('{"format":"gristmill-joint","version":2')).toMatch(/cut off|JSON/);
    expect(problem('[]')).toMatch(/not a joint file/);
    expect(problem('{}')).toMatch(/format mark/);
    expect(problem(altered((j) => (j['version'] = VERSION + 1)))).toMatch(/newer Gristmill \(version 6\)/);
    expect(problem(altered((j) => (j['version'] = 'x')))).toMatch(/version cannot be read/);
    expect(problem(altered((j) => (j.brief.cases[0]!.load = -1)))).toMatch(/brief\.cases\.0\.load.*at least/);
    expect(problem(altered((j) => (j.brief.cases[0]!.load = '3 mm')))).toMatch(/unit of length.*mass/);
    expect(problem(altered((j) => (j.brief.cases[0]!.load = '3')))).toMatch(/without one/);
    expect(problem(altered((j) => (j.variants[0]!.stages[0]!.kind = 'wand')))).toMatch(/no stage of kind “wand”/);
    expect(problem(altered((j) => delete j.variants[0]!.stages[0]!.params['z1']))).toMatch(/z1 is missing/);
    expect(problem(altered((j) => (j.tests[0]!.buildId = 'nowhere')))).toMatch(
      /belongs to a build that is not in the file/,
    );
    expect(problem(altered((j) => (j.variants[1]!.id = 'a')))).toMatch(/share the identifier/);
    expect(problem(' '.repeat(450_000_000))).toMatch(/too large \(450 MB\)/);
  });

  it('of a new joint read back', () => {
    const j = createJoint('Jib <i>x</i>', { id: 'n', now: '2026-11-23T00:00:00.000Z' });
    const read = readJointFile(writeJointFile(j));
    expect(read).toEqual({ ok: true, value: j });
  });

  it('come out in text that a second writing leaves alone', () => {
    const once = writeJointFile(demo());
    const again = readJointFile(once);
    expect(again.ok && writeJointFile(again.value)).toBe(once);
  });
});
