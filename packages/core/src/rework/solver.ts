import type { Layer } from '@halfsplit/contract';
import { BenchModel } from '../analysis/index.ts';
import { KINDS, valueOnLayer, type Circuit, type Part, type Readout, type Want } from '../circuit/index.ts';
import { HalfsplitError } from '../errors.ts';
import {
  bestPair,
  nearestPreferred,
  preferredBetween,
  stepPreferred,
  type ESeries,
  type PairKind,
} from '../quantity/index.ts';
import { evaluateReadout, outsideBy, wantedRange, type ReadoutAnswer } from '../readouts/index.ts';

/** One part's new value and how it is made up. */
export interface ValueChange {
  readonly ref: string;
  readonly from: number;
  readonly value: number;
  readonly made: 'single' | 'series' | 'parallel';
  /** The preferred values it is made of, larger first. */
  readonly of: readonly number[];
}

/** One way to meet the goal, with what it does to everything else. */
export interface Proposal {
  readonly changes: readonly ValueChange[];
  /** Answers of all readouts, in the order given. */
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
  readonly layer: Layer;
  readonly goal: { readonly readoutId: string; readonly want: Want };
  /** Designators that may change. */
  readonly may: readonly string[];
  readonly series: ESeries;
  /** Also make values up of two parts. */
  readonly withPairs: boolean;
  readonly most: number;
}

/** How far from the present value a new one is looked for, as a factor each way. */
const REACH = 100;
/** Values scanned for each part to find where the goal is crossed. */
const SCAN_SERIES: ESeries = 'E12';
/** Coarser scan of the first of two parts that change together, and its reach. */
const JOINT_SERIES: ESeries = 'E12';
const JOINT_REACH = 10;
const BISECTIONS = 24;
/** A proposal further from the goal than this part of the wanted change is not shown. */
const LARGEST_MISS = 0.35;

/** True for parts whose value the solver can turn. */
export function canChange(part: Part): boolean {
  const { value } = KINDS[part.kind];
  return (
    (value === 'resistor' || value === 'capacitor' || value === 'inductor') &&
    typeof valueOnLayer(part, 'planned')?.value === 'number'
  );
}

const pairKindOf = (part: Part): PairKind => {
  const { value } = KINDS[part.kind];
  return value === 'capacitor' ? 'capacitor' : value === 'inductor' ? 'inductor' : 'resistor';
};

/**
 * Value changes that bring one readout to where it is wanted: for each part alone the values of the E series next to
 * the exact answer and the best pairs, and for every two parts together the combinations on a coarse grid. Every
 * proposal carries all readouts recomputed, and they are ranked: inside the goal first, then those that push no
 * other readout out of its range, then by closeness, then the fewest and smallest changes.
 *
 * @param onProgress is told the finished fraction, 0..1
 * Throws `rework/nothing-to-change`, `circuit/unknown-part`, `readout/not-defined`, or what assembling throws.
 */
export function solve(request: SolveRequest, onProgress: (fraction: number) => void = () => {}): Proposal[] {
  const search = new ValueSearch(request);
  const refs = request.may;
  const jobs = refs.length + (refs.length * (refs.length - 1)) / 2;
  let done = 0;
  const step = () => onProgress((done += 1) / jobs);
  const found: Proposal[] = [];
  for (const ref of refs) {
    found.push(...search.single(ref));
    step();
  }
  for (let i = 0; i < refs.length; i += 1) {
    for (let j = i + 1; j < refs.length; j += 1) {
      found.push(...search.joint(refs[i]!, refs[j]!));
      step();
    }
  }
  return rank(distinct(found), search.scale).slice(0, request.most);
}

class ValueSearch {
  readonly scale: number;
  private readonly request: SolveRequest;
  private readonly model: BenchModel;
  private readonly goal: Readout;
  private readonly parts = new Map<string, Part>();
  private readonly start = new Map<string, number>();
  private readonly before: readonly ReadoutAnswer[];
  private readonly target: number;

  constructor(request: SolveRequest) {
    this.request = request;
    if (request.may.length === 0) throw new HalfsplitError('rework/nothing-to-change');
    const readout = request.readouts.find((r) => r.id === request.goal.readoutId);
    if (!readout || !wantedRange(request.goal.want)) {
      throw new HalfsplitError('readout/not-defined', {
        where: request.goal.readoutId,
        detail: 'no value is wanted of it',
      });
    }
    this.goal = { ...readout, want: request.goal.want };
    for (const ref of request.may) {
      const part = request.circuit.parts.find((p) => p.ref === ref);
      const value = part && valueOnLayer(part, request.layer)?.value;
      if (!part)
        throw new HalfsplitError('circuit/unknown-part', { ref, where: 'The list of parts that may change' });
      if (!canChange(part) || typeof value !== 'number') {
        throw new HalfsplitError('circuit/bad-value', { ref, detail: 'its value cannot be turned' });
      }
      this.parts.set(ref, part);
      this.start.set(ref, value);
    }
    this.model = new BenchModel(request.circuit, request.layer);
    this.before = request.readouts.map((r) => evaluateReadout(this.model, r));
    const range = wantedRange(this.goal.want)!;
    const middle = (range.low + range.high) / 2;
    this.target =
      this.goal.want?.target ??
      (Number.isFinite(middle) ? middle : Number.isFinite(range.low) ? range.low : range.high);
    const now = this.goalValue();
    const distance = now === null ? Math.abs(this.target) : Math.abs(this.target - now);
    this.scale = Math.max(distance, Math.abs(this.target) * 1e-3, 1e-12);
  }

  private goalValue(): number | null {
    const answer = evaluateReadout(this.model, this.goal);
    return answer.ok ? answer.value : null;
  }

  private goalAt(ref: string, value: number): number | null {
    this.model.retune(ref, value);
    return this.goalValue();
  }

  private restore(): void {
    for (const [ref, value] of this.start) this.model.retune(ref, value);
  }

  /** Values of one part at which the goal crosses its target, by scan and bisection. */
  private crossings(ref: string, reach: number): number[] {
    const start = this.start.get(ref)!;
    const exact: number[] = [];
    let before: { value: number; miss: number } | null = null;
    for (const value of preferredBetween(start / reach, start * reach, SCAN_SERIES)) {
      const reading = this.goalAt(ref, value);
      const miss = reading === null ? null : reading - this.target;
      if (miss !== null && before !== null && before.miss * miss <= 0)
        exact.push(this.bisect(ref, before.value, value, before.miss));
      before = miss === null ? null : { value, miss };
    }
    return exact;
  }

  private bisect(ref: string, low: number, high: number, missAtLow: number): number {
    for (let i = 0; i < BISECTIONS; i += 1) {
      const middle = Math.sqrt(low * high);
      const reading = this.goalAt(ref, middle);
      if (reading !== null && (reading - this.target) * missAtLow > 0) low = middle;
      else high = middle;
    }
    return Math.sqrt(low * high);
  }

  /** Buildable values next to an exact one. */
  private buildable(ref: string, exact: number, withPairs: boolean): ValueChange[] {
    const { series } = this.request;
    const kind = pairKindOf(this.parts.get(ref)!);
    const from = this.start.get(ref)!;
    const nearest = nearestPreferred(exact, series);
    const other = stepPreferred(nearest, nearest > exact ? -1 : 1, series);
    const singles = [nearest, other].map((value): ValueChange => ({
      ref,
      from,
      value,
      made: 'single',
      of: [value],
    }));
    if (!withPairs) return singles;
    const pairs = (['series', 'parallel'] as const).map((wiring): ValueChange => {
      const pair = bestPair(exact, series, wiring, kind);
      return { ref, from, value: pair.value, made: wiring, of: pair.values };
    });
    return [...singles, ...pairs];
  }

  single(ref: string): Proposal[] {
    const exact = this.crossings(ref, REACH);
    const start = this.start.get(ref)!;
    exact.sort((a, b) => Math.abs(Math.log(a / start)) - Math.abs(Math.log(b / start)));
    const changes = exact.slice(0, 2).flatMap((value) => this.buildable(ref, value, this.request.withPairs));
    return changes.flatMap((change) => this.propose([change]));
  }

  joint(first: string, second: string): Proposal[] {
    const start = this.start.get(first)!;
    const found: Proposal[] = [];
    const scanned = preferredBetween(start / JOINT_REACH, start * JOINT_REACH, JOINT_SERIES);
    for (const value of new Set(scanned.map((v) => nearestPreferred(v, this.request.series)))) {
      if (Math.abs(value / start - 1) < 1e-6) continue;
      this.restore();
      this.model.retune(first, value);
      const now = nearestOf(this.crossings(second, JOINT_REACH), this.start.get(second)!);
      if (now === undefined) continue;
      const change: ValueChange = { ref: first, from: start, value, made: 'single', of: [value] };
      const [nearest] = this.buildable(second, now, false);
      if (nearest) found.push(...this.propose([change, nearest]));
    }
    return found;
  }

  private propose(changes: readonly ValueChange[]): Proposal[] {
    this.restore();
    for (const { ref, value } of changes) this.model.retune(ref, value);
    const { readouts } = this.request;
    const answers = readouts.map((r) => evaluateReadout(this.model, r));
    this.restore();
    const goal = answers[readouts.findIndex((r) => r.id === this.goal.id)];
    if (!goal?.ok) return [];
    const missBy = Math.abs(outsideBy(goal.value, this.goal.want));
    const moved = (isHarm: boolean) =>
      readouts
        .filter((r, i) => r.id !== this.goal.id && this.moves(r, this.before[i]!, answers[i]!, isHarm))
        .map((r) => r.id);
    return [{ changes, answers, value: goal.value, missBy, harms: moved(true), mends: moved(false) }];
  }

  private moves(readout: Readout, before: ReadoutAnswer, after: ReadoutAnswer, isHarm: boolean): boolean {
    const isIn = (answer: ReadoutAnswer) => answer.ok && outsideBy(answer.value, readout.want) === 0;
    return isHarm ? isIn(before) && !isIn(after) : !isIn(before) && isIn(after);
  }
}

function nearestOf(values: readonly number[], start: number): number | undefined {
  return [...values].sort((a, b) => Math.abs(Math.log(a / start)) - Math.abs(Math.log(b / start)))[0];
}

function distinct(proposals: readonly Proposal[]): Proposal[] {
  const seen = new Set<string>();
  return proposals.filter((p) => {
    const key = p.changes.map((c) => `${c.ref}=${c.value.toPrecision(6)}`).join(' ');
    return seen.has(key) ? false : seen.add(key);
  });
}

/** Cost of a proposal: what is worse comes later. */
function cost(p: Proposal, scale: number): number {
  const parts = p.changes.reduce((sum, c) => sum + c.of.length, 0);
  const travel = p.changes.reduce((sum, c) => sum + Math.abs(Math.log10(c.value / c.from)), 0);
  return (
    (p.missBy > 0 ? 5 : 0) +
    30 * (p.missBy / scale) +
    3 * p.harms.length -
    p.mends.length +
    parts +
    0.6 * travel
  );
}

function rank(proposals: readonly Proposal[], scale: number): Proposal[] {
  return proposals
    .filter((p) => p.missBy <= LARGEST_MISS * scale)
    .sort((a, b) => cost(a, scale) - cost(b, scale));
}
