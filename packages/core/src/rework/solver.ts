import { readoutDefinitionOf, type Layer } from '@halfsplit/contract';
import { AnalysisSession } from '../analysis/index.ts';
import { resolveLayer } from '../changes/index.ts';
import type { Circuit, LayerCircuit, LayerPart, Setting } from '../circuit/index.ts';
import { HalfsplitError, problem } from '../errors.ts';
import { E_SERIES, nearestPreferred, preferredBetween, type ESeries } from '../quantity/index.ts';
import {
  evaluateReadout,
  outsideBy,
  wantedRange,
  type Readout,
  type ReadoutAnswer,
  type Want,
} from '../readouts/index.ts';
import { crossingsOf, walkTo, type Taken } from './crossings.ts';
import { buildable, canChange, singleChange, type ValueChange } from './value-change.ts';

/** One way to meet the goal, with what it does to everything else. */
export interface Proposal {
  readonly changes: readonly ValueChange[];
  /** Answers of all readouts, in the order given; one that was left out for want of time says so. */
  readonly answers: readonly ReadoutAnswer[];
  /** The goal's value. */
  readonly value: number;
  /** How far outside the goal, in its unit; 0 inside. */
  readonly missBy: number;
  /** Ids of readouts pushed out of their wanted range that were inside before. */
  readonly harms: readonly string[];
  /** Ids of readouts brought into their wanted range, the goal apart. */
  readonly mends: readonly string[];
}

export interface SolveRequest {
  readonly circuit: Circuit;
  readonly readouts: readonly Readout[];
  readonly settings?: readonly Setting[] | undefined;
  readonly layer: Layer;
  readonly goal: { readonly readoutId: string; readonly want: Want };
  /** Designators that may change. */
  readonly may: readonly string[];
  readonly series: ESeries;
  /** Also make values up of two parts. */
  readonly withPairs: boolean;
  readonly most: number;
}

/** Who watches a search: told the finished fraction, 0..1, and asked whether it may go on. */
export interface Watch {
  readonly onProgress?: (fraction: number) => void;
  readonly mayGoOn?: () => boolean;
}

export interface SolveAnswer {
  /** Best first. */
  readonly proposals: readonly Proposal[];
  /** False when the time ended before everything was tried: these are the best so far. */
  readonly isComplete: boolean;
  /** Share of the ways that were tried. */
  readonly tried: number;
}

/** How far from the present value a new one is looked for, as a factor each way, and the values that are read. */
interface Reach {
  readonly factor: number;
  readonly series: ESeries;
  readonly resolution: number;
}
const ALONE: Reach = { factor: 100, series: 'E12', resolution: 1e-6 };
const TOGETHER: Reach = { factor: 10, series: 'E12', resolution: 1e-6 };
/** A reading that takes a run in time is looked for along its slope, and no closer than a part can be bought. */
const ALONE_SLOW: Reach = { factor: 30, series: 'E3', resolution: 2e-3 };
const TOGETHER_SLOW: Reach = { factor: 10, series: 'E3', resolution: 5e-3 };
/** Factor by which a part is turned to see what it does to such a reading. */
const PROBE = 1.2;
/** A step of a walk is at least that of the series, and a little more. */
const SERIES_STEP = 1.03;
/** A part whose probe moves the reading by less than this part of the wanted change does nothing. */
const NO_EFFECT = 1e-3;
/** A proposal further from the goal than this part of the wanted change is not shown. */
const LARGEST_MISS = 0.35;
/** Proposals that are looked at closely, for each that is asked for. */
const CANDIDATES_A_PROPOSAL = 4;
/** A value this close to the present one is the present one. */
const SAME_VALUE = 1e-6;

/**
 * What makes a proposal come later. The order of the first three is what matters: a goal that is met comes before one that
 * is nearly met, harm to another readout outweighs soldering one part more; the rest breaks ties (common sense, tuned by
 * hand on the demo units).
 */
const COST = {
  outside: 5,
  /** For a miss as large as the whole wanted change. */
  miss: 30,
  harm: 3,
  mend: -1,
  part: 1,
  /** For a decade of travel. */
  travel: 0.6,
} as const;

/**
 * Value changes that bring one readout to where it is wanted: for each part alone the values of the E series next to
 * the exact answer and the best pairs, and for every two parts together the combinations on a coarse grid. While
 * searching only the goal is computed; the best candidates then carry all readouts, computed anew, and are ranked: inside
 * the goal first, then those that push no other readout out of its range, then by closeness, then the fewest and smallest
 * changes.
 *
 * Throws `rework/nothing-to-change`, `circuit/unknown-part`, `readout/not-defined`, or what assembling throws.
 */
export function solve(request: SolveRequest, watch: Watch = {}): SolveAnswer {
  return new ValueSearch(request, watch).run();
}

/** Changes with what they make of the goal. */
interface Candidate {
  readonly changes: readonly ValueChange[];
  readonly value: number;
  readonly missBy: number;
}

class ValueSearch {
  private readonly request: SolveRequest;
  private readonly watch: Watch;
  private readonly session: AnalysisSession;
  private readonly goal: Readout;
  private readonly isSlow: boolean;
  private readonly parts = new Map<string, LayerPart>();
  private readonly start = new Map<string, number>();
  private readonly before = new Map<string, ReadoutAnswer>();
  /** Readings of a goal that is dear, by the values read, so that none is taken twice; each is a candidate. */
  private readonly taken = new Map<string, { values: ReadonlyMap<string, number>; answer: ReadoutAnswer }>();
  /** The goal now; null where it has no value. */
  private readonly now: number | null;
  private readonly target: number;
  private readonly scale: number;

  constructor(request: SolveRequest, watch: Watch) {
    this.request = request;
    this.watch = watch;
    if (request.may.length === 0) throw new HalfsplitError('rework/nothing-to-change');
    const readout = request.readouts.find((r) => r.id === request.goal.readoutId);
    const range = wantedRange(request.goal.want);
    if (!readout || !range) {
      throw new HalfsplitError('readout/not-defined', {
        where: request.goal.readoutId,
        detail: 'no value is wanted of it',
      });
    }
    this.goal = { ...readout, want: request.goal.want };
    this.isSlow = readoutDefinitionOf(readout.kind).isSlow === true;
    const circuit = resolveLayer(request.circuit, request.layer);
    for (const ref of request.may) this.addPart(circuit, ref);
    this.session = new AnalysisSession(circuit);
    const middle = (range.low + range.high) / 2;
    this.target =
      this.goal.want?.target ??
      (Number.isFinite(middle) ? middle : Number.isFinite(range.low) ? range.low : range.high);
    this.now = this.goalAt(new Map());
    const distance = this.now === null ? Math.abs(this.target) : Math.abs(this.target - this.now);
    this.scale = Math.max(distance, Math.abs(this.target) * LEAST_SCALE, Number.MIN_VALUE);
  }

  private addPart({ parts }: LayerCircuit, ref: string): void {
    const part = parts.find((p) => p.ref === ref);
    if (!part)
      throw new HalfsplitError('circuit/unknown-part', { ref, where: 'The list of parts that may change' });
    if (!canChange(part) || typeof part.value !== 'number') {
      throw new HalfsplitError('circuit/bad-value', { ref, detail: 'its value cannot be turned' });
    }
    this.parts.set(ref, part);
    this.start.set(ref, part.value);
  }

  run(): SolveAnswer {
    const { most } = this.request;
    const may = this.isSlow ? this.byEffect() : this.request.may;
    const pairs = may.flatMap((a, i) => may.slice(i + 1).map((b) => [a, b] as const));
    const jobs = [
      ...may.map((ref) => () => this.single(ref)),
      ...pairs.map(
        ([a, b]) =>
          () =>
            this.joint(a, b),
      ),
    ];
    const found: Candidate[] = [];
    let done = 0;
    for (const job of jobs) {
      if (!this.mayGoOn()) break;
      found.push(...job());
      done += 1;
      this.watch.onProgress?.(done / jobs.length);
    }
    found.push(...this.candidatesTaken());
    const isComplete = done === jobs.length && this.mayGoOn();
    const near = distinct(found)
      .filter((c) => c.missBy <= LARGEST_MISS * this.scale)
      .sort((a, b) => this.costOf(a) - this.costOf(b))
      .slice(0, CANDIDATES_A_PROPOSAL * most);
    const quick = this.ranked(near.map((c) => this.propose(c, false))).slice(0, most);
    const proposals = this.ranked(quick.map((p) => this.completed(p)));
    return { proposals, isComplete, tried: jobs.length === 0 ? 1 : done / jobs.length };
  }

  private mayGoOn(): boolean {
    return this.watch.mayGoOn?.() !== false;
  }

  private evaluate(session: AnalysisSession, readout: Readout): ReadoutAnswer {
    const { readouts, settings } = this.request;
    return evaluateReadout(session, readout, { readouts, settings, mayGoOn: () => this.mayGoOn() });
  }

  private goalAt(values: ReadonlyMap<string, number>): number | null {
    const answer = this.goalAnswer(values);
    return answer.ok ? answer.value : null;
  }

  private goalAnswer(values: ReadonlyMap<string, number>): ReadoutAnswer {
    const session = values.size === 0 ? this.session : this.session.with({ values });
    if (!this.isSlow) return this.evaluate(session, this.goal);
    const key = [...values].map(([ref, value]) => `${ref}=${value}`).join(' ');
    const known = this.taken.get(key);
    if (known) return known.answer;
    const answer = this.evaluate(session, this.goal);
    this.taken.set(key, { values, answer });
    return answer;
  }

  /** Every reading of a dear goal that was taken, as a candidate: its values are of the series, or those now. */
  private candidatesTaken(): Candidate[] {
    return [...this.taken.values()].flatMap(({ values, answer }) => {
      const changes = [...values]
        .filter(([ref, value]) => value !== this.start.get(ref))
        .map(([ref, value]) => singleChange(ref, this.start.get(ref)!, value));
      if (!answer.ok || changes.length === 0) return [];
      return [{ changes, value: answer.value, missBy: this.missBy(answer.value) }];
    });
  }

  private missBy(value: number): number {
    return Math.abs(outsideBy(value, this.goal.want));
  }

  /**
   * The parts that may change, what moves the goal most first, and without those that do not move it. A range is judged by
   * the readout it is of, which is read in a fraction of its time.
   */
  private byEffect(): readonly string[] {
    const { readouts, may } = this.request;
    const { goal } = this;
    const judged = (goal.kind === 'range' && readouts.find((r) => r.id === goal.of)) || goal;
    const read = (values: ReadonlyMap<string, number>) => {
      const answer = this.evaluate(this.session.with({ values }), judged);
      return answer.ok ? answer.value : null;
    };
    const now = read(new Map());
    if (now === null) return may;
    const effects = new Map<string, number>();
    for (const ref of may) {
      if (!this.mayGoOn()) break;
      const probed = read(new Map([[ref, this.start.get(ref)! * PROBE]]));
      // What ends the reading moves it, too.
      effects.set(ref, probed === null ? Number.POSITIVE_INFINITY : Math.abs(probed - now));
    }
    const least = NO_EFFECT * Math.abs(now);
    return [...effects.keys()]
      .filter((ref) => effects.get(ref)! > least)
      .sort((a, b) => finite(effects.get(b)!) - finite(effects.get(a)!));
  }

  /** The value of one part at which a goal that is dear to read meets its target, along its slope. */
  private walked(ref: string, reach: Reach, others: ReadonlyMap<string, number>): number[] {
    const start = this.start.get(ref)!;
    const { series } = this.request;
    // Only what can be fitted is read.
    const fitted = (value: number) => (value === start ? start : nearestPreferred(value, series));
    const read = (value: number) => this.goalAt(new Map([...others, [ref, fitted(value)]]));
    const taken = (value: number, reading: number | null): Taken | null =>
      reading === null ? null : { value, reading };
    const first = taken(start, others.size === 0 ? this.now : read(start));
    const second =
      first && (taken(start * PROBE, read(start * PROBE)) ?? taken(start / PROBE, read(start / PROBE)));
    if (!first || !second) return [];
    const found = walkTo(read, first, second, {
      target: this.target,
      farthest: reach.factor,
      leastStride: SERIES_STEP * 10 ** (1 / E_SERIES[series].length),
      resolution: reach.resolution,
      mayGoOn: () => this.mayGoOn(),
    });
    return found === undefined ? [] : [found];
  }

  /** Values of one part at which the goal meets its target, nearest to the present one first. */
  private crossings(ref: string, reach: Reach, others: ReadonlyMap<string, number>): number[] {
    if (this.isSlow && this.now !== null) return this.walked(ref, reach, others);
    const start = this.start.get(ref)!;
    const exact = crossingsOf((value) => this.goalAt(new Map([...others, [ref, value]])), {
      places: preferredBetween(start / reach.factor, start * reach.factor, reach.series),
      target: this.target,
      resolution: reach.resolution,
      mayGoOn: () => this.mayGoOn(),
    });
    const distance = (value: number) => Math.abs(Math.log(value / start));
    return exact.sort((a, b) => distance(a) - distance(b));
  }

  private buildable(ref: string, exact: number, withPairs: boolean): ValueChange[] {
    return buildable(this.parts.get(ref)!, this.start.get(ref)!, exact, this.request.series, withPairs);
  }

  private single(ref: string): Candidate[] {
    const exact = this.crossings(ref, this.isSlow ? ALONE_SLOW : ALONE, new Map()).slice(0, 2);
    return exact
      .flatMap((value) => this.buildable(ref, value, this.request.withPairs && !this.isSlow))
      .flatMap((change) => this.candidate([change]));
  }

  private joint(first: string, second: string): Candidate[] {
    const reach = this.isSlow ? TOGETHER_SLOW : TOGETHER;
    const start = this.start.get(first)!;
    const found: Candidate[] = [];
    const scanned = preferredBetween(start / reach.factor, start * reach.factor, reach.series);
    for (const value of new Set(scanned.map((v) => nearestPreferred(v, this.request.series)))) {
      if (Math.abs(value / start - 1) < SAME_VALUE) continue;
      if (!this.mayGoOn()) break;
      const [now] = this.crossings(second, reach, new Map([[first, value]]));
      if (now === undefined) continue;
      const [nearest] = this.buildable(second, now, false);
      if (nearest) found.push(...this.candidate([singleChange(first, start, value), nearest]));
    }
    return found;
  }

  private candidate(changes: readonly ValueChange[]): Candidate[] {
    const value = this.goalAt(valuesOf(changes));
    return value === null ? [] : [{ changes, value, missBy: this.missBy(value) }];
  }

  /** A candidate with its readouts: those that take a run in time only when asked, and while there is time. */
  private propose({ changes, value, missBy }: Candidate, withSlow: boolean): Proposal {
    const session = this.session.with({ values: valuesOf(changes) });
    const { readouts } = this.request;
    const answers = readouts.map((r): ReadoutAnswer => {
      if (r.id === this.goal.id) return this.goalAnswer(valuesOf(changes));
      const isSlow = readoutDefinitionOf(r.kind).isSlow === true;
      if (isSlow && !(withSlow && this.mayGoOn())) return leftOut(r);
      return this.evaluate(session, r);
    });
    const moved = (isHarm: boolean) =>
      readouts.filter((r, i) => r.id !== this.goal.id && this.moves(r, answers[i]!, isHarm)).map((r) => r.id);
    return { changes, answers, value, missBy, harms: moved(true), mends: moved(false) };
  }

  private completed(proposal: Proposal): Proposal {
    const hasMore = proposal.answers.some((a) => !a.ok && a.problem.code === 'readout/left-out');
    return hasMore && this.mayGoOn() ? this.propose(proposal, true) : proposal;
  }

  private moves(readout: Readout, after: ReadoutAnswer, isHarm: boolean): boolean {
    if (!wantedRange(readout.want) || (!after.ok && after.problem.code === 'readout/left-out')) return false;
    const before = this.before.get(readout.id) ?? this.evaluate(this.session, readout);
    this.before.set(readout.id, before);
    const isIn = (answer: ReadoutAnswer) => answer.ok && outsideBy(answer.value, readout.want) === 0;
    return isHarm ? isIn(before) && !isIn(after) : !isIn(before) && isIn(after);
  }

  private costOf({ changes, missBy }: Candidate): number {
    const parts = changes.reduce((sum, c) => sum + c.of.length, 0);
    const travel = changes.reduce((sum, c) => sum + Math.abs(Math.log10(c.value / c.from)), 0);
    return (
      (missBy > 0 ? COST.outside : 0) +
      COST.miss * (missBy / this.scale) +
      COST.part * parts +
      COST.travel * travel
    );
  }

  private ranked(proposals: readonly Proposal[]): Proposal[] {
    const cost = (p: Proposal) => this.costOf(p) + COST.harm * p.harms.length + COST.mend * p.mends.length;
    return [...proposals].sort((a, b) => cost(a) - cost(b));
  }
}

/** What ends a reading is looked at after what moves it. */
const finite = (effect: number) => (Number.isFinite(effect) ? effect : 0);

/** Least wanted change that a miss is measured by, as a part of the target. */
const LEAST_SCALE = 1e-3;

const valuesOf = (changes: readonly ValueChange[]): ReadonlyMap<string, number> =>
  new Map(changes.map((c) => [c.ref, c.value]));

const leftOut = (readout: Readout): ReadoutAnswer => ({
  ok: false,
  problem: problem('readout/left-out', { where: readout.name }),
});

function distinct(candidates: readonly Candidate[]): Candidate[] {
  const seen = new Set<string>();
  return candidates.filter((p) => {
    const key = p.changes.map((c) => `${c.ref}=${c.value.toPrecision(6)}`).join(' ');
    return seen.has(key) ? false : seen.add(key);
  });
}
