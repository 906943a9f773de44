export { solve, type Proposal, type SolveAnswer, type SolveRequest, type Watch } from './solver.ts';
export { canChange, type ValueChange } from './value-change.ts';
