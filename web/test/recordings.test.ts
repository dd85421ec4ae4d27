import { unpackRecording, type Joint, type BenchTest } from '@gristmill/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { adoptRecordings } from '../src/storage/adopt.ts';
import { LiveRecordings } from '../src/storage/live.ts';
import { sha256 } from '../src/storage/recordings.ts';
import { home, noisy, recordingOf, withRecording } from './helpers.ts';
import { Locks } from './locks.ts';

let { vault, shelf, recordings } = home();
beforeEach(() => ({ vault, shelf, recordings } = home()));
const attachments = () => [...vault.tables.get('attachments')!.keys()];
const saveNew = async (j: Joint) => {
  const before = await shelf.pointer(j.id);
  const out = await shelf.save(j, before?.rev ?? null, 'Change');
  if (out.state !== 'saved') throw new Error(JSON.stringify(out));
};

describe('recordings beside joints', () => {
  it('SHA-256 is the standard’s', async () => {
    // FIPS 180-2, appendix B.1.
    expect(await sha256('abc')).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  });

  it('small ones stay in the test, large ones lie beside it, both with their hash', async () => {
    const small = await recordings.keep('tap.wav', noisy(500));
    expect(small.data).toBeDefined();
    expect(small.sha256).toBe(await sha256(small.data!));
    expect(attachments()).toEqual([]);
    const large = await recordings.keep('long.wav', noisy(60_000));
    expect(large.data).toBeUndefined();
    expect([large.name, large.rows]).toEqual(['long.wav', 60_000]);
    const back = unpackRecording({ ...large, data: (await recordings.data(large))! });
    expect(back.ok && back.value.data[0]![777]).toBeCloseTo(Math.sin(777 * 777), 5);
  });

  it('go out with the joint’s file and come back beside it, nothing lost', async () => {
    const { joint, testId } = withRecording(noisy(50_000));
    const light = await recordings.light(joint);
    expect(recordingOf(light, testId).data).toBeUndefined();
    expect(JSON.stringify(light).length).toBeLessThan(JSON.stringify(joint).length / 2);
    const again = await recordings.whole(light);
    const sha = await sha256(recordingOf(joint, testId).data!);
    expect(again).toEqual({
      ...joint,
      tests: joint.tests.map((t) =>
        t.id === testId ? { ...t, recording: { ...(t as BenchTest).recording!, sha256: sha } } : t,
      ),
    });
    // One that is nowhere leaves its test as it is, and the analysis says so.
    vault.tables.get('attachments')!.clear();
    const gone = recordingOf(await recordings.whole(light), testId);
    expect(gone.data).toBeUndefined();
    const r = unpackRecording(gone);
    expect(!r.ok && r.problem.what).toContain('is not here');
  });

  it('a hash that a file claims is not believed', async () => {
    const { joint, testId } = withRecording(noisy(50_000));
    const claimed = {
      ...joint,
      tests: joint.tests.map((t) =>
        t.id === testId ? { ...t, recording: { ...(t as BenchTest).recording!, sha256: 'ab'.repeat(32) } } : t,
      ),
    } as Joint;
    const sha = recordingOf(await recordings.light(claimed), testId).sha256!;
    expect(sha).toBe(await sha256(noisy(50_000).data));
  });

  it('importing over, copying, replacing and undoing leave every other its own', async () => {
    const first = await recordings.light(withRecording(noisy(50_000, 1)).joint);
    const { testId } = withRecording(noisy(50_000, 1));
    await saveNew(first);
    await saveNew({ ...first, id: 'copy', name: 'copy' });
    // The copy's recording is replaced by one of the same name and length.
    const other = await recordings.light(withRecording(noisy(50_000, 2), 'copy').joint);
    await saveNew({ ...other, name: 'copy' });
    const samples = async (id: string) => {
      const open = await shelf.open(id);
      if (!open.ok) throw new Error(open.problem.what);
      const r = recordingOf(open.value.joint, testId);
      const u = unpackRecording({ ...r, data: (await recordings.data(r))! });
      return u.ok ? u.value.data[0]![777]! : NaN;
    };
    expect(await samples('dial')).toBeCloseTo(Math.sin(777 * 777), 5);
    expect(await samples('copy')).toBeCloseTo(Math.sin(2 * 777 * 777), 5);
    // Nothing that a save still speaks of is swept, so that undoing and restoring find it.
    await shelf.sweep(Infinity);
    const before = (await shelf.pointer('copy'))!.saves[1]!.rev;
    const old = await shelf.record('copy', before);
    expect(old.ok && (await recordings.data(recordingOf(old.value, testId)))).not.toBeNull();
    // Two equal ones are kept once.
    expect(attachments()).toHaveLength(2);
  });

  it('are freed with the last joint that speaks of them, and not while they are fresh', async () => {
    const { joint } = withRecording(noisy(50_000));
    const light = await recordings.light(joint);
    await saveNew(light);
    await saveNew({ ...light, id: 'copy' });
    await shelf.remove('dial');
    expect(await shelf.sweep(Infinity)).toEqual({ records: 0, recordings: 0 });
    await shelf.empty('dial');
    expect(await shelf.sweep(Infinity)).toEqual({ records: 0, recordings: 0 });
    await shelf.remove('copy');
    expect([...(await shelf.empty('copy'))]).toEqual([await sha256(noisy(50_000).data)]);
    expect(await shelf.sweep(Date.now() - 3_600_000)).toEqual({ records: 0, recordings: 0 });
    // Nor while a tab could undo its way back to them; then at once, where that was promised.
    const sha = await sha256(noisy(50_000).data);
    expect(await shelf.sweep(Infinity, new Set([sha]))).toEqual({ records: 0, recordings: 0 });
    expect(await shelf.sweep(0, new Set(), new Set([sha]))).toEqual({ records: 0, recordings: 1 });
    expect([attachments(), [...vault.tables.get('history')!.keys()]]).toEqual([[], []]);
  });

  it('of earlier versions, under their test’s identifier, are moved under their content in every save', async () => {
    const { joint, testId } = withRecording(noisy(50_000));
    const { data, ...head } = recordingOf(joint, testId);
    const legacy = {
      ...joint,
      tests: joint.tests.map((t) => (t.id === testId ? { ...t, recording: head } : t)),
    } as Joint;
    await saveNew(legacy);
    await saveNew({ ...legacy, notes: 'later' });
    await saveNew({ ...legacy, id: 'copy' });
    await shelf.remove('copy');
    vault.tables.get('attachments')!.set(`recording:${testId}`, data);
    expect(await adoptRecordings(vault, recordings)).toBe(1);
    const sha = await sha256(data!);
    expect(attachments()).toEqual([`sha256:${sha}`]);
    await shelf.restore('copy');
    for (const id of ['dial', 'copy']) {
      for (const s of (await shelf.pointer(id))!.saves) {
        expect(s.uses).toEqual([sha]);
        const r = await shelf.record(id, s.rev);
        expect(r.ok && (await recordings.data(recordingOf(r.value, testId)))).toBe(data);
      }
    }
    expect(await adoptRecordings(vault, recordings)).toBe(0);
    expect(await shelf.sweep(Infinity)).toEqual({ records: 0, recordings: 0 });
  });
});

describe('what is being recorded', () => {
  it('is kept for each joint and tab, and comes back after a reload until it is let go', async () => {
    const locks = new Locks();
    vi.stubGlobal('navigator', { locks });
    const live = new LiveRecordings(vault);
    const a = live.begin('a tab1', 'jib', 'serial port');
    await a.keep(['{"channels":["t"]}', '1']);
    const b = live.begin('b tab1', 'boom', 'bridge');
    await b.keep(['9']);
    await a.keep(['2', '3']);
    // While it runs it is not interrupted.
    expect(await live.interrupted('jib')).toEqual([]);
    locks.crash();
    const [k, ...none] = await live.interrupted('jib');
    expect(none).toEqual([]);
    expect(k).toMatchObject({ jointId: 'jib', source: 'serial port', chunks: 2 });
    expect(await live.lines(k!)).toEqual(['{"channels":["t"]}', '1', '2', '3']);
    // A second one of the same joint leaves the first alone.
    const c = live.begin('c tab2', 'jib', 'bridge');
    await c.keep(['5']);
    c.end();
    await new Promise((done) => setTimeout(done, 0));
    expect((await live.interrupted('jib')).map((x) => x.session).sort()).toEqual(['a tab1', 'c tab2']);
    await live.forget('a tab1');
    expect((await live.interrupted('jib')).map((x) => x.session)).toEqual(['c tab2']);
    expect(await live.lines((await live.interrupted('boom'))[0]!)).toEqual(['9']);
    await live.sweep(new Set(['jib']));
    expect(await live.interrupted('boom')).toEqual([]);
    expect(await live.interrupted('jib')).toHaveLength(1);
    vi.unstubAllGlobals();
  });

  it('of an earlier version is found as well', async () => {
    const live = new LiveRecordings(vault);
    const table = vault.tables.get('live')!;
    table.set('head', { jointId: 'jib', when: '2026-11-23T10:00:00.000Z', source: 'bridge', chunks: 2 });
    table.set('chunk0', '1\n2');
    table.set('chunk1', '3');
    const [k] = await live.interrupted('jib');
    expect(await live.lines(k!)).toEqual(['1', '2', '3']);
    await live.forget(k!.session);
    expect(await live.interrupted('jib')).toEqual([]);
  });
});
