import { MAX_FILE, writeJointFile, type Joint, type BenchTest } from '@gristmill/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { bring } from '../src/storage/bring.ts';
import { writeBundle, writeJoint } from '../src/storage/bundle.ts';
import { sha256 } from '../src/storage/recordings.ts';
import { demo, home, jib, noisy, recordingOf, withRecording } from './helpers.ts';

let here = home();
beforeEach(() => (here = home()));
const file = (x: string | Blob | Uint8Array, name = 'jib.gristmill.json') => new File([x as BlobPart], name);
const samplesIn = (at: typeof here) => [...at.vault.tables.get('attachments')!.keys()].sort();
const bytes = async (b: Blob) => new Uint8Array(await b.arrayBuffer());
const save = async (j: Joint, at = here) => {
  const before = await at.shelf.pointer(j.id);
  const out = await at.shelf.save(j, before?.rev ?? null, `Change ${j.notes.slice(0, 8)}`);
  if (out.state !== 'saved') throw new Error(JSON.stringify(out));
};
const shop = { factors: { gravity: { value: 9.81, low: 9.78, high: 9.84, source: 'mine' } }, instruments: [] };
const PREFS = '{"state":{"sheet":"dark","units":{"length":"in"}},"version":1}';

/**
 * A full profile: four demo joints, long histories, odd identifiers, recordings shared by copies, one save that cannot
 * be read, a changed shop.
 */
async function full() {
  for (const name of ['body-yaw', 'neck-lift', 'wing-root', 'tide-dial']) await save(demo(name));
  for (let i = 0; i < 24; i++) await save(jib({ notes: `${i}` }));
  for (const id of ['a/b', '..', '~x', 'ü\ud800']) await save(jib({ id, name: `odd ${id}` }));
  const light = await here.recordings.light(withRecording(noisy(50_000)).joint);
  await save(light);
  await save({ ...light, id: 'copy' });
  await save({ ...(await here.recordings.light(withRecording(noisy(50_000, 2), 'copy').joint)), notes: 'another' });
  const p = (await here.shelf.pointer('jib'))!;
  here.vault.tables
    .get('history')!
    .set(`jib/${p.saves[3]!.rev}`, { format: 'gristmill-joint', version: 4, rig: Infinity });
  await here.shelf.setAside('jib', p.saves[3]!.rev, 'no brief');
  here.vault.tables.get('shop')!.set('edits', shop);
}

describe('everything as one file', () => {
  it('goes into an empty profile and comes out byte for byte the same', async () => {
    await full();
    for (const history of [true, false]) {
      const out = await writeBundle(here.vault, here.recordings, { history, everything: true, preferences: PREFS });
      const there = home();
      const brought = await bring(file(out, 'everything.zip'), there);
      if (!brought.ok) throw new Error(`${brought.problem.what} ${brought.problem.why}`);
      expect(brought.value.joints).toHaveLength(11);
      expect(brought.value).toMatchObject({ notes: [], preferences: PREFS, shop: true });
      const again = await writeBundle(there.vault, there.recordings, {
        history,
        everything: true,
        preferences: brought.value.preferences,
      });
      expect(again.size).toBe(out.size);
      // Compared as buffers: a list of a million numbers takes its time.
      expect(Buffer.from(await bytes(again)).equals(Buffer.from(await bytes(out)))).toBe(true);
      const open = await there.shelf.open('copy');
      const { testId } = withRecording(noisy(50_000));
      expect(open.ok && (await there.recordings.data(recordingOf(open.value.joint, testId)))).toBe(
        noisy(50_000, 2).data,
      );
      expect((await there.shelf.pointer('jib'))!.saves.length).toBe(history ? 20 + 1 - 1 : 1);
    }
  });

  it('into a full one adds what is new, leaves what is there, and says so', async () => {
    await full();
    const out = await writeBundle(here.vault, here.recordings, { history: true, everything: true });
    await save(jib({ notes: 'changed since' }));
    await here.shelf.remove('copy');
    await here.shelf.empty('copy');
    here.vault.tables.get('shop')!.set('edits', { factors: { gravity: { value: 9.79, low: 9.79, high: 9.79 } } });
    const brought = await bring(file(out), here);
    if (!brought.ok) throw new Error(brought.problem.what);
    expect([...brought.value.joints].sort()).toEqual(['Jib (imported)', 'Tide dial']);
    expect(brought.value.notes.join(' ')).toMatch(/“Jib” is here in another state.*copy/);
    expect(brought.value.preferences).toBeUndefined();
    const own = await here.shelf.open('jib');
    expect(own.ok && own.value.joint.notes).toBe('changed since');
    expect(here.vault.tables.get('shop')!.get('edits')).toMatchObject({ factors: { gravity: { value: 9.79 } } });
  });

  it('damaged anywhere is refused in words and changes nothing on the shelf', async () => {
    await save(await here.recordings.light(withRecording(noisy(50_000)).joint));
    await save(jib());
    const whole = await bytes(await writeBundle(here.vault, here.recordings, { history: true, everything: true }));
    let refused = 0;
    for (let i = 0; i < 60; i++) {
      const there = home();
      const bad = i % 3 === 0 ? whole.slice(0, 4 + Math.floor(((whole.length - 8) * i) / 60)) : whole.slice();
      if (i % 3)
        for (let k = 0; k < 3; k++)
          bad[4 + Math.floor(Math.abs(Math.sin(i * 7 + k)) * (whole.length - 8))]! ^= 1 << (i % 8);
      const r = await bring(file(bad), there);
      if (r.ok) {
        // What lies between the entries, or a place nobody reads, may be altered without harm.
        for (const p of await there.shelf.list()) expect((await there.shelf.open(p.id)).ok).toBe(true);
        continue;
      }
      refused++;
      expect(`${r.problem.what} ${r.problem.why} ${r.problem.mend}`).not.toMatch(/undefined|\[object|NaN/);
      expect(await there.shelf.list()).toEqual([]);
    }
    expect(refused).toBeGreaterThan(40);
    for (const other of [
      new Uint8Array([0x50, 0x4b, 3, 4]),
      new Uint8Array([0x50, 0x4b, 3, 4, ...Array<number>(100).fill(0)]),
    ])
      expect((await bring(file(other), home())).ok).toBe(false);
  });
});

describe('a chosen file', () => {
  it('comes onto the shelf as it was; one that is there already comes as a copy', async () => {
    expect(await bring(file(writeJointFile(jib())), here)).toMatchObject({ ok: true, value: { joints: ['Jib'] } });
    const back = await here.shelf.open('jib');
    expect(back.ok && back.value.joint).toEqual(jib());
    expect(await bring(file(writeJointFile(jib({ notes: 'changed elsewhere' }))), here)).toMatchObject({
      ok: true,
      value: { joints: ['Jib (imported)'] },
    });
    const stays = await here.shelf.open('jib');
    expect(stays.ok && stays.value.joint.notes).toBe('');
    expect((await here.shelf.list()).length).toBe(2);
  });

  it('that is damaged, of another sort, too large or not to be had is refused in words, and nothing is stored', async () => {
    const whole = writeJointFile(jib());
    const deep = whole.replace('"notes": ""', `"notes": "", "own": ${'['.repeat(5000)}${']'.repeat(5000)}`);
    const infinite = whole.replace('"notes": ""', '"notes": "", "own": 1e999');
    for (const bad of [
      '',
      '{',
      '[]',
      '{"format":"something else"}',
      whole.slice(0, whole.length / 2),
      '\u0000\u0001\u0002',
      deep,
      infinite,
    ]) {
      const r = await bring(file(bad), here);
      expect(r.ok).toBe(false);
      if (!r.ok)
        for (const part of [r.problem.what, r.problem.why, r.problem.mend]) expect(part.length).toBeGreaterThan(5);
    }
    const said = await bring(file(deep), here);
    expect(!said.ok && said.problem.what + said.problem.why).toMatch(/nested more than 64 deep.*own/);
    const huge = Object.defineProperty(file('x'), 'size', { value: 5e9 });
    expect(await bring(huge, here)).toMatchObject({
      ok: false,
      problem: { what: expect.stringContaining('too large (5000 MB)') },
    });
    const gone = Object.assign(file('x'), { text: () => Promise.reject(new Error('gone')) });
    expect(await bring(gone, here)).toMatchObject({
      ok: false,
      problem: { what: expect.stringContaining('cannot be read') },
    });
    expect(await here.shelf.list()).toEqual([]);
  });

  it('of three recordings of 300 000 samples each goes out and comes in', async () => {
    const demo = withRecording(noisy(10)).joint;
    const own = demo.tests.find((t) => t.kind === 'noise') as BenchTest;
    const tests = [1, 2, 3].map((seed) => ({
      ...own,
      id: `long${seed}`,
      recording: { name: `${seed}.wav`, ...noisy(300_000, seed) },
    })) as Joint['tests'];
    const light = await here.recordings.light({ ...demo, tests });
    const { blob, ending } = await writeJoint(light, here.recordings, MAX_FILE);
    expect(ending).toBe('.gristmill.json');
    expect(blob.size).toBeGreaterThan(3_000_000);
    const there = home();
    const read = await bring(file(blob), there);
    if (!read.ok) throw new Error(read.problem.what);
    const open = await there.shelf.open(demo.id);
    expect(open.ok && open.value.joint).toEqual(light);
    expect(samplesIn(there)).toEqual(samplesIn(here));
  });

  it('of a joint with large recordings is one text as long as a reader takes it, and a bundle beyond', async () => {
    const light = await here.recordings.light(withRecording(noisy(60_000)).joint);
    const text = await writeJoint(light, here.recordings, MAX_FILE);
    expect(text.ending).toBe('.gristmill.json');
    expect(text.blob.size).toBeGreaterThan(noisy(60_000).data.length);
    const bundle = await writeJoint(light, here.recordings, 100_000);
    expect(bundle.ending).toBe('.gristmill.zip');
    for (const { blob, ending } of [text, bundle]) {
      const there = home();
      const r = await bring(file(blob, `dial${ending}`), there);
      expect(r.ok && r.value.joints).toEqual(['Tide dial']);
      const open = await there.shelf.open('dial');
      expect(open.ok && open.value.joint).toEqual(light);
      expect(samplesIn(there)).toEqual([`sha256:${await sha256(noisy(60_000).data)}`]);
    }
  });
});
