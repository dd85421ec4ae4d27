import { registerKinds } from '@gristmill/core/stage/catalogue';
import {
  collectFaults,
  tortureImports,
  tortureJoints,
  tortureRigLines,
  tortureShops,
  tortureUnits,
} from './readers.ts';

/**
 * Damaged files, imports, units and rig lines by the thousand. Returns how many sorts of fault were found; each is
 * printed with what it came from.
 */
export function tortureReaders(share: number, seed: number): number {
  registerKinds();
  const faults = new Set<string>();
  collectFaults((f) => {
    // One of each sort, with the input it came from.
    const sort = f.message.split('\n')[0]!.replace(/\d+/g, '#').slice(0, 160);
    if (faults.has(sort)) return;
    faults.add(sort);
    console.error(`${f.message.slice(0, 2000)}\n`);
  });
  const n = (x: number) => Math.max(1, Math.round(x * share));
  const step = <T>(name: string, run: () => T) => {
    const begun = performance.now();
    const tally = run();
    console.log(
      JSON.stringify({
        torture: name,
        seed,
        ...tally,
        seconds: Number(((performance.now() - begun) / 1000).toFixed(1)),
      }),
    );
  };
  step('units', () => tortureUnits(n(100_000), seed));
  step('rig lines', () => tortureRigLines(n(100_000), seed));
  step('shop files', () => tortureShops(n(10_000), seed));
  step('joint files', () => tortureJoints(n(50_000), seed));
  step('imports, of each kind', () => tortureImports(n(10_000), seed));
  return faults.size;
}
