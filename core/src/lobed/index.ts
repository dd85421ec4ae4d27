export * from './cycloid.ts';
export * from './contacts.ts';
export * from './difference.ts';
export * from './plate.ts';
export * from './pin-contact.ts';
export * from './dead-points.ts';
export * from './sampled-error.ts';
