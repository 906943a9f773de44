import { densityOf, type Agreement } from './likelihood.ts';
import type { Prediction } from './prediction.ts';

/** What may be wrong, with what it would make every quantity read; null is nothing. */
interface Hypothesis {
  readonly fault: { readonly ref: string; readonly weight: number } | null;
  readonly predicted: readonly (Prediction | null)[];
}

/** Weight of nothing being wrong with the parts, as a part of all their faults: it does not hang on how many parts there are. */
const NOTHING_WRONG_SHARE = 0.03;
/** Weight of a fault that is not known, or of two at once, as a part of all that are known (calibrated against simulated benches). */
const SOMETHING_ELSE_SHARE = 0.6;
/** Part of a reading of something unknown that may lie anywhere, where no known fault brings it. */
const ANYWHERE = 0.2;

/** Weights of hypotheses before anything is measured. */
export function priorsOf(known: readonly Hypothesis[]): number[] {
  const faults = known.reduce((sum, { fault }) => sum + (fault?.weight ?? 0), 0);
  const draws = known.filter(({ fault }) => fault === null).length;
  const nothing = (faults > 0 ? NOTHING_WRONG_SHARE * faults : 1) / Math.max(1, draws);
  return known.map(({ fault }) => fault?.weight ?? nothing);
}

/** Logarithm of the weight of something else before anything is measured, by those of what is known. */
export const logPriorElse = (priors: readonly number[]): number =>
  Math.log(SOMETHING_ELSE_SHARE * priors.reduce((a, b) => a + b, 0));

/** Probabilities of what is known, and of something else, of logarithms that have a constant in common. */
export interface Posterior {
  readonly posterior: readonly number[];
  readonly somethingElse: number;
}

export function posteriorOf(logs: readonly number[], logElse: number): Posterior {
  const best = Math.max(...logs, logElse);
  const weights = logs.map((l) => Math.exp(l - best));
  const other = Math.exp(logElse - best);
  const whole = weights.reduce((a, b) => a + b, other);
  return { posterior: weights.map((w) => w / whole), somethingElse: other / whole };
}

/**
 * Logarithms of the density of each reading under something that is not known: each by itself is one that some fault brings, or
 * anywhere in its span, and nothing holds them together.
 */
export function logsOfSomethingElse(
  known: readonly Hypothesis[],
  priors: readonly number[],
  measured: readonly (number | null)[],
  spans: readonly number[],
): number[] {
  const whole = priors.reduce((a, b) => a + b, 0);
  return measured.map((value, i) => {
    const some = known.reduce(
      (density, each, e) => density + priors[e]! * densityOf(each.predicted[i] ?? null, value, spans[i]!),
      0,
    );
    const anywhere = value === null ? 0.5 : 1 / spans[i]!;
    return Math.log((1 - ANYWHERE) * (some / whole) + ANYWHERE * anywhere);
  });
}

/** Something else is claimed above this. */
const CLAIMED = 0.5;
/** Deviations up to so many sigmas of each reading are explained. */
const EXPLAINED_SIGMAS = 3;

/** Whether something else is likelier than not, and no known fault is near all of the readings: two at least, since one alone says little. */
export function isUnexplained(agreements: readonly Agreement[], { somethingElse }: Posterior): boolean {
  const count = agreements[0]?.astray.length ?? 0;
  if (count < 2 || somethingElse < CLAIMED) return false;
  return agreements.every(({ square }) => square > EXPLAINED_SIGMAS ** 2 * count);
}

/**
 * How often a reading is of another net or misread where nobody has looked twice: when a claim hangs on it, and when nothing known
 * explains it beside the others (common practice).
 */
const SLIPS = 0.05;
const UNEXPLAINED_SLIPS = 0.3;

/** What is claimed most: a part, or something else, which has no designator. */
function topClaim(known: readonly Hypothesis[], { posterior, somethingElse }: Posterior) {
  const chances = new Map<string, number>();
  known.forEach(({ fault }, e) => {
    if (fault) chances.set(fault.ref, (chances.get(fault.ref) ?? 0) + posterior[e]!);
  });
  const [first] = [...chances].sort((a, b) => b[1] - a[1]);
  return first && first[1] > somethingElse
    ? { ref: first[0], chance: first[1] }
    : { ref: null, chance: somethingElse };
}

/**
 * The chance of each reading to read otherwise when it is taken again: as far as what is claimed most hangs on it alone. One that was
 * read twice and alike has none.
 *
 * @param agreements of what is known with the readings
 * @param unknown from `logsOfSomethingElse`
 */
export function slipsOf(
  known: readonly Hypothesis[],
  priors: readonly number[],
  agreements: readonly Agreement[],
  sure: readonly boolean[],
  now: Posterior,
  unknown: readonly number[],
): number[] {
  const { ref, chance } = topClaim(known, now);
  // What is claimed is looked at for what carries it.
  if (chance < CLAIMED) return unknown.map(() => 0);
  const logElse = unknown.reduce((a, b) => a + b, logPriorElse(priors));
  return unknown.map((own, i) => {
    if (sure[i]) return 0;
    const logs = known.map((_, e) => Math.log(priors[e]!) + agreements[e]!.without[i]!);
    const { posterior, somethingElse } = posteriorOf(logs, logElse - own);
    const left =
      ref === null
        ? somethingElse
        : known.reduce((sum, { fault }, e) => sum + (fault?.ref === ref ? posterior[e]! : 0), 0);
    return (ref === null ? UNEXPLAINED_SLIPS : SLIPS) * Math.max(0, chance - left);
  });
}
