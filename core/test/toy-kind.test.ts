import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  analyseLine,
  circle,
  described,
  group,
  length,
  ok,
  opener,
  ORIGIN,
  readJointFile,
  register,
  stageKinds,
  unregister,
  writeJointFile,
  type StageKind,
  type StageNumbers,
  type StageSteps,
} from '../src/index.ts';
import { demo, shelf } from './helpers.ts';

/** Two rollers pressed together: the least a kind can be. It proves that a kind plugs in through the registry alone. */
interface Rollers {
  readonly r1: number;
  readonly r2: number;
}

const numbers = (p: Rollers): StageNumbers => ({
  ratio: -p.r2 / p.r1,
  etaForward: 0.9,
  etaBackward: 0.85,
  drag: 0.001,
  play: [0, 0, 0],
  stiffness: 500,
  springs: [{ name: 'all of it', stiffness: 500, held: 1 }],
  bendTorque: Infinity,
  stiffnessBeyond: 500,
  inertiaIn: 1e-6,
  inertiaOut: 1e-5,
  limits: [{ mode: 'slip', time: 'static', torque: 3, life: Infinity }],
  mass: 0.05,
  money: 2,
  outside: 2 * (p.r1 + p.r2),
  length: 0.01,
  maxSpeed: 1000,
  bore: 0,
  beside: true,
  life: Infinity,
});

const steps: StageSteps<Rollers, undefined, { numbers: StageNumbers }, undefined> = {
  build: () => ok(undefined),
  kinematics: (p) => ({ ratio: -p.r2 / p.r1, members: [], orders: [] }),
  model: (p) => ({ numbers: numbers(p) }),
  figures: () => [],
  checks: () => [],
  shapes: () => undefined,
  draw: (p, _g, _s, crank) => [
    {
      id: 'teeth',
      name: 'Rollers',
      items: [
        {
          kind: 'curve',
          key: 'r',
          outline: circle(0, 0, p.r1),
          at: { ...ORIGIN, turn: crank },
          ink: 'outline',
          tint: 'part',
        },
      ],
    },
  ],
  parts: () => ok([]),
  ports: () => ({
    input: { at: [0, 0, 0], along: 'z', shaft: 0 },
    output: { at: [0, 0, 0], along: 'z', shaft: 0 },
  }),
  assembly: () => [],
};

const rollers: StageKind<Rollers> = {
  id: 'toy-rollers',
  name: 'Rollers',
  summary: 'For tests.',
  ...described<Rollers>(
    group('Rollers', {
      r1: length({ says: 'Driving radius', label: 'Driving', help: '', start: 0.01, least: 1e-4, most: 1 }),
      r2: length({ says: 'Driven radius', label: 'Driven', help: '', start: 0.02, least: 1e-4, most: 1 }),
    }),
  ),
  defaults: (want) => ({ r1: 0.01, r2: 0.01 * Math.abs(want.ratio) }),
  open: opener(steps),
  candidates: () => [],
};

describe('a kind plugged in', () => {
  beforeAll(() => register(rollers));
  afterAll(() => unregister('toy-rollers'));

  it('is offered beside the others', () => expect(stageKinds().map((k) => k.id)).toContain('toy-rollers'));

  it('is summed, attributed and limited by its mode, and reverses the output', () => {
    const j = demo();
    const variant = j.variants[0]!;
    variant.stages.push({ id: 'toy', kind: 'toy-rollers', params: { r1: 0.01, r2: 0.02 } });
    const report = analyseLine(j, variant, shelf);
    expect(report.problem).toBeUndefined();
    expect(report.figures.find((f) => f.id === 'ratio')!.value).toBeCloseTo(-28, 9);
    expect(report.limitedBy).toBe('slip, stage 3');
    expect(report.attribution).toHaveLength(3);
    expect(report.nodes).toHaveLength(4);
  });

  it('is read from a file by its own schema', () => {
    const j = demo();
    j.variants[0]!.stages.push({ id: 'toy', kind: 'toy-rollers', params: { r1: 0.01, r2: 0.02, own: 'kept' } });
    const read = readJointFile(writeJointFile(j));
    expect(read.ok && read.value.variants[0]!.stages[2]!.params).toEqual({ r1: 0.01, r2: 0.02, own: 'kept' });
    j.variants[0]!.stages[2]!.params = { r1: -1, r2: 0.02 };
    const bad = readJointFile(writeJointFile(j));
    expect(bad.ok).toBe(false);
    if (!bad.ok) expect(bad.problem.place).toBe('variants.0.stages.2.params.r1');
  });

  it('is gone again after it is taken out', () => {
    unregister('toy-rollers');
    const j = demo();
    j.variants[0]!.stages.push({ id: 'toy', kind: 'toy-rollers', params: {} });
    const report = analyseLine(j, j.variants[0]!, shelf);
    expect(report.problem?.what).toMatch(/no stage of kind “toy-rollers”/);
    register(rollers);
  });
});
