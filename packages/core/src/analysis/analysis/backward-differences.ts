/** Highest order: beyond it the formulas no longer follow an oscillation. */
const HIGHEST_ORDER = 4;
/** Points that are kept: as many as the order above the highest needs to be judged. */
const KEPT_POINTS = 6;

/**
 * The last points of a run, and the backward differentiation formula on them with fixed leading coefficient (Jackson and
 * Sacks-Davis 1980; Brenan, Campbell and Petzold, Numerical Solution of Initial-Value Problems in
 * Differential-Algebraic Equations, chapter 5): with the polynomial through the last k + 1 points as prediction P,
 *
 *     dq/dt = dP/dt + alpha / h (q - P),   alpha = 1 + 1/2 + … + 1/k
 *
 * so that the equations of a step depend on its length and order alone. Order 1 is backward Euler.
 */
export class BackwardDifferences {
  order = 1;
  /** Points since the last jump that can be extrapolated through, newest first. */
  known = 1;
  /** The solution of the step under way, and its charges. */
  trialX: Float64Array;
  trialQ: Float64Array;
  private readonly xs: Float64Array[];
  private readonly qs: Float64Array[];
  /** Time from each point to the newest, s. */
  private readonly ages = new Float64Array(KEPT_POINTS);
  /** Factors of the points in a prediction, and in its derivative by time; the step and degree that they are of. */
  private readonly weights = new Float64Array(KEPT_POINTS);
  private readonly slopes = new Float64Array(KEPT_POINTS);
  private readonly memory = new Float64Array(KEPT_POINTS);
  private weighedH = 0;
  private weighedDegree = -1;
  private readonly other: Float64Array;
  private stepsAtOrder = 0;
  private isBlind = false;

  constructor(size: number) {
    const arrays = () => Array.from({ length: KEPT_POINTS }, () => new Float64Array(size));
    [this.xs, this.qs] = [arrays(), arrays()];
    [this.trialX, this.trialQ, this.other] = [
      new Float64Array(size),
      new Float64Array(size),
      new Float64Array(size),
    ];
  }

  /** The newest point. */
  get x(): Float64Array {
    return this.xs[0]!;
  }

  get q(): Float64Array {
    return this.qs[0]!;
  }

  /** Degree of the prediction. */
  get degree(): number {
    return Math.min(this.order, this.known - 1);
  }

  /** Forgets all points but the newest, the first of a run. */
  restart(): void {
    this.known = 1;
    this.take(1);
  }

  /** After a jump: the charges at the newest point hold, but nothing is extrapolated from there. */
  jump(): void {
    this.restart();
    this.isBlind = true;
  }

  /** The factor of q in the equations of a step, alpha / h. */
  scale(h: number): number {
    let alpha = 0;
    for (let j = 1; j <= this.order; j += 1) alpha += 1 / j;
    return alpha / h;
  }

  /**
   * What is known before a step: the prediction of x at its end, and what the points before it add to the right-hand side,
   * alpha / h P - dP/dt of the charges' prediction P.
   */
  predict(h: number, x: Float64Array, remembered: Float64Array): void {
    const { degree, weights, slopes, memory } = this;
    this.weigh(h, degree);
    const scale = this.scale(h);
    for (let i = 0; i < KEPT_POINTS; i += 1) memory[i] = scale * weights[i]! - slopes[i]!;
    combine(this.xs, weights, x);
    combine(this.qs, memory, remembered);
  }

  /** The prediction of the charges at the end of a step. */
  predictCharges(h: number, into: Float64Array): void {
    this.weigh(h, this.degree);
    combine(this.qs, this.weights, into);
  }

  /** The part of the distance from a prediction to the solution that bounds the formula's own error. */
  errorShare(h: number, degree = this.degree): number {
    let [next, sum] = [1, 0];
    for (let i = 1; i <= degree + 1; i += 1) {
      next = h / (h + this.ages[i - 1]!);
      sum += next;
      if (i <= degree) sum -= 1 / i;
    }
    return Math.max(next, Math.abs(sum));
  }

  /**
   * Before an accepted step is pushed: takes the order next to this one where it would have erred less. `distance` measures
   * how far the step's solution lies from a prediction.
   */
  reconsider(h: number, distance: (predicted: Float64Array) => number): void {
    this.stepsAtOrder += 1;
    const { order, known, other } = this;
    if (this.stepsAtOrder <= order || known <= order) return;
    const errorOf = (degree: number) => {
      this.weigh(h, degree);
      combine(this.xs, this.weights, other);
      return this.errorShare(h, degree) * distance(other);
    };
    this.stepsAtOrder = 0;
    const own = errorOf(order);
    if (order > 1 && errorOf(order - 1) <= own) this.take(order - 1);
    else if (order < HIGHEST_ORDER && known > order + 1 && errorOf(order + 1) < own) this.take(order + 1);
  }

  /** Takes the trial as the newest point, a step after the last. */
  push(h: number): void {
    const { xs, qs, ages } = this;
    const [oldestX, oldestQ] = [xs[KEPT_POINTS - 1]!, qs[KEPT_POINTS - 1]!];
    for (let i = KEPT_POINTS - 1; i > 0; i -= 1) {
      xs[i] = xs[i - 1]!;
      qs[i] = qs[i - 1]!;
      const age = ages[i - 1]! + h;
      if (age === ages[i]) continue;
      ages[i] = age;
      this.weighedDegree = -1;
    }
    xs[0] = this.trialX;
    qs[0] = this.trialQ;
    this.trialX = oldestX;
    this.trialQ = oldestQ;
    this.known = this.isBlind ? 1 : Math.min(KEPT_POINTS, this.known + 1);
    this.isBlind = false;
  }

  private take(order: number): void {
    this.order = order;
    this.stepsAtOrder = 0;
  }

  /** Lagrange's factors of the newest points at the end of a step, and their derivatives; none of older points. */
  private weigh(h: number, degree: number): void {
    if (h === this.weighedH && degree === this.weighedDegree) return;
    [this.weighedH, this.weighedDegree] = [h, degree];
    const { ages, weights, slopes } = this;
    for (let i = 0; i < KEPT_POINTS; i += 1) {
      let [weight, slope] = [i <= degree ? 1 : 0, 0];
      for (let j = 0; j <= degree && i <= degree; j += 1) {
        if (j === i) continue;
        weight *= (h + ages[j]!) / (ages[j]! - ages[i]!);
        slope += 1 / (h + ages[j]!);
      }
      weights[i] = weight;
      slopes[i] = weight * slope;
    }
  }
}

/** Kernel: into = sum of the points by their factors. */
function combine(points: readonly Float64Array[], factors: Float64Array, into: Float64Array): void {
  const [p0, p1, p2, p3, p4, p5] = points as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const [f0, f1, f2, f3, f4, f5] = [
    factors[0]!,
    factors[1]!,
    factors[2]!,
    factors[3]!,
    factors[4]!,
    factors[5]!,
  ];
  const { length } = into;
  for (let k = 0; k < length; k += 1)
    into[k] = f0 * p0[k]! + f1 * p1[k]! + f2 * p2[k]! + f3 * p3[k]! + f4 * p4[k]! + f5 * p5[k]!;
}
