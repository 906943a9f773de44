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
  RECIPES,
  Spot,
  type Answers,
  type Ask,
  type Chosen,
  type Made,
  type Recipe,
} from './recipes/index.ts';
export { heardFactor, trialOf, type Trial } from './try-first.ts';
