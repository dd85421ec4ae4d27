export * from './elliptic.ts';
export * from './hertz-point.ts';
