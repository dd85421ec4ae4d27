import fc from 'fast-check';
import ICAL from 'ical.js';
import { strFromU8, unzipSync } from 'fflate';
import Kernel from 'manifold-3d';
import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  activeVariant,
  analyseLine,
  circle,
  factor,
  makeShelf,
  prism,
  readJointFile,
  rectangle,
  solidVolume,
  testPlan,
  type BuildPlan,
  type Joint,
  type Shelf,
} from '../src/index.ts';
import { hoursOn } from '../src/schedule/hours.ts';
import {
  atClock,
  benchToDo,
  dayNumber,
  dayOf,
  heldUpBy,
  layOutTasks,
  learnt,
  learntTimes,
  scheduleOf,
  startOf,
  tasksOf,
  wallTime,
  stretchId,
  weekday,
  type Pieces,
  type Stretch,
  type Task,
} from '../src/schedule/index.ts';
import { dryingTime } from '../src/shop/drying.ts';
import { laidFor, laidTogether, millTime, printTime, resinFor } from '../src/schedule/making-time.ts';
import { measuresOf, type BodyMeasures } from '../src/schedule/measures.ts';
import { jointPieces } from '../src/schedule/pieces.ts';
import { plateFile } from '../src/schedule/plate-file.ts';
import { platesInTurn } from '../src/schedule/plates-in-turn.ts';
import { planCalendar } from '../src/schedule/write-calendar.ts';
import { byDay, planMarkdown } from '../src/schedule/write-plan.ts';
import { meshSolid } from '../src/solid/mesh.ts';

const HOUR = 3600;
const shelf = makeShelf();
/** A shelf with factors at round values, so that times can be reckoned by hand. */
const withFactors = (values: Record<string, number>): Shelf => ({
  ...shelf,
  factors: Object.fromEntries(
    Object.entries(shelf.factors).map(([id, f]) => [id, id in values ? { ...f, value: values[id]! } : f]),
  ),
});
const plain = withFactors({
  'print.wall': 4e-4,
  'print.layer': 2e-4,
  'print.infill': 0.5,
  'print.speed': 0.05,
  'print.change': 2,
  'print.start': 500,
});

/** Two hours from six on weekdays, none at the weekend; 30 November 2026 is a Monday. */
const evenings: BuildPlan = {
  start: '2026-11-30',
  hours: [2, 2, 2, 2, 2, 0, 0].map((h) => h * HOUR),
  from: 18 * HOUR,
  off: [],
  joints: 1,
  printers: 1,
  unattended: true,
  longest: 12 * HOUR,
  bed: [0.22, 0.22],
  gap: 4e-3,
  tasks: {},
};
const monday = startOf('2026-11-30');
const task = (id: string, more: Partial<Task> = {}): Task => ({
  ...{ id, kind: 'make', name: id, says: '', hands: 0, inOneGo: false, prints: 0, runs: 0, waits: 0, after: [] },
  ...more,
});
const at = (p: { placed: readonly { task: Task; start: number; end: number }[] }, id: string) => {
  const one = p.placed.find((x) => x.task.id === id)!;
  return [atClock(one.start), atClock(one.end)];
};

describe('the clock on the wall', () => {
  it('counts days as the calendar has them', () => {
    expect(dayNumber('1970-01-01')).toBe(0);
    expect(weekday(dayNumber('2026-11-30'))).toBe(0);
    expect(weekday(dayNumber('2024-02-29'))).toBe(3);
    expect(dayOf(startOf('2028-02-29'))).toBe('2028-02-29');
    expect(wallTime('2026-11-30T17:00:00Z', 60)).toBe(monday + 18 * HOUR);
    expect(wallTime('2026-11-30')).toBe(monday);
    expect(wallTime('2026-11-30T18:00')).toBe(monday + 18 * HOUR);
  });
  it('gives a day its hours, none on days off, and none past midnight', () => {
    const day = dayNumber('2026-11-30');
    expect(hoursOn(evenings, day)).toEqual([monday + 18 * HOUR, monday + 20 * HOUR]);
    expect(hoursOn(evenings, day + 5)).toBeUndefined();
    expect(hoursOn({ ...evenings, off: ['2026-11-30'] }, day)).toBeUndefined();
    // Ten hours from six in the evening would end on the next day: they are begun earlier.
    expect(hoursOn({ ...evenings, hours: Array(7).fill(10 * HOUR) }, day)).toEqual([
      monday + 14 * HOUR,
      monday + 24 * HOUR,
    ]);
  });
});

describe('how long making takes', () => {
  let kernel: Awaited<ReturnType<typeof Kernel>>;
  beforeAll(async () => {
    kernel = await Kernel();
    kernel.setup();
  });

  it('measures a body as it is worked out by hand', () => {
    // A block of 20 by 10 by 5 with a hole of 4 through it.
    const solid = { prisms: [prism(rectangle(-0.01, -0.005, 0.01, 0.005), 0, 0.005, [circle(0, 0, 0.002)])] };
    const m = measuresOf(meshSolid(kernel, solid, 1e-6)!);
    const hole = Math.PI * 0.002 ** 2;
    expect(m.volume).toBeCloseTo((2e-4 - hole) * 0.005, 10);
    expect(m.volume).toBeCloseTo(solidVolume(solid), 10);
    expect(m.side).toBeCloseTo((0.06 + 2 * Math.PI * 0.002) * 0.005, 7);
    expect(m.flat).toBeCloseTo(2 * (2e-4 - hole), 7);
    expect(m.box.map((x) => Number(x.toFixed(6)))).toEqual([0.02, 0.01, 0.005]);
  });

  it('lays walls and skins whole and the inside by its infill', () => {
    // A cube of 20 mm, 8000 mm³. Walls: 4·20·20 mm² · 2 lines · 0.4 = 1280 mm³; skins: 800 mm² · 4 · 0.2 = 640 mm³; half of the
    // other 6080: 4960 mm³ in lines of 0.4 by 0.2 are 62 m. At 50 mm/s 1240 s, 100 layers of 2 s, 500 s to heat: 1940 s.
    const cube: BodyMeasures = { volume: 8e-6, side: 1.6e-3, flat: 8e-4, box: [0.02, 0.02, 0.02] };
    const laid = laidFor(cube, plain);
    expect(laid.path).toBeCloseTo(62, 9);
    expect(laid.layers).toBe(100);
    expect(printTime(laid, plain)).toBeCloseTo(1940, 9);
    // Four of them on one plate heat once and begin each layer once.
    expect(printTime(laidTogether([{ laid, count: 4 }]), plain)).toBeCloseTo(500 + 4 * 1240 + 200, 9);
    // A sheet of one millimetre is all walls and skins: filled, and no more.
    const sheet: BodyMeasures = { volume: 4e-7, side: 8e-5, flat: 8e-4, box: [0.02, 0.02, 0.001] };
    expect(laidFor(sheet, plain).path).toBeCloseTo(400 / 0.08 / 1e3, 9);
  });

  it('hardens resin layer by layer, however much lies on the plate', () => {
    const body: BodyMeasures = { volume: 8e-6, side: 1.6e-3, flat: 8e-4, box: [0.02, 0.02, 0.02] };
    const one = resinFor(body);
    const s = withFactors({ 'print.resin': 10, 'print.start': 500 });
    expect(printTime(one, s)).toBe(500 + 400 * 10);
    expect(printTime(laidTogether([{ laid: one, count: 9 }]), s)).toBe(500 + 400 * 10);
  });

  it('takes longer for more of it, for each of its measures', () => {
    fc.assert(
      fc.property(
        fc.record({
          v: fc.double({ min: 1e-9, max: 1e-3, noNaN: true }),
          a: fc.double({ min: 1e-6, max: 1, noNaN: true }),
        }),
        fc.double({ min: 1, max: 3, noNaN: true }),
        ({ v, a }, k) => {
          const body: BodyMeasures = { volume: v, side: a, flat: a, box: [0.1, 0.1, 0.05] };
          const time = (b: BodyMeasures) => printTime(laidFor(b, shelf), shelf);
          expect(time({ ...body, volume: k * v })).toBeGreaterThanOrEqual(time(body) - 1e-9);
          expect(time({ ...body, side: k * a })).toBeGreaterThanOrEqual(time(body) - 1e-9);
          expect(time({ ...body, box: [0.1, 0.1, 0.05 * k] })).toBeGreaterThanOrEqual(time(body) - 1e-9);
          // Never more line than the body is large.
          const line = factor(shelf, 'print.wall') * factor(shelf, 'print.layer');
          expect(laidFor(body, shelf).path * line).toBeLessThanOrEqual(v * (1 + 1e-12));
        },
      ),
    );
  });

  it('cuts a part out of the smaller blank', () => {
    const s = withFactors({
      'mill.setup': 600,
      'mill.piece': 100,
      'mill.steel': 5,
      'mill.light': 50,
      'mill.plastic': 100,
    });
    // A disc of 20 mm, 10 long, out of round bar: nothing is cut; out of it a bore of 10: 785 mm³ at 5 mm³/s.
    const disc: BodyMeasures = { volume: Math.PI * 1e-4 * 0.01, side: 0, flat: 0, box: [0.02, 0.02, 0.01] };
    expect(millTime(disc, { modulus: 2.1e11 }, 3, s)).toBeCloseTo(2 * 600 + 300, 6);
    const bored = { ...disc, volume: Math.PI * 7.5e-5 * 0.01 };
    expect(millTime(bored, { modulus: 2.1e11 }, 1, s)).toBeCloseTo(1300 + (Math.PI * 250) / 5, 3);
    expect(millTime(bored, { modulus: 7e10 }, 1, s)).toBeCloseTo(1300 + (Math.PI * 250) / 50, 3);
    expect(millTime(bored, { modulus: 2.8e9 }, 1, s)).toBeCloseTo(1300 + (Math.PI * 250) / 100, 3);
    // A bar of 20 by 10 is cut out of a flat one.
    const flat: BodyMeasures = { volume: 1e-6, side: 0, flat: 0, box: [0.02, 0.01, 0.01] };
    expect(millTime(flat, { modulus: 7e10 }, 1, s)).toBeCloseTo(1300 + 1000 / 50, 6);
    expect(millTime(undefined, { modulus: 7e10 }, 2, s)).toBe(1400);
  });
});

describe('plates in the order of need', () => {
  const bed = { width: 0.1, depth: 0.1 };
  it('puts on a plate what comes next, as long as it goes on and is short enough', () => {
    const waiting = [
      { key: 'a', size: { width: 0.04, depth: 0.04 }, count: 3 },
      { key: 'b', size: { width: 0.04, depth: 0.04 }, count: 3 },
    ];
    expect(platesInTurn(waiting, bed, 5e-3, 1e9, () => 1).plates).toEqual([{ a: 3, b: 1 }, { b: 2 }]);
    const long = platesInTurn(waiting, bed, 5e-3, 2, (p) => Object.values(p).reduce((s, n) => s + n, 0));
    expect(long.plates).toEqual([{ a: 2 }, { a: 1, b: 1 }, { b: 2 }]);
    // What alone takes longer than the longest print goes on a plate of its own.
    expect(platesInTurn(waiting.slice(0, 1), bed, 5e-3, 2, () => 9).plates).toEqual([{ a: 1 }, { a: 1 }, { a: 1 }]);
    expect(platesInTurn([{ key: 'c', size: { width: 0.2, depth: 0.01 }, count: 1 }], bed, 0, 9, () => 1)).toEqual({
      plates: [],
      tooLarge: ['c'],
    });
  });
  it('loses no piece and makes none', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            w: fc.integer({ min: 5, max: 90 }),
            d: fc.integer({ min: 5, max: 90 }),
            n: fc.integer({ min: 1, max: 5 }),
          }),
          { maxLength: 8 },
        ),
        fc.integer({ min: 1, max: 20 }),
        (list, longest) => {
          const waiting = list.map(({ w, d, n }, i) => ({
            key: `p${i}`,
            size: { width: w / 1e3, depth: d / 1e3 },
            count: n,
          }));
          const { plates, tooLarge } = platesInTurn(waiting, bed, 4e-3, longest, (p) =>
            Object.values(p).reduce((s, n) => s + n, 0),
          );
          for (const w of waiting) {
            const made = plates.reduce((s, p) => s + (p[w.key] ?? 0), 0);
            expect(made).toBe(tooLarge.includes(w.key) ? 0 : w.count);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('tasks in time', () => {
  it('works in the hours there are, over as many days as it takes', () => {
    const planned = layOutTasks(
      [task('a', { hands: 3 * HOUR }), task('b', { hands: HOUR, after: ['a'] })],
      evenings,
      monday,
    );
    expect(at(planned, 'a')).toEqual(['2026-11-30T18:00', '2026-12-01T19:00']);
    expect(at(planned, 'b')).toEqual(['2026-12-01T19:00', '2026-12-01T20:00']);
    const friday = startOf('2026-12-04');
    const over = layOutTasks([task('a', { hands: 3 * HOUR })], evenings, friday);
    expect(over.placed[0]!.hands.map(([x, y]) => [atClock(x), atClock(y)])).toEqual([
      ['2026-12-04T18:00', '2026-12-04T20:00'],
      ['2026-12-07T18:00', '2026-12-07T19:00'],
    ]);
    // What must be done in one go waits for an evening that is long enough.
    const whole = layOutTasks(
      [task('a', { hands: HOUR }), task('b', { hands: 1.5 * HOUR, inOneGo: true })],
      evenings,
      monday,
    );
    expect(at(whole, 'b')).toEqual(['2026-12-01T18:00', '2026-12-01T19:30']);
    // Something short slips into what is left before it.
    const slips = layOutTasks([...whole.placed.map((p) => p.task), task('c', { hands: 0.5 * HOUR })], evenings, monday);
    expect(at(slips, 'c')).toEqual(['2026-11-30T19:00', '2026-11-30T19:30']);
  });

  it('prints through the night, one plate after another, started by hand', () => {
    const print = (id: string, hours: number) =>
      task(id, { kind: 'print', hands: 600, inOneGo: true, prints: hours * HOUR });
    const planned = layOutTasks([print('p', 1), print('q', 10), print('r', 1)], evenings, monday);
    expect(at(planned, 'p')).toEqual(['2026-11-30T18:00', '2026-11-30T19:10']);
    expect(at(planned, 'q')).toEqual(['2026-11-30T19:10', '2026-12-01T05:20']);
    expect(at(planned, 'r')).toEqual(['2026-12-01T18:00', '2026-12-01T19:10']);
    // Two printers print beside each other; one pair of hands starts them one after the other.
    const two = layOutTasks([print('p', 1), print('q', 10)], { ...evenings, printers: 2 }, monday);
    expect(at(two, 'q')).toEqual(['2026-11-30T18:10', '2026-12-01T04:20']);
    expect(two.placed[1]!.printer!.which).toBe(1);
    // Where nothing may run alone, a print of ten hours has no place, and says so; one of an hour ends in the evening.
    const watched = layOutTasks(
      [print('p', 1), print('q', 10), task('z', { after: ['q'], hands: 60 })],
      { ...evenings, unattended: false },
      monday,
    );
    expect(at(watched, 'p')[1]).toBe('2026-11-30T19:10');
    expect(watched.stuck.map((s) => s.task.id)).toEqual(['q', 'z']);
    expect(watched.stuck[0]!.why).toMatch(/takes .36600.*no day has more.*unattended/);
    expect(watched.stuck[1]!.why).toMatch(/waits for “q”/);
  });

  it('waits for what is bought, by the day, and as it is promised', () => {
    const buy = task('buy', { kind: 'buy', hands: 900, inOneGo: true, waits: 3 * 86400, byDay: true });
    const use = task('use', { hands: HOUR, after: ['buy'] });
    const planned = layOutTasks([buy, use], evenings, monday);
    expect(at(planned, 'buy')).toEqual(['2026-11-30T18:00', '2026-12-03T00:00']);
    expect(at(planned, 'use')[0]).toBe('2026-12-03T18:00');
    const promised = layOutTasks([{ ...buy, comes: startOf('2026-12-05') }, use], evenings, monday);
    // It comes on a Saturday, and there are no hours before Monday.
    expect(at(promised, 'use')[0]).toBe('2026-12-07T18:00');
    const there = layOutTasks([{ ...buy, done: monday }, use], evenings, monday);
    expect(at(there, 'use')[0]).toBe('2026-11-30T18:00');
  });

  it('lets glue set and a rig run', () => {
    const glue = task('glue', { hands: HOUR, waits: 24 * HOUR });
    const then = task('then', { hands: 600, after: ['glue'] });
    expect(at(layOutTasks([glue, then], evenings, monday), 'then')[0]).toBe('2026-12-01T19:00');
    const read = task('read', { kind: 'reading', hands: 600, inOneGo: true, runs: 3 * HOUR });
    expect(at(layOutTasks([read], evenings, monday), 'read')[1]).toBe('2026-11-30T18:10');
    const watched = layOutTasks([read], { ...evenings, unattended: false }, monday);
    // Three hours of running are two on Monday and one on Tuesday.
    expect(at(watched, 'read')[1]).toBe('2026-12-01T19:10');
  });

  it('says what cannot be: no hours at all, and what takes longer in one go than any day has', () => {
    const none = layOutTasks([task('a', { hands: 60 })], { ...evenings, hours: Array(7).fill(0) }, monday);
    expect(none.stuck[0]!.why).toMatch(/No day has any hours/);
    const whole = layOutTasks([task('a', { hands: 3 * HOUR, inOneGo: true })], evenings, monday);
    expect(whole.stuck[0]!.why).toMatch(/takes .10800.*in one go/);
    const ever = layOutTasks([task('a', { hands: 1e4 * HOUR })], evenings, monday);
    expect(ever.stuck[0]!.why).toMatch(/three years/);
    expect(none.end).toBe(monday);
    // A plan that was begun years ago goes on from today.
    const old = layOutTasks([task('a', { hands: HOUR })], { ...evenings, start: '2020-01-01' }, monday);
    expect(at(old, 'a')[0]).toBe('2026-11-30T18:00');
  });

  it('never does two things by hand at once, nor begins before what it waits for', () => {
    const tasks = fc.array(
      fc.record({
        hands: fc.integer({ min: 0, max: 150 }),
        whole: fc.boolean(),
        prints: fc.constantFrom(0, 0, 30, 300, 900),
        waits: fc.constantFrom(0, 0, 1440),
        after: fc.array(fc.nat(20), { maxLength: 3 }),
        on: fc.option(fc.nat(10), { nil: undefined }),
      }),
      { minLength: 1, maxLength: 18 },
    );
    fc.assert(
      fc.property(tasks, fc.integer({ min: 1, max: 3 }), fc.boolean(), (list, printers, unattended) => {
        const plan = { ...evenings, hours: Array(7).fill(3 * HOUR), printers, unattended };
        const made = list.map((t, i) =>
          task(`t${i}`, {
            hands: t.hands * 60,
            inOneGo: t.whole || t.prints > 0,
            prints: t.prints * 60,
            waits: t.waits * 60,
            after: [...new Set(t.after.filter((k) => k < i))].map((k) => `t${k}`),
            ...(t.on !== undefined && { on: monday + t.on * 86400 }),
          }),
        );
        const planned = layOutTasks(made, plan, monday);
        expect(planned.placed.length + planned.stuck.length).toBe(made.length);
        const own = planned.placed.flatMap((p) => p.hands).sort((a, b) => a[0] - b[0]);
        own.forEach(([from, to], i) => {
          if (i > 0) expect(from).toBeGreaterThanOrEqual(own[i - 1]![1] - 1e-6);
          const hours = hoursOn(plan, Math.floor(from / 86400))!;
          expect(from).toBeGreaterThanOrEqual(hours[0]);
          expect(to).toBeLessThanOrEqual(hours[1] + 1e-6);
        });
        for (const p of planned.placed) {
          const total = p.hands.reduce((s, [a, b]) => s + b - a, 0);
          expect(total).toBeCloseTo(p.task.hands, 3);
          for (const id of p.task.after)
            expect(p.start).toBeGreaterThanOrEqual(planned.placed.find((q) => q.task.id === id)!.end - 1e-6);
          if (p.task.on !== undefined) expect(p.start).toBeGreaterThanOrEqual(p.task.on);
        }
        for (let k = 0; k < printers; k++) {
          const spans = planned.placed
            .flatMap((p) => (p.printer?.which === k ? [p.printer.span] : []))
            .sort((a, b) => a[0] - b[0]);
          spans.forEach(([from], i) => i > 0 && expect(from).toBeGreaterThanOrEqual(spans[i - 1]![1] - 1e-6));
        }
      }),
      { numRuns: 150 },
    );
  });

  it('tells what would be held up', () => {
    const list = [
      task('a', { hands: HOUR }),
      task('b', { hands: HOUR, after: ['a'] }),
      task('far', { hands: HOUR, on: startOf('2026-12-20') }),
    ];
    expect(heldUpBy(list, evenings, monday, 'a')).toEqual({ holds: ['b'], moves: 0 });
    expect(heldUpBy(list, evenings, monday, 'far')).toEqual({ holds: [], moves: 86400 });
    expect(heldUpBy(list, evenings, monday, 'gone')).toEqual({ holds: [], moves: 0 });
  });
});

const cube = (key: string, each: number, material = 'PETG, printed'): Pieces['made'][number] => ({
  ...{ key, name: key, how: 'printed', material, each, shape: 'x' },
  body: { volume: 8e-6, side: 1.6e-3, flat: 8e-4, box: [0.02, 0.02, 0.02] },
});
const stretch = (name: string, keys: string[], more: Partial<Stretch> = {}): Stretch => ({
  ...{ name, left: 4, of: 4, keys, rests: 0 },
  ...more,
});

describe('what a build is made of, as tasks', () => {
  const pieces: Pieces = {
    made: [
      cube('stage1/late', 1),
      cube('stage1/first', 2),
      { key: 'stage1/sun', name: 'Sun', how: 'cut', material: 'Steel C45, milled', each: 1, shape: 'y' },
    ],
    bought: [
      { id: 'motor', rows: [{ name: 'Motor', each: 1, there: 0 }], keys: ['motor/body'] },
      { id: 'bearings', rows: [{ name: 'Bearing 608', each: 2, there: 2 }], keys: ['case/b'] },
    ],
  };
  const stretches = [
    stretch('one', ['stage1/first', 'motor/body']),
    stretch('two', ['stage1/late', 'case/b', 'stage1/sun']),
  ];
  const input = { pieces, stretches, tests: [{ id: 'play', name: 'Play' }], running: [] };
  const small = { ...evenings, bed: [0.054, 0.03] as [number, number] };

  it('orders what is missing, dries, prints in the order of need, and puts together when its parts are there', () => {
    const tasks = tasksOf(input, small, shelf);
    expect(tasks.map((t) => t.id.split('/')[0])).toEqual([
      'buy',
      'dry',
      'print',
      'print',
      'make',
      'assemble',
      'assemble',
      'test',
    ]);
    expect(tasks[0]!.says).toBe('1 × Motor');
    const [first, second] = tasks.filter((t) => t.kind === 'print');
    expect(first!.made).toEqual({ 'stage1/first#x': 2 });
    expect(first!.after).toEqual(['dry/petg']);
    const [one, two] = tasks.filter((t) => t.kind === 'assemble');
    expect([...one!.after].sort()).toEqual(['buy/motor', first!.id].sort());
    // Bearings lie in the drawer: nobody waits for them.
    expect([...two!.after].sort()).toEqual([one!.id, 'make/stage1/sun', second!.id].sort());
    expect(one!.hands).toBe(4 * factor(shelf, 'work.step'));
    expect(tasks.at(-1)!.after).toEqual([two!.id]);
  });

  it('has what no step names by the end, and tells two stretches of the same parts apart', () => {
    const none = [stretch('one', ['stage1/first']), stretch('two', []), stretch('three', [])];
    const tasks = tasksOf({ ...input, stretches: none }, small, shelf);
    const ids = tasks.map((t) => t.id);
    expect(new Set(ids).size).toBe(ids.length);
    const [, two, three] = tasks.filter((t) => t.kind === 'assemble');
    expect(two!.after).not.toContain('make/stage1/sun');
    for (const id of ['make/stage1/sun', 'buy/motor', two!.id]) expect(three!.after).toContain(id);
    expect(tasks.at(-1)!.after).toEqual([three!.id]);
  });

  it('waits for what was ordered from that day on', () => {
    const ordered = { ...small, tasks: { 'buy/motor': { ordered: '2026-12-01', days: 3 } } };
    const order = tasksOf(input, ordered, shelf)[0]!;
    expect([order.hands, order.comes]).toEqual([0, startOf('2026-12-04')]);
    expect(layOutTasks([order], ordered, startOf('2026-12-03')).placed[0]!.end).toBe(startOf('2026-12-04'));
    const cut = tasksOf(
      {
        ...input,
        pieces: {
          ...pieces,
          bought: [...pieces.bought, { id: 'stock', rows: [{ name: 'blank', each: 1, there: 0 }], keys: [] }],
        },
      },
      small,
      shelf,
    );
    expect(cut.find((t) => t.kind === 'make')!.after).toEqual(['buy/stock']);
  });

  it('makes as many as there are joints, the first joint’s pieces first', () => {
    const tasks = tasksOf(input, { ...small, joints: 2 }, shelf);
    const prints = tasks.filter((t) => t.kind === 'print');
    expect(prints.map((t) => t.made)).toEqual([
      { 'stage1/first#x': 2 },
      { 'stage1/late#x': 1, 'stage1/first#x': 1 },
      { 'stage1/first#x': 1, 'stage1/late#x': 1 },
    ]);
    expect(tasks.find((t) => t.id === 'buy/bearings')!.says).toBe('2 × Bearing 608');
    // Whole days that it takes to come; an hour over is a day more.
    const comes = (time: number) =>
      tasksOf(input, small, withFactors({ 'buy.days': time })).find((t) => t.id === 'buy/motor')!.waits;
    expect([comes(5 * 24 * HOUR), comes(5 * 24 * HOUR + HOUR)]).toEqual([5 * 24 * HOUR, 6 * 24 * HOUR]);
    const second = tasks.find((t) => t.id === stretchId(1, stretches[0]!))!;
    expect(second.after).toContain(prints[2]!.id);
    expect(second.after).toContain(stretchId(0, stretches[1]!));
    expect(tasks.find((t) => t.id === stretchId(0, stretches[0]!))!.after).not.toContain(prints[1]!.id);
  });

  it('prints no more than is still missing, and what has changed its shape again', () => {
    const first = tasksOf(input, small, shelf).find((t) => t.kind === 'print')!;
    const done = { ...small, tasks: { [first.id]: { done: '2026-11-30T20:00:00Z', made: { ...first.made! } } } };
    const then = tasksOf(input, done, shelf).filter((t) => t.kind === 'print');
    expect(then.map((t) => [t.done !== undefined, t.made])).toEqual([
      [true, { 'stage1/first#x': 2 }],
      [false, { 'stage1/late#x': 1 }],
    ]);
    const changed = { ...input, pieces: { ...pieces, made: pieces.made.map((p) => ({ ...p, shape: 'z' })) } };
    const again = tasksOf(changed, done, shelf).filter((t) => t.kind === 'print' && t.done === undefined);
    expect(again.map((t) => t.made)).toEqual([{ 'stage1/first#z': 2 }, { 'stage1/late#z': 1 }]);
  });

  it('leaves a plate as it is once it was moved or begun, whatever else is laid out anew', () => {
    const [first] = tasksOf(input, small, shelf).filter((t) => t.kind === 'print');
    const known = { on: '2026-12-24', made: { ...first!.made! } };
    const moved = { ...small, longest: 600, tasks: { [first!.id]: known } };
    const then = tasksOf(input, moved, shelf).filter((t) => t.kind === 'print');
    expect(then.find((t) => t.id === first!.id)!.made).toEqual(first!.made);
    expect(then.find((t) => t.id === first!.id)!.on).toBe(startOf('2026-12-24'));
    // With nothing said of it, plates so short are one piece each.
    expect(tasksOf(input, { ...moved, tasks: {} }, shelf).filter((t) => t.kind === 'print')).toHaveLength(3);
    // Where its pieces are not wanted any more it is laid out anew.
    const gone = { ...input, pieces: { ...pieces, made: pieces.made.map((p) => ({ ...p, shape: 'z' })) } };
    expect(tasksOf(gone, moved, shelf).some((t) => t.id === first!.id)).toBe(false);
    // Under way since Monday evening, it holds its printer from then on, and ends late rather than in the past.
    const begun = { ...small, tasks: { [first!.id]: { begun: '2026-11-30T18:00', made: { ...first!.made! } } } };
    const list = tasksOf(input, begun, shelf);
    const run = (now: number) => layOutTasks(list, begun, now).placed.find((p) => p.task.id === first!.id)!;
    expect(run(monday + 18.5 * HOUR).start).toBe(monday + 18 * HOUR);
    expect(run(monday + 18.5 * HOUR).end).toBeCloseTo(monday + 18 * HOUR + first!.hands + first!.prints, 3);
    expect(run(monday + 48 * HOUR).end).toBe(monday + 48 * HOUR);
    expect(run(monday + 48 * HOUR).printer!.span).toEqual([monday + 18 * HOUR, monday + 48 * HOUR]);
  });

  it('says which piece is larger than the bed, and what waits for it', () => {
    const tiny = { ...evenings, bed: [0.02, 0.02] as [number, number] };
    const { stuck } = scheduleOf(input, tiny, shelf, monday);
    expect(stuck.map((s) => s.why).join(' ')).toMatch(/“stage1\/late” is larger than the bed.*Put|waits for/);
    expect(stuck.some((s) => s.task.kind === 'assemble')).toBe(true);
  });

  it('plans readings of a run at twice the cycles each time, until it has run as long as it should', () => {
    const running = [{ id: 't', name: 'Endurance', cycles: 2000, since: monday, period: 3.6, upTo: 7000 }];
    const tasks = tasksOf({ ...input, running }, small, shelf).filter((t) => t.kind === 'reading');
    expect(tasks.map((t) => t.id)).toEqual(['reading/t/4000', 'reading/t/7000']);
    expect(tasks[0]!.runs).toBeCloseTo(2000 * 3.6);
    expect(tasks[1]!.runs).toBeCloseTo(3000 * 3.6);
    expect(tasks[1]!.after).toEqual(['reading/t/4000']);
    // Two hours of running since Monday noon are over by the evening: it is due when one is there.
    const noon = tasks.map((t) => ({ ...t, ...(t.since !== undefined && { since: monday + 12 * HOUR }) }));
    const due = layOutTasks(noon, small, monday + 12 * HOUR).placed;
    expect(atClock(due[0]!.end)).toBe('2026-11-30T18:15');
    const late = layOutTasks(noon, small, monday + 30 * HOUR).placed;
    expect(atClock(late[0]!.end)).toBe('2026-12-01T18:15');
  });

  it('has a band round its end, which widens with what it is reckoned with', () => {
    const s = scheduleOf(input, small, shelf, monday);
    expect(s.earliest).toBeLessThan(s.end);
    expect(s.latest).toBeGreaterThan(s.end);
    expect(s.earliest).toBeGreaterThanOrEqual(monday);
    const sure = Object.fromEntries(
      Object.entries(shelf.factors).map(([id, f]) => [id, { ...f, low: f.value, high: f.value }]),
    );
    const exact = scheduleOf(input, small, { ...shelf, factors: sure }, monday);
    expect([exact.earliest, exact.latest]).toEqual([exact.end, exact.end]);
    expect(exact.end).toBe(s.end);
    expect(s.handsLeft).toBeCloseTo(
      s.tasks.reduce((sum, t) => sum + t.hands, 0),
      6,
    );
  });

  it('says what is late and what it holds up', () => {
    const now = startOf('2026-12-10') + 12 * HOUR;
    const promised = { ...small, tasks: { 'buy/motor': { comes: '2026-12-07' } } };
    const [late] = scheduleOf(input, promised, shelf, now).late;
    expect(late).toMatchObject({ id: 'buy/motor', why: 'promised' });
    expect(late!.holds).toContain('one');
    const kept = {
      ...small,
      kept: Object.fromEntries(scheduleOf(input, small, shelf, monday).placed.map((p) => [p.task.id, p.end])),
    };
    expect(scheduleOf(input, kept, shelf, monday).late).toEqual([]);
    const slipped = scheduleOf(input, kept, shelf, now).late;
    expect(slipped.map((l) => l.why)).toContain('kept');
    // What only waits for something late is not told for itself.
    expect(slipped.map((l) => l.id)).not.toContain(stretchId(0, stretches[0]!));
    const wanted = scheduleOf(input, { ...small, wanted: '2026-12-01' }, shelf, monday).late;
    expect(wanted.at(-1)).toMatchObject({ why: 'wanted' });
  });

  it('learns from recorded times what the printer and one’s hands do', () => {
    // 62 m in 1240 s beside 500 s of heating and 100 layers of 2 s: 50 mm/s, told once.
    const tasks = {
      'print/x': { done: '2026-11-30', took: 1940, path: 62, layers: 100 },
      'make/y': { took: 5400, work: 3600 },
    };
    const list = learntTimes({ ...small, tasks }, plain);
    const speed = list.find((l) => l.id === 'print.speed')!;
    const prior = { value: 0.05, low: 0.02, high: 0.1 };
    expect(speed.after.value).toBeCloseTo(0.05, 9);
    expect(speed.after.high / speed.after.low).toBeLessThan(prior.high / prior.low);
    const pace = list.find((l) => l.id === 'work.pace')!;
    // By hand: s = ln(2/0.6)/3.92 = 0.30713; weights 10.601 and 44.444; ln 1.5·44.444/55.045 = 0.32737.
    expect(pace.after.value).toBeCloseTo(Math.exp(0.32737), 4);
    expect(pace.told).toBeCloseTo(44.444 / 55.045, 4);
    expect(learntTimes(small, plain)).toEqual([]);
    // What is written down with a task is at a pace of one, whatever the pace is now: it is not learnt twice over.
    const slow = withFactors({ 'work.pace': 2 });
    const made = tasksOf(input, small, slow).find((t) => t.kind === 'make')!;
    expect(made.hands).toBeCloseTo(2 * made.work!, 9);
    expect(made.work).toBeCloseTo(
      tasksOf(input, small, withFactors({ 'work.pace': 1 })).find((t) => t.kind === 'make')!.hands,
      9,
    );
    // A print shorter than its heating says nothing.
    expect(learntTimes({ ...small, tasks: { 'print/x': { took: 100, path: 62, layers: 100 } } }, plain)).toEqual([]);
  });

  it('counts a recorded time once, by the width of what was believed before', () => {
    // ln(4)/3.92 = 0.35365: weights 7.9957 and 44.444; with two values, of ln 1.2 and ln 1.5, 88.889.
    const after = learnt({ value: 1, low: 0.5, high: 2 }, [1.2, 1.5]);
    expect(Math.log(after.value)).toBeCloseTo((44.4444 * (Math.log(1.2) + Math.log(1.5))) / 96.8846, 5);
    expect(Math.log(after.high / after.value)).toBeCloseTo(1.96 / Math.sqrt(96.8846), 5);
    expect(after.told).toBeCloseTo(88.8889 / 96.8846, 5);
    const about = learnt({ value: 1.1, low: 0.55, high: 2.2 }, [1.2]).value;
    expect(Math.log(about)).toBeCloseTo((7.9957 * Math.log(1.1) + 44.4444 * Math.log(1.2)) / 52.4401, 5);
  });

  it('knows how long plastics are dried', () => {
    expect([dryingTime('pc'), dryingTime('petg'), dryingTime('pla'), dryingTime('own')]).toEqual([21600, 14400, 0, 0]);
  });

  it('says by how much something is behind', () => {
    const now = startOf('2026-12-10') + 12 * HOUR;
    const promised = { ...small, tasks: { 'buy/motor': { comes: '2026-12-07' } } };
    expect(scheduleOf(input, promised, shelf, now).late[0]!.by).toBe(3.5 * 86400);
    const plan = { ...small, wanted: '2026-12-01' };
    const made = scheduleOf(input, plan, shelf, monday);
    expect(made.late.at(-1)!.by).toBeCloseTo(made.end - startOf('2026-12-02'), 6);
    const kept = { ...small, kept: Object.fromEntries(made.placed.map((x) => [x.task.id, x.end - 3 * 86400])) };
    for (const l of scheduleOf(input, kept, shelf, monday).late) expect(l.by).toBeCloseTo(3 * 86400, 6);
  });

  it('comes to what is true when many times are told', () => {
    const after = learnt({ value: 1, low: 0.5, high: 2 }, Array(400).fill(1.7));
    expect(after.value).toBeCloseTo(1.7, 2);
    expect(after.high / after.low).toBeLessThan(1.035);
  });

  it('goes into a calendar that another program reads', () => {
    const s = scheduleOf(input, { ...small, tasks: {} }, shelf, monday);
    const text = planCalendar(s, 'Wing, root; B', new Date('2026-11-29T10:00:00Z'));
    for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
    const read = new ICAL.Component(ICAL.parse(text) as ConstructorParameters<typeof ICAL.Component>[0]);
    const events = read.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
    expect(read.getFirstPropertyValue('x-wr-calname')).toBe('Wing, root; B');
    const order = events.find((e) => e.summary.startsWith('Order: Motor'))!;
    expect(order.startDate.toString()).toBe('2026-11-30T18:00:00');
    expect(order.startDate.zone.tzid).toBe('floating');
    const comes = events.find((e) => e.summary.startsWith('Comes: Motor'))!;
    expect(comes.startDate.isDate).toBe(true);
    expect(comes.startDate.toString()).toBe(dayOf(s.placed.find((p) => p.task.id === 'buy/motor')!.end));
    const print = s.placed.find((p) => p.printer)!;
    const entry = events.find((e) => e.summary === print.task.name)!;
    expect(entry.endDate.toString()).toBe(`${atClock(print.printer!.span[1])}:00`);
    expect(new Set(events.map((e) => e.uid)).size).toBe(events.length);
  });

  it('is a list day by day', () => {
    const s = scheduleOf(input, small, shelf, monday);
    const days = byDay(s.placed);
    expect(days[0]!.day).toBe('2026-11-30');
    expect(days.map((d) => d.day)).toEqual([...days.map((d) => d.day)].sort());
    const text = planMarkdown(s, 'Wing root');
    expect(text).toContain('## 2026-11-30');
    expect(text).toMatch(/- \[ \] 18:00 to 18:10 Motor and electronics: 1 × Motor/);
    expect(text).toContain('comes: Motor and electronics');
  });
});

describe('the bench of a build', () => {
  const joint = (): Joint => {
    const r = readJointFile(readFileSync(new URL('../../demo/wing-root.json', import.meta.url), 'utf8'));
    if (!r.ok) throw new Error(r.problem.what);
    return structuredClone(r.value);
  };
  it('has the tests that its plan asks for and were not made, and runs that go on', () => {
    const j = joint();
    const v = activeVariant(j);
    const build = j.builds.find((b) => b.variantId === v.id)!;
    const line = analyseLine(j, v, shelf);
    const plan = testPlan(j, v, line, shelf.instruments);
    // It was taken apart at its end: nothing runs. As if it had not been:
    expect(benchToDo(j, v, build, line, shelf.instruments).running).toEqual([]);
    const run = j.tests.find((t) => t.kind === 'endurance' && t.buildId === build.id)!;
    run.teardown = [];
    const { tests, running } = benchToDo(j, v, build, line, shelf.instruments);
    expect(tests.map((t) => t.id).sort()).toEqual([...new Set(plan.filter((t) => !t.done).map((t) => t.kind))].sort());
    expect(tests.length).toBeGreaterThan(0);
    const counted = run.readings.filter((r) => r.struck === undefined).map((r) => Number(r.values['cycles']));
    expect(running).toHaveLength(1);
    expect(running[0]!.cycles).toBe(Math.max(...counted));
    const hardest = [...line.demand.cases].sort((a, b) => b.loads.rms - a.loads.rms)[0]!;
    expect(running[0]!.period).toBe(hardest.loads.cycle);
    expect(running[0]!.upTo).toBeCloseTo(line.demand.life! / hardest.loads.cycle, 6);
    expect(running[0]!.since).toBe(startOf(run.date));
    // Of another build it is none of this one's.
    expect(benchToDo(j, v, { ...build, id: 'other' }, line, shelf.instruments).running).toEqual([]);
  });

  it('prints a plate as 3MF with as many pieces as it says, and refuses one of an earlier design', async () => {
    const kernel = await Kernel();
    kernel.setup();
    const j = joint();
    const v = activeVariant(j);
    const finished = <T>(steps: Generator<number, T>): T => {
      for (let step = steps.next(), before = 0; ; step = steps.next()) {
        if (step.done) return step.value;
        expect(step.value).toBeGreaterThanOrEqual(before);
        expect(step.value).toBeLessThanOrEqual(1);
        before = step.value;
      }
    };
    const pieces = finished(jointPieces(kernel, v, 1, shelf));
    if (!pieces.ok) throw new Error(pieces.problem.what);
    const planets = pieces.value.made.filter((p) => /planet/.test(p.key));
    expect(planets.map((p) => p.each)).toEqual([3, 3]);
    const made = Object.fromEntries(planets.map((p) => [`${p.key}#${p.shape}`, p.each]));
    const ask = { title: 'Plate', made, bed: [0.22, 0.22] as const, gap: 4e-3, chordError: 1e-4, compensation: 0 };
    const file = finished(plateFile(kernel, v, ask, shelf));
    if (!file.ok) throw new Error(file.problem.what);
    const model = strFromU8(unzipSync(file.value)['3D/3dmodel.model']!);
    expect([...model.matchAll(/<item /g)]).toHaveLength(6);
    // A race of balls: its shaft, rings and balls are three things, two of them made.
    const race = { diameter: 0.08, ball: 6e-3, balls: 20, material: v.output!.shaftMaterial };
    const raced = finished(
      jointPieces(kernel, { ...v, output: { ...v.output!, arrangement: 'race' as const, race } }, 1, shelf),
    );
    if (!raced.ok) throw new Error(raced.problem.what);
    const keys = raced.value.made.map((p) => p.key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys).toContain('case/output-shaft');
    expect(
      raced.value.bought
        .find((b) => b.id === 'bearings')!
        .rows.map((r) => r.name)
        .join(),
    ).toContain('Ball of');
    const old = finished(plateFile(kernel, v, { ...ask, made: { 'stage1/planet-1#0000': 1 } }, shelf));
    expect(!old.ok && old.problem.why).toContain('changed');
    // What is bought comes in a few orders, and every part of the joint is made or bought.
    expect(pieces.value.bought.map((b) => b.id)).toEqual(['motor', 'bearings', 'belts', 'screws', 'stock']);
    expect(pieces.value.made.filter((p) => p.how === 'printed' && !p.body)).toEqual([]);
  });
});
