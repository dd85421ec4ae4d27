import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  inUnits,
  analyseLadder,
  analysePlay,
  combine,
  confirmed,
  designOf,
  findingsOf,
  hungTorque,
  INSTRUMENTS,
  sayDifference,
  slipsFor,
  standing,
  student95,
  whatChanged,
  type BenchTest,
  type Finding,
  type LadderReadings,
  type QuantityId,
  type SlipInput,
  type Outcome,
  type PlayReadings,
} from '../src/index.ts';
import { demo, shelf } from './helpers.ts';

const dial = INSTRUMENTS.find((i) => i.id === 'dial')!;
const scale = INSTRUMENTS.find((i) => i.id === 'kitchen')!;
const G = 9.80665;
const play = (readings: [number, number, string?][], rig: Partial<PlayReadings['rig']> = {}): PlayReadings => ({
  rig: { lever: 0.18, leverError: 5e-4, push: 0, correctWindUp: false, ...rig },
  readings: readings.map(([angle, mm, struck], i) => ({
    id: `r${i}`,
    angle,
    difference: mm / 1000,
    text: `${mm} mm`,
    ...(struck !== undefined && { struck }),
  })),
});
const ladder = (rungs: [number, Outcome, string?][], rig: Partial<LadderReadings['rig']> = {}): LadderReadings => ({
  rig: {
    lever: 0.2,
    leverError: 1e-3,
    leverMass: 0.1,
    leverCentre: 0.1,
    basket: 0.1,
    angle: 0,
    angleError: 0.02,
    ...rig,
  },
  readings: rungs.map(([mass, outcome, struck], i) => ({
    id: `r${i}`,
    mass,
    outcome,
    ...(struck !== undefined && { struck }),
  })),
});
const played = (t: PlayReadings, stiffness?: number) => {
  const r = analysePlay(t, dial, stiffness);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const climbed = (t: LadderReadings) => {
  const r = analyseLadder(t, scale, G);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const arcmin = Math.PI / 10800;

describe('uncertainty', () => {
  it('combines as GUM does', () => {
    const c = combine(10, 'torque', [
      { id: 'a', name: 'a', u: 3, dof: Infinity, halve: '' },
      { id: 'b', name: 'b', u: 4, dof: 4, halve: '' },
    ]);
    expect(c.u).toBeCloseTo(5, 12);
    expect(c.dof).toBeCloseTo(625 / (256 / 4), 9);
    expect(c.U).toBeCloseTo(5 * student95(625 / 64), 9);
    expect(c.dominant?.id).toBe('b');
  });

  it('has Student’s factor fall towards 1.96', () => {
    expect(student95(1)).toBeCloseTo(12.706, 3);
    expect(student95(10)).toBeCloseTo(2.228, 3);
    // Between whole degrees, against the distribution itself.
    for (const [dof, t] of [
      [2.5, 3.5747],
      [4.5, 2.6589],
      [12.3, 2.1729],
      [29.5, 2.0437],
      [45, 2.0141],
      [120, 1.9799],
    ] as const)
      expect(Math.abs(student95(dof) / t - 1), `${dof}`).toBeLessThan(dof < 3 ? 0.02 : 0.002);
    expect(student95(1e9)).toBeCloseTo(1.96, 3);
    let last = Infinity;
    for (let v = 1; v < 60; v += 0.37) {
      expect(student95(v)).toBeLessThanOrEqual(last);
      last = student95(v);
    }
  });
});

describe('play at a lever', () => {
  it('takes the mean over the angles, the worst angle and leaves struck readings out', () => {
    const r = played(
      play([
        [0, 0.4],
        [0, 0.42],
        [2.094, 0.5],
        [4.189, 0.44],
        [4.189, 9, 'slipped'],
      ]),
    );
    expect(r.counted).toBe(4);
    expect(r.struck).toBe(1);
    expect(r.perAngle.map((a) => a.count)).toEqual([2, 1, 1]);
    expect(r.worst.angle).toBe(2.094);
    expect(r.found.value / arcmin).toBeCloseTo(0.44 / 180 / arcmin, 1);
  });

  it('does not gain from repeating a reading that never changes', () => {
    const few = played(
      play([
        [0, 0.4],
        [0, 0.4],
      ]),
    );
    const many = played(play(Array.from({ length: 50 }, () => [0, 0.4] as [number, number])));
    expect(many.found.U).toBeCloseTo(few.found.U, 9);
    expect(few.found.U).toBeGreaterThan(0);
  });

  it('a chord of the lever’s own length stands for 60°, and for more angle the further it goes', () => {
    const r = played(play([[0, 180]]));
    expect(r.found.value).toBeCloseTo(Math.PI / 3, 9);
    // dφ/dd = 1/(L·√(1 − (d/2L)²)), half of the chord being half of the lever here.
    const part = r.found.budget.find((c) => c.id === 'error')!;
    expect(part.u).toBeCloseTo(2e-5 / Math.sqrt(3) / (0.18 * Math.sqrt(0.75)), 12);
  });

  it('names what dominates and what halves it', () => {
    const coarse = played(
      play(
        [
          [0, 0.4],
          [0, 0.4],
          [0, 0.4],
        ],
        { leverError: 0 },
      ),
    );
    expect(coarse.found.dominant?.id).toBe('error');
    const scattered = played(
      play([
        [0, 0.2],
        [1, 0.9],
        [2, 0.5],
      ]),
    );
    expect(scattered.found.dominant?.id).toBe('scatter');
    expect(scattered.advice.join(' ')).toMatch(/readings in place of 3/);
    const sloppy = played(
      play(
        [
          [0, 40],
          [1, 40.01],
          [2, 40.02],
        ],
        { leverError: 0.01 },
      ),
    );
    expect(sloppy.found.dominant?.id).toBe('lever');
  });

  it('takes the push’s wind-up out where asked', () => {
    const t = play(
      [
        [0, 0.4],
        [0, 0.41],
      ],
      { push: 0.1, correctWindUp: true },
    );
    const bare = played({ ...t, rig: { ...t.rig, correctWindUp: false } }, 500);
    const mended = played(t, 500);
    expect(bare.found.value - mended.found.value).toBeCloseTo(0.2 / 500, 12);
    expect(mended.found.U).toBeGreaterThan(bare.found.U);
  });

  it('covers the truth about 95 times in a hundred', () => {
    let covered = 0;
    const truth = 0.6e-3;
    let seed = 1;
    const noise = () => {
      let s = 0;
      for (let i = 0; i < 12; i++) s += (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;
      return s - 6;
    };
    const n = 800;
    for (let i = 0; i < n; i++) {
      const r = played(
        play(
          Array.from(
            { length: 6 },
            () => [0, Math.round((truth * 1000 + 0.05 * noise()) * 100) / 100] as [number, number],
          ),
          { leverError: 0 },
        ),
      );
      if (Math.abs(r.found.value - truth / 0.18) <= r.found.U) covered++;
    }
    expect(covered / n).toBeGreaterThan(0.93);
  });

  it('asks for more angles and more readings, and refuses the impossible', () => {
    expect(inUnits(played(play([[0, 0.4]])).advice.join(' '))).toMatch(/one reading.*0°: add 120° and 240°/s);
    expect(analysePlay(play([]), dial, undefined).ok).toBe(false);
    const far = analysePlay(play([[0, 400]]), dial, undefined);
    expect(far.ok).toBe(false);
    if (!far.ok) expect(far.problem.what).toMatch(/longer than the lever can swing/);
    expect(analysePlay(play([[0, 0.4, 'x']]), dial, undefined).ok).toBe(false);
  });
});

describe('torque ladder', () => {
  it('brackets the capacity between the best carried and the least not carried', () => {
    const r = climbed(
      ladder([
        [1, 'lifted'],
        [2, 'lifted'],
        [3, 'skipped'],
        [2.6, 'stalled'],
      ]),
    );
    const rig = ladder([]).rig;
    expect(r.bestGood).toBeCloseTo(hungTorque(rig, 2, G), 12);
    expect(r.leastBad).toBeCloseTo(hungTorque(rig, 2.6, G), 12);
    expect(r.mode).toBe('stalled');
    expect(r.nextMass).toBeCloseTo(2.3, 9);
    expect(r.found.value).toBeCloseTo((r.bestGood! + r.leastBad!) / 2, 12);
    expect(r.found.dominant?.id).toBe('bracket');
    expect(r.found.dominant!.u).toBeCloseTo((r.leastBad! - r.bestGood!) / 2 / Math.sqrt(3), 12);
  });

  it('says “at least” and “at most” where only one side is known, and a rig failure bounds nothing above', () => {
    expect(
      climbed(
        ladder([
          [1, 'held'],
          [2, 'lifted'],
        ]),
      ).bound,
    ).toBe('atLeast');
    expect(climbed(ladder([[4, 'crept']])).bound).toBe('atMost');
    const rig = climbed(
      ladder([
        [1, 'lifted'],
        [9, 'rig-failed'],
      ]),
    );
    expect(rig.bound).toBe('atLeast');
    expect(rig.leastBad).toBeUndefined();
    expect(rig.advice.join(' ')).toMatch(/rig failed/);
    expect(analyseLadder(ladder([[9, 'rig-failed']]), scale, G).ok).toBe(false);
    expect(analyseLadder(ladder([]), scale, G).ok).toBe(false);
  });

  it('asks next for a quarter more than was carried, or three fifths of what was not, by hand', () => {
    // Torque goes with m + basket + half of the lever: 2.15 and 4.15 kg.
    expect(climbed(ladder([[2, 'lifted']])).nextMass).toBeCloseTo(1.25 * 2.15 - 0.15, 9);
    expect(climbed(ladder([[4, 'stalled']])).nextMass).toBeCloseTo(0.6 * 4.15 - 0.15, 9);
  });

  it('notices rungs that contradict each other', () => {
    const r = climbed(
      ladder([
        [2, 'stalled'],
        [2.5, 'lifted'],
      ]),
    );
    expect(r.overlap).toBe(true);
    expect(r.advice.join(' ')).toMatch(/Repeat those in between/);
    expect(
      climbed(
        ladder([
          [2, 'stalled', 'belt was off'],
          [2.5, 'lifted'],
        ]),
      ).overlap,
    ).toBe(false);
  });

  it('reminds of the lever and the basket', () => {
    expect(climbed(ladder([[1, 'lifted']], { leverMass: 0, basket: 0 })).advice.join(' ')).toMatch(
      /lever’s own weight.*basket’s weight/s,
    );
  });

  it('narrows with each rung in the middle, and the middle stays inside', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 8, noNaN: true }), (truth) => {
        const rungs: [number, Outcome][] = [
          [0.1, 'lifted'],
          [9, 'stalled'],
        ];
        let last = Infinity;
        for (let i = 0; i < 5; i++) {
          const r = climbed(ladder(rungs));
          const gap = r.leastBad! - r.bestGood!;
          expect(gap).toBeLessThan(last);
          last = gap;
          const rig = ladder([]).rig;
          expect(r.found.value).toBeGreaterThan(hungTorque(rig, 0.1, G));
          rungs.push([r.nextMass!, r.nextMass! <= truth ? 'lifted' : 'stalled']);
        }
      }),
    );
  });
});

describe('slips', () => {
  const expected = { value: 7, low: 6, high: 8 };
  const input = (id: string, quantity: QuantityId, exponent = 1, where: SlipInput['in'] = 'readings'): SlipInput => ({
    in: where,
    id,
    label: id,
    quantity,
    exponent,
  });
  const [mass, far, angle, lever] = [
    input('mass', 'mass'),
    input('difference', 'length'),
    input('angle', 'smallAngle', -1),
    input('lever', 'length', 1, 'rig'),
  ];
  it('asks about a unit only when it explains the finding', () => {
    expect(slipsFor(7 * 9.81, expected, [mass]).map((s) => s.id)).toContain('g');
    expect(slipsFor(7 / 1000, expected, [mass]).map((s) => s.id)).toContain('thousand-down');
    expect(slipsFor(7 * 25.4, expected, [far])[0]?.id).toBe('inch');
    expect(slipsFor(14, expected, [lever]).map((s) => s.id)).toContain('diameter');
    expect(slipsFor(7 * 25.4, expected, [far])[0]?.value).toBeCloseTo(7, 9);
  });
  it('asks only about what was typed: no feet of a mass, no degrees of a length', () => {
    expect(slipsFor(7 * 25.4, expected, [mass])).toEqual([]);
    expect(slipsFor(7 * 60, expected, [far])).toEqual([]);
    expect(slipsFor(14, expected, [mass])).toEqual([]);
    expect(slipsFor(70, expected, [])).toEqual([]);
  });
  it('turns the question round where the figure goes against what was typed', () => {
    // A stiffness 60 times too large is an angle 60 times too small: minutes were typed as… degrees were meant.
    const [slip] = slipsFor(7 * 60, expected, [angle]);
    expect(slip).toMatchObject({ id: 'minute-down', correction: { in: 'readings', id: 'angle' } });
    expect(slip!.correction.factor).toBeCloseTo(60, 12);
    expect(slip!.value).toBeCloseTo(7, 9);
  });
  it('does not doubt a reading for a correction that only comes near, nor on a band that anything lands in', () => {
    // 5.9 would be near 7 and below its band.
    expect(slipsFor(5.9 * 25.4, expected, [far])).toEqual([]);
    expect(slipsFor(6.1 * 25.4, expected, [far])[0]?.id).toBe('inch');
    // Twelve times from end to end: a factor of a thousand tells there, one of 25 does not.
    const wide = { value: 7, low: 2, high: 24 };
    expect(slipsFor(7 * 25.4, wide, [far])).toEqual([]);
    expect(slipsFor(7 * 1000, wide, [far])[0]?.id).toBe('thousand');
    expect(slipsFor(7 * 1000, { ...wide, low: 0 }, [far])).toEqual([]);
  });
  it('stays silent when the finding may be true', () => {
    for (const found of [7, 6.5, 5, 9, 11, 33, 0, -3, NaN])
      expect(slipsFor(found, expected, [mass, far, lever]).length, String(found)).toBe(0);
    expect(slipsFor(70, undefined, [mass])).toEqual([]);
    expect(slipsFor(70, { value: 0, low: 0, high: 0 }, [mass])).toEqual([]);
  });
});

describe('a reading that a second instrument confirms', () => {
  const slip = { id: 'g', ask: 'Did you mean …?', value: 7 };
  const of = (testId: string, value: number, slips = [slip], buildId = 'b') =>
    ({
      ...{ testId, buildId, row: 'torque', bound: 'both', slips },
      found: combine(value, 'torque', [{ id: 'a', name: 'a', u: 0.5, dof: Infinity, halve: '' }]),
    }) as unknown as Finding;
  const test = (id: string, instrument: string) => ({ id, kind: 'torque-ladder', rig: { instrument } }) as never;
  const { variants, builds } = demo();
  const joint = (tests: BenchTest[], design = designOf(variants[0]!)) => ({
    tests,
    variants,
    builds: ['b', 'c'].map((id) => ({ ...builds[0]!, variantId: variants[0]!.id, id, design })),
  });
  const asked = (second: Finding, instrument: string) =>
    confirmed([of('one', 68.6), second], joint([test('one', 'hanging'), test('two', instrument)]))[0]!.slips.length;

  it('is not doubted; one alone, of another build, read with the same, or contradicted is', () => {
    expect(confirmed([of('one', 68.6)], joint([test('one', 'hanging')]))[0]!.slips).toHaveLength(1);
    expect(asked(of('two', 69, []), 'bathroom')).toBe(0);
    expect(asked(of('two', 69, []), 'hanging')).toBe(1);
    expect(asked(of('two', 69, [], 'c'), 'bathroom')).toBe(1);
    expect(asked(of('two', 7, []), 'bathroom')).toBe(1);
    expect(asked({ ...of('two', 69, []), row: 'play' }, 'bathroom')).toBe(1);
  });

  it('is not asked about where it was taken of a build of an earlier design', () => {
    expect(confirmed([of('one', 68.6)], joint([test('one', 'hanging')], 'another'))[0]!.slips).toEqual([]);
  });
});

describe('findings', () => {
  it('of the demo land on their rows and say what they mean', () => {
    const j = demo();
    const list = findingsOf(j, shelf).filter((f) => f.testId.startsWith('test-'));
    expect(list.map((f) => f.row)).toEqual(['play', 'torque']);
    expect(list.every((f) => f.found && f.variantId === 'a')).toBe(true);
    expect(sayDifference('play', list[0]!, undefined)).toMatch(/nothing was expected/);
    const above = { ...list[0]!, found: { ...list[0]!.found!, value: 0.02, U: 0.001 } };
    const figure = {
      id: 'play',
      name: 'Play',
      quantity: 'smallAngle' as const,
      value: 0.002,
      low: 0.001,
      high: 0.003,
      working: { formula: '', terms: [], source: '' },
    };
    expect(sayDifference('play', above, figure, {}, { stages: ['belt', 'belt'] })).toMatch(
      /^Found play is above the expected band: .*belt that is not taut.*wind the joint up reads as play\.$/,
    );
    // Of another design there is nothing to blame.
    expect(sayDifference('play', above, figure, {}, { stages: ['belt'], earlier: true })).toMatch(
      /of a build of an earlier design; what is expected of the variant as it is now is [^.]*\.?[^a-z]*$/,
    );
    // Each kind is suspected of its own, and once.
    const both = sayDifference('play', above, figure, {}, { stages: ['belt', 'spur', 'planetary'] });
    expect(both).toMatch(/not taut.*Teeth made thinner/);
    expect(both.match(/Teeth made thinner/g)).toHaveLength(1);
    for (const stages of [[], ['spur'], ['unit'], ['cycloidal', 'worm']])
      for (const row of ['play', 'torque', 'stiffness'] as const)
        for (const value of [0.02, 1e-5])
          expect(
            sayDifference(row, { ...above, found: { ...above.found!, value, U: 1e-6 } }, figure, {}, { stages }),
          ).not.toMatch(/belt|pulley|undefined/);
    expect(sayDifference('play', { ...above, found: { ...above.found!, value: 0.002 } }, figure)).toMatch(
      /within the expected band/,
    );
    expect(sayDifference('play', { ...above, found: { ...above.found!, value: 0.0035 } }, figure)).toMatch(
      /edge of the expected band/,
    );
    expect(
      sayDifference('torque', { ...above, bound: 'atLeast' }, { ...figure, low: 0.1, value: 0.2, high: 0.3 }),
    ).toMatch(/at least .*stopped before the expected/);
    // A bound is a bound: every way that one can lie to a band from 0.1 to 0.3, known to 0.02.
    const words = (bound: 'both' | 'atLeast' | 'atMost', value: number) =>
      sayDifference(
        'torque',
        { ...above, bound, found: { ...above.found!, value, U: 0.02 } },
        { ...figure, low: 0.1, value: 0.2, high: 0.3 },
      );
    for (const [bound, value, says] of [
      ['atLeast', 0.05, /at least .*stopped before the expected .* does not tell/],
      ['atLeast', 0.2, /at least .*agrees with the expected .*may lie above/],
      ['atLeast', 0.09, /at least .*agrees with the expected/],
      ['atLeast', 0.31, /at least .*at the upper edge of the expected/],
      ['atLeast', 0.5, /at least .*, above the expected/],
      ['atMost', 0.5, /less than .*all of the expected .* lies below that/],
      ['atMost', 0.2, /less than .*agrees with the expected .*may lie below/],
      ['atMost', 0.31, /less than .*agrees with the expected/],
      ['atMost', 0.09, /less than .*at the lower edge of the expected/],
      ['atMost', 0.05, /less than .*, below the expected/],
      ['both', 0.2, /is within the expected band/],
      ['both', 0.5, /is above the expected band/],
      ['both', 0.09, /is at the edge of the expected band/],
      ['both', 0.05, /is below the expected band/],
    ] as const)
      expect(words(bound, value), `${bound} ${value}`).toMatch(says);
  });

  it('the newest test of a build stands', () => {
    const j = demo();
    const again = structuredClone(j.tests.find((t) => t.id === 'test-play')!);
    again.id = 'later';
    again.date = '2026-11-01';
    j.tests.push(again);
    expect(standing(findingsOf(j, shelf), j.tests, 'build-a1', 'play')?.testId).toBe('later');
    expect(standing(findingsOf(j, shelf), j.tests, 'build-a1', 'mass')).toBeUndefined();
  });

  it('variants are told apart in words', () => {
    const j = demo();
    const changes = whatChanged(j.variants[0]!, j.variants[1]!);
    expect(changes).toContain('Stage 2, section: AT5 → R3');
    expect(changes).toContain('Stage 2, belt width: 16 mm → 15 mm');
    expect(whatChanged(j.variants[0]!, j.variants[0]!)).toEqual([]);
    const set = structuredClone(j.variants[0]!);
    Object.assign(set.driver, { sets: undefined, supplyCurrent: 6 });
    expect(whatChanged(j.variants[0]!, set)).toEqual([
      'Supply current: 4 A → 6 A',
      'Current limit is: RMS of a phase → peak of a phase',
    ]);
    const shorter = { ...j.variants[0]!, stages: j.variants[0]!.stages.slice(0, 1) };
    expect(whatChanged(j.variants[0]!, shorter)).toEqual(['Stages: 2 → 1']);
    expect(whatChanged(shorter, j.variants[0]!)).toEqual(['Stages: 1 → 2']);
  });
});
