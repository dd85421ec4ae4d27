import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readJointFile, readRecord, repairJoint, writeJointFile, type Joint } from '../src/index.ts';
import { usualPlan } from '../src/schedule/index.ts';

const text = readFileSync(new URL('../../demo/wing-root.json', import.meta.url), 'utf8');
const planned = (): Joint => {
  const r = readJointFile(text);
  if (!r.ok) throw new Error(r.problem.what);
  const joint = structuredClone(r.value);
  joint.builds[0]!.plan = {
    ...usualPlan('2026-12-01'),
    off: ['2026-12-24'],
    wanted: '2027-01-15',
    tasks: { 'print/1': { done: '2026-12-02T19:30', made: { 'stage1/ring#x': 1 }, took: 3600, path: 90, layers: 120 } },
    kept: { 'print/1': 1e9 },
  };
  return joint;
};

describe('a plan in a joint file', () => {
  it('comes back as it was written', () => {
    const joint = planned();
    const back = readJointFile(writeJointFile(joint));
    if (!back.ok) throw new Error(back.problem.what);
    expect(back.value.builds[0]!.plan).toEqual(joint.builds[0]!.plan);
  });

  it.each([
    ['hours of six days', { hours: [1, 1, 1, 1, 1, 1] }, 'seven numbers'],
    ['hours below nothing', { hours: [-1, 0, 0, 0, 0, 0, 0] }, 'at least 0'],
    ['a day that is none', { start: '2026-02-30' }, 'must be a day'],
    ['a moment for a day', { wanted: '2026-12-01T10:00' }, 'must be a day'],
    ['no printer', { printers: 0 }, 'at least 1'],
    ['a bed of nothing', { bed: [0, 0.2] }, 'must be at least'],
    ['a print of a second', { longest: 1 }, 'at least'],
    ['pieces that were not made', { tasks: { x: { made: { ring: 0 } } } }, 'at least 1'],
    ['days before it was ordered', { tasks: { x: { days: -2 } } }, 'at least 0'],
  ])('is refused in words with %s, and mended without losing the build', (_, part, why) => {
    const joint = planned();
    Object.assign(joint.builds[0]!.plan!, part);
    const raw = JSON.parse(JSON.stringify(joint)) as unknown;
    const read = readRecord(raw);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(`${read.problem.what} ${read.problem.why}`).toContain(why);
    const mended = repairJoint(raw, { id: 'new', now: '2026-12-01T00:00:00Z' });
    if (!mended.ok) throw new Error(mended.problem.what);
    expect(mended.value.joint.builds).toHaveLength(joint.builds.length);
    expect(mended.value.joint.builds[0]!.assembly).toEqual(joint.builds[0]!.assembly);
    // What can be left out of the plan goes alone; without the rest there is none.
    const left = mended.value.joint.builds[0]!.plan;
    if (left) expect(left.hours).toEqual(joint.builds[0]!.plan!.hours);
    expect(mended.value.leftOut.length).toBeGreaterThan(0);
    expect(mended.value.joint.tests).toHaveLength(joint.tests.length);
  });
});
