export * from './joint.ts';
export * from './migrate.ts';
export * from './read.ts';
export * from './create.ts';
