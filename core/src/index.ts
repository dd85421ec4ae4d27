export * from './result.ts';
export * from './math/index.ts';
export * from './units/index.ts';
export * from './figure/index.ts';
export * from './shape/index.ts';
export * from './gear/index.ts';
export * from './contact/index.ts';
export * from './lobed/index.ts';
export * from './wave/index.ts';
export * from './shop/index.ts';
export * from './motor/index.ts';
export * from './stage/contract.ts';
export {
  amount,
  described,
  group,
  length,
  oneOf,
  whole,
  words,
  yesNo,
  type Param,
  type ParamTable,
} from './stage/param.ts';
export { inMaterials, makingOf, usualMaterials, type Making } from './stage/making.ts';
export { opener, type StageSteps } from './stage/open.ts';
export { springShares } from './stage/springs.ts';
export { register, stageKind, stageKinds, unregister } from './stage/registry.ts';
export { readParams } from './stage/read-params.ts';
export * from './schema/index.ts';
export * from './brief/index.ts';
export * from './reducer/index.ts';
export * from './line/index.ts';
export * from './sizing/index.ts';
export * from './search/index.ts';
export * from './assembly/index.ts';
export * from './document/index.ts';
export * from './bench/index.ts';
export * from './review/index.ts';
export * from './words/index.ts';
