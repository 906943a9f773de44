export {
  planElimination,
  planPartialElimination,
  SINGULAR_RATIO,
  type EliminationPlan,
  type PartialPlan,
  type PlanResult,
} from './elimination-plan.ts';
export { factorComplex, solveComplex, solveComplexTransposed } from './eliminate-complex.ts';
export { solveDense, solveDenseAgain } from './eliminate-dense.ts';
export { backReal, factorReal, reduceReal, solveReal } from './eliminate-real.ts';
export { gmres } from './gmres.ts';
export { SparsePattern } from './sparse-pattern.ts';
export { eigenvalues, type Complex } from './eigenvalues.ts';
export { rootBetween, type Bracket } from './root.ts';
export { seededRandom, type Random } from './random.ts';
