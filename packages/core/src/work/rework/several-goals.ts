import { seededRandom } from '../../base/numeric/index.ts';
import { candidateOf, costOfChanges, keyOf, type Candidate, type Searched } from './candidate.ts';
import type { Choices } from './choices.ts';
import type { GoalField, Values } from './goal-field.ts';
import { relax, stepWithin, type Relaxed } from './relax.ts';
import { singleChange, valuesOf, type ValueChange } from './value-change.ts';

/** A group of parts that can meet the goals on a continuous scale. */
interface Plan {
  readonly group: readonly string[];
  readonly relaxed: Relaxed;
}

export interface SeveralGoalsRequest {
  readonly field: GoalField;
  /** The parts that may change, with their values now. */
  readonly home: Values;
  readonly choices: Choices;
  readonly withPairs: boolean;
  /** Candidates that are kept. */
  readonly most: number;
  readonly onProgress: (fraction: number) => void;
  readonly mayGoOn: () => boolean;
}

/** How far from its present value a part goes, as a factor. */
const REACH = 100;
/** Up to this many parts every group of them is looked at; of more, those that the slopes promise most of. */
const FEW_PARTS = 6;
const MOST_GROUPS = 60;
/** Groups that are weighed by their slopes before those are chosen. */
const MOST_GROWN = 30_000;
/** What costs this much more to solder than the least that meets the goals is not looked for. */
const SPARE_COST = 1.2;
const LARGEST_GROUP = 6;
/** Starts elsewhere, of which the best goes on, where the way from the present values ends short of the goals. */
const OTHER_STARTS = 6;
const START_SPREAD = Math.log(10);
/** Circuits computed for all groups in the first pass, times the parts of each: under two seconds for forty parts. */
const BUDGET = 70_000;
/** What one group may take of it. */
const GROUP_SHARE = 0.4;
/** What is left when that is spent goes on with this many times as much, again and again, as long as there is time. */
const MORE = 4;
const PASSES = 4;
/** Groups of which the nearest misses are shown where all parts together cannot meet the goals. */
const NEAR_MISSES = 20;
/** What the first round, in which each group is rounded once, counts of the whole. */
const FIRST_ROUND = 0.4;
/** On the natural logarithm: a step that straight slopes are trusted for. */
const FARTHEST_BY_SLOPE = 3;
/** A miss below this is rounding. */
const NO_MISS = 1e-9;

/**
 * Values that bring several goals into their ranges at once. For each group of parts, the smallest first: values on a
 * continuous scale, then one part after the other is given a value that can be fitted, nearest to the continuous one first
 * and outward for as long as the others can still make up for it; a branch ends where what was soldered so far already
 * costs more than what is kept. Complete where the values that can be made up for form one stretch for each part.
 */
export class SeveralGoals {
  private readonly request: SeveralGoalsRequest;
  private readonly kept = new Map<string, Candidate>();
  private bound = Number.POSITIVE_INFINITY;
  private leastInside = Number.POSITIVE_INFINITY;
  /** Circuits computed at which the present group ends. */
  private groupEnd = Number.POSITIVE_INFINITY;
  private allRelaxed: Relaxed | undefined;
  private readonly random = seededRandom(1);
  private readonly refs: readonly string[];
  /** The goals, and how they move with every part, as it is now. */
  private readonly now: Float64Array;
  private readonly slopesNow: readonly Float64Array[] | null;
  private budget: number;
  /** Whether the group at hand ended before its values were all tried. */
  private isCut = false;
  /** Whether all groups were looked at, not only those that slopes promise most of. */
  private hasAllGroups = true;

  constructor(request: SeveralGoalsRequest) {
    this.request = request;
    const { field, home } = request;
    this.refs = [...home.keys()];
    this.budget = BUDGET / field.size;
    this.now = field.at(new Map());
    this.slopesNow = field.slopes(
      new Map(),
      this.refs.map((ref) => ({ ref, value: home.get(ref)! })),
    );
  }

  run(): Searched {
    const { onProgress, mayGoOn } = this.request;
    const all = this.groups();
    const isHopeless = this.refs.length <= FEW_PARTS && this.ofAll.miss > NO_MISS;
    const groups = isHopeless ? all.slice(0, NEAR_MISSES) : all;
    const open: Plan[] = [];
    groups.forEach((group, i) => {
      if (!mayGoOn() || !this.isWorthwhile(group)) return;
      const relaxed = this.relaxed(group);
      this.round(group, relaxed);
      if (relaxed.miss <= NO_MISS) open.push({ group, relaxed });
      onProgress((FIRST_ROUND * (i + 1)) / groups.length);
    });
    const total = open.length;
    let left: readonly Plan[] = open;
    for (let pass = 0; pass < PASSES && left.length > 0 && mayGoOn(); pass += 1) {
      left = left.filter((plan) => !this.isTried(plan));
      onProgress(FIRST_ROUND + (1 - FIRST_ROUND) * (1 - left.length / Math.max(1, total)));
      this.budget = this.request.field.count + MORE ** (pass + 1) * (BUDGET / this.request.field.size);
    }
    const candidates = [...this.kept.values()].sort((a, b) => a.cost - b.cost);
    const tried = total === 0 ? 1 : (total - left.length) / total;
    return { candidates, tried, isWhole: left.length === 0 && this.hasAllGroups && !isHopeless && mayGoOn() };
  }

  /** Tries the values of a group within what is left for it; true when that was all of them, or it is not worth it. */
  private isTried({ group, relaxed }: Plan): boolean {
    if (!this.isWorthwhile(group)) return true;
    this.groupEnd =
      this.request.field.count + GROUP_SHARE * Math.max(0, this.budget - this.request.field.count);
    this.isCut = false;
    if (this.mayBranch()) this.branch(group, 0, [], relaxed);
    else this.isCut = true;
    return !this.isCut;
  }

  /** Nothing can come of a group that costs more to solder than everything kept, or much more than the least that does. */
  private isWorthwhile(group: readonly string[]): boolean {
    return group.length < Math.min(this.bound, this.leastInside + SPARE_COST);
  }

  /** The group's values on a continuous scale, from the present ones and, where those lead nowhere, from those of all parts. */
  private relaxed(group: readonly string[]): Relaxed {
    const { home } = this.request;
    const columns = group.map((ref) => this.refs.indexOf(ref));
    const known = this.slopesNow?.map((row) => Float64Array.from(columns, (k) => row[k]!)) ?? null;
    const from = (values: Values, slopes: readonly Float64Array[] | null) =>
      this.relax(new Map(group.map((ref) => [ref, values.get(ref)!])), new Map(), slopes);
    const near = from(home, known);
    if (near.miss <= NO_MISS || this.refs.length > FEW_PARTS) return near;
    const all = this.ofAll;
    if (all.miss > NO_MISS) return near;
    const far = from(all.values, null);
    return far.miss < near.miss ? far : near;
  }

  /** All parts together, of few: from the present values and from elsewhere; where they cannot do it, none of them can. */
  private get ofAll(): Relaxed {
    if (this.allRelaxed) return this.allRelaxed;
    const { home, field, mayGoOn } = this.request;
    let best = this.relax(home, new Map(), this.slopesNow);
    for (let i = 0; i < OTHER_STARTS && best.miss > NO_MISS && !field.isSlow && mayGoOn(); i += 1) {
      const start = new Map(
        [...home].map(([ref, value]) => [ref, value * Math.exp(START_SPREAD * (2 * this.random() - 1))]),
      );
      const other = this.relax(start, new Map(), null);
      if (other.miss < best.miss) best = other;
    }
    return (this.allRelaxed = best);
  }

  /** Gives each part of a group in turn the nearest value that can be fitted, the others making up for it. */
  private round(group: readonly string[], relaxed: Relaxed): void {
    const { choices, withPairs, home } = this.request;
    let rest = relaxed;
    const changes: ValueChange[] = [];
    for (const [i, ref] of group.entries()) {
      const exact = rest.values.get(ref)!;
      if (i === group.length - 1) {
        const last = [...choices.nearest(ref, exact), ...(withPairs ? choices.pairs(ref, exact) : [])];
        for (const change of last) if (change.value !== home.get(ref)) this.leaf([...changes, change]);
        return;
      }
      const near = choices.nearest(ref, exact).find((c) => c.value !== home.get(ref));
      if (!near) return;
      changes.push(near);
      rest = this.without(group, i, changes, rest);
    }
  }

  /** The rest of a group relaxed with its first parts fitted. */
  private without(
    group: readonly string[],
    index: number,
    changes: readonly ValueChange[],
    before: Relaxed,
  ): Relaxed {
    const rest = group.slice(index + 1);
    return this.relax(
      new Map(rest.map((r) => [r, before.values.get(r)!])),
      valuesOf(changes),
      before.slopes?.map((row) => row.slice(1)) ?? null,
      true,
    );
  }

  private relax(
    free: Values,
    fixed: Values,
    slopes: readonly Float64Array[] | null,
    isRough = false,
  ): Relaxed {
    const { field, home, mayGoOn } = this.request;
    return relax(field, { free, fixed, home, slopes, isRough, reach: REACH, mayGoOn });
  }

  /** Gives the parts of a group from `index` on values that can be fitted. */
  private branch(
    group: readonly string[],
    index: number,
    changes: readonly ValueChange[],
    relaxed: Relaxed,
  ): void {
    const ref = group[index]!;
    const isLast = index === group.length - 1;
    const { choices, home, withPairs } = this.request;
    const exact = relaxed.values.get(ref)!;
    const values = choices.values(ref);
    let above = values.findIndex((v) => v >= exact);
    if (above < 0) above = values.length;
    // Towards the present value first: what costs least is found early, and bounds the rest.
    const isDown = home.get(ref)! < exact;
    const visit = (value: number): boolean => {
      const change = choices.single(ref, value);
      return isLast
        ? this.leaf([...changes, change])
        : this.inner(group, index, [...changes, change], relaxed);
    };
    for (const down of [isDown, !isDown]) {
      for (let k = 0; ; k += 1) {
        const value = values[down ? above - 1 - k : above + k];
        if (value === undefined) break;
        if (!this.mayBranch()) {
          this.isCut = true;
          break;
        }
        if (value === home.get(ref)) continue;
        const isAway = down ? value < home.get(ref)! : value > home.get(ref)!;
        const costs = costOfChanges([...changes, singleChange(ref, home.get(ref)!, value)]);
        if (isAway && costs + (group.length - 1 - index) >= this.bound) break;
        if (!visit(value) && k > 0) break;
      }
    }
    if (isLast && withPairs && relaxed.miss <= NO_MISS)
      for (const made of choices.pairs(ref, exact)) this.leaf([...changes, made]);
  }

  private mayBranch(): boolean {
    const { count } = this.request.field;
    return count < Math.min(this.groupEnd, this.budget) && this.request.mayGoOn();
  }

  /** Goes on with one value more fitted; false where the rest cannot make up for it. */
  private inner(
    group: readonly string[],
    index: number,
    changes: readonly ValueChange[],
    before: Relaxed,
  ): boolean {
    const relaxed = this.without(group, index, changes, before);
    this.branch(group, index + 1, changes, relaxed);
    return relaxed.miss <= NO_MISS;
  }

  /** Keeps what all values of a group make of the goals; false where it is outside. */
  private leaf(changes: readonly ValueChange[]): boolean {
    const { field } = this.request;
    const goals = field.answers(valuesOf(changes));
    const candidate = candidateOf(field, changes, goals);
    if (candidate) this.keep(candidate);
    const isInside = field.isInside(goals);
    if (candidate && isInside) this.leastInside = Math.min(this.leastInside, candidate.cost);
    return isInside;
  }

  private keep(candidate: Candidate): void {
    const { most } = this.request;
    if (candidate.cost >= this.bound) return;
    this.kept.set(keyOf(candidate.changes), candidate);
    if (this.kept.size < 2 * most) return;
    const sorted = [...this.kept.entries()].sort(([, a], [, b]) => a.cost - b.cost).slice(0, most);
    this.kept.clear();
    for (const [key, c] of sorted) this.kept.set(key, c);
    this.bound = sorted.at(-1)![1].cost;
  }

  /** Groups of parts, those of the fewest first, and of equal ones those that straight slopes promise most of. */
  private groups(): string[][] {
    const { refs } = this;
    const largest = Math.min(LARGEST_GROUP, refs.length);
    const slopes = this.slopesNow;
    const promise = (group: readonly number[]) => (slopes ? this.promise(slopes, group) : 0);
    const rank = (groups: readonly (readonly number[])[]) =>
      groups
        .map((group) => ({ group, promise: promise(group) }))
        .sort((a, b) => a.promise - b.promise)
        .map(({ group }) => group);
    const isFew = refs.length <= FEW_PARTS;
    let before: (readonly number[])[] = [[]];
    const all: (readonly number[])[] = [];
    for (let size = 1; size <= largest; size += 1) {
      const grown = new Map<string, readonly number[]>();
      for (const group of before)
        for (let i = 0; i < refs.length; i += 1) {
          if (group.includes(i)) continue;
          const next = [...group, i].sort((a, b) => a - b);
          grown.set(next.join(), next);
        }
      const ranked = rank([...grown.values()]);
      const shown = isFew ? ranked : ranked.slice(0, MOST_GROUPS);
      if (shown.length < ranked.length) this.hasAllGroups = false;
      // Of few single parts and pairs all are grown from, whatever the slopes at hand promise.
      before = isFew ? ranked : ranked.slice(0, size > 2 ? MOST_GROUPS : MOST_GROWN / refs.length);
      all.push(...shown);
    }
    return all.map((group) => group.map((i) => refs[i]!));
  }

  /** What straight slopes leave of the goals when a group moves as far as they are trusted, with the way it goes. */
  private promise(slopes: readonly Float64Array[], group: readonly number[]): number {
    const { field } = this.request;
    const { now } = this;
    const residuals = field.aims.map(({ middle, scale }, i) =>
      Number.isNaN(now[i]!) ? 1 : (now[i]! - middle) / scale,
    );
    const jacobian = slopes.map((row, g) => Float64Array.from(group, (i) => row[i]! / field.aims[g]!.scale));
    const step = stepWithin(jacobian, residuals, FARTHEST_BY_SLOPE);
    const left = residuals.reduce(
      (sum, r, g) => sum + Math.abs(r + step.reduce((m, s, k) => m + s * jacobian[g]![k]!, 0)),
      0,
    );
    return left + BY_WAY * Math.hypot(...step);
  }
}

/** What a way of e counts beside a miss as large as the wanted change. */
const BY_WAY = 0.05;
