export * from './migrate.ts';
export * from './read.ts';
export * from './create.ts';
export * from './check.ts';
export * from './repair.ts';
export * from './merge.ts';
export * from './shop-snapshot.ts';
export * from './factor-usage.ts';
