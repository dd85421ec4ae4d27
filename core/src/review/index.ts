export * from './difference.ts';
export * from './variants.ts';
