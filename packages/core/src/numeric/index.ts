export {
  planElimination,
  SINGULAR_RATIO,
  type EliminationPlan,
  type PlanResult,
} from './elimination-plan.ts';
export { factorComplex, solveComplex, solveComplexTransposed } from './eliminate-complex.ts';
export { factorReal, solveReal } from './eliminate-real.ts';
export { SparsePattern } from './sparse-pattern.ts';
export { eigenvalues, type Complex } from './eigenvalues.ts';
