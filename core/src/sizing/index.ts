export * from './inputs.ts';
export * from './size.ts';
export * from './add-stage.ts';
export * from './movers.ts';
export * from './desk.ts';
export * from './split.ts';
export * from './alternatives.ts';
export * from './two-motors.ts';
