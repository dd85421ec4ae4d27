export * from './glossary.ts';
