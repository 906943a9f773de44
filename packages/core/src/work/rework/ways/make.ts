import { readoutDefinitionOf, type Change, type Layer, type Readout, type Step } from '@zemble/contract';
import { AnalysisSession } from '../../../analysis/analysis/index.ts';
import { evaluateReadout, unitOf } from '../../../analysis/readouts/index.ts';
import { SAFE_V } from '../../../bench/isolate/index.ts';
import { circuitAt, resolveLayer } from '../../../circuit/changes/index.ts';
import type { Circuit, LayerCircuit } from '../../../circuit/circuit/index.ts';
import { ZembleError } from '../../../base/errors/index.ts';
import { formatQuantity, isMade, nearestPreferred, preferredBetween } from '../../../base/quantity/index.ts';
import { matching, type Drawer } from '../../drawer/index.ts';
import { cannot, Place, type Chosen } from './place.ts';
import type { Answers, Ask, Draft, Found, Goal, ReadoutSpec, Stands, Unknown, Way } from './way.ts';

/** A readout that the planned circuit has, computed. */
export interface Promised {
  /** Complete: anybody can compute it on the circuit with the change. */
  readonly readout: Readout;
  readonly value: number;
  readonly unit: string;
  /** Whether it was asked to be that, to be no more, or to be no less. */
  readonly is: Goal['is'];
}

/** What came of a way of doing: a change with its values, and what it was found to do. */
export interface Made {
  readonly name: string;
  readonly steps: readonly Step[];
  readonly promises: readonly Promised[];
  /** What it does, a sentence each. */
  readonly sentences: readonly string[];
  /** What to beware of, a sentence each. */
  readonly warnings: readonly string[];
}

/** Rounds over several unknowns, each turned for its own goal. */
const ROUNDS = 4;
/** How far from its start an unknown is looked for, as a factor each way, and the factor of a first step. */
const REACH = 1000;
const FIRST_STEP = 2;
/** Closings of the bracket in which a goal is met, and how near is near enough; what takes a run in time is read seldom. */
const READ = { quick: { closings: 40, close: 1e-7 }, slow: { closings: 8, close: 3e-3 } } as const;
/** Values of the series on each side of the exact one that are tried. */
const TRIED = 2;
/** A direct voltage that moves by less than this is where it was: V, and its share. */
const REST_V = 0.01;
const REST_SHARE = 0.002;
/** Nets that are named of those that move. */
const MOST_NAMED = 4;

/** What a way of doing asks at a place of the circuit; null where it does not fit, or the circuit cannot be computed yet. */
export function asksAt(way: Way, place: Place): readonly Ask[] | null {
  try {
    const nets = place.part ? Object.values(place.part.pins) : place.net === undefined ? [] : [place.net];
    if (nets.length === 0 || nets.some((net) => place.isMains(net))) return null;
    if (way.isForHighTension !== true && place.highest > SAFE_V) return null;
    return way.asks(place);
  } catch (error) {
    if (error instanceof ZembleError) return null;
    throw error;
  }
}

/** The place that was chosen in what a circuit comes to on a layer. */
export const placeIn = (circuit: Circuit, chosen: Chosen, layer: Layer = 'planned'): Place =>
  new Place(circuitAt(circuit, layer), chosen, circuit);

/**
 * A way of doing with its values: found on the circuit with the change in it, so that loads, sources and what else is there
 * count, fitted from the series, and read again. What it promises is what that circuit reads.
 *
 * @throws {ZembleError} `rework/way` with the reason where it cannot be done, or does not come within its own limits
 */
export function makeWay(way: Way, place: Place, answers: Answers, drawer: Drawer = []): Made {
  const drafts = way.drafts(place, answers);
  let refusal: unknown = cannot('It cannot be done here.');
  for (const [i, draft] of drafts.entries()) {
    try {
      return new Attempt(place, draft, drawer).make();
    } catch (error) {
      const isRefusal = error instanceof ZembleError;
      if (!isRefusal) throw error;
      if (i === 0) refusal = error;
    }
  }
  throw refusal;
}

/** One draft of a change on its way to values. */
class Attempt {
  private readonly place: Place;
  private readonly draft: Draft;
  private readonly drawer: Drawer;
  private readonly planned: LayerCircuit;
  private readonly session: AnalysisSession;
  private values: ReadonlyMap<string, number>;
  private readonly known = new Map<string, number>();

  constructor(place: Place, draft: Draft, drawer: Drawer) {
    this.place = place;
    this.draft = draft;
    this.drawer = drawer;
    const change: Change = {
      id: 'way',
      name: draft.name,
      purpose: 'modification',
      state: 'planned',
      steps: draft.steps,
    };
    this.planned = resolveLayer({ ...place.base, changes: [change] }, 'planned');
    this.session = new AnalysisSession(this.planned);
    this.values = new Map(
      draft.unknowns.flatMap(({ refs }) => refs.map((ref) => [ref, this.startOf(ref)] as const)),
    );
  }

  private startOf(ref: string): number {
    const value = this.planned.parts.find((p) => p.ref === ref)?.value;
    if (typeof value !== 'number' || !(value > 0)) throw cannot(`${ref} has no value to begin with.`);
    return value;
  }

  make(): Made {
    this.settle(this.draft.unknowns, ROUNDS);
    this.draft.unknowns.forEach((unknown, i) => {
      this.snap(unknown);
      const rest = this.draft.unknowns.slice(i + 1);
      if (rest.length > 0) this.settle(rest, 2);
    });
    const reads = this.draft.goals.map((goal) => this.read(goal.readout, goal.stands));
    this.draft.goals.forEach((goal, i) => this.hold(goal, reads[i]!));
    const moved = this.moved();
    if (moved.length > 0 && this.draft.mayMoveRest !== true)
      throw cannot(`It would move what rests now: ${moved.join(' ')}`);
    const found = this.found(reads);
    return {
      name: this.draft.name,
      steps: this.steps(),
      promises: this.draft.goals.flatMap((goal, i) => (goal.stands ? [] : [promised(goal, reads[i]!, i)])),
      sentences: this.draft.says(found),
      warnings: [...moved, ...this.draft.traps(found)],
    };
  }

  private found(reads: readonly number[]): Found {
    return {
      reads,
      value: (ref) => this.values.get(ref) ?? this.startOf(ref),
      volts: (net) => this.at().operatingPoint()[this.at().system.node(net)]!,
      watts: (ref) => this.at().system.device(ref).report(this.at().operatingPoint()).power,
      read: (readout, stands) => this.read(readout, stands),
    };
  }

  /** The planned circuit with the values of now. */
  private at(stands?: Stands): AnalysisSession {
    const session = this.session.with({ values: this.values });
    return stands ? session.with({ controls: stands }) : session;
  }

  private read(readout: ReadoutSpec, stands?: Stands): number {
    const answer = this.answer(readout, stands);
    if (answer === null) throw cannot(this.why(readout, stands));
    return answer;
  }

  private why(readout: ReadoutSpec, stands?: Stands): string {
    const answer = evaluateReadout(this.at(stands), named(readout, 0));
    return answer.ok ? '' : answer.problem.message;
  }

  private answer(readout: ReadoutSpec, stands?: Stands): number | null {
    const key = JSON.stringify([readout, [...this.values], stands ? [...stands] : null]);
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const answer = evaluateReadout(this.at(stands), named(readout, 0));
    if (!answer.ok) return null;
    this.known.set(key, answer.value);
    return answer.value;
  }

  /** How far a goal is off with a value tried: above zero too much, NaN where there is nothing to read. */
  private off(unknown: Unknown, value: number): number {
    const before = this.values;
    this.values = with_(before, unknown, value);
    const goal = this.draft.goals[unknown.goal]!;
    const answer = this.answer(goal.readout, goal.stands);
    this.values = before;
    return answer === null ? Number.NaN : missOf(goal, answer);
  }

  /** Turns each unknown for its own goal, again and again. */
  private settle(unknowns: readonly Unknown[], rounds: number): void {
    const many = unknowns.length > 1 ? rounds : 1;
    for (let round = 0; round < many; round += 1)
      for (const unknown of unknowns) {
        const value = this.solved(unknown);
        this.values = with_(this.values, unknown, value);
      }
  }

  /** The value at which a goal is met; where none is, the one that comes closest. */
  private solved(unknown: Unknown): number {
    const start = this.values.get(unknown.refs[0]!)!;
    const goal = this.draft.goals[unknown.goal]!;
    const low = Math.max(start / REACH, unknown.least ?? 0);
    const high = Math.min(start * REACH, unknown.most ?? Infinity);
    let best = { value: start, off: this.off(unknown, start) };
    const better = (value: number, off: number) => {
      if (Number.isNaN(best.off) || Math.abs(off) < Math.abs(best.off)) best = { value, off };
    };
    const { close, closings } =
      READ[readoutDefinitionOf(goal.readout.kind).isSlow === true ? 'slow' : 'quick'];
    if (Math.abs(best.off) < close) return start;
    const bracket = this.bracket(unknown, start, low, high, better);
    if (!bracket) return best.value;
    let [a, b] = bracket;
    for (let i = 0; i < closings && b.value / a.value - 1 > close; i += 1) {
      const value = between(a, b, i);
      const off = this.off(unknown, value);
      if (Number.isNaN(off)) {
        // Where nothing can be read lies on the far side of the goal: it is come as near to as it goes.
        if (Number.isNaN(a.off)) a = { value, off };
        else b = { value, off };
        continue;
      }
      better(value, off);
      if (Math.abs(off) < close) return value;
      const isOfB = Number.isNaN(a.off) || Math.sign(off) === Math.sign(b.off);
      if (isOfB) b = { value, off };
      else a = { value, off };
    }
    return best.value;
  }

  /**
   * Two values between which the goal is met, looked for outward from the start; where there are none, between what can be
   * read and what cannot.
   */
  private bracket(
    unknown: Unknown,
    start: number,
    low: number,
    high: number,
    seen: (value: number, off: number) => void,
  ): readonly [Tried, Tried] | null {
    const tried: Tried[] = [];
    const pair = (isOne: (a: Tried, b: Tried) => boolean): readonly [Tried, Tried] | null => {
      const at = tried.findIndex((t, i) => i > 0 && isOne(tried[i - 1]!, t));
      return at < 0 ? null : [tried[at - 1]!, tried[at]!];
    };
    const look = (value: number) => {
      const off = this.off(unknown, value);
      if (!Number.isNaN(off)) seen(value, off);
      tried.push({ value, off });
      tried.sort((a, b) => a.value - b.value);
    };
    look(start);
    for (let factor = FIRST_STEP; ; factor *= FIRST_STEP) {
      const [below, above] = [Math.max(low, start / factor), Math.min(high, start * factor)];
      look(above);
      look(below);
      const met = pair((a, b) => a.off * b.off <= 0);
      if (met) return met;
      if (below <= low && above >= high) break;
    }
    return pair((a, b) => Number.isNaN(a.off) !== Number.isNaN(b.off));
  }

  /** Gives an unknown the best value that is made, or that the drawer has. */
  private snap(unknown: Unknown): void {
    const exact = this.values.get(unknown.refs[0]!)!;
    if (!isMade(exact)) throw cannot('It comes out as a value that nobody makes: ask for less, or for more.');
    const goal = this.draft.goals[unknown.goal]!;
    const isAllowed = (v: number) => v >= (unknown.least ?? 0) && v <= (unknown.most ?? Infinity);
    const series = preferredBetween(exact / 4, exact * 4, unknown.series);
    const above = series.filter((v) => v >= exact).slice(0, TRIED);
    const below = series.filter((v) => v < exact).slice(-TRIED);
    const candidates = [...new Set([nearestPreferred(exact, unknown.series), ...above, ...below])].filter(
      isAllowed,
    );
    const rate = (value: number) => {
      const off = this.off(unknown, value);
      const broken = breach(goal, off);
      return Number.isNaN(off) ? Infinity : broken * BREACH_COUNTS + Math.abs(off);
    };
    const there = this.inDrawer(unknown, exact).filter(
      (v) => isAllowed(v) && breach(goal, this.off(unknown, v)) <= goal.within,
    );
    const [best] = (there.length > 0 ? there : candidates)
      .map((value) => ({ value, rating: rate(value) }))
      .sort((a, b) => a.rating - b.rating);
    if (!best) throw cannot('No value that is made lies within what the place bears.');
    this.values = with_(this.values, unknown, best.value);
  }

  /** Values near the exact one of which the drawer has enough. */
  private inDrawer({ refs }: Unknown, exact: number): readonly number[] {
    const part = this.planned.parts.find((p) => p.ref === refs[0])!;
    const values = this.drawer.flatMap(({ value }) =>
      typeof value === 'number' && value > exact / 2 && value < exact * 2 ? [value] : [],
    );
    return [...new Set(values)].filter(
      (value) =>
        matching(this.drawer, { kind: part.kind, value }).reduce((sum, item) => sum + item.count, 0) >=
        refs.length,
    );
  }

  /** Refuses a change that does not do what was asked of it. */
  private hold(goal: Goal, value: number): void {
    const off = missOf(goal, value);
    if (breach(goal, off) <= goal.within) return;
    const unit = unitOf(named(goal.readout, 0), []);
    const words = { equal: '', most: 'at most ', least: 'at least ' }[goal.is];
    throw cannot(
      `${formatQuantity(value, unit)} is what would come of it, and ${words}${formatQuantity(goal.aim, unit)} was asked for.`,
    );
  }

  /** Direct voltages that are elsewhere with the change, in sentences. */
  private moved(): string[] {
    const { session } = this.place;
    const before = session.tryOperatingPoint();
    const after = this.at().tryOperatingPoint();
    if (!before.ok) return [];
    if (!after.ok) throw cannot(after.problem.message);
    const { system } = this.at();
    const moves = session.system.nets().flatMap(([net, i]) => {
      if (!system.hasNet(net)) return [];
      const [was, is] = [before.x[i]!, after.x[system.node(net)]!];
      const by = Math.abs(is - was);
      return by > REST_V + REST_SHARE * Math.abs(was) ? [{ net, was, is, by }] : [];
    });
    return moves
      .sort((a, b) => b.by - a.by)
      .slice(0, MOST_NAMED)
      .map(
        ({ net, was, is }) =>
          `${net} rests at ${formatQuantity(is, 'V')} then, and at ${formatQuantity(was, 'V')} now.`,
      );
  }

  /** The steps with the values that were found. */
  private steps(): Step[] {
    return this.draft.steps.map((step): Step => {
      if (step.do === 'add') {
        const value = this.values.get(step.part.ref);
        return value === undefined ? step : { ...step, part: { ...step.part, marked: value } };
      }
      const value = step.do === 'fit' ? this.values.get(step.ref) : undefined;
      return step.do === 'fit' && value !== undefined ? { ...step, value } : step;
    });
  }
}

interface Tried {
  readonly value: number;
  readonly off: number;
}

/** What breaks a limit counts this much more than what misses a target. */
const BREACH_COUNTS = 10;

/** The next value between two: by the straight line on logarithms, every third time the middle. */
function between(a: Tried, b: Tried, turn: number): number {
  const line = a.off / (a.off - b.off);
  const share = turn % 3 === 2 || Number.isNaN(line) ? 0.5 : Math.min(0.95, Math.max(0.05, line));
  return a.value * (b.value / a.value) ** share;
}

const with_ = (
  values: ReadonlyMap<string, number>,
  { refs }: Unknown,
  value: number,
): ReadonlyMap<string, number> => new Map([...values, ...refs.map((ref) => [ref, value] as const)]);

/** How far a reading is from what is asked for: in dB of a level, otherwise as a share, above zero too much. */
function missOf({ readout, aim }: Goal, value: number): number {
  const unit = unitOf(named(readout, 0), []);
  if (unit === 'dB') return value - aim;
  if (aim === 0) return value;
  return value / aim > 0 ? Math.log(value / aim) * Math.sign(aim) ** 2 : (value - aim) / Math.abs(aim);
}

/** By how much a miss breaks what was asked. */
const breach = ({ is }: Goal, off: number): number =>
  is === 'equal' ? Math.abs(off) : Math.max(0, is === 'most' ? off : -off);

const named = (readout: ReadoutSpec, index: number): Readout =>
  ({ id: `promise-${index + 1}`, name: `Promise ${index + 1}`, ...readout }) as Readout;

const promised = (goal: Goal, value: number, index: number): Promised => {
  const readout = named(goal.readout, index);
  return { readout, value, unit: unitOf(readout, []), is: goal.is };
};
