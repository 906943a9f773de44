import { SINGULAR_RATIO, type EliminationPlan } from './elimination-plan.ts';

/** Complex counterpart of `factorReal`, on separate real and imaginary arrays. */
export function factorComplex(
  plan: EliminationPlan,
  re: Float64Array,
  im: Float64Array,
  scale: Float64Array,
): number {
  const { program, starts, size } = plan;
  for (let step = 0; step < size; step += 1) {
    let at = starts[step]!;
    const pivotRe = re[program[at]!]!;
    const pivotIm = im[program[at]!]!;
    const below = program[at + 3]!;
    const right = program[at + 4]!;
    const squared = pivotRe * pivotRe + pivotIm * pivotIm;
    const limit = SINGULAR_RATIO * scale[program[at + 2]!]!;
    if (!(squared > limit * limit)) return step;
    const inverseRe = pivotRe / squared;
    const inverseIm = -pivotIm / squared;
    const first = at + 5;
    at = first + 2 * right;
    for (let r = 0; r < below; r += 1) {
      const slot = program[at]!;
      const factorRe = re[slot]! * inverseRe - im[slot]! * inverseIm;
      const factorIm = re[slot]! * inverseIm + im[slot]! * inverseRe;
      re[slot] = factorRe;
      im[slot] = factorIm;
      at += 2;
      for (let c = 0; c < right; c += 1) {
        const target = program[at + c]!;
        const source = program[first + 2 * c]!;
        const sourceRe = re[source]!;
        const sourceIm = im[source]!;
        re[target] = re[target]! - (factorRe * sourceRe - factorIm * sourceIm);
        im[target] = im[target]! - (factorRe * sourceIm + factorIm * sourceRe);
      }
      at += right;
    }
  }
  return -1;
}

/** Complex counterpart of `solveReal`. */
export function solveComplex(
  plan: EliminationPlan,
  re: Float64Array,
  im: Float64Array,
  bRe: Float64Array,
  bIm: Float64Array,
  xRe: Float64Array,
  xIm: Float64Array,
): void {
  const { program, starts, size } = plan;
  for (let step = 0; step < size; step += 1) {
    const at = starts[step]!;
    const knownRe = bRe[program[at + 1]!]!;
    const knownIm = bIm[program[at + 1]!]!;
    if (knownRe === 0 && knownIm === 0) continue;
    const below = program[at + 3]!;
    const right = program[at + 4]!;
    let place = at + 5 + 2 * right;
    for (let r = 0; r < below; r += 1) {
      const slot = program[place]!;
      const row = program[place + 1]!;
      bRe[row] = bRe[row]! - (re[slot]! * knownRe - im[slot]! * knownIm);
      bIm[row] = bIm[row]! - (re[slot]! * knownIm + im[slot]! * knownRe);
      place += 2 + right;
    }
  }
  for (let step = size - 1; step >= 0; step -= 1) {
    const at = starts[step]!;
    let sumRe = bRe[program[at + 1]!]!;
    let sumIm = bIm[program[at + 1]!]!;
    const right = program[at + 4]!;
    for (let c = 0; c < right; c += 1) {
      const slot = program[at + 5 + 2 * c]!;
      const column = program[at + 6 + 2 * c]!;
      sumRe -= re[slot]! * xRe[column]! - im[slot]! * xIm[column]!;
      sumIm -= re[slot]! * xIm[column]! + im[slot]! * xRe[column]!;
    }
    divideInto(program[at + 2]!, sumRe, sumIm, re[program[at]!]!, im[program[at]!]!, xRe, xIm);
  }
}

/**
 * Solves the transposed system, A^T y = c, with the same factors: what one output owes to every input at once.
 * `c` is destroyed.
 */
export function solveComplexTransposed(
  plan: EliminationPlan,
  re: Float64Array,
  im: Float64Array,
  cRe: Float64Array,
  cIm: Float64Array,
  yRe: Float64Array,
  yIm: Float64Array,
): void {
  const { program, starts, size } = plan;
  for (let step = 0; step < size; step += 1) {
    const at = starts[step]!;
    const row = program[at + 1]!;
    const right = program[at + 4]!;
    divideInto(
      row,
      cRe[program[at + 2]!]!,
      cIm[program[at + 2]!]!,
      re[program[at]!]!,
      im[program[at]!]!,
      yRe,
      yIm,
    );
    const knownRe = yRe[row]!;
    const knownIm = yIm[row]!;
    for (let c = 0; c < right; c += 1) {
      const slot = program[at + 5 + 2 * c]!;
      const column = program[at + 6 + 2 * c]!;
      cRe[column] = cRe[column]! - (re[slot]! * knownRe - im[slot]! * knownIm);
      cIm[column] = cIm[column]! - (re[slot]! * knownIm + im[slot]! * knownRe);
    }
  }
  for (let step = size - 1; step >= 0; step -= 1) {
    const at = starts[step]!;
    const row = program[at + 1]!;
    const below = program[at + 3]!;
    const right = program[at + 4]!;
    let place = at + 5 + 2 * right;
    let sumRe = yRe[row]!;
    let sumIm = yIm[row]!;
    for (let r = 0; r < below; r += 1) {
      const slot = program[place]!;
      const other = program[place + 1]!;
      sumRe -= re[slot]! * yRe[other]! - im[slot]! * yIm[other]!;
      sumIm -= re[slot]! * yIm[other]! + im[slot]! * yRe[other]!;
      place += 2 + right;
    }
    yRe[row] = sumRe;
    yIm[row] = sumIm;
  }
}

function divideInto(
  index: number,
  aRe: number,
  aIm: number,
  bRe: number,
  bIm: number,
  outRe: Float64Array,
  outIm: Float64Array,
): void {
  const squared = bRe * bRe + bIm * bIm;
  outRe[index] = (aRe * bRe + aIm * bIm) / squared;
  outIm[index] = (aIm * bRe - aRe * bIm) / squared;
}
