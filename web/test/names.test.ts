import { describe, expect, it } from 'vitest';
import { fileName } from '../src/app/download.ts';
import { jointPath, slug, unslug } from '../src/state/address.ts';
import { useOpen } from '../src/state/open.ts';
import { takeRefusal } from '../src/state/refusal.ts';
import { copyVariant } from '../src/state/variants.ts';
import { rawText } from '../src/storage/raw-text.ts';
import { jib } from './helpers.ts';

describe('names', () => {
  it('of files are such that any file system takes them', () => {
    expect(fileName('Wing root', 'B', 'stage1', 'ring')).toBe('Wing-root_B_stage1_ring');
    expect(fileName('Кран: 2/3 "neu"', '..', '')).toBe('Кран-2-3-neu');
    expect(fileName('???')).toBe('joint');
    expect(fileName('x'.repeat(300)).length).toBe(60);
    expect(fileName('a\u0000b\u001bc')).toBe('a-b-c');
  });

  it('of joints make an address, whatever they hold, and come back from it', () => {
    for (const id of [
      'demo-body-yaw',
      'a/b',
      '..',
      '.',
      '%',
      '?x#y',
      'ä ö',
      '\ud800',
      '~x',
      '~0041',
      '__proto__',
      ' ',
    ]) {
      expect(slug(id)).toMatch(/^[~\w-]+$/);
      expect(unslug(slug(id)), id).toBe(id);
    }
    expect(jointPath('demo-body-yaw')).toBe('/joint/demo-body-yaw/brief');
    expect(unslug('typed by hand')).toBe('typed by hand');
  });
});

describe('a copy of a variant', () => {
  it('takes the next free letter, is opened, and shares nothing with what it was copied from', () => {
    useOpen.getState().load(jib());
    const edit = (change = {}) => useOpen.getState().edit('Copy', (d) => copyVariant(d, change));
    edit();
    edit({ why: 'stiffer' } as never);
    const now = useOpen.getState().joint!;
    expect(now.variants.map((v) => v.name)).toEqual(['A', 'B', 'C']);
    expect(now.activeVariant).toBe(now.variants[2]!.id);
    expect(new Set(now.variants.map((v) => v.id)).size).toBe(3);
    expect(now.variants[1]!.stages).toEqual(now.variants[0]!.stages);
    expect(now.variants[1]!.motor).not.toBe(now.variants[0]!.motor);
    // A letter that has become free is taken again.
    useOpen.getState().edit('Delete', (d) => void (d.variants = d.variants.filter((v) => v.name !== 'B')));
    edit();
    expect(useOpen.getState().joint!.variants.map((v) => v.name)).toEqual(['A', 'C', 'B']);
  });

  it('beyond the fiftieth is refused in words, and the joint stays as it was', () => {
    useOpen.getState().load(jib());
    for (let i = 0; i < 49; i++) expect(useOpen.getState().edit('Copy', (d) => copyVariant(d))).toBeUndefined();
    const before = useOpen.getState().joint;
    const refused = useOpen.getState().edit('Copy', (d) => copyVariant(d));
    expect(refused!.what).toBe('A joint holds at most 50 variants.');
    expect(takeRefusal()).toBe(refused);
    expect(useOpen.getState().joint).toBe(before);
  });
});

it('a stored record is text whatever state it is in', () => {
  expect(rawText({ a: Infinity, b: NaN, c: [1n], d: undefined })).toBe(
    '{\n  "a": "Infinity",\n  "b": "NaN",\n  "c": [\n    "1"\n  ]\n}\n',
  );
  const round: Record<string, unknown> = { x: 1 };
  round['self'] = round;
  expect(rawText(round)).toContain('nested without end');
  let deep: unknown = 0;
  for (let i = 0; i < 50_000; i++) deep = [deep];
  expect(rawText(deep)).toContain('nested without end');
  expect(rawText(undefined)).toBe('null\n');
  // What JSON can carry goes out as it is, so that it comes back the same.
  expect(JSON.parse(rawText({ a: [1, 'x', null, true] }))).toEqual({ a: [1, 'x', null, true] });
});
