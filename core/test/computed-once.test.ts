import * as v from 'valibot';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  analyseLine,
  circle,
  factor,
  makeShelf,
  ok,
  opener,
  ORIGIN,
  register,
  rememberingOpener,
  unregister,
  type StageKind,
  type StageNumbers,
  type StageSteps,
  type Variant,
} from '../src/index.ts';
import { demo } from './helpers.ts';

/** A stage that counts what is computed of it; its efficiency and mass read two factors of the shop. */
interface Plain {
  readonly ratio: number;
}

const runs = { build: 0, model: 0, shapes: 0, draw: 0, figures: 0 };
const counted = <K extends keyof typeof runs>(what: K): void => void runs[what]++;

const numbers = (p: Plain, eta: number, mass: number): StageNumbers => ({
  ratio: p.ratio,
  etaForward: eta,
  etaBackward: eta,
  drag: 0.001,
  play: [0, 0, 0],
  stiffness: 500,
  springs: [{ name: 'all of it', stiffness: 500, held: 1 }],
  bendTorque: Infinity,
  stiffnessBeyond: 500,
  inertiaIn: 1e-6,
  inertiaOut: 1e-5,
  limits: [{ mode: 'slip', time: 'static', torque: 9, life: Infinity }],
  mass,
  money: 2,
  outside: 0.02,
  length: 0.01,
  maxSpeed: 1000,
  bore: 0,
  beside: true,
  life: Infinity,
});

const steps: StageSteps<Plain, { size: number }, { numbers: StageNumbers }, object> = {
  build: (p) => (counted('build'), ok({ size: p.ratio })),
  kinematics: (p) => ({ ratio: p.ratio, members: [], orders: [] }),
  model: (p, _g, _at, shelf) => (
    counted('model'),
    { numbers: numbers(p, 0.9 - 1e-6 * factor(shelf, 'gear.load'), 0.05 + 1e-6 * factor(shelf, 'gear.tilt')) }
  ),
  figures: () => (counted('figures'), []),
  checks: () => [],
  shapes: () => (counted('shapes'), {}),
  draw: (_p, _g, _s, crank) => (
    counted('draw'),
    [
      {
        id: 'a',
        name: 'A',
        items: [
          {
            kind: 'curve',
            key: 'a',
            outline: circle(0, 0, 0.01),
            at: { ...ORIGIN, turn: crank },
            ink: 'outline',
            tint: 'part',
          },
        ],
      },
    ]
  ),
  parts: () => ok([]),
  ports: () => ({
    input: { at: [0, 0, 0], along: 'z', shaft: 0 },
    output: { at: [0, 0, 0], along: 'z', shaft: 0 },
  }),
  assembly: () => [],
};

const kind = {
  id: 'counted',
  name: 'Counted',
  summary: '',
  schema: v.looseObject({ ratio: v.number() }),
  fields: [],
  defaults: () => ({ ratio: 4 }),
  open: opener(steps),
  candidates: () => [],
} as unknown as StageKind<Plain>;

const shelf = makeShelf();
const joint = demo();
const variant = (...ratios: number[]): Variant => ({
  ...joint.variants[0]!,
  stages: ratios.map((ratio, i) => ({ id: `s${i}`, kind: 'counted', params: { ratio } })),
});

describe('nothing is computed twice', () => {
  beforeAll(() => register(kind));
  afterAll(() => unregister('counted'));
  beforeEach(() => void Object.keys(runs).forEach((k) => (runs[k as keyof typeof runs] = 0)));

  it('a line opens each of its stages once, and runs each model once and once more for every factor that it reads', () => {
    const open = rememberingOpener();
    const report = analyseLine(joint, variant(3, 5), shelf, { open });
    expect(report.problem).toBeUndefined();
    expect(runs.build).toBe(2);
    expect(runs.figures).toBe(2);
    expect(runs.draw + runs.shapes).toBe(0);
    const reads = report.stages[0]!.report!.reads.factors;
    expect([...reads].sort()).toEqual(['gear.load', 'gear.tilt']);
    // Two ends of two factors, of the stage's own band and of the line's.
    const whole = runs.model;
    expect(whole / 2).toBeLessThanOrEqual(1 + 2 * 2 * 2);
    analyseLine(joint, variant(3, 5), shelf, { open });
    expect([runs.build, runs.model, runs.figures]).toEqual([2, whole, 2]);
  });

  it('an edit of one stage opens that one alone', () => {
    const open = rememberingOpener();
    analyseLine(joint, variant(3, 5), shelf, { open });
    analyseLine(joint, variant(3, 6), shelf, { open });
    // The other is only asked for other torques.
    expect(runs.build).toBe(3);
    expect(runs.figures).toBe(4);
    analyseLine({ brief: { ...joint.brief } }, variant(3, 6), shelf, { open });
    expect(runs.build).toBe(3);
  });

  it('a running crank builds nothing and runs no model: it draws', () => {
    const open = rememberingOpener();
    const opened = open(variant(3).stages[0]!, shelf);
    if (!opened.ok) throw new Error(opened.problem.what);
    const duty = { torque: 1, torqueRms: 1, speed: 1 };
    for (let k = 0; k < 50; k++) opened.value.drawing(k / 10, { duty });
    expect({ ...runs }).toStrictEqual({ build: 1, model: 0, shapes: 1, draw: 50, figures: 0 });
    opened.value.load(duty);
    opened.value.load({ ...duty });
    expect(runs.model).toBe(1);
  });
});
