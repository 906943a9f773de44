export { canChange, solve, type Proposal, type SolveRequest, type ValueChange } from './solver.ts';
