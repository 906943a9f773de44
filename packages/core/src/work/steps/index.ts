export { benchSteps, type Work, type WorkWish } from './bench-steps.ts';
export { STEP_KINDS, type BenchStep, type StepKind, type Ticks } from './bench-step.ts';
export { missingBefore, nextStep, tickedSteps, type TickedStep } from './ticked.ts';
export { openThings, type OpenThing } from './closing.ts';
export { heldTicks, inState, tickOf, withStepTicked, type Tick } from './tick.ts';
