import { compoundPlanetary } from './compound-planetary/index.ts';
import { cycloidal } from './cycloidal/index.ts';
import { planetary } from './planetary/index.ts';
import { ringPlate } from './ring-plate/index.ts';
import { spur } from './spur/index.ts';
import { strainWave } from './strain-wave/index.ts';
import { worm } from './worm/index.ts';
import { register } from './registry.ts';

/**
 * Adds the kinds that load apart from the first page: toothed stages bring much geometry with them. A new one is one
 * line here;
 * small kinds stand in the registry itself.
 */
export function registerKinds(): void {
  register(spur);
  register(planetary);
  register(compoundPlanetary);
  register(worm);
  register(cycloidal);
  register(ringPlate);
  register(strainWave);
}
