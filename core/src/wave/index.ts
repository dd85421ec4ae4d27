export * from './series.ts';
export * from './rollers.ts';
export * from './neutral-line.ts';
export * from './tooth-form.ts';
export * from './mesh.ts';
