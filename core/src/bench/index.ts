export * from './student.ts';
export * from './uncertainty.ts';
export * from './play-lever.ts';
export * from './torque-ladder.ts';
export * from './slips.ts';
export * from './find.ts';
