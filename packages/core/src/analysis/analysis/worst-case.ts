import type { Reading } from './sensitivity.ts';
import type { AnalysisSession } from './session.ts';
import { deviated, groupsOf, type SpreadPart } from './spread-part.ts';

export interface WorstCaseOptions {
  /** Deviations by group from which the search also begins, as the extreme samples of a run have them. */
  readonly starts?: readonly Float64Array[];
  /** Readings that may be taken for each end; more for more groups when absent. */
  readonly evaluations?: number;
}

/** Places along one group's tolerance that are looked at before it is refined. */
const PLACES = [-1, -0.5, 0, 0.5, 1] as const;
/** Golden section (Kiefer 1953): steps that narrow a span of one place to a hundredth of the tolerance. */
const GOLDEN = (Math.sqrt(5) - 1) / 2;
const GOLDEN_STEPS = 10;
const EVALUATIONS_A_GROUP = 60;
const LEAST_EVALUATIONS = 300;
/** An improvement below this part of the reading ends the search. */
const LEAST_GAIN = 1e-9;

/**
 * The extremes of a reading over the box of the parts' tolerances: begun with every group at the end that its slope
 * points to, and at the starts given, then improved one group at a time over both ends and the places between, which
 * are refined where the extreme lies inside, until nothing gets worse. Parts of one group move together.
 *
 * @param slopes d reading / d (relative deviation), a part each
 * @returns null ends where the reading has no value anywhere it was taken
 */
export function worstCase(
  session: AnalysisSession,
  parts: readonly SpreadPart[],
  slopes: readonly number[],
  read: Reading,
  options: WorstCaseOptions = {},
): { low: number | null; high: number | null } {
  const groups = groupsOf(parts);
  const count = groups.names.length;
  const groupSlopes = new Float64Array(count);
  parts.forEach((p, i) => {
    const g = groups.groupOf[i]!;
    groupSlopes[g] = groupSlopes[g]! + slopes[i]! * p.tolerance;
  });
  const order = [...groups.names.keys()].sort(
    (a, b) => Math.abs(groupSlopes[b]!) - Math.abs(groupSlopes[a]!),
  );
  const most = options.evaluations ?? Math.max(LEAST_EVALUATIONS, EVALUATIONS_A_GROUP * count);

  const extreme = (sign: 1 | -1): number | null => {
    let left = most;
    let worst: number | null = null;
    const at = (deviations: Float64Array): number => {
      left -= 1;
      const value = read(deviated(session, parts, groups, deviations));
      if (value === null || Number.isNaN(value)) return Number.NEGATIVE_INFINITY;
      if (worst === null || sign * value > sign * worst) worst = value;
      return sign * value;
    };
    const stepped = groupSlopes.map((slope) => sign * Math.sign(slope));
    for (const start of [stepped, ...(options.starts ?? [])])
      climb(Float64Array.from(start), at, order, () => left > 0);
    return worst;
  };
  return { low: extreme(-1), high: extreme(1) };
}

/** Improves deviations in place, one group after another, until a round brings nothing. */
function climb(
  deviations: Float64Array,
  at: (deviations: Float64Array) => number,
  order: readonly number[],
  mayGoOn: () => boolean,
): void {
  let best = at(deviations);
  for (let isImproving = true; isImproving && mayGoOn();) {
    isImproving = false;
    for (const group of order) {
      if (!mayGoOn()) return;
      const before = deviations[group]!;
      const along = (place: number): number => {
        deviations[group] = place;
        return at(deviations);
      };
      const values = PLACES.map((place) => (place === before ? best : along(place)));
      let top = values.indexOf(Math.max(...values));
      if (values[top]! <= best && !PLACES.some((p) => p === before)) top = -1;
      let [place, value] = top < 0 ? [before, best] : [PLACES[top]! as number, values[top]!];
      const isInside = top > 0 && top < PLACES.length - 1;
      if (isInside) [place, value] = golden(along, PLACES[top - 1]!, PLACES[top + 1]!, place, value);
      const gain = value - best;
      deviations[group] = gain > 0 ? place : before;
      if (gain > 0) best = value;
      if (gain > LEAST_GAIN * Math.max(Math.abs(best), Number.MIN_VALUE)) isImproving = true;
    }
  }
}

/** The largest value between two places by golden section; never less than the one known. */
function golden(
  of: (place: number) => number,
  low: number,
  high: number,
  known: number,
  atKnown: number,
): [place: number, value: number] {
  let [a, b] = [low, high];
  let [c, d] = [b - GOLDEN * (b - a), a + GOLDEN * (b - a)];
  let [fc, fd] = [of(c), of(d)];
  let best: [number, number] = [known, atKnown];
  for (let i = 0; i < GOLDEN_STEPS; i += 1) {
    if (fc > best[1]) best = [c, fc];
    if (fd > best[1]) best = [d, fd];
    if (fc > fd) {
      [b, d, fd] = [d, c, fc];
      c = b - GOLDEN * (b - a);
      fc = of(c);
    } else {
      [a, c, fc] = [c, d, fd];
      d = a + GOLDEN * (b - a);
      fd = of(d);
    }
  }
  return best;
}
