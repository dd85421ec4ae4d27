import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { fitHistory } from '../src/fit/process-fit.ts';
import {
  builtAsNow,
  editsFor,
  makeShelf,
  mergeEdits,
  PROCESSES,
  PROCESS_TYPES,
  readJointFile,
  readRecord,
  readShopFile,
  repairJoint,
  salvageShop,
  shopMoved,
  takeShop,
  writeJointFile,
  writeShopFile,
  type FitReading,
  type Joint,
  type Process,
} from '../src/index.ts';

const text = readFileSync(new URL('../../demo/wing-root.json', import.meta.url), 'utf8');
const wing = (): Joint => {
  const r = readJointFile(text);
  if (!r.ok) throw new Error(r.problem.what);
  return structuredClone(r.value);
};
const desk = (): Process => structuredClone(wing().processes!.find((p) => p.id === 'desk-025')!);

describe('processes in a joint file', () => {
  it('come back as they were written, with what makes what and what it took', () => {
    const joint = wing();
    const back = readJointFile(writeJointFile(joint));
    if (!back.ok) throw new Error(back.problem.what);
    expect(back.value.processes).toEqual(joint.processes);
    expect(back.value.variants.map((v) => v.making)).toEqual(joint.variants.map((v) => v.making));
    expect(back.value.builds.map((b) => [b.making, b.attempts])).toEqual(
      joint.builds.map((b) => [b.making, b.attempts]),
    );
  });

  it('are not needed: a joint of before opens, and is made by nobody', () => {
    const raw = JSON.parse(text) as Record<string, unknown>;
    delete raw['processes'];
    for (const v of raw['variants'] as Record<string, unknown>[]) delete v['making'];
    for (const b of raw['builds'] as Record<string, unknown>[]) for (const key of ['making', 'attempts']) delete b[key];
    const read = readRecord(raw);
    expect(read.ok && read.value.variants[1]!.making).toBeUndefined();
  });

  const broken: [string, (j: Joint) => void, string][] = [
    ['a type that is none', (j) => Object.assign(j.processes![0]!, { type: 'wizard' }), 'filament'],
    ['a nozzle of nothing', (j) => Object.assign(j.processes![0]!, { tool: 0 }), 'at least'],
    ['a day that is none', (j) => Object.assign(j.processes![0]!.fits[0]!, { day: '2026-02-30' }), 'must be a day'],
    ['a size below nothing', (j) => Object.assign(j.processes![0]!.fits[0]!.readings[0]!, { made: -1 }), 'at least'],
    [
      'a feature that is none',
      (j) => Object.assign(j.processes![0]!.fits[0]!.readings[0]!, { feature: 'bump' }),
      'outside',
    ],
    ['a metre filed off', (j) => Object.assign(j.builds[0]!.attempts![0]!, { took: 1 }), 'at most'],
    ['a maker that is a number', (j) => Object.assign(j.variants[1]!, { making: { process: 4 } }), 'string'],
  ];
  it.each(broken)('are refused in words with %s, and mended without losing a test or a build', (_, breaks, why) => {
    const joint = wing();
    breaks(joint);
    const raw = JSON.parse(JSON.stringify(joint)) as unknown;
    const read = readRecord(raw);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(`${read.problem.what} ${read.problem.why}`).toContain(why);
    const mended = repairJoint(raw, { id: 'new', now: '2026-12-01T00:00:00Z' });
    if (!mended.ok) throw new Error(mended.problem.what);
    expect(mended.value.leftOut.length).toBeGreaterThan(0);
    expect(mended.value.joint.tests).toHaveLength(joint.tests.length);
    expect(mended.value.joint.builds).toHaveLength(joint.builds.length);
    expect(mended.value.joint.variants).toHaveLength(joint.variants.length);
  });

  it('stay what a joint was computed with until it takes what the shop knows by then', () => {
    const joint = wing();
    const known = { ...desk(), compensates: 'slicer' as const };
    const edits = { processes: [known] };
    // The joint's own stands over the shop's.
    const seen = makeShelf(editsFor(joint, edits)).processes.find((p) => p.id === 'desk-025')!;
    expect(seen.compensates).toBe('outline');
    const shop = makeShelf(edits);
    expect(shopMoved(joint, shop).map((m) => [m.kind, m.id])).toContainEqual(['process', 'desk-025']);
    const taken = takeShop(joint, shop);
    expect(taken.processes!.find((p) => p.id === 'desk-025')!.compensates).toBe('slicer');
    expect(shopMoved(taken, shop).filter((m) => m.kind === 'process' && m.id === 'desk-025')).toEqual([]);
    // What was built as it was designed is so still.
    for (const b of taken.builds)
      expect(
        builtAsNow(
          b,
          taken.variants.find((v) => v.id === b.variantId)!,
        ),
      ).toBe(true);
  });
});

describe('processes in a shop file', () => {
  it('go out and come in; the second of two alike wins', () => {
    const edits = { processes: [desk()] };
    expect(readShopFile(writeShopFile(edits))).toEqual({ ok: true, value: edits });
    const other = { processes: [{ ...desk(), name: 'Renamed' }, PROCESSES[1]!] };
    expect(mergeEdits(edits, other).processes!.map((p) => p.name)).toEqual(['Renamed', PROCESSES[1]!.name]);
  });

  it('are kept where others are damaged', () => {
    const { edits, leftOut } = salvageShop({ processes: [desk(), { ...desk(), id: 'x', tool: 'wide' }] });
    expect(edits.processes).toHaveLength(1);
    expect(leftOut.join()).toMatch(/tool/);
  });
});

describe('any readings', () => {
  const reading = fc.record({
    id: fc.uuid(),
    feature: fc.constantFrom('outside', 'hole', 'foot', 'foot-height', 'ladder'),
    axis: fc.constantFrom('x', 'y', 'round'),
    drawn: fc.constantFrom(0, 1e-6, 0.004, 0.02, 0.02, 0.06, 0.5),
    made: fc.oneof(fc.constantFrom(0, 1e-9, 0.02, 0.06, 20), fc.double({ min: 0, max: 0.1, noNaN: true })),
    counts: fc.option(fc.boolean(), { nil: undefined }),
    struck: fc.option(fc.constant('seam'), { nil: undefined }),
  });
  it('give a fit of finite numbers or a refusal in words, whatever they are', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PROCESS_TYPES),
        fc.array(fc.array(reading, { maxLength: 14 }), { maxLength: 3 }),
        (type, entries) => {
          const fits = entries.map((readings, i) => ({
            id: `${i}`,
            day: `2026-0${i + 1}-10`,
            from: 'coupon' as const,
            note: '',
            readings: readings.map(({ counts, struck, ...r }): FitReading => ({
              ...r,
              ...(counts !== undefined && { counts }),
              ...(struck !== undefined && { struck }),
            })),
          }));
          const made = fitHistory({ type, fits, name: 'x' }, '2026-11-01');
          if (!made.ok) {
            for (const said of [made.problem.what, made.problem.why, made.problem.mend])
              expect(said.length).toBeGreaterThan(3);
            expect(`${made.problem.what} ${made.problem.why}`).not.toMatch(/NaN|Infinity|undefined/);
            return;
          }
          const { now } = made.value;
          for (const t of [now.scaleX, now.scaleY, now.out, now.into, now.foot, now.footHigh, now.spread]) {
            expect(Number.isFinite(t.value)).toBe(true);
            expect(t.u).toBeGreaterThanOrEqual(0);
            expect(Number.isFinite(t.u)).toBe(true);
          }
          expect(now.spread.value).toBeGreaterThan(0);
        },
      ),
      { numRuns: 150 },
    );
  });
});
