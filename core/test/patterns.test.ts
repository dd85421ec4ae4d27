import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  blankCase,
  caseLoads,
  CURVE_COLUMNS,
  curveFromColumns,
  demandOf,
  kneeFor,
  landingKnee,
  legPose,
  loadPattern,
  moveAt,
  PATTERNS,
  planMove,
  POINT_COLUMNS,
  readCase,
  readJointFile,
  readQuantityTable,
  sCurve,
  sumCycle,
  writeJointFile,
  type LoadCase,
  workingOf,
} from '../src/index.ts';
import { demo, shelf } from './helpers.ts';

const G = 9.80665;
const loads = (c: LoadCase) => loadPattern(c.pattern).loads(c, G);
const value = (c: LoadCase, key: string) => loads(c).values[key]!;

describe('moves', () => {
  const wish = {
    given: 'limits',
    profile: 's-curve',
    speed: 2,
    acceleration: 8,
    jerk: 60,
    moveTime: 1,
    rampShare: 1 / 3,
  } as const;

  it('an S-curve covers its way within speed, acceleration and jerk, whatever is too short for them', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-3, max: 50, noNaN: true }),
        fc.double({ min: 0.01, max: 20, noNaN: true }),
        fc.double({ min: 0.1, max: 100, noNaN: true }),
        fc.double({ min: 0.5, max: 5000, noNaN: true }),
        (way, speed, acceleration, jerk) => {
          const m = planMove(way, { ...wish, speed, acceleration, jerk });
          const end = moveAt(m, m.duration);
          expect(end.position).toBeCloseTo(way, 6);
          expect(Math.abs(end.speed)).toBeLessThan(1e-6 * speed + 1e-9);
          expect(m.top).toBeLessThanOrEqual(speed * (1 + 1e-9));
          expect(m.peakAcceleration).toBeLessThanOrEqual(acceleration * (1 + 1e-9));
          for (const s of m.segments) expect(Math.abs(s.jerk)).toBeLessThanOrEqual(jerk * (1 + 1e-6));
        },
      ),
    );
  });

  it('is what the closed form says for a long way', () => {
    // v/a + a/j for one ramp, way − v·ramp at the top speed.
    const s = sCurve(10, 2, 8, 60);
    expect(s.jerkTime).toBeCloseTo(8 / 60, 12);
    expect(s.flat).toBeCloseTo(2 / 8 - 8 / 60, 12);
    // So short that only the jerk is reached: way 2·v·√(v/j); and so that only acceleration and jerk are: v·(v/a + a/j).
    const { jerk, acceleration } = wish;
    const short = planMove(0.001, wish).top;
    expect(2 * short * Math.sqrt(short / jerk)).toBeCloseTo(0.001, 12);
    const middle = planMove(0.4, wish).top;
    expect(middle).toBeLessThan(wish.speed);
    expect(middle).toBeGreaterThan(acceleration ** 2 / jerk);
    expect(middle * (middle / acceleration + acceleration / jerk)).toBeCloseTo(0.4, 12);
    expect(planMove(10, wish).duration).toBeCloseTo(2 * (2 / 8 + 8 / 60) + (10 - 2 * (2 / 8 + 8 / 60)) / 2, 12);
  });

  it('by time takes that time, a third up and a third down at 1.5 times the mean speed', () => {
    const m = planMove(3, { ...wish, given: 'time', profile: 'trapezoid', moveTime: 0.9 });
    expect(m.duration).toBeCloseTo(0.9, 12);
    expect(m.top).toBeCloseTo((1.5 * 3) / 0.9, 12);
    expect(m.peakAcceleration).toBeCloseTo((4.5 * 3) / 0.81, 9);
    const smooth = planMove(3, { ...wish, given: 'time', moveTime: 0.9 });
    expect(smooth.duration).toBeCloseTo(0.9, 9);
    expect(smooth.peakAcceleration).toBeCloseTo(2 * m.peakAcceleration, 6);
  });
});

describe('cycle sums', () => {
  it('weigh RMS by time and wear by the angle turned, exponent 10/3', () => {
    const flat = (duration: number, torque: number, speed: number) => ({
      duration,
      at: () => ({ position: 0, torque, speed }),
    });
    const s = sumCycle([flat(2, 3, 1), flat(1, -6, 4), flat(3, 1, 0)]);
    expect(s.rms).toBeCloseTo(Math.sqrt((9 * 2 + 36 + 3) / 6), 12);
    expect(s.equivalent).toBeCloseTo(((3 ** (10 / 3) * 2 + 6 ** (10 / 3) * 4) / 6) ** 0.3, 10);
    expect(s.equivalentByTime).toBeCloseTo(((3 ** (10 / 3) * 2 + 6 ** (10 / 3) + 3) / 6) ** 0.3, 10);
    expect(s.duty).toBeCloseTo(0.5, 12);
    expect(s.meanSpeed).toBeCloseTo(1, 12);
  });
});

describe('two-segment leg', () => {
  const leg = (change: object) => ({ ...blankCase('l', 'leg'), ...change });

  it('has the knee a·b·sin κ / r in front of a foot under the hip, and a hip without torque', () => {
    const c = leg({ thigh: 0.18, shank: 0.15, mass: 8, share: 0.5, dynamicFactor: 2, kneeCrouch: 1.2 });
    const r = Math.sqrt(0.18 ** 2 + 0.15 ** 2 - 2 * 0.18 * 0.15 * Math.cos(1.2));
    const x = (0.18 * 0.15 * Math.sin(1.2)) / r;
    expect(legPose(c, 1.2).reach).toBeCloseTo(r, 12);
    expect(value(c, 'kneeCrouch')).toBeCloseTo(8 * G * 0.5 * 2 * x, 9);
    expect(value(c, 'hipCrouch')).toBeCloseTo(0, 12);
    expect(loads(c).hold).toBeCloseTo((8 * G * x) / 2, 9);
    expect(loads(c).peak).toBeCloseTo(value(c, 'kneeCrouch'), 9);
  });

  it('puts torque into the hip as the foot moves forward, and takes it from the knee', () => {
    const c = leg({ footOffset: 0.04 });
    expect(value(c, 'hipCrouch')).toBeCloseTo(value(c, 'force') * 0.04, 9);
    expect(value(c, 'kneeCrouch')).toBeLessThan(value(leg({}), 'kneeCrouch'));
    expect(loads(leg({ footOffset: 0.04, driven: 'hip' })).hold).toBeCloseTo(value(c, 'forceStatic') * 0.04, 9);
  });

  it('lands with m·g·(1 + h/s) on the levers at the end of its travel', () => {
    const c = leg({ mass: 5, share: 1, dropHeight: 0.2, landingTravel: 0.05, dynamicFactor: 1 });
    expect(value(c, 'forceLanding')).toBeCloseTo(5 * G * 5, 9);
    const knee = landingKnee(c);
    expect(legPose(c, knee).reach).toBeCloseTo(legPose(c, c.kneeStand).reach - 0.05, 12);
    expect(value(c, 'kneeLanding')).toBeCloseTo(5 * G * 5 * legPose(c, knee).kneeLever, 9);
    expect(kneeFor(c, legPose(c, 1.7).reach)).toBeCloseTo(1.7, 9);
  });

  it('keeps segment lengths in every pose, and refuses what it cannot reach', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 3.1, noNaN: true }),
        fc.double({ min: -0.05, max: 0.05, noNaN: true }),
        (knee, footOffset) => {
          const c = leg({ footOffset });
          const p = legPose(c, knee);
          if (Math.abs(footOffset) < p.reach) {
            expect(Math.hypot(...p.knee)).toBeCloseTo(c.thigh, 9);
            expect(Math.hypot(p.knee[0] - p.foot[0], p.knee[1] - p.foot[1])).toBeCloseTo(c.shank, 9);
          }
        },
      ),
    );
    expect(readCase(leg({ footOffset: 1 }))).toMatchObject({
      ok: false,
      problem: { what: expect.stringMatching(/further in front/) },
    });
    expect(readCase(leg({ dropHeight: 0.1, landingTravel: 0.4 }))).toMatchObject({
      ok: false,
      problem: { what: expect.stringMatching(/cannot give that far/) },
    });
  });
});

describe('turning mass', () => {
  it('is J·α + friction + unbalance, with the RMS of its stretches', () => {
    const c = {
      ...blankCase('t', 'turning'),
      inertia: 0.05,
      friction: 0.3,
      unbalance: 0.2,
      angle: 3,
      speed: 2,
      acceleration: 4,
      rest: 1,
      dynamicFactor: 1,
    };
    // 0.5 s up, 1 s at 2 rad/s, 0.5 s down.
    expect(loads(c).peak).toBeCloseTo(0.7, 12);
    expect(loads(c).moveTime).toBeCloseTo(2, 12);
    expect(loads(c).rms).toBeCloseTo(
      Math.sqrt((0.7 ** 2 * 0.5 + 0.5 ** 2 * 1 + 0.3 ** 2 * 0.5 + 0.2 ** 2 * 1) / 3),
      10,
    );
    expect(loads(c).hold).toBe(0.2);
  });

  it('asks more of the peak, and takes longer, with bounded jerk in the same time or limits', () => {
    const c = blankCase('t', 'turning');
    expect(loads({ ...c, given: 'time', profile: 's-curve' }).peak).toBeGreaterThan(
      loads({ ...c, given: 'time' }).peak,
    );
    expect(loads({ ...c, profile: 's-curve' }).moveTime).toBeGreaterThan(loads(c).moveTime);
  });
});

describe('straight axis', () => {
  const c = {
    ...blankCase('s', 'straight'),
    mass: 4,
    friction: 0.1,
    slope: Math.PI / 6,
    force: 15,
    radius: 0.02,
    stroke: 1,
    speed: 0.5,
    acceleration: 1,
    rest: 0,
    dynamicFactor: 1,
  };

  it('turns force and speed into torque and speed at the pinion', () => {
    const force = 4 * 1 + 4 * G * 0.5 + 0.1 * 4 * G * Math.cos(Math.PI / 6) + 15;
    expect(value(c, 'peakForce')).toBeCloseTo(force, 9);
    expect(loads(c).peak).toBeCloseTo(force * 0.02, 9);
    expect(loads(c).speed).toBeCloseTo(25, 9);
    expect(loads(c).hold).toBeCloseTo(4 * G * 0.5 * 0.02, 9);
    expect(loads(c).inertia).toBeCloseTo(4 * 0.02 ** 2, 12);
  });

  it('uses lead/2π for a screw, and its efficiency', () => {
    const screw = { ...c, drive: 'screw' as const, lead: 0.01, driveEfficiency: 0.8 };
    expect(loads(screw).peak).toBeCloseTo((value(c, 'peakForce') * 0.01) / (2 * Math.PI) / 0.8, 9);
    expect(loads(screw).speed).toBeCloseTo((0.5 * 2 * Math.PI) / 0.01, 9);
  });
});

describe('own points', () => {
  it('take RMS, peak, hold and the hardest points from the list', () => {
    const c = {
      ...blankCase('p', 'points'),
      rows: [
        { torque: 2, speed: 0, seconds: 1 },
        { torque: -5, speed: 1, seconds: 2 },
        { torque: 1, speed: 6, seconds: 1 },
        { torque: 0.5, speed: 5, seconds: 4 },
      ],
      dynamicFactor: 1.5,
    };
    const l = loads(c);
    expect(l.rms).toBeCloseTo(Math.sqrt((4 + 50 + 1 + 1) / 8), 12);
    expect([l.peak, l.hold, l.speed]).toEqual([7.5, 2, 6]);
    expect(l.points.filter((p) => p.time === 'peak').map((p) => [p.torque, p.speed])).toEqual(
      [
        [1.5, 6],
        [7.5, 1],
      ].sort((a, b) => b[0]! * b[1]! - a[0]! * a[1]!),
    );
    expect(readCase({ ...c, rows: [{ torque: 1, speed: 1, seconds: 0 }] })).toMatchObject({ ok: false });
    expect(readCase({ ...c, rows: [] })).toMatchObject({ ok: false });
  });

  it('are pasted with or without a heading, in any unit, and refused by row', () => {
    const read = readQuantityTable(
      [
        ['time (ms)', 'Torque [kgf·cm]', 'speed / rpm'],
        ['500', '10', '60'],
        ['1 s', '2 N·m', '-30'],
      ],
      POINT_COLUMNS,
    );
    expect(read).toMatchObject({ ok: true });
    if (read.ok) {
      expect(read.value['seconds']).toEqual([0.5, 1]);
      expect(read.value['torque']![0]).toBeCloseTo(0.980665, 9);
      expect(read.value['speed']![1]).toBeCloseTo(-Math.PI, 9);
    }
    const bad = (cells: string[][]) => {
      const r = readQuantityTable(cells, POINT_COLUMNS);
      return r.ok ? '' : r.problem.what;
    };
    expect(bad([])).toMatch(/nothing to read/);
    expect(bad([['1', '2']])).toMatch(/Row 1 has no seconds/);
    expect(
      bad([
        ['1', '2', '3'],
        ['1', '2 kg', '3'],
      ]),
    ).toMatch(/Row 2, speed/);
    expect(bad([['torque', 'speed', 'seconds']])).toMatch(/heading and nothing/);
    expect(curveFromColumns({ speed: [3, 1, 2], torque: [1, 3, 2] })).toEqual({
      ok: true,
      value: { speed: [1, 2, 3], torque: [3, 2, 1] },
    });
    expect(curveFromColumns({ speed: [1, 1], torque: [1, 2] })).toMatchObject({ ok: false });
    expect(curveFromColumns({ speed: [1], torque: [2] })).toMatchObject({ ok: false });
    expect(
      readQuantityTable(
        [
          ['0', '1'],
          ['100', '0.5'],
        ],
        CURVE_COLUMNS,
      ),
    ).toMatchObject({ ok: true, value: { torque: [1, 0.5] } });
  });
});

describe('every pattern', () => {
  it.each(PATTERNS.map((p) => [p.id, p] as const))(
    '%s: finite, ordered, workings, and back from a file the same',
    (_id, p) => {
      const c = p.blank('x') as LoadCase;
      const l = loads(c);
      for (const x of Object.values(l).filter((v) => typeof v === 'number')) expect(Number.isFinite(x)).toBe(true);
      expect(l.peak).toBeGreaterThanOrEqual(l.rms);
      for (const f of p.figures(c, G)) expect(workingOf(f)!.formula).not.toBe('');
      const j = demo();
      j.brief.cases = [c];
      const read = readJointFile(writeJointFile(j));
      expect(read.ok && read.value.brief.cases[0]).toEqual(c);
      expect(caseLoads(c, G)).toBe(caseLoads(c, G));
    },
  );

  it('adds up over cases: the worst of each, and every point by name', () => {
    const j = demo();
    j.brief.cases.push({ ...blankCase('t', 'turning'), name: 'Turn' }, { ...blankCase('s', 'straight'), name: 'Go' });
    const d = demandOf(j.brief, shelf);
    expect(d.peak).toBe(Math.max(...d.cases.map((c) => c.loads.peak)));
    expect(d.speed).toBe(Math.max(...d.cases.map((c) => c.loads.speed)));
    expect(d.points.map((p) => p.name)).toContain('peak, Turn');
  });
});
