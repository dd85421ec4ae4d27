export * from './cycloid.ts';
export * from './contacts.ts';
