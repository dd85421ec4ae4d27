export * from './sum.ts';
export * from './random.ts';
export * from './play.ts';
export * from './numbers.ts';
export * from './analyse.ts';
export * from './size.ts';
export * from './movers.ts';
