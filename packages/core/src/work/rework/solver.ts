import { readoutDefinitionOf, type Layer } from '@zemble/contract';
import { AnalysisSession } from '../../analysis/analysis/index.ts';
import { resolveLayer } from '../../circuit/changes/index.ts';
import type { Circuit, LayerCircuit, LayerPart, Setting } from '../../circuit/circuit/index.ts';
import type { Drawer } from '../drawer/index.ts';
import { ZembleError, problem } from '../../base/errors/index.ts';
import { bearingsOf, checkRatings } from '../../bench/judge/index.ts';
import type { ESeries } from '../../base/quantity/index.ts';
import {
  evaluateReadout,
  outsideBy,
  unitOf,
  wantedRange,
  type Readout,
  type ReadoutAnswer,
} from '../../analysis/readouts/index.ts';
import { candidateOf, COST, distinct, type Candidate, type Searched } from './candidate.ts';
import { SeriesChoices, type Choices } from './choices.ts';
import { DrawerChoices } from './drawer-choices.ts';
import { GoalField, missBy, type Goal } from './goal-field.ts';
import { OneGoal } from './one-goal.ts';
import { SeveralGoals } from './several-goals.ts';
import { canChange, valuesOf, type ValueChange } from './value-change.ts';
import { yieldOf, type Yield } from './yield.ts';

/** What a proposal makes of one goal. */
export interface GoalMet {
  readonly readoutId: string;
  /** Null where it has none. */
  readonly value: number | null;
  /** How far outside what is wanted, in its unit; 0 inside. */
  readonly missBy: number;
}

/** One way to meet the goals, with what it does to everything else. */
export interface Proposal {
  readonly changes: readonly ValueChange[];
  /** Answers of all readouts, in the order given; one that was left out for want of time says so. */
  readonly answers: readonly ReadoutAnswer[];
  /** The goals in the order given, what is kept after them. */
  readonly goals: readonly GoalMet[];
  /** Whether every firm goal is inside. */
  readonly isInside: boolean;
  /** Ids of readouts pushed out of their wanted range that were inside before. */
  readonly harms: readonly string[];
  /** Ids of readouts brought into their wanted range, the goals apart. */
  readonly mends: readonly string[];
  /** What it asks of parts beyond their ratings that was not asked before, a sentence each. */
  readonly limits: readonly string[];
  /** How many of many such builds come out inside; absent where the goals take too long for it. */
  readonly yield?: Yield;
}

export interface SolveRequest {
  readonly circuit: Circuit;
  readonly readouts: readonly Readout[];
  readonly settings?: readonly Setting[] | undefined;
  readonly layer: Layer;
  /** At least one. */
  readonly goals: readonly Goal[];
  /** Ids of readouts that are to stay about where they are. */
  readonly keep?: readonly string[] | undefined;
  /** Designators that may change. */
  readonly may: readonly string[];
  readonly series: ESeries;
  /** What is there: its values come first, those of the series must be bought. */
  readonly drawer?: Drawer | undefined;
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
  /** Whether every group of parts was tried to the end or ruled out; otherwise these are the best so far. */
  readonly isComplete: boolean;
  /** Share of the ways that were tried to the end: of many parts for many goals not every combination is. */
  readonly tried: number;
  /** Why there is nothing, where a goal has no value at all. */
  readonly reason?: string;
}

/** Candidates that are looked at closely, for each that is asked for. */
const CANDIDATES_A_PROPOSAL = 4;
/** What is kept may move by this: a level in dB, anything else by its part. */
const KEPT_WITHIN = { dB: 1, part: 0.1 } as const;

/**
 * Value changes that bring readouts to where they are wanted. While searching only the goals are computed; the best
 * candidates then carry all readouts, computed anew, and are ranked: inside the goals first, then those that push no other
 * readout out of its range and no part over its rating, then by closeness, then the fewest and smallest changes, what the
 * drawer has before what must be bought.
 *
 * Throws `rework/nothing-to-change`, `circuit/unknown-part`, `readout/not-defined`, or what assembling throws.
 */
export function solve(request: SolveRequest, watch: Watch = {}): SolveAnswer {
  return new ValueSearch(request, watch).run();
}

class ValueSearch {
  private readonly request: SolveRequest;
  private readonly watch: Watch;
  private readonly circuit: LayerCircuit;
  private readonly session: AnalysisSession;
  private readonly field: GoalField;
  private readonly parts = new Map<string, LayerPart>();
  private readonly before = new Map<string, ReadoutAnswer>();
  private readonly overBefore: ReadonlySet<string>;
  private choices!: Choices;

  constructor(request: SolveRequest, watch: Watch) {
    this.request = request;
    this.watch = watch;
    if (request.may.length === 0) throw new ZembleError('rework/nothing-to-change');
    this.circuit = resolveLayer(request.circuit, request.layer);
    for (const ref of request.may) this.addPart(ref);
    this.session = new AnalysisSession(this.circuit);
    const kept = (request.keep ?? []).map((id) => this.keptGoal(id));
    this.field = new GoalField(this.session, [...request.goals, ...kept], this.around);
    this.overBefore = new Set(checkRatings(this.circuit).map((p) => p.ref ?? ''));
  }

  private get around() {
    const { readouts, settings } = this.request;
    return { readouts, settings, mayGoOn: () => this.mayGoOn() };
  }

  private addPart(ref: string): void {
    const part = this.circuit.parts.find((p) => p.ref === ref);
    if (!part)
      throw new ZembleError('circuit/unknown-part', { ref, where: 'The list of parts that may change' });
    if (!canChange(part) || typeof part.value !== 'number')
      throw new ZembleError('circuit/bad-value', { ref, detail: 'its value cannot be turned' });
    this.parts.set(ref, part);
  }

  /** A readout that is to stay, as a goal about its value now. */
  private keptGoal(id: string): Goal {
    const readout = this.request.readouts.find((r) => r.id === id);
    const answer = readout && evaluateReadout(this.session, readout, this.around);
    if (!answer?.ok)
      throw new ZembleError('readout/not-defined', {
        where: readout?.name ?? id,
        detail: answer ? answer.problem.message : 'there is no such readout to keep',
      });
    const isLevel = unitOf(readout!, this.request.readouts) === 'dB';
    const within = isLevel ? KEPT_WITHIN.dB : KEPT_WITHIN.part * Math.abs(answer.value);
    return { readoutId: id, want: { target: answer.value, within } };
  }

  run(): SolveAnswer {
    const { most } = this.request;
    const { candidates, tried, isWhole } = this.search();
    const isComplete = isWhole && this.mayGoOn();
    const best = distinct(candidates)
      .sort((a, b) => a.cost - b.cost)
      .slice(0, CANDIDATES_A_PROPOSAL * most);
    const near = distinct(best.map((c) => this.leanest(c)));
    const quick = ranked(near.map((c) => this.propose(c, false))).slice(0, most);
    const proposals = ranked(quick.map((p) => this.completed(p))).map(({ proposal }) => proposal);
    const reason = proposals.length === 0 ? this.reason() : undefined;
    return { proposals, isComplete, tried, ...(reason === undefined ? {} : { reason }) };
  }

  /** The first goal that has no value now, with why. */
  private reason(): string | undefined {
    const without = this.field.answers(new Map()).find((answer) => !answer.ok);
    return without && !without.ok ? without.problem.message : undefined;
  }

  /** A candidate without the changes that it does not need: where it is inside, with what the drawer has for what is left. */
  private leanest(candidate: Candidate): Candidate {
    const { field } = this;
    const asIs = this.made(candidate.changes, candidate.goals) ?? candidate;
    if (!field.isInside(candidate.goals)) return asIs;
    let least = asIs;
    for (const changes of subsetsOf(candidate.changes)) {
      const goals = field.answers(valuesOf(changes));
      const smaller = field.isInside(goals) ? this.made(changes, goals) : null;
      if (smaller && smaller.cost < least.cost) least = smaller;
    }
    return least;
  }

  private made(changes: readonly ValueChange[], goals: Candidate['goals']): Candidate | null {
    return candidateOf(this.field, this.choices.supplied(changes), goals);
  }

  private search(): Searched {
    const { series, withPairs, drawer, most } = this.request;
    const { field } = this;
    const home = new Map([...this.parts].map(([ref, part]) => [ref, part.value as number]));
    this.choices = drawer
      ? new DrawerChoices(this.parts, series, drawer, bearingsOf(this.session))
      : new SeriesChoices(this.parts, series);
    const shared = {
      field,
      home,
      choices: this.choices,
      withPairs,
      onProgress: (fraction: number) => this.watch.onProgress?.(fraction),
      mayGoOn: () => this.mayGoOn(),
    };
    return field.aims.length === 1
      ? new OneGoal({ ...shared, around: this.around, series }).run()
      : new SeveralGoals({ ...shared, most: 2 * most }).run();
  }

  private mayGoOn(): boolean {
    return this.watch.mayGoOn?.() !== false;
  }

  /** A candidate with its readouts: those that take a run in time only when asked, and while there is time. */
  private propose(candidate: Candidate, withSlow: boolean): Ranked {
    const { changes, goals } = candidate;
    const { readouts } = this.request;
    const { aims } = this.field;
    const session = this.field.sessionAt(valuesOf(changes));
    const goalOf = new Map(aims.map((aim, i) => [aim.readout.id, goals[i]!]));
    const answers = readouts.map((r): ReadoutAnswer => {
      const known = goalOf.get(r.id);
      if (known) return known;
      const isSlow = readoutDefinitionOf(r.kind).isSlow === true;
      if (isSlow && !(withSlow && this.mayGoOn())) return leftOut(r);
      return evaluateReadout(session, r, this.around);
    });
    const moved = (isHarm: boolean) =>
      readouts.filter((r, i) => !goalOf.has(r.id) && this.moves(r, answers[i]!, isHarm)).map((r) => r.id);
    const limits = checkRatings(session.circuit)
      .filter((p) => !this.overBefore.has(p.ref ?? ''))
      .map((p) => p.message);
    const spread = withSlow && !this.field.isSlow && this.mayGoOn() ? this.yieldOf(candidate) : undefined;
    const proposal: Proposal = {
      changes,
      answers,
      goals: aims.map(({ readout, want }, i) => ({
        readoutId: readout.id,
        value: goals[i]!.ok ? goals[i]!.value : null,
        missBy: missBy(goals[i]!, want),
      })),
      isInside: this.field.isInside(goals),
      harms: moved(true),
      mends: moved(false),
      limits,
      ...(spread ? { yield: spread } : {}),
    };
    const cost =
      candidate.cost +
      COST.harm * proposal.harms.length +
      COST.limit * limits.length +
      COST.mend * proposal.mends.length;
    return { candidate, proposal, cost };
  }

  private yieldOf({ changes }: Candidate): Yield | undefined {
    return yieldOf(this.field, this.request, changes);
  }

  private completed(quick: Ranked): Ranked {
    return this.mayGoOn() ? this.propose(quick.candidate, true) : quick;
  }

  private moves(readout: Readout, after: ReadoutAnswer, isHarm: boolean): boolean {
    if (!wantedRange(readout.want) || (!after.ok && after.problem.code === 'readout/left-out')) return false;
    const before = this.before.get(readout.id) ?? evaluateReadout(this.session, readout, this.around);
    this.before.set(readout.id, before);
    const isIn = (answer: ReadoutAnswer) => answer.ok && outsideBy(answer.value, readout.want) === 0;
    return isHarm ? isIn(before) && !isIn(after) : !isIn(before) && isIn(after);
  }
}

/** Every proper choice of changes out of a few, the smallest first; of many, each with one left out. */
function subsetsOf(changes: readonly ValueChange[]): readonly (readonly ValueChange[])[] {
  if (changes.length > MOST_CHOSEN) return changes.map((_, i) => changes.filter((_c, k) => k !== i));
  const all = Array.from({ length: 2 ** changes.length - 2 }, (_, bits) =>
    changes.filter((_c, k) => ((bits + 1) >> k) & 1),
  );
  return all.sort((a, b) => a.length - b.length);
}
const MOST_CHOSEN = 5;

interface Ranked {
  readonly candidate: Candidate;
  readonly proposal: Proposal;
  readonly cost: number;
}

const ranked = (proposals: readonly Ranked[]): Ranked[] => [...proposals].sort((a, b) => a.cost - b.cost);

const leftOut = (readout: Readout): ReadoutAnswer => ({
  ok: false,
  problem: problem('readout/left-out', { where: readout.name }),
});
