export * from './gear.ts';
export * from './involute.ts';
export * from './measure.ts';
export * from './pair.ts';
export * from './profile.ts';
