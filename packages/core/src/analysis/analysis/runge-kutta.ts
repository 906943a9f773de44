/**
 * A diagonally implicit Runge-Kutta method: every stage is one set of equations with the same matrix, the last is the end of the
 * step (stiffly accurate).
 */
export interface Tableau {
  /** The diagonal of `a`. */
  readonly gamma: number;
  /** Times of the stages, as parts of the step. */
  readonly c: readonly number[];
  /** Weights of the slopes of the stages before, a row a stage; the last row with gamma is what the step takes. */
  readonly a: readonly (readonly number[])[];
  /** What the step takes less what a method of one order below takes, a weight a stage: the local error. */
  readonly error: readonly number[];
  /** Order of the method below: the local error goes with its power plus one. */
  readonly lowerOrder: number;
  /** Whether the first stage is the end of the step before, whose slope is known. */
  readonly isExplicitFirst: boolean;
}

/**
 * ESDIRK4(3)6L[2]SA of order four, L-stable, with an embedded one of order three (Kennedy and Carpenter, Applied Numerical
 * Mathematics 44, 2003, the implicit half of ARK4(3)6L[2]SA).
 */
export const FOURTH_ORDER: Tableau = (() => {
  const a = [
    [],
    [1 / 4],
    [8611 / 62500, -1743 / 31250],
    [5012029 / 34652500, -654441 / 2922500, 174375 / 388108],
    [15267082809 / 155376265600, -71443401 / 120774400, 730878875 / 902184768, 2285395 / 8070912],
    [82889 / 524892, 0, 15625 / 83664, 69875 / 102672, -2260 / 8211],
  ];
  const gamma = 1 / 4;
  const lower = [
    4586570599 / 29645900160,
    0,
    178811875 / 945068544,
    814220225 / 1159782912,
    -3700637 / 11593932,
    61727 / 225920,
  ];
  const own = [...a[5]!, gamma];
  return {
    gamma,
    c: [0, 1 / 2, 83 / 250, 31 / 50, 17 / 20, 1],
    a,
    error: own.map((b, i) => b - lower[i]!),
    lowerOrder: 3,
    isExplicitFirst: true,
  };
})();

/**
 * The first step after a jump, where no slope is known: two steps of Euler's backward formula, of order one, which pass over no
 * limit that a device holds.
 */
export const FROM_A_JUMP: Tableau = {
  gamma: 1 / 2,
  c: [1 / 2, 1],
  a: [[], [1 / 2]],
  error: [-1 / 2, 1 / 2],
  lowerOrder: 1,
  isExplicitFirst: false,
};
