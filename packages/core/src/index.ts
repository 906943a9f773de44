export type { BeepData, EvidenceData, IntakeData, PathData } from '@zemble/contract';

// What everything stands on: errors, numbers and how they are written.
export * from './base/errors/index.ts';
export * from './base/text/index.ts';
export * from './base/quantity/index.ts';
export { seededRandom, type Random } from './base/numeric/index.ts';

// The unit as a circuit: parts and nets, what is done to it, what its devices are.
export * from './circuit/pinout/index.ts';
export * from './circuit/circuit/index.ts';
export * from './circuit/continuity/index.ts';
export * from './circuit/changes/index.ts';
export * from './circuit/models/index.ts';
export * from './circuit/devices/index.ts';
export * from './circuit/figures/index.ts';

// What it does: computed, and as an instrument would show it.
export * from './analysis/audio/index.ts';
export * from './analysis/analysis/index.ts';
export * from './analysis/readouts/index.ts';
export * from './analysis/meter/index.ts';

// What is found out at the bench, and what it means.
export * from './bench/photos/index.ts';
export * from './bench/judge/index.ts';
export * from './bench/isolate/index.ts';

// What is done: values, stock, boards, wires and the steps in good order.
export * from './work/drawer/index.ts';
export * from './work/desk/index.ts';
export * from './work/rework/index.ts';
export * from './work/bodies/index.ts';
export * from './work/board/index.ts';
export * from './work/wiring/index.ts';
export * from './work/steps/index.ts';
export * from './work/fit/index.ts';

// What is typed, drawn, kept and sent.
export * from './sheet/formats/index.ts';
export * from './sheet/sheet/index.ts';
export * from './sheet/record/index.ts';
export * from './sheet/draw/index.ts';
