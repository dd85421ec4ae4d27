import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  driverFor,
  mended,
  readJointFile,
  withSupply,
  withUnit,
  type Driver,
  type Variant,
} from '../src/index.ts';
import { shelf } from './helpers.ts';
import { seeded } from '../src/math/random.ts';

// Every mend of every failing check of a line is made: the check no longer fails, nothing else stops the line for it, and
// no mount is softer than it was.

const ROUNDS = 30;

describe('every mend of every failing check of a line', () => {
  for (const name of ['body-yaw', 'neck-lift', 'tide-dial', 'wing-root']) {
    const read = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
    if (!read.ok) throw new Error(read.problem.what);
    const joint = read.value;
    it(`${name}: mends it, and stops nothing else`, () => {
      const random = seeded(11);
      const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
      let tried = 0;
      for (let i = 0; i < ROUNDS; i++) {
        const base = one(joint.variants);
        const motor = one(shelf.motors);
        let driver: Driver = driverFor(motor, base.motor, base.driver, shelf);
        const units = shelf.drivers.filter((u) => u.drives === motor.type);
        if (random() < 0.7) driver = withUnit(driver, one(units), motor);
        if (random() < 0.7) driver = withSupply(driver, one(shelf.supplies));
        driver = { ...driver, currentLimit: driver.currentLimit * (0.2 + 2 * random()) };
        const output = base.output && { ...base.output, bearing: one(shelf.bearings), load: 400 * random() };
        const v = { ...base, motor, driver, mount: one(shelf.materials), ...(output && { output }) } as Variant;
        const before = analyseLine(joint, v, shelf, { bands: false });
        const stops = (r: typeof before) => r.checks.filter((c) => c.state === 'fails' && c.severity === 'stop');
        for (const c of before.checks.filter((x) => x.state === 'fails' && x.mend)) {
          tried++;
          const next = mended(v, c.mend!, shelf);
          const after = analyseLine(joint, next, shelf, { bands: false });
          const where = `${c.id}: ${c.mend!.label}`;
          expect(after.problem, where).toBeUndefined();
          expect(after.checks.find((x) => x.id === c.id)?.state, where).not.toBe('fails');
          const news = stops(after).filter((x) => !stops(before).some((b) => b.id === x.id));
          expect(
            news.map((x) => x.id),
            where,
          ).toEqual([]);
          if (next.mount !== v.mount) expect(next.mount!.modulus, where).toBeGreaterThanOrEqual(v.mount!.modulus);
        }
      }
      expect(tried).toBeGreaterThan(5);
    });
  }
});
