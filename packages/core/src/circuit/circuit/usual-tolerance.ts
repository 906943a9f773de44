import { isPolarised, type Part } from './part.ts';

/** Usual tolerance of a part whose marking does not give one, as a fraction (common practice). */
export function usualTolerance(part: Pick<Part, 'kind' | 'tolerance'>): number {
  if (part.tolerance !== undefined) return part.tolerance;
  if (part.kind === 'capacitor') return isPolarised(part) ? 0.2 : 0.1;
  if (part.kind === 'potentiometer') return 0.2;
  return part.kind === 'inductor' ? 0.1 : 0.05;
}

/** From this size a capacitor of which nothing is said is taken for an electrolytic, F (common practice). */
export const ELECTROLYTIC_F = 1e-6;
