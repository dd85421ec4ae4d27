export * from './motor.ts';
export * from './stepper.ts';
export * from './brushless.ts';
export * from './available.ts';
