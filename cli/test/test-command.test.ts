import { inUnits, TEST_KINDS, findingsOf, makeShelf, readJointFile, type Joint } from '@gristmill/core';
import { registerKinds } from '@gristmill/core/stage/catalogue';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { test as run } from '../src/test.ts';

registerKinds();
const folder = mkdtempSync(join(tmpdir(), 'gm-test-'));
const path = (name: string) => new URL(`../../demo/${name}.json`, import.meta.url).pathname;
const demo = (name: string): Joint => {
  const r = readJointFile(readFileSync(path(name), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const file = (name: string, text: string): string => {
  const at = join(folder, name);
  writeFileSync(at, text);
  return at;
};
const json = (kind: string, at: string, more: object = {}) => {
  const r = run(kind, at, { json: true, ...more });
  if (!r.ok) throw new Error(`${kind}: ${r.problem.what} ${r.problem.why}`);
  return JSON.parse(r.value) as {
    kind: string;
    found: { value: number; U: number };
    figures: Record<string, { value: number; U?: number }>;
    says: string;
    notes: string[];
    rig: Record<string, number>;
    advice: string[];
    peaks?: { order: number; suspects: { name: string }[] }[];
  };
};

describe('gristmill test', () => {
  it('gives for every test of the demo what the views show', () => {
    const seen = new Set<string>();
    for (const name of ['body-yaw', 'neck-lift', 'wing-root', 'tide-dial']) {
      const joint = demo(name);
      const findings = findingsOf(joint, makeShelf());
      for (const t of joint.tests) {
        const variant = joint.builds.find((b) => b.id === t.buildId)!.variantId;
        const out = json(t.kind, file(`${t.id}.json`, JSON.stringify(t)), { joint: path(name), variant });
        const shown = findings.find((f) => f.testId === t.id)!.found!;
        expect(out.found.value / shown.value, t.id).toBeCloseTo(1, 6);
        expect(out.found.U / (shown.U || 1), t.id).toBeCloseTo(shown.U ? 1 : 0, 2);
        seen.add(t.kind);
      }
    }
    expect(seen.size).toBe(TEST_KINDS.length);
  });

  it('reads a table with its rig above it or beside it, and says what it took for granted', () => {
    const at = file('spot.csv', '# distance: 4 m\nspot (mm)\n8\n8.2\n7.9\n');
    const out = json('play-spot', at);
    expect(out.rig['distance']).toBe(4);
    expect(out.found.value).toBeCloseTo(8.0333e-3 / 4, 6);
    const other = json('play-spot', at, { rig: '{"distance":"2 m","beam":"mirror"}' });
    expect(other.found.value).toBeCloseTo(8.0333e-3 / 4, 6);
    expect(json('play-spot', file('bare.csv', 'shift\n8\n8.1\n')).notes.join()).toContain('No unit is given');
  });

  it('names the parts of a line whose orders stand out', () => {
    const joint = demo('body-yaw');
    const t = joint.tests.find((x) => x.kind === 'transmission')!;
    const out = json('transmission', file('tr.json', JSON.stringify(t)), { joint: path('body-yaw'), variant: 'a' });
    expect(out.peaks!.some((p) => p.suspects.length > 0)).toBe(true);
    expect(out.figures['ratio']!.value).toBeCloseTo(14, 2);
  });

  it('says in plain words as well', () => {
    const r = run('runout', file('r.csv', 'angle (°),dial (mm)\n0,0.02\n90,0\n180,-0.02\n270,0\n45,0.0141\n'), {
      json: false,
    });
    expect(r.ok && inUnits(r.value)).toMatch(/^Run-out\n.*Off centre by 0\.0\d+ mm/s);
  });

  it('refuses what it cannot do', () => {
    const words = (kind: string | undefined, at: string | undefined, more: object = {}) => {
      const r = run(kind, at, { json: false, ...more });
      return r.ok ? '' : `${r.problem.what} ${r.problem.why}`;
    };
    const good = file('g.csv', 'shift (mm)\n8\n');
    expect(words(undefined, undefined)).toContain('KIND is missing');
    expect(words('wobble', good)).toContain('no test “wobble”');
    expect(words('play-spot', undefined)).toContain('FILE is missing');
    expect(words('play-spot', join(folder, 'none.csv'))).toContain('cannot be read');
    expect(words('play-spot', file('e.csv', ''))).toContain('empty');
    expect(words('hysteresis', good)).toContain('missing');
    expect(words('play-spot', good, { rig: '[1]' })).toContain('not an object');
    expect(words('play-spot', good, { rig: '{' })).toContain('not JSON');
    expect(words('play-spot', good, { joint: path('body-yaw'), variant: 'Z' })).toContain('no variant');
    expect(words('efficiency', file('eff.csv', 'torque (N·m),current (A)\n1,1\n2,2\n'))).toContain(
      'ratio is not known',
    );
  });
});
