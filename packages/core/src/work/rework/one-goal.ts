import { nearestPreferred, preferredBetween, E_SERIES, type ESeries } from '../../base/quantity/index.ts';
import {
  evaluateReadout,
  type Readout,
  type ReadoutAnswer,
  type ReadoutsAround,
} from '../../analysis/readouts/index.ts';
import { candidateOf, type Candidate, type Searched } from './candidate.ts';
import type { Choices } from './choices.ts';
import { crossingsOf, walkTo, type Taken } from './crossings.ts';
import type { Aim, GoalField, Values } from './goal-field.ts';
import { valuesOf, type ValueChange } from './value-change.ts';

export interface OneGoalRequest {
  readonly field: GoalField;
  readonly around: ReadoutsAround;
  /** The parts that may change, with their values now. */
  readonly home: Values;
  readonly choices: Choices;
  readonly series: ESeries;
  readonly withPairs: boolean;
  readonly onProgress: (fraction: number) => void;
  readonly mayGoOn: () => boolean;
}

/** How far from the present value a new one is looked for, as a factor each way, and the values that are read. */
interface Reach {
  readonly factor: number;
  readonly series: ESeries;
  readonly resolution: number;
}
const ALONE: Reach = { factor: 100, series: 'E12', resolution: 1e-6 };
const TOGETHER: Reach = { factor: 100, series: 'E12', resolution: 1e-6 };
/** A reading that takes a run in time is looked for along its slope, and no closer than a part can be bought. */
const ALONE_SLOW: Reach = { factor: 100, series: 'E3', resolution: 2e-3 };
const TOGETHER_SLOW: Reach = { factor: 100, series: 'E3', resolution: 5e-3 };
/** Factor by which a part is turned to see what it does to such a reading. */
const PROBE = 1.2;
/** A step of a walk is at least that of the series, and a little more. */
const SERIES_STEP = 1.03;
/** A part whose probe moves the reading by less than this part of the wanted change does nothing. */
const NO_EFFECT = 1e-3;
/** A value this close to the present one is the present one. */
const SAME_VALUE = 1e-6;

/**
 * Values that bring one readout to where it is wanted: for each part alone what can be fitted next to the exact answer and
 * the best pairs, and for every two parts together the combinations on a coarse grid. It sees a readout that turns back over
 * a part's range, which a search along the slopes does not.
 */
export class OneGoal {
  private readonly request: OneGoalRequest;
  private readonly aim: Aim;
  private readonly isSlow: boolean;
  /** Readings of a goal that is dear, by the values read, so that none is taken twice; each is a candidate. */
  private readonly taken = new Map<string, { values: Values; answer: ReadoutAnswer }>();
  /** The goal now; null where it has no value. */
  private readonly now: number | null;
  private readonly target: number;

  constructor(request: OneGoalRequest) {
    this.request = request;
    this.aim = request.field.aims[0]!;
    this.isSlow = request.field.isSlow;
    const { middle, isLog } = this.aim;
    this.target = this.aim.want.target ?? (isLog ? Math.exp(middle) : middle);
    this.now = this.goalAt(new Map());
  }

  run(): Searched {
    const { mayGoOn, onProgress, home } = this.request;
    const may = this.isSlow ? this.byEffect() : [...home.keys()];
    const pairs = may.flatMap((a, i) => may.slice(i + 1).map((b) => [a, b] as const));
    const jobs = [
      ...may.map((ref) => () => this.single(ref)),
      ...pairs.map(
        ([a, b]) =>
          () =>
            this.joint(a, b),
      ),
    ];
    const candidates: Candidate[] = [];
    let done = 0;
    for (const job of jobs) {
      if (!mayGoOn()) break;
      candidates.push(...job());
      done += 1;
      onProgress(done / jobs.length);
    }
    candidates.push(...this.candidatesTaken());
    return { candidates, tried: jobs.length === 0 ? 1 : done / jobs.length, isWhole: done === jobs.length };
  }

  private goalAt(values: Values): number | null {
    const answer = this.goalAnswer(values);
    return answer.ok ? answer.value : null;
  }

  private goalAnswer(values: Values): ReadoutAnswer {
    const read = () => this.request.field.answers(values)[0]!;
    if (!this.isSlow) return read();
    const key = [...values].map(([ref, value]) => `${ref}=${value}`).join(' ');
    const known = this.taken.get(key);
    if (known) return known.answer;
    const answer = read();
    this.taken.set(key, { values, answer });
    return answer;
  }

  private candidate(changes: readonly ValueChange[]): Candidate[] {
    const found = candidateOf(this.request.field, changes, [this.goalAnswer(valuesOf(changes))]);
    return found ? [found] : [];
  }

  /** Every reading of a dear goal that was taken, as a candidate: its values are ones that can be fitted, or those now. */
  private candidatesTaken(): Candidate[] {
    const { home, choices, field } = this.request;
    return [...this.taken.values()].flatMap(({ values, answer }) => {
      const changes = [...values]
        .filter(([ref, value]) => value !== home.get(ref))
        .map(([ref, value]) => choices.single(ref, value));
      const found = answer.ok && changes.length > 0 ? candidateOf(field, changes, [answer]) : null;
      return found ? [found] : [];
    });
  }

  /**
   * The parts that may change, what moves the goal most first, and without those that do not move it. A range is judged by
   * the readout it is of, which is read in a fraction of its time.
   */
  private byEffect(): readonly string[] {
    const { field, around, home, mayGoOn } = this.request;
    const goal: Readout = this.aim.readout;
    const judged = (goal.kind === 'range' && around.readouts?.find((r) => r.id === goal.of)) || goal;
    const read = (values: Values) => {
      const answer = evaluateReadout(field.sessionAt(values), judged, around);
      return answer.ok ? answer.value : null;
    };
    const now = read(new Map());
    if (now === null) return [...home.keys()];
    const effects = new Map<string, number>();
    for (const [ref, value] of home) {
      if (!mayGoOn()) break;
      const probed = read(new Map([[ref, value * PROBE]]));
      // What ends the reading moves it, too.
      effects.set(ref, probed === null ? Number.POSITIVE_INFINITY : Math.abs(probed - now));
    }
    const least = NO_EFFECT * Math.abs(now);
    return [...effects.keys()]
      .filter((ref) => effects.get(ref)! > least)
      .sort((a, b) => finite(effects.get(b)!) - finite(effects.get(a)!));
  }

  /** The value of one part at which a goal that is dear to read meets its target, along its slope. */
  private walked(ref: string, reach: Reach, others: Values): number[] {
    const { home, series, choices, mayGoOn } = this.request;
    const start = home.get(ref)!;
    // Only what can be fitted is read.
    const fitted = (value: number) => (value === start ? start : choices.nearest(ref, value)[0]!.value);
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
      mayGoOn,
    });
    return found === undefined ? [] : [found];
  }

  /** Values of one part at which the goal meets its target, nearest to the present one first. */
  private crossings(ref: string, reach: Reach, others: Values): number[] {
    if (this.isSlow && this.now !== null) return this.walked(ref, reach, others);
    const start = this.request.home.get(ref)!;
    const exact = crossingsOf((value) => this.goalAt(new Map([...others, [ref, value]])), {
      places: preferredBetween(start / reach.factor, start * reach.factor, reach.series),
      target: this.target,
      resolution: reach.resolution,
      mayGoOn: this.request.mayGoOn,
    });
    const distance = (value: number) => Math.abs(Math.log(value / start));
    return exact.sort((a, b) => distance(a) - distance(b));
  }

  private single(ref: string): Candidate[] {
    const { choices, withPairs } = this.request;
    const exact = this.crossings(ref, this.isSlow ? ALONE_SLOW : ALONE, new Map()).slice(0, 2);
    return exact
      .flatMap((value) => [
        ...choices.nearest(ref, value),
        ...(withPairs && !this.isSlow ? choices.pairs(ref, value) : []),
      ])
      .flatMap((change) => this.candidate([change]));
  }

  private joint(first: string, second: string): Candidate[] {
    const { home, choices, mayGoOn, series } = this.request;
    const reach = this.isSlow ? TOGETHER_SLOW : TOGETHER;
    const start = home.get(first)!;
    const found: Candidate[] = [];
    const scanned = preferredBetween(start / reach.factor, start * reach.factor, reach.series);
    for (const value of new Set(scanned.map((v) => nearestPreferred(v, series)))) {
      const [one] = choices.nearest(first, value);
      if (!one || Math.abs(one.value / start - 1) < SAME_VALUE) continue;
      if (!mayGoOn()) break;
      const [now] = this.crossings(second, reach, new Map([[first, one.value]]));
      if (now === undefined) continue;
      const [nearest] = choices.nearest(second, now);
      if (nearest) found.push(...this.candidate([one, nearest]));
    }
    return found;
  }
}

/** What ends a reading is looked at after what moves it. */
const finite = (effect: number) => (Number.isFinite(effect) ? effect : 0);
