import { describe, expect, it } from 'vitest';
import { caseLoads, demandOf, PATTERNS, scaleCase, type LoadCase } from '../src/index.ts';
import { demo, shelf } from './helpers.ts';
import type { Anchor } from './anchors/anchor.ts';

// Every figure of a load pattern has a worked value: a move of a trapezoid cut into two million steps and summed, statics
// by hand. A new pattern brings its own.

const G = 9.80665;
const move = { given: 'limits', profile: 'trapezoid', jerk: 100, moveTime: 1, rampShare: 1 / 3, rest: 1 } as const;
const deg = Math.PI / 180;
const foot = 6 * 0.5 * G;
/** Torque of a knee between two bones of 160 mm whose foot stands under the hip. */
const knee = (at: number) => (foot * 0.16 ** 2 * Math.sin(at * deg)) / (0.32 * Math.sin((at * deg) / 2));

/** Mean of torques over the ways they go, with the exponent of rolling bearings. */
const byAngle = (torques: readonly number[], ways: readonly number[]) =>
  (torques.reduce((s, t, i) => s + t ** (10 / 3) * ways[i]!, 0) / ways.reduce((a, b) => a + b)) ** 0.3;

interface Worked {
  readonly at: LoadCase;
  readonly figures: Readonly<Record<string, Anchor>>;
}

const WORKED: readonly Worked[] = [
  {
    at: {
      ...{
        id: 'c',
        name: 'Arm',
        pattern: 'arm',
        load: 0.5,
        length: 0.25,
        armMass: 0.15,
        armCentre: 0.12,
        ownInertia: 0,
      },
      ...{ angleFrom: -30 * deg, angleTo: 60 * deg, speed: (2 * Math.PI) / 3, acceleration: 8, dynamicFactor: 1.3 },
      ...move,
    },
    figures: {
      peak: [2.114096737987, '−30° + v²/2a, where speeding up ends: 1.3·(0.143·g·cos θ + 8·J)'],
      rms: [1.11633392, 'steps'],
      hold: [0.143 * G * Math.cos(30 * deg), 'the lower end'],
      move: [1.01179938779915, '90° at 120°/s and v/a'],
      inertia: [0.03341, '0.5·0.25² + 0.15·0.12²'],
      equivalent: [1.3003049, 'steps'],
      duty: [0.502932545827, 'move over move and rest'],
    },
  },
  {
    at: {
      ...{ id: 'c', name: 'Leg', pattern: 'leg', mass: 6, share: 0.5, thigh: 0.16, shank: 0.16, footOffset: 0 },
      ...{ kneeStand: 150 * deg, kneeCrouch: 80 * deg, driven: 'knee', dropHeight: 0, landingTravel: 0.04 },
      ...{ speed: 3, acceleration: 20, standTime: 5, crouchTime: 1, dynamicFactor: 1.5 },
      ...move,
    } as LoadCase,
    figures: {
      peak: [1.5 * knee(80), 'in the crouch, by the dynamic factor'],
      rms: [1.98425713, 'steps'],
      hold: [knee(80), 'in the crouch'],
      'knee-stand': [1.5 * knee(150), 'by the dynamic factor'],
      'knee-crouch': [1.5 * knee(80), 'by the dynamic factor'],
      'hip-crouch': [0, 'the foot stands under the hip'],
      equivalent: [2.69336211, 'steps'],
      duty: [0.15665036519556, 'two moves of 70° over a cycle of 7.114 s'],
    },
  },
  {
    at: {
      ...{ id: 'c', name: 'Turning', pattern: 'turning', inertia: 0.02, friction: 0.02, unbalance: 0, radius: 0.1 },
      ...{ angle: Math.PI / 2, speed: Math.PI, acceleration: 10, dynamicFactor: 1.2 },
      ...move,
    } as LoadCase,
    figures: {
      peak: [1.2 * (0.02 * 10 + 0.02), 'inertia and friction, by the shock factor'],
      rms: [
        Math.sqrt(
          (0.1 * Math.PI * (0.22 ** 2 + 0.18 ** 2) + (0.5 - 0.1 * Math.PI) * 0.02 ** 2) / (1.5 + 0.1 * Math.PI),
        ),
        'three stretches and a rest',
      ],
      hold: [0, 'nothing pulls'],
      move: [0.5 + 0.1 * Math.PI, '90° at 180°/s and v/a'],
      equivalent: [
        byAngle([0.22, 0.18, 0.02], [Math.PI ** 2 / 20, Math.PI ** 2 / 20, Math.PI / 2 - Math.PI ** 2 / 10]),
        'three torques by the angle each turns through',
      ],
      duty: [0.44878047969944, 'move over move and rest'],
    },
  },
  {
    at: {
      ...{
        id: 'c',
        name: 'Straight',
        pattern: 'straight',
        mass: 2,
        friction: 0.01,
        slope: 0,
        force: 0,
        drive: 'pinion',
      },
      ...{
        radius: 0.012,
        lead: 0.005,
        driveEfficiency: 1,
        stroke: 0.3,
        speed: 0.3,
        acceleration: 2,
        dynamicFactor: 1.2,
      },
      ...move,
    } as LoadCase,
    figures: {
      force: [2 * 2 + 0.01 * 2 * G, 'm·a + µ·m·g'],
      peak: [1.2 * 0.012 * (4 + 0.02 * G), 'by pinion and shock factor'],
      rms: [
        0.012 * Math.sqrt((0.15 * ((4 + 0.02 * G) ** 2 + (4 - 0.02 * G) ** 2) + 0.85 * (0.02 * G) ** 2) / 2.15),
        'three stretches and a rest, out as back',
      ],
      hold: [0, 'level'],
      speed: [25, '0.3 m/s over 12 mm'],
      move: [1.15, '0.3 m at 0.3 m/s and v/a'],
      equivalent: [
        0.012 * byAngle([4 + 0.02 * G, 4 - 0.02 * G, 0.02 * G], [0.0225, 0.0225, 0.255]),
        'three forces by the way each goes',
      ],
      duty: [1.15 / 2.15, 'move over move and rest'],
    },
  },
  {
    at: {
      ...{ id: 'c', name: 'Points', pattern: 'points', inertia: 0, radius: 0, dynamicFactor: 1 },
      rows: [
        { torque: 2, speed: 0, seconds: 1 },
        { torque: 1.5, speed: 2, seconds: 0.5 },
        { torque: 0.3, speed: 4, seconds: 1 },
      ],
    } as LoadCase,
    figures: {
      peak: [2, 'as listed'],
      rms: [Math.sqrt((4 + 1.125 + 0.09) / 2.5), 'T²·t over 2.5 s'],
      hold: [2, 'where it does not turn'],
      speed: [4, 'as listed'],
      equivalent: [byAngle([1.5, 0.3], [1, 4]), 'two torques by the angle each turns through'],
      duty: [0.6, '1.5 of 2.5 s'],
    },
  },
];

describe('worked values of a load', () => {
  it('are there for every pattern', () => {
    expect(WORKED.map((w) => w.at.pattern).sort()).toEqual(PATTERNS.map((p) => p.id).sort());
  });

  for (const { at, figures } of WORKED) {
    const pattern = PATTERNS.find((p) => p.id === at.pattern)!;
    const found = new Map(pattern.figures(at, G).map((f) => [f.id.replace('case-', ''), f.value]));

    it(`${at.pattern}: every figure has one`, () => {
      expect(Object.keys(figures).sort()).toEqual([...found.keys()].sort());
    });

    for (const [id, [value, how]] of Object.entries(figures))
      it(`${at.pattern}, ${id}: ${how}`, () => {
        expect(Math.abs(found.get(id)! - value)).toBeLessThanOrEqual(1e-7 * Math.abs(value));
      });
  }
});

describe('what a case asks beside its figures', () => {
  const straight = WORKED.find((w) => w.at.pattern === 'straight')!.at;
  const points = WORKED.find((w) => w.at.pattern === 'points')!.at;

  it('up a slope with friction and a process, and down again without it, stretch by stretch', () => {
    const c = { ...straight, slope: 30 * deg, friction: 0.1, force: 5, driveEfficiency: 0.8 } as LoadCase;
    const [weight, rubs] = [2 * G * Math.sin(30 * deg), 0.2 * G * Math.cos(30 * deg)];
    // Where the load pushes, the drive holds all of it.
    const torque = (force: number) => 0.012 * (force >= 0 ? force / 0.8 : force);
    const up = [4, 0, -4].map((a) => torque(a + weight + rubs + 5));
    const down = [4, 0, -4].map((a) => torque(a - weight + rubs));
    const times = [0.15, 0.85, 0.15];
    const work = (list: number[]) => list.reduce((s, t, i) => s + t * t * times[i]!, 0);
    const square = work(up) + work(down) + 2 * (0.012 * weight) ** 2;
    expect(caseLoads(c, G).rms).toBeCloseTo(Math.sqrt(square / 4.3), 7);
    expect(caseLoads(c, G).peak).toBeCloseTo(1.2 * Math.max(...up), 9);
  });

  it('a leg that lands with its foot ahead: both levers by the triangle of its bones, three forces on each', () => {
    const leg = WORKED.find((w) => w.at.pattern === 'leg')!.at;
    const { values } = caseLoads({ ...leg, footOffset: 0.03, dropHeight: 0.1 } as LoadCase, G);
    const reach = (at: number) => 0.32 * Math.sin((at * deg) / 2);
    /** The foot's force stands upright: at the hip its lever is the offset, at the knee how far it is from the line. */
    const lever = (at: number) => {
      const lean = Math.asin(0.03 / reach(at));
      return Math.abs(0.03 - 0.16 * Math.sin(lean + Math.PI / 2 - (at * deg) / 2));
    };
    const still = foot;
    // Falling by h is stopped in s: m·g·(1 + h/s), or by the dynamic factor.
    const lands = foot * (1 + 0.1 / 0.04);
    const near = (x: number, by: number) => expect(x / by).toBeCloseTo(1, 6);
    near(values['kneeStand']!, 1.5 * still * lever(150));
    near(values['kneeCrouch']!, 1.5 * still * lever(80));
    near(values['kneeStandStatic']!, still * lever(150));
    near(values['kneeCrouchStatic']!, still * lever(80));
    near(values['hipStand']!, 1.5 * still * 0.03);
    near(values['hipCrouch']!, 1.5 * still * 0.03);
    near(values['hipLanding']!, lands * 0.03);
  });

  it.each(WORKED.map(({ at }) => [at.pattern, at] as const))(
    'seven tenths of the load of %s ask seven tenths of its torque',
    (_, at) => {
      // A process that pushes and a weight beside the axis are part of the load.
      const c = {
        ...at,
        ...(at.pattern === 'straight' && { force: 5 }),
        ...(at.pattern === 'turning' && { unbalance: 0.01 }),
      };
      const [whole, less] = [caseLoads(c, G), caseLoads(scaleCase(c, { torqueBy: 0.7 }, G), G)];
      for (const of of ['peak', 'hold', 'rms', 'inertia', 'friction'] as const)
        expect(less[of], of).toBeCloseTo(0.7 * whole[of], 9);
      expect(less.speed).toBeCloseTo(whole.speed, 12);
    },
  );

  it('of a straight axis, half of the speed is half of what it reaches, in metres a second', () => {
    const half = scaleCase(straight, { speedBy: 0.5 }, G);
    expect(half).toMatchObject({ speed: 0.15, mass: 2 });
    // 1 cm is too short for 0.3 m/s at 2 m/s²: √(2·0.01) is reached.
    const short = scaleCase({ ...straight, stroke: 0.01 } as LoadCase, { speedBy: 0.5 }, G);
    expect((short as { speed: number }).speed).toBeCloseTo(0.5 * Math.sqrt(0.02), 9);
    // Of a move whose time is given, twice the time is half of the speed.
    const timed = { ...straight, given: 'time', moveTime: 1.2 } as LoadCase;
    expect(scaleCase(timed, { speedBy: 0.5 }, G)).toMatchObject({ moveTime: 2.4 });
  });

  it('a list of points moves while something turns: 1.5 s of 2.5', () => {
    expect(caseLoads(points, G).moveTime).toBeCloseTo(1.5, 9);
  });

  it('of several, the one that wears most: T^(10/3)·n, and not the heaviest', () => {
    const row = (torque: number, speed: number) => [{ torque, speed, seconds: 1 }];
    const cases = [
      { ...points, id: 'often', rows: row(1, 10) },
      { ...points, id: 'heavy', rows: row(1.1, 1) },
    ] as LoadCase[];
    const d = demandOf({ ...demo().brief, cases }, shelf);
    expect([d.equivalent, d.meanSpeed]).toEqual([expect.closeTo(1, 9), expect.closeTo(10, 9)]);
    expect(d.peak).toBeCloseTo(1.1, 9);
    // Worn alike where the torque is more by the 3/10th power of ten.
    const even = [cases[0]!, { ...cases[1]!, rows: row(10 ** 0.3 * 1.001, 1) } as LoadCase];
    expect(demandOf({ ...demo().brief, cases: even }, shelf).meanSpeed).toBeCloseTo(1, 9);
  });
});
