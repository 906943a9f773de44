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
const GOLDEN_STEPS = 12;
/** How far inside an end it is looked whether the extreme lies there. */
const BESIDE_END = 0.02;
const EVALUATIONS_A_GROUP = 250;
const LEAST_EVALUATIONS = 4000;
/** Of this many groups that move the reading most every corner is a start. */
const CORNERS_OF = 4;
/** An improvement below this part of the reading ends the search. */
const LEAST_GAIN = 1e-9;

/**
 * The extremes of a reading over the box of the parts' tolerances: begun with every group at the end that its slope
 * points to, in every corner of those that move it most, however they do it, and at the starts given, then improved one group
 * at a time over both ends and the places between, which
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
  const effects = effectsOf(session, parts, groups, read);
  const order = [...groups.names.keys()].sort((a, b) => effects[b]! - effects[a]!);
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
    for (const start of [stepped, ...(options.starts ?? []), ...cornersFrom(stepped, order)])
      climb(Float64Array.from(start), at, order, () => left > 0);
    return worst;
  };
  return { low: extreme(-1), high: extreme(1) };
}

/** How far each group moves the reading at its ends, whichever way: at a peak the slopes say nothing of it. */
function effectsOf(
  session: AnalysisSession,
  parts: readonly SpreadPart[],
  groups: ReturnType<typeof groupsOf>,
  read: Reading,
): readonly number[] {
  const at = (group: number, place: number): number => {
    const deviations = new Float64Array(groups.names.length);
    deviations[group] = place;
    return read(deviated(session, parts, groups, deviations)) ?? Number.NaN;
  };
  const middle = at(0, 0);
  return groups.names.map((_, group) => {
    const moves = [at(group, -1), at(group, 1)].map((value) => Math.abs(value - middle));
    // What ends the reading is looked at first.
    return moves.some(Number.isNaN) ? Number.POSITIVE_INFINITY : moves[0]! + moves[1]!;
  });
}

/** Every corner of the groups that move the reading most, the others as they were. */
function cornersFrom(start: Float64Array, order: readonly number[]): Float64Array[] {
  const strongest = order.slice(0, CORNERS_OF);
  return Array.from({ length: 2 ** strongest.length }, (_, bits) => {
    const corner = Float64Array.from(start);
    strongest.forEach((group, k) => (corner[group] = (bits >> k) & 1 ? 1 : -1));
    return corner;
  });
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
      const isEdge = top === 0 || top === PLACES.length - 1;
      // At an end the extreme may still lie a little inside of it.
      if (top >= 0 && (!isEdge || along(place * (1 - BESIDE_END)) > value))
        [place, value] = golden(
          along,
          PLACES[Math.max(0, top - 1)]!,
          PLACES[Math.min(PLACES.length - 1, top + 1)]!,
          place,
          value,
        );
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
