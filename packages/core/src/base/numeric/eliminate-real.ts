import { SINGULAR_RATIO, type EliminationPlan } from './elimination-plan.ts';

/**
 * Kernel: factors `values` in place after the plan. `values` has `plan.length` entries, fill-in zeroed by the
 * caller. `scale` (size + 1) is workspace for the column scales.
 *
 * @returns -1, or the step whose pivot vanished against the scale of its column
 */
export function factorReal(plan: EliminationPlan, values: Float64Array, scale: Float64Array): number {
  const { program, starts, size } = plan;
  for (let step = 0; step < size; step += 1) {
    let at = starts[step]!;
    const pivot = values[program[at]!]!;
    const below = program[at + 3]!;
    const right = program[at + 4]!;
    if (!(Math.abs(pivot) > SINGULAR_RATIO * scale[program[at + 2]!]!)) return step;
    const inverse = 1 / pivot;
    const first = at + 5;
    at = first + 2 * right;
    for (let r = 0; r < below; r += 1) {
      const slot = program[at]!;
      const factor = values[slot]! * inverse;
      values[slot] = factor;
      at += 2;
      if (factor === 0) {
        at += right;
        continue;
      }
      for (let c = 0; c < right; c += 1) {
        const target = program[at + c]!;
        values[target] = values[target]! - factor * values[program[first + 2 * c]!]!;
      }
      at += right;
    }
  }
  return -1;
}

/** Kernel: solves A x = b with factored values. `b` is destroyed; `x` (size + 1, x[0] stays 0) receives the answer. */
export function solveReal(
  plan: EliminationPlan,
  values: Float64Array,
  b: Float64Array,
  x: Float64Array,
): void {
  reduceReal(plan, values, b);
  backReal(plan, values, b, x);
}

/** Kernel: takes the eliminated rows off the others' right-hand sides, in place. */
export function reduceReal(plan: EliminationPlan, values: Float64Array, b: Float64Array): void {
  const { program, starts, size } = plan;
  for (let step = 0; step < size; step += 1) {
    const at = starts[step]!;
    const known = b[program[at + 1]!]!;
    if (known === 0) continue;
    const below = program[at + 3]!;
    const right = program[at + 4]!;
    let row = at + 5 + 2 * right;
    for (let r = 0; r < below; r += 1) {
      b[program[row + 1]!] = b[program[row + 1]!]! - values[program[row]!]! * known;
      row += 2 + right;
    }
  }
}

/** Kernel: the eliminated unknowns from a reduced right-hand side; `x` already has those that were kept. */
export function backReal(
  plan: EliminationPlan,
  values: Float64Array,
  b: Float64Array,
  x: Float64Array,
): void {
  const { program, starts, size } = plan;
  for (let step = size - 1; step >= 0; step -= 1) {
    const at = starts[step]!;
    let sum = b[program[at + 1]!]!;
    const right = program[at + 4]!;
    for (let c = 0; c < right; c += 1) {
      sum -= values[program[at + 5 + 2 * c]!]! * x[program[at + 6 + 2 * c]!]!;
    }
    x[program[at + 2]!] = sum / values[program[at]!]!;
  }
}
