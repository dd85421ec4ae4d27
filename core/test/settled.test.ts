import { describe, expect, it } from 'vitest';
import { combine, foundState, settle, type Finding, type Verdict } from '../src/index.ts';

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
