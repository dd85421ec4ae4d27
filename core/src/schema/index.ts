export * from './joint.ts';
export * from './moment.ts';
export * from './plain.ts';
