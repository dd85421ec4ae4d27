export * from './quantity.ts';
export * from './parse.ts';
export * from './format.ts';
export * from './table.ts';
export * from './stated.ts';
export * from './comma.ts';
export * from './heading.ts';
export * from './currency.ts';
