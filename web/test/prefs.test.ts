import { beforeEach, describe, expect, it } from 'vitest';

/** A browser's small storage. */
const store = new Map<string, string>();
const storage = {
  getItem: (k: string) => store.get(k) ?? null,
  setItem: (k: string, v: string) => void store.set(k, v),
  removeItem: (k: string) => void store.delete(k),
};
// It must be there before the preferences are: without any they are not kept at all.
Object.defineProperty(globalThis, 'localStorage', { value: storage, configurable: true });
Object.defineProperty(globalThis, 'window', { value: globalThis, configurable: true });
const { readPreferences, takePreferences, usePrefs } = await import('../src/state/prefs.ts');
const first = usePrefs.getState();
beforeEach(() => {
  usePrefs.setState(first, true);
  store.clear();
});

describe('preferences in a file of everything', () => {
  it('leave out what was opened and exported here, and when', () => {
    usePrefs.setState({ exportedAt: '2026-11-01T00:00:00Z', opened: { a: 1 }, tour: 3, sheet: 'dark' });
    const told = JSON.parse(readPreferences()) as { state: Record<string, unknown>; version: number };
    expect(told.version).toBe(2);
    expect(told.state['sheet']).toBe('dark');
    for (const own of ['exportedAt', 'remindAfter', 'opened', 'tour', 'since'])
      expect(told.state).not.toHaveProperty(own);
  });

  it.each(['', '{', 'null', '{"state":null}', '{"state":{"sheet":"pink","units":{}}}', '{"state":{"sheet":"dark"}}'])(
    'that are damaged change nothing: %s',
    (text) => {
      takePreferences(text);
      expect(store.size).toBe(0);
    },
  );

  it('that are taken keep what belongs to this browser', () => {
    usePrefs.setState({ exportedAt: '2026-11-01T00:00:00Z', opened: { a: 1 } });
    takePreferences('{"state":{"sheet":"dark","units":{"money":"£"},"opened":{"b":2}},"version":2}');
    const kept = JSON.parse(store.get('gristmill-prefs')!) as { state: Record<string, unknown> };
    expect(kept.state).toMatchObject({ sheet: 'dark', exportedAt: '2026-11-01T00:00:00Z', opened: { a: 1 } });
  });
});

describe('money and keys of a reader', () => {
  it('another sign goes to prices by mass as well', () => {
    usePrefs.getState().setUnit('money', 'CHF');
    expect(usePrefs.getState().units).toMatchObject({ money: 'CHF', pricePerMass: 'CHF/kg' });
  });

  it('a decimal comma is read as one, a point leaves the comma as it was', () => {
    usePrefs.getState().setDecimal(',');
    expect(usePrefs.getState()).toMatchObject({ decimal: ',', comma: 'decimals' });
    usePrefs.getState().setDecimal('.');
    expect(usePrefs.getState()).toMatchObject({ decimal: '.', comma: 'decimals' });
  });

  it('preferences of the first version get money by locale, and keep a real sign', () => {
    const migrate = usePrefs.persist.getOptions().migrate!;
    const of = (units: object) => (migrate({ sheet: 'dark', units }, 1) as { units: { money: string } }).units;
    expect(of({ money: '£', torque: 'N·m' })).toMatchObject({ money: '£', pricePerMass: '£/kg', torque: 'N·m' });
    for (const units of [{ money: '¤' }, {}]) expect(of(units).money).not.toBe('¤');
    expect(of({}).money).toMatch(/./);
  });
});
