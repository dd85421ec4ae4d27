import { belt } from './belt/index.ts';
import { bevel } from './bevel/index.ts';
import { cable } from './cable/index.ts';
import { chain } from './chain/index.ts';
import { compoundPlanetary } from './compound-planetary/index.ts';
import { cycloidal } from './cycloidal/index.ts';
import { planetary } from './planetary/index.ts';
import { rack } from './rack/index.ts';
import { register } from './registry.ts';
import { ringPlate } from './ring-plate/index.ts';
import { rollerWave } from './roller-wave/index.ts';
import { screw } from './screw/index.ts';
import { spur } from './spur/index.ts';
import { strainWave } from './strain-wave/index.ts';
import { unit } from './unit/index.ts';
import { worm } from './worm/index.ts';

/** Every kind of stage there is, in the order in which it is offered. A new one is its folder and its line here. */
const KINDS = [
  belt,
  chain,
  cable,
  unit,
  spur,
  bevel,
  worm,
  planetary,
  compoundPlanetary,
  cycloidal,
  ringPlate,
  rollerWave,
  strainWave,
  rack,
  screw,
];

/** Makes every kind known. It loads apart from the first page: toothed stages bring much geometry with them. */
export const registerKinds = (): void => KINDS.forEach(register);
