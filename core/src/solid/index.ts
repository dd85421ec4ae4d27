export * from './correction.ts';
export * from './mesh.ts';
export * from './stl.ts';
export * from './threemf.ts';
