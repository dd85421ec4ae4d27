export * from './aside.ts';
export * from './centre.ts';
export * from './path.ts';
export * from './spans.ts';
export * from './take-up.ts';
