export * from './errors.ts';
