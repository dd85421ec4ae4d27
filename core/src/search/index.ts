export * from './find.ts';
export * from './chance.ts';
export { AIMS, type Aim } from './compose.ts';
export { dominates, NonDominated, spreadOut } from './dominance.ts';
export * from './says.ts';
export { adviceOf } from './advice.ts';
export { fromDrawer, type FromDrawer } from './from-drawer.ts';
export { inMaterials, makingOf, type Making } from './making.ts';
