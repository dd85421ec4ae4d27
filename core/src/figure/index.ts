export * from './figure.ts';
export * from './band.ts';
export * from './check.ts';
export * from './draws.ts';
export * from './maker.ts';
export * from './worked.ts';
