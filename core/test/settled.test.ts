import { describe, expect, it } from 'vitest';
import {
  stageKind,
  builtAsNow,
  combine,
  designOf,
  foundState,
  settle,
  type Finding,
  type Variant,
  type Verdict,
} from '../src/index.ts';
import { demo } from './helpers.ts';

const found = (value: number, u: number) =>
  combine(value, 'torque', [{ id: 'a', name: 'a', u, dof: Infinity, halve: '' }]);
const finding = (value: number, u: number, bound?: Finding['bound']): Finding =>
  ({
    testId: 't',
    buildId: 'b',
    kind: 'torque-ladder',
    row: 'torque',
    found: found(value, u),
    bound,
  }) as unknown as Finding;
const verdict = (over: Partial<Verdict> = {}): Verdict =>
  ({
    id: 'torque',
    asked: 3.31,
    sense: 'min',
    need: 'must',
    state: 'near',
    figure: { id: 'torque', name: 'Torque', quantity: 'torque', value: 4, low: 3, high: 6 },
    ...over,
  }) as Verdict;

describe('once something is measured, the measurement decides', () => {
  it.each([
    // Asked at least: carried, not carried, in between.
    ['min', 3.31, 2.44, 0.1, undefined, 'fails'],
    ['min', 3.31, 4.2, 0.3, undefined, 'holds'],
    ['min', 3.31, 3.4, 0.3, undefined, 'near'],
    ['min', 3.31, 3.2, 0.3, 'both', 'near'],
    // Bounds decide on the side that is known.
    ['min', 3.31, 4, 0.2, 'atLeast', 'holds'],
    ['min', 3.31, 3.4, 0.2, 'atLeast', undefined],
    ['min', 3.31, 2, 0.2, 'atLeast', undefined],
    ['min', 3.31, 2, 0.2, 'atMost', 'fails'],
    ['min', 3.31, 5, 0.2, 'atMost', undefined],
    // Asked at most.
    ['max', 6, 38, 15, undefined, 'fails'],
    ['max', 6, 5.2, 0.3, undefined, 'holds'],
    ['max', 6, 6.1, 0.3, undefined, 'near'],
    ['max', 6, 5, 0.3, 'atMost', 'holds'],
    ['max', 6, 5, 0.3, 'atLeast', undefined],
    ['max', 6, 8, 0.3, 'atLeast', 'fails'],
  ] as const)('%s %f, found %f ± %f (%s): %s', (sense, asked, value, U, bound, state) => {
    expect(foundState(asked, sense, { value, U }, bound)).toBe(state);
  });

  it('says so beside what was expected, and that the two contradict one another', () => {
    const play = verdict({
      id: 'play',
      asked: 6,
      sense: 'max',
      state: 'holds',
      figure: { value: 4, low: 2, high: 5 } as never,
    });
    expect(settle(play, finding(38, 7.5))).toMatchObject({
      state: 'fails',
      by: 'found',
      expectedState: 'holds',
      against: 'above',
    });
    expect(settle(verdict(), finding(2.44, 0.05))).toMatchObject({ state: 'fails', by: 'found', against: 'below' });
    expect(settle(verdict(), finding(4, 0.1))).toMatchObject({ state: 'holds', by: 'found' });
    expect(settle(verdict(), finding(4, 0.1)).against).toBeUndefined();
  });

  it('leaves to what is expected what a bound leaves open, and what was not found', () => {
    expect(settle(verdict(), finding(2, 0.1, 'atLeast'))).toMatchObject({ state: 'near', by: 'expected', open: true });
    expect(settle(verdict(), finding(2, 0.1, 'atLeast')).against).toBeUndefined();
    // More than was thought possible is told, though it was never brought to fail.
    expect(settle(verdict(), finding(9, 0.1, 'atLeast'))).toMatchObject({
      state: 'holds',
      by: 'found',
      against: 'above',
    });
    expect(settle(verdict(), undefined)).toMatchObject({ state: 'near', by: 'expected', expectedState: 'near' });
    expect(settle(verdict({ sense: 'either' } as never), finding(1, 0.1)).by).toBe('expected');
    expect(settle(verdict({ asked: NaN }), finding(1, 0.1)).by).toBe('expected');
  });
});

describe('the mark of a design', () => {
  const variant = demo().variants[0]!;
  it('is that of what is built, whatever it is called and however it is written', () => {
    expect(designOf(variant)).toMatch(/^[0-9a-f]{16}$/);
    const renamed: Variant = { ...structuredClone(variant), name: 'Other', notes: 'x', follows: true };
    expect(designOf(renamed)).toBe(designOf(variant));
    const turned = Object.fromEntries(Object.entries(variant.stages[0]!.params as object).reverse());
    const stages = [{ ...variant.stages[0]!, id: 'new', params: turned as never }, ...variant.stages.slice(1)];
    expect(designOf({ ...variant, stages })).toBe(designOf(variant));
    expect(
      demo().builds.every((b) =>
        builtAsNow(
          b,
          demo().variants.find((v) => v.id === b.variantId)!,
        ),
      ),
    ).toBe(true);
  });

  it('of an earlier version stays, where all that is new of a stage is as older files count', () => {
    for (const [kind, late, other] of [
      ['planetary', { materialPins: 'silver-steel' }, { materialPins: 'pla' }],
      ['compound-planetary', { materialPins: 'silver-steel' }, { materialPins: 'pom' }],
      ['unit', { bandBy: 'shop', playLeast: 0 }, { bandBy: 'given' }],
    ] as const) {
      const starts = stageKind(kind)!.starts as Record<string, unknown>;
      const params = Object.fromEntries(Object.entries(starts).filter(([k]) => !(k in late)));
      const of = (more: object): string =>
        designOf({ ...variant, stages: [{ id: 's', kind, params: { ...params, ...more } } as never] });
      expect(of(late), kind).toBe(of({}));
      expect(of(other), kind).not.toBe(of({}));
    }
  });

  it('is another for any change of motor, driver or stage', () => {
    const marks = [
      variant,
      { ...variant, driver: { ...variant.driver, currentLimit: variant.driver.currentLimit + 0.1 } },
      { ...variant, motor: { ...variant.motor, mass: variant.motor.mass + 1e-6 } },
      { ...variant, stages: [...variant.stages].reverse() },
      { ...variant, stages: variant.stages.slice(1) },
      {
        ...variant,
        stages: variant.stages.map((s) => ({ ...s, params: { ...(s.params as object), width: 0.0091 } as never })),
      },
    ].map(designOf);
    expect(new Set(marks).size).toBe(marks.length);
    expect(builtAsNow({ design: marks[1] }, variant)).toBe(false);
    expect(builtAsNow({}, variant)).toBe(true);
  });
});
