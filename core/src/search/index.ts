export * from './find.ts';
export * from './chance.ts';
export { AIMS, type Aim } from './compose.ts';
export { dominates, NonDominated, spreadOut } from './dominance.ts';
export * from './says.ts';
export { adviceOf } from './advice.ts';
