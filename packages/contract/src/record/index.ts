// The record of a unit: a file a kind of row, with its acts; fields of the unit itself; and what follows from all of them.
export * from './act.ts';
export * from './row.ts';
export * from './things.ts';
export * from './unit-fields.ts';
export * from './unit.ts';
export * from './part.ts';
export * from './readout.ts';
export * from './change.ts';
export * from './reading.ts';
export * from './evidence.ts';
export * from './beep.ts';
export * from './photo.ts';
export * from './log.ts';
export * from './tick.ts';
export * from './plan.ts';
export * from './registry.ts';
export * from './inverse.ts';
