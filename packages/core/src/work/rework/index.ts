export {
  solve,
  type GoalMet,
  type Proposal,
  type SolveAnswer,
  type SolveRequest,
  type Watch,
} from './solver.ts';
export type { Goal } from './goal-field.ts';
export { canChange, type ValueChange } from './value-change.ts';
export type { Yield } from './yield.ts';
export {
  asksAt,
  makeWay,
  placeIn,
  WAYS,
  type Answers,
  type Ask,
  type Chosen,
  type Made,
  type Place,
  type Promised,
  type Way,
} from './ways/index.ts';
export { heardFactor, trialOf, type Trial } from './try-first.ts';
