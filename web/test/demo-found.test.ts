import { activeVariant, AIMS, analyseLine, bare, editsFor, makeShelf, stopping, whyNotSays } from '@gristmill/core';
import { describe, expect, it } from 'vitest';
import { FoundSets } from '../src/storage/found.ts';
import { MemoryVault } from '../src/storage/vault.ts';
import { demoFound, demoJoints } from '../src/views/joints/demo.ts';
import { contentId, ordered } from '../src/workers/content.ts';

describe('lines found for the demo joints', () => {
  it('are of the joints as they stand, and what computing them now gives', async () => {
    const [joints, found] = [await demoJoints(), await demoFound()];
    expect(found).toHaveLength(joints.length);
    for (const [i, joint] of joints.entries()) {
      const { asked, result } = found[i]!;
      const variant = activeVariant(joint);
      const edits = editsFor(joint, {});
      const now = [joint.brief, variant.sensor, variant.mount ?? null, variant.output ?? null, edits];
      const ids = (list: readonly unknown[]) => list.map((x) => (x ? contentId(ordered(x)) : 0));
      expect(ids(asked), `${joint.name}: npm run found`).toEqual(ids(now));
      expect(result.lines.length, joint.name).toBeGreaterThan(20);
      expect(result.looked).toBeGreaterThan(1e6);
      for (const w of result.whyNot) expect(whyNotSays(w)).not.toMatch(/NaN|undefined|null/);
      // Every ninth line anew: another formula anywhere moves one of them.
      const shelf = makeShelf(edits);
      for (const l of result.lines.filter((_, k) => k % 9 === 4)) {
        const report = analyseLine(
          joint,
          bare({ ...variant, motor: l.motor, driver: l.driver, stages: [...l.stages] }),
          shelf,
        );
        expect(stopping(report), `${joint.name} ${l.id}`).toEqual([]);
        for (const aim of AIMS) {
          const now = report.figures.find((f) => f.id === aim)!.value;
          expect(Math.abs(l.aims[aim] - now), `${l.id} ${aim}: npm run found`).toBeLessThanOrEqual(1e-6 * now + 1e-12);
        }
      }
    }
  });

  it('can be kept and read back', async () => {
    const sets = new FoundSets(new MemoryVault());
    for (const [i, f] of (await demoFound()).entries()) {
      await sets.keep(String(i), f);
      expect((await sets.read(String(i)))!.result.lines).toHaveLength(f.result.lines.length);
    }
  });
});
