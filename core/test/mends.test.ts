import { describe, expect, it } from 'vitest';
import { makeShelf, readParams, stageKinds, type Check } from '../src/index.ts';
import { check } from '../src/figure/index.ts';
import { provenMend } from '../src/stage/mend.ts';
import { anyStages } from './any-stage.ts';
import { examples } from './helpers.ts';

const shelf = makeShelf();
const modulus = new Map(shelf.materials.map((m) => [m.id, m.modulus]));
const stops = (checks: readonly Check[]) =>
  new Set(checks.filter((c) => c.state === 'fails' && c.severity === 'stop').map((c) => c.id));

describe('every mend of every failing check', () => {
  for (const kind of stageKinds())
    it(`${kind.id}: mends it, stops nothing else, softens nothing, keeps the ratio`, () => {
      let [tried, stages] = [0, 0];
      for (const { params, duty } of anyStages(kind, 60, 17)) {
        // Hardly anything of a unit can fail: it takes more of them to see a mend.
        if (stages++ >= examples(60) && tried > 0) break;
        const opened = kind.open(params, shelf);
        if (!opened.ok) continue;
        const report = opened.value.report(duty);
        const before = stops(report.checks);
        for (const c of report.checks) {
          if (c.state !== 'fails' || !c.mend) continue;
          tried++;
          const said = `${c.id}: ${c.mend.label}`;
          const change = { [c.mend.path]: c.mend.value, ...c.mend.also };
          const next = readParams(kind.id, { ...(params as object), ...change });
          if (!next.ok) throw new Error(`${said}: ${next.problem.what}`);
          const after = kind.open(next.value, shelf);
          if (!after.ok) throw new Error(`${said}: ${after.problem.what}`);
          const now = after.value.report(duty);
          expect(now.checks.find((x) => x.id === c.id)?.state ?? 'gone', said).not.toBe('fails');
          expect(
            [...stops(now.checks)].filter((id) => !before.has(id)),
            said,
          ).toEqual([]);
          for (const [path, value] of Object.entries(change))
            if (path.startsWith('material'))
              expect(modulus.get(String(value))!, said).toBeGreaterThanOrEqual(
                modulus.get(String((params as Record<string, unknown>)[path]))!,
              );
        }
      }
      expect(tried).toBeGreaterThan(0);
    });
});

describe('a mend that is tried', () => {
  const failing = (figure: number, mend?: Check['mend'], id = 'wall') =>
    check({
      id,
      name: 'Wall',
      figure,
      limit: 10,
      sense: 'min',
      quantity: 'count',
      why: '',
      ...(mend && { mend }),
    });
  const to = (value: number) => ({ path: 'width', value, label: `Width ${value}` });

  it('is followed up until the check holds', () => {
    const tried = (change: Readonly<Record<string, number | string>>) => {
      const width = change['width'] as number;
      return [failing(2 * width, width < 6 ? to(width + 2) : undefined)];
    };
    expect(provenMend(failing(2, to(2)), to(2), [], tried).mend).toEqual({
      path: 'width',
      value: 6,
      label: 'Width 6',
    });
  });

  it('says all that it takes', () => {
    const tried = (change: Readonly<Record<string, number | string>>) => [
      failing('rim' in change ? 20 : 4, { path: 'rim', value: 3, label: 'Rim 3' }),
    ];
    expect(provenMend(failing(2, to(4)), to(4), [], tried).mend).toEqual({
      path: 'width',
      value: 4,
      also: { rim: 3 },
      label: 'Width 4, rim 3',
    });
  });

  it('is taken back where it never helps, cannot be, or stops something else; the check and its advice stay', () => {
    const c = failing(2, to(4));
    for (const tried of [
      () => [failing(3, to(4))],
      () => undefined,
      () => [failing(20), failing(1, undefined, 'other')],
    ]) {
      const proven = provenMend(c, to(4), [], tried);
      expect(proven.mend).toBeUndefined();
      expect(proven).toMatchObject({ id: 'wall', state: 'fails', figure: 2 });
    }
  });
});
