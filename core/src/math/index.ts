export * from './gcd.ts';
export * from './hash.ts';
export * from './normal.ts';
export * from './random.ts';
export * from './root.ts';
export * from './springs.ts';
export * from './steps.ts';
export * from './wrap.ts';
