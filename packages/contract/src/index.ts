export * from './names.ts';
export * from './finding.ts';
export * from './unit-file.ts';
export * from './api.ts';
export * from './problem.ts';
export * from './unit-file-schema.ts';
