export * from './arm.ts';
export * from './demand.ts';
