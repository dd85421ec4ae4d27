import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asMarkdown, asTsv } from '../src/app/table-text.ts';
import { placeLabels, type LabelBox } from '../src/parts/place-labels.ts';
import { twoFingers } from '../src/parts/two-fingers.ts';
import { exportDue } from '../src/storage/keeping.ts';
import type { Entry } from '../src/views/joints/read-shelf.ts';
import { onShelf } from '../src/views/joints/shelf-order.ts';
import { STOPS, type Standing } from '../src/views/tour/stops.ts';

const DAY = 86_400_000;
const NOW = Date.parse('2026-11-29T12:00:00Z');
const days = (n: number): string => new Date(NOW - n * DAY).toISOString();

describe('what no export holds', () => {
  const never = { exportedAt: undefined, remindAfter: undefined, since: days(100) };
  const own = (...changed: number[]) => changed.map((n, i) => ({ id: `own-${i}`, changed: days(n) }));

  it.each([
    ['a shelf without joints', [], never, undefined],
    ['a joint of yesterday', own(1), never, undefined],
    ['a joint of a month ago, never exported', own(30), never, { joints: 1, days: Infinity }],
    ['what was exported after it changed', own(30), { ...never, exportedAt: days(20) }, undefined],
    [
      'changes since an export of a month ago',
      own(2, 3, 40),
      { ...never, exportedAt: days(31) },
      { joints: 2, days: 31 },
    ],
    ['changes since an export of last week', own(2), { ...never, exportedAt: days(7) }, undefined],
    ['a reminder put off', own(30), { ...never, remindAfter: days(-1) }, undefined],
    ['a reminder put off until yesterday', own(30), { ...never, remindAfter: days(1) }, { joints: 1, days: Infinity }],
    ['an old joint in a browser that came today', own(300), { ...never, since: days(0) }, undefined],
    ['a joint dated tomorrow by another clock', own(-1), never, undefined],
  ])('%s', (_, joints, kept, due) => expect(exportDue(joints, kept, NOW)).toEqual(due));

  it('leaves out what the demo brings', () =>
    expect(
      exportDue(
        ['demo-body-yaw', 'tour-body-yaw'].map((id) => ({ id, changed: days(50) })),
        never,
        NOW,
      ),
    ).toBeUndefined());
});

describe('the shelf in order', () => {
  const entry = (id: string, name: string, changed: string): Entry =>
    ({ id, name, joint: { changed, variants: [] }, problem: undefined }) as unknown as Entry;
  const entries = [
    entry('a', 'Hüfte 10', days(3)),
    entry('b', 'Hüfte 9', days(1)),
    { id: 'c', name: 'Wreck', joint: undefined, problem: undefined } as Entry,
  ];
  const ids = (list: readonly Entry[]) => list.map((e) => e.id).join('');

  it('is by name as people count, by change, and by when each was opened', () => {
    expect(ids(onShelf(entries, '', 'name', {}))).toBe('bac');
    expect(ids(onShelf(entries, '', 'changed', {}))).toBe('bac');
    expect(ids(onShelf(entries, '', 'opened', { a: 5, c: 9 }))).toBe('cab');
    expect(ids(onShelf(entries, '', 'opened', {}))).toBe('bac');
    expect(ids(entries)).toBe('abc');
  });

  it('finds every word, whatever its case and accents, and what cannot be read by its name', () => {
    expect(ids(onShelf(entries, 'HUFTE 9', 'name', {}))).toBe('b');
    expect(ids(onShelf(entries, '  wre ', 'name', {}))).toBe('c');
    expect(ids(onShelf(entries, 'hip', 'name', {}))).toBe('');
  });
});

describe('a table as text', () => {
  const rows = [
    ['part', 'figure'],
    ['a|b', '1\t2\n3'],
  ];
  it('is parted by tabs, a cell on a line', () => expect(asTsv(rows)).toBe('part\tfigure\na|b\t1 2 3'));
  it('is a table of Markdown, its bars kept', () =>
    expect(asMarkdown(rows, 1)).toBe('| part | figure |\n| --- | --- |\n| a\\|b | 1\t2 3 |'));
  it('has an empty head where it has none, and one of two rows', () => {
    expect(asMarkdown([['x', 'y']], 0)).toBe('|  |  |\n| --- | --- |\n| x | y |');
    expect(
      asMarkdown(
        [
          ['x', 'y'],
          ['mm', ''],
          ['1', '2'],
        ],
        2,
      ),
    ).toBe('| x mm | y |\n| --- | --- |\n| 1 | 2 |');
  });
  it('is nothing where there is nothing', () => expect(asTsv([])).toBe(''));
});

describe('two fingers', () => {
  const at = (x: number, y: number) => ({ x, y });

  it('pinch, move and turn by what they did', () => {
    expect(twoFingers([at(0, 0), at(10, 0)], [at(-5, 3), at(15, 3)])).toEqual({
      by: 2,
      moved: at(0, 3),
      turned: 0,
      middle: at(5, 3),
    });
    // A quarter, clockwise as the screen has it.
    expect(twoFingers([at(-1, 0), at(1, 0)], [at(0, -1), at(0, 1)]).turned).toBeCloseTo(Math.PI / 2, 12);
    expect(twoFingers([at(0, 0), at(0, 0)], [at(0, 0), at(50, 0)]).by).toBe(1);
  });

  it('undo one another', () => {
    const point = fc.record({ x: fc.integer({ min: -900, max: 900 }), y: fc.integer({ min: -900, max: 900 }) });
    fc.assert(
      fc.property(point, point, point, point, (a, b, c, d) => {
        const [there, back] = [twoFingers([a, b], [c, d]), twoFingers([c, d], [a, b])];
        expect(there.by * back.by).toBeCloseTo(1, 9);
        expect(there.moved.x + back.moved.x).toBeCloseTo(0, 9);
        expect(Math.sin(there.turned + back.turned)).toBeCloseTo(0, 9);
      }),
    );
  });
});

describe('labels of forces', () => {
  const label = (key: string, x: number, y: number, turn = 0): LabelBox => ({
    ...{ key, x, y, ux: Math.cos(turn), uy: Math.sin(turn) },
    ...{ width: 60, height: 15 },
  });
  type Placed = ReturnType<typeof placeLabels>;
  const over = (p: Placed, a: string, b: string) =>
    Math.abs(p.get(a)!.x - p.get(b)!.x) < 60 - 1e-9 && Math.abs(p.get(a)!.y - p.get(b)!.y) < 15 - 1e-9;

  it('stand beyond the tip where there is room', () => {
    const p = placeLabels([label('a', 100, 50)]).get('a')!;
    expect([p.y, p.far]).toEqual([50, false]);
    // Half its width and a quarter of its height away.
    expect(p.x).toBeCloseTo(100 + 30 + 3.75, 9);
  });

  it('never lie over one another, nor over what is taken, while there is room about', () => {
    const angle = fc.integer({ min: 0, max: 359 }).map((d) => (d * Math.PI) / 180);
    const near = fc.integer({ min: -40, max: 40 });
    const four = fc.array(fc.tuple(near, near, angle), { minLength: 2, maxLength: 4 });
    fc.assert(
      fc.property(four, (list) => {
        const wished = list.map(([x, y, t], i) => label(String(i), x, y, t));
        const placed = placeLabels(wished);
        for (let i = 0; i < list.length; i++)
          for (let j = 0; j < i; j++) expect(over(placed, String(i), String(j))).toBe(false);
      }),
    );
    const taken = { x0: 100, y0: 40, x1: 200, y1: 60 };
    const p = placeLabels([label('a', 100, 50)], [taken]).get('a')!;
    expect(p.x + 30 <= 100 || p.y + 7.5 <= 40 || p.y - 7.5 >= 60).toBe(true);
  });
});

describe('the tour', () => {
  const joint = { id: 'tour', activeVariant: 'a', variants: [{ id: 'a' }], tests: [], brief: { cases: [1] } };
  const at = (change: object = {}, more: Partial<Standing> = {}): Standing =>
    ({ joint: { ...joint, ...change }, crank: 0, workingOpen: false, path: '', ...more }) as unknown as Standing;

  it('has seven stops, and none is done by looking at it', () => {
    expect(STOPS).toHaveLength(7);
    for (const s of STOPS) {
      const before = at();
      expect(s.done(before, before), s.name).toBe(false);
    }
  });

  it.each([
    ['a load that was changed', 0, at({ brief: { cases: [2] } })],
    ['a working that was opened', 1, at({}, { workingOpen: true })],
    ['a crank that was turned, either way', 2, at({}, { crank: -0.1 })],
    ['a line taken as a variant', 3, at({ variants: [{ id: 'a' }, { id: 'b' }] })],
    ['a wall that was moved', 4, at({ variants: [{ id: 'a', housing: { wall: 2 } }] })],
    ['a reading that was changed', 5, at({ tests: [{}] })],
    ['something taken back', 6, at()],
  ])('notices %s', (_, stop, now) => expect(STOPS[stop]!.done(now, at())).toBe(true));

  it('does not take another joint’s figures for a change of its own', () => {
    for (const i of [0, 4, 5, 6]) expect(STOPS[i]!.done(at({ id: 'other', tests: [{}] }), at())).toBe(false);
    expect(STOPS[0]!.done({ ...at(), joint: undefined }, at())).toBe(false);
  });
});
