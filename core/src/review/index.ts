export * from './difference.ts';
export * from './variants.ts';
export * from './compare.ts';
export * from './settled.ts';
