export * from './curve.ts';
export * from './outline.ts';
export * from './flatten.ts';
export * from './sheet.ts';
export * from './svg.ts';
export * from './solid.ts';
export * from './dxf.ts';
export * from './bounds.ts';
