import { readoutDefinitionOf } from '@zemble/contract';
import type { AnalysisSession, TurnedPart } from '../../analysis/analysis/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import {
  evaluateReadout,
  outsideBy,
  readoutSlopes,
  unitOf,
  wantedRange,
  type Readout,
  type ReadoutAnswer,
  type ReadoutsAround,
  type Want,
} from '../../analysis/readouts/index.ts';

/** A readout that is to come into a range. */
export interface Goal {
  readonly readoutId: string;
  readonly want: Want;
}

/** Values of parts by designator, in the unit of each. */
export type Values = ReadonlyMap<string, number>;

/** A goal with the measure its misses are taken by: on the logarithm where the readout is one of a quantity above zero. */
export interface Aim {
  readonly readout: Readout;
  readonly want: Want;
  /** Weight of a wish; null for a firm goal. */
  readonly wish: number | null;
  readonly isLog: boolean;
  /** The wanted range in that measure; either end may be open. */
  readonly low: number;
  readonly high: number;
  /** Where in it to stand. */
  readonly middle: number;
  /** What a miss is measured by: the way to go, or the width of the range. */
  readonly scale: number;
}

/** Least measure of a miss: of a quantity on its logarithm, of a level in dB, and of anything else as a part of it. */
const LEAST_SCALE = { log: 0.02, dB: 0.2, part: 1e-3 } as const;

/** The goals of a search as functions of the values that may change. */
export class GoalField {
  readonly aims: readonly Aim[];
  readonly isSlow: boolean;
  /** About how many circuits were computed. */
  count = 0;
  /** Parts of the circuit. */
  readonly size: number;
  private readonly session: AnalysisSession;
  private readonly around: ReadoutsAround;

  /** Throws `readout/not-defined` for a goal without a readout or a range. */
  constructor(session: AnalysisSession, goals: readonly Goal[], around: ReadoutsAround) {
    this.session = session;
    this.around = around;
    this.size = session.circuit.parts.length;
    this.aims = goals.map((goal) => this.aimOf(goal));
    this.isSlow = this.aims.some((a) => readoutDefinitionOf(a.readout.kind).isSlow === true);
  }

  private aimOf({ readoutId, want }: Goal): Aim {
    const found = this.around.readouts?.find((r) => r.id === readoutId);
    const range = wantedRange(want);
    if (!found || !range)
      throw new ZembleError('readout/not-defined', {
        where: readoutId,
        detail: found ? 'no value is wanted of it' : 'there is no such readout',
      });
    const readout = { ...found, want };
    const answer = evaluateReadout(this.session, readout, this.around);
    const now = answer.ok ? answer.value : null;
    const isLevel = ['dB', 'degC', 'ratio'].includes(unitOf(readout, this.around.readouts));
    const ends = [range.low, range.high, ...(now === null ? [] : [now])].filter(Number.isFinite);
    const isLog = !isLevel && ends.every((v) => v > 0);
    const measured = (value: number) => (isLog ? Math.log(value) : value);
    const low = range.low > 0 || !isLog ? measured(range.low) : Number.NEGATIVE_INFINITY;
    const high = measured(range.high);
    const half = (high - low) / 2;
    const middle =
      want.target === undefined || (isLog && !(want.target > 0))
        ? Number.isFinite(half)
          ? (low + high) / 2
          : Number.isFinite(low)
            ? low
            : high
        : measured(want.target);
    const least = isLog ? LEAST_SCALE.log : isLevel ? LEAST_SCALE.dB : LEAST_SCALE.part * Math.abs(middle);
    const way = now === null ? 0 : Math.abs(measured(now) - middle);
    const scale = Math.max(way, Number.isFinite(half) ? half : 0, least, Number.MIN_VALUE);
    return { readout, want, wish: want.wish ?? null, isLog, low, high, middle, scale };
  }

  sessionAt(values: Values): AnalysisSession {
    return values.size === 0 ? this.session : this.session.with({ values });
  }

  /** The goals' answers with values fitted. */
  answers(values: Values): ReadoutAnswer[] {
    this.count += 1;
    const session = this.sessionAt(values);
    return this.aims.map((aim) => evaluateReadout(session, aim.readout, this.around));
  }

  /** The goals in their measures with values fitted, NaN where one has no value. */
  at(values: Values): Float64Array {
    return Float64Array.from(this.answers(values), (answer, i) => this.measured(answer, i));
  }

  measured(answer: ReadoutAnswer, index: number): number {
    if (!answer.ok) return Number.NaN;
    return this.aims[index]!.isLog ? Math.log(answer.value) : answer.value;
  }

  /** d goal / d ln value in the goals' measures: a row a goal, a column a part. Null where there is none. */
  slopes(values: Values, parts: readonly TurnedPart[]): Float64Array[] | null {
    this.count += 1 + parts.length;
    const session = this.sessionAt(values);
    const answers = this.aims.map((aim) => evaluateReadout(session, aim.readout, this.around));
    if (answers.some((a) => !a.ok)) return null;
    const readouts = this.aims.map((aim) => aim.readout);
    const rows = readoutSlopes(session, readouts, this.around, parts).map((row, i) => {
      const answer = answers[i]!;
      const unit = this.aims[i]!.isLog && answer.ok ? answer.value : 1;
      return Float64Array.from(row, (s) => s / unit);
    });
    return rows;
  }

  /** How far a measured goal stands outside its range, as a part of its scale; a goal without a value misses wholly. */
  missOf(measured: Float64Array, index: number): number {
    const value = measured[index]!;
    const { low, high, scale } = this.aims[index]!;
    if (Number.isNaN(value)) return NO_VALUE;
    return Math.max(0, low - value, value - high) / scale;
  }

  /** Whether answers of the goals are all in their ranges; wishes are not asked. */
  isInside(answers: readonly ReadoutAnswer[]): boolean {
    return this.aims.every(({ want, wish }, i) => wish !== null || missBy(answers[i]!, want) === 0);
  }
}

/** What a goal without a value counts as a miss. */
const NO_VALUE = 10;

/** How far an answer stands outside a range, in its unit: 0 inside, infinite without a value. */
export const missBy = (answer: ReadoutAnswer, want: Want): number =>
  answer.ok ? Math.abs(outsideBy(answer.value, want)) : Number.POSITIVE_INFINITY;
