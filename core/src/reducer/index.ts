export * from './frame.ts';
export * from './body.ts';
export * from './layout.ts';
export * from './reducer.ts';
export { filledShare } from './weight.ts';
export { circumcircle } from './circumcircle.ts';
export { radiiOf } from './reach.ts';
