export * from './factor.ts';
export * from './section.ts';
export * from './instrument.ts';
export * from './shelf.ts';
export * from './motors.ts';
export * from './read.ts';
