import { makeShelf, type ShopEdits } from '@gristmill/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { Left } from '../src/storage/left.ts';
import { ShopStore, shopProblem } from '../src/storage/shop.ts';
import { MemoryVault } from '../src/storage/vault.ts';
import { keeper } from './helpers.ts';

let vault: MemoryVault;
let store: ShopStore;
beforeEach(() => {
  vault = new MemoryVault();
  store = new ShopStore(vault, new Left(keeper()));
});
const g = (value: number) => ({ value, low: value, high: value, source: 'mine' });
const motor = (id: string, mass: number) => ({ ...makeShelf().motors[0]!, id, mass });
const save = async (base: ShopEdits, mine: ShopEdits) => {
  const r = await store.save(base, mine);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};

describe('the shop in storage', () => {
  it('comes back as it was kept, instruments and their channels with it', async () => {
    const edits: ShopEdits = {
      factors: { gravity: { value: 9.81, low: 9.78, high: 9.84 } },
      instruments: [
        {
          id: 'magnetic',
          name: 'Magnetic sensor',
          measures: 'angle',
          resolution: 4e-4,
          error: 1e-3,
          source: 'mine',
          channels: { out: { scale: -1e-3, zero: 812 } },
        },
      ],
    };
    await save({}, edits);
    expect(await store.load()).toEqual({ edits });
  });

  it('of two tabs takes both: other things side by side, of the same thing the later', async () => {
    const base = await save({}, { factors: { gravity: g(9.8) }, motors: [motor('m', 1)] });
    await save(base, { ...base, factors: { gravity: g(9.81) }, motors: [motor('a', 2), ...base.motors!] });
    // The second tab has not heard of the first one's changes.
    const both = await save(base, { ...base, motors: [motor('b', 3), motor('m', 4)] });
    expect(both.factors!['gravity']!.value).toBe(9.81);
    expect(Object.fromEntries(both.motors!.map((m) => [m.id, m.mass]))).toEqual({ a: 2, b: 3, m: 4 });
    // What one tab takes away goes, what the other has added stays.
    const fewer = await save(both, { ...both, motors: both.motors!.filter((m) => m.id !== 'm') });
    expect((await save(both, { ...both, factors: { gravity: g(9.79) } })).motors!.map((m) => m.id).sort()).toEqual(
      fewer.motors!.map((m) => m.id).sort(),
    );
  });

  it('takes in what a page left as it went, over what another tab stored meanwhile, once', async () => {
    const base = await save({}, { factors: { gravity: g(9.8) } });
    store.leave(base, { ...base, motors: [motor('last', 1)] });
    await save(base, { ...base, motors: [motor('other', 2)] });
    expect((await store.load()).edits.motors!.map((m) => m.id).sort()).toEqual(['last', 'other']);
    await save((await store.load()).edits, { factors: { gravity: g(9.82) } });
    expect((await store.load()).edits).toEqual({ factors: { gravity: g(9.82) } });
    store.leave(base, { factors: { gravity: g(Infinity) } });
    store.leave(base, { ...base, motors: [motor('stays', 1)] });
    store.stayed();
    expect((await store.load()).edits).toEqual({ factors: { gravity: g(9.82) } });
  });

  it('is never stored in a way that could not be read again', async () => {
    const base = await save({}, { factors: { gravity: g(9.8) } });
    for (const bad of [
      { factors: { gravity: g(Infinity) } },
      { factors: { gravity: { value: 1, low: 2, high: 3 } } },
      { motors: [{ ...motor('m', 1), mass: -1 }] },
      { instruments: [{ id: 'x' }] },
    ] as never[]) {
      expect(shopProblem(bad)!.what).toMatch(/shop/);
      expect((await store.save(base, bad)).ok).toBe(false);
    }
    expect((await store.load()).edits).toEqual(base);
  });

  it('damaged in part: the rest stands, the whole of it is set aside, exportable, and the next change does not overwrite it', async () => {
    const raw = {
      factors: { gravity: g(9.81), 'belt.jump': { value: 5, low: 9, high: 1 } },
      motors: [motor('good', 1), { id: 'bad' }],
      extra: 1,
    };
    vault.tables.get('shop')!.set('edits', raw);
    const { edits, setAside } = await store.load();
    expect(Object.keys(edits.factors!)).toEqual(['gravity']);
    expect(edits.motors!.map((m) => m.id)).toEqual(['good']);
    expect(setAside!.leftOut).toHaveLength(2);
    await save(edits, { ...edits, factors: {} });
    expect(await store.damaged()).toEqual([{ key: setAside!.key, raw }]);
    expect((await store.load()).setAside).toBeUndefined();
    await store.forget(setAside!.key);
    expect(await store.damaged()).toEqual([]);
    for (const odd of ['text', 7, [1]]) {
      vault.tables.get('shop')!.set('edits', odd);
      expect((await store.load(new Date(String(odd).length))).edits).toEqual({});
    }
  });
});
