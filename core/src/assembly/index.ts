export * from './bill.ts';
export * from './write-bill.ts';
export * from './plates.ts';
export * from './section-sheet.ts';
export * from './deviations.ts';
