export * from './sum.ts';
export * from './play.ts';
export * from './output.ts';
export * from './resolution.ts';
export * from './numbers.ts';
export * from './open.ts';
export * from './map.ts';
export * from './analyse.ts';
