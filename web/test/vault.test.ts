import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { BrowserVault, MemoryVault, type Vault } from '../src/storage/vault.ts';

let n = 0;
const fresh: Record<string, () => Vault> = {
  'the browser’s': () => new BrowserVault(`vault-${n++}`),
  'the one for tests': () => new MemoryVault(),
};

describe.each(Object.keys(fresh))('%s storage', (name) => {
  let vault: Vault;
  beforeEach(() => {
    vault = fresh[name]!();
  });

  it('keeps what is set, and gives null for what is not there', async () => {
    await vault.write(['joints', 'history'], async (at) => {
      await at.set('joints', 'a', { deep: [1, { x: null }] });
      await at.set('history', 'a/1', 'text');
      await at.set('history', 'a/2', 'other');
      await at.remove('history', 'a/2');
    });
    const got = await vault.read(['joints', 'history'], async (at) => [
      await at.get('joints', 'a'),
      await at.get('joints', 'b'),
      await at.keys('history'),
    ]);
    expect(got).toEqual([{ deep: [1, { x: null }] }, null, ['a/1']]);
  });

  it('writes nothing of a transaction that fails', async () => {
    await vault.write(['joints'], (at) => at.set('joints', 'a', 1));
    await expect(
      vault.write(['joints', 'history'], async (at) => {
        await at.set('joints', 'a', 2);
        await at.set('history', 'x', 2);
        throw new Error('cut off');
      }),
    ).rejects.toThrow('cut off');
    expect(
      await vault.read(['joints', 'history'], async (at) => [
        await at.get('joints', 'a'),
        await at.get('history', 'x'),
      ]),
    ).toEqual([1, null]);
    // What cannot be stored fails the same way.
    await expect(
      vault.write(['joints'], async (at) => (await at.set('joints', 'b', 1), at.set('joints', 'c', () => 1))),
    ).rejects.toThrow();
    expect(await vault.read(['joints'], (at) => at.keys('joints'))).toEqual(['a']);
  });

  it('lets one writer read, compare and write before the next begins', async () => {
    await vault.write(['shop'], (at) => at.set('shop', 'n', 0));
    await Promise.all(
      Array.from({ length: 25 }, () =>
        vault.write(['shop'], async (at) => at.set('shop', 'n', ((await at.get<number>('shop', 'n')) ?? 0) + 1)),
      ),
    );
    expect(await vault.read(['shop'], (at) => at.get('shop', 'n'))).toBe(25);
  });
});

it('storage of an earlier version, with fewer tables, gets the rest and keeps what it has', async () => {
  await new Promise<void>((done) => {
    const r = indexedDB.open('earlier', 3);
    r.onupgradeneeded = () => {
      r.result.createObjectStore('joints');
      r.result.createObjectStore('history');
    };
    r.onsuccess = () => {
      r.result.transaction('joints', 'readwrite').objectStore('joints').put({ id: 'old' }, 'old').onsuccess = () => (
        r.result.close(),
        done()
      );
    };
  });
  const vault = new BrowserVault('earlier');
  await vault.write(['bin', 'attachments'], (at) => at.set('bin', 'x', 1));
  expect(
    await vault.read(['joints', 'bin'], async (at) => [await at.get('joints', 'old'), await at.get('bin', 'x')]),
  ).toEqual([{ id: 'old' }, 1]);
  // A second vault, as in another tab, shares it while the first is open.
  const other = new BrowserVault('earlier');
  await other.write(['joints'], (at) => at.set('joints', 'two', 2));
  expect(await vault.read(['joints'], (at) => at.keys('joints'))).toEqual(['old', 'two']);
});
