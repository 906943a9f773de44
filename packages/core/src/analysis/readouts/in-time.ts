import type { ReadoutOf } from '@zemble/contract';
import { AnalysisSession, naturalFrequencies, transient, type TransientOptions } from '../analysis/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { aroundNet } from '../../circuit/circuit/index.ts';
import {
  crossingsOf,
  extremesOf,
  oscillationOf,
  peakOf,
  type Oscillation,
  type Trace,
} from '../audio/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import { clockRate } from './clock-rate.ts';
import {
  checkTime,
  needed,
  undefinedBecause,
  type ReadoutContext,
  type ReadoutType,
} from './readout-type.ts';

/** Runs after switch-on grow by this factor until they show what is looked for. */
const FIRST_RUN_S = 2e-3;
const GROWTH = 5;
const LONGEST_RUN_S = 1e5;
/** Most points of all runs for one readout: a fast oscillation in a long run is seen long before. */
const MOST_POINTS = 400_000;
/** Points between two looks at the clock. */
const POINTS_A_CHECK = 128;

type InTime = ReadoutOf<'rate' | 'period' | 'delay' | 'thump'>;

/** Answers what it looks for in a run as far as it has come; null goes on. */
type Find<T> = (trace: Trace, untilS: number) => T | null;

interface Run {
  readonly stopS: number;
  readonly start: 'op' | 'zero';
  readonly beside?: TransientOptions['beside'];
  /** When to look before the end, s, ascending. */
  readonly looksS?: readonly number[];
}

/** What is left of `MOST_POINTS`. */
interface Effort {
  points: number;
}
const wholeEffort = (): Effort => ({ points: MOST_POINTS });

/** Runs a net's voltage, as far as its effort reaches, and looks for something on the way and at the end. */
function watched<T>(
  session: AnalysisSession,
  readout: InTime,
  context: ReadoutContext,
  effort: Effort,
  { looksS = [], ...run }: Run,
  find: Find<T>,
): { readonly found: T | null; readonly isCut: boolean } {
  const node = session.system.node(needed(readout, 'net', readout.net), `Readout "${readout.name}"`);
  const trace = { timeS: [] as number[], value: [] as number[] };
  let look = 0;
  let found: T | null = null;
  const outcome = transient(session, {
    ...run,
    onPoint(t, x) {
      trace.timeS.push(t);
      trace.value.push(x[node]!);
      effort.points -= 1;
      if (trace.timeS.length % POINTS_A_CHECK === 0) checkTime(readout, context);
      if (look < looksS.length && t >= looksS[look]!) {
        while (look < looksS.length && t >= looksS[look]!) look += 1;
        found = find(trace, t);
      }
      return found === null && effort.points > 0;
    },
  });
  if (!outcome.ok) throw undefinedBecause(readout, outcome.problem.message);
  return { found: found ?? find(trace, run.stopS), isCut: effort.points <= 0 };
}

/** What happens by itself around a net: no audio, but pulses stay, for they trigger. */
const byItself = (session: AnalysisSession, readout: InTime): AnalysisSession => {
  const still = session.with({ silence: 'all but pulses' });
  const around = aroundNet(still.circuit, needed(readout, 'net', readout.net));
  return around === still.circuit ? still : new AnalysisSession(around);
};

/** Looks in longer and longer runs until `find` answers; answers how long it has looked where the longest does not show it. */
function inGrowingRuns<T>(
  session: AnalysisSession,
  readout: InTime,
  context: ReadoutContext,
  effort: Effort,
  run: Omit<Run, 'stopS' | 'looksS'>,
  find: Find<T>,
  looksAt: readonly number[] = [],
): { readonly found: T } | { readonly lookedS: number } {
  let lookedS = 0;
  for (let stopS = FIRST_RUN_S; stopS <= LONGEST_RUN_S; stopS *= GROWTH) {
    const looksS = looksAt.map((part) => part * stopS);
    const { found, isCut } = watched(session, readout, context, effort, { ...run, stopS, looksS }, find);
    if (found !== null) return { found };
    if (isCut) break;
    lookedS = stopS;
  }
  return { lookedS };
}

/** How long was looked, as it is said: "2 minutes", "27 hours". */
function lookedWords(seconds: number): string {
  if (seconds < 120) return `${Number(seconds.toPrecision(2))} s`;
  return seconds < 7200 ? `${Math.round(seconds / 60)} minutes` : `${Math.floor(seconds / 3600)} hours`;
}

/** Parts of a run at which an oscillation is looked for: each a fifth longer than the one before. */
const LOOKS = Array.from({ length: 20 }, (_, i) => 1.2 ** (i - 20));
/** What an oscillation is then must be what it was when the run was so much shorter: its period to this part, its swing to that. */
const SEEN_AGAIN = 2;
const SAME_PERIOD = 2e-4;
const SAME_SWING = 3e-3;
/** What is slowest has settled to a thousandth after so many of its time constants. */
const SETTLED_TIMES = 7;
/** An oscillation is followed for at most so many periods until what is slow has settled. */
const MOST_PERIODS = 60;

/** What is slow and what is sure about a circuit by itself. */
interface Rest {
  /** Time constant of the slowest thing that settles, s. */
  readonly slowS: number;
  /** That of the slowest thing at all, also where it has settled already: how long something slow may take to flip, s. */
  readonly slowestS: number;
  /** Whether it rests for good once it rests: what is beside its operating point comes back to it. */
  readonly isFinal: boolean;
}

interface Seen {
  readonly atS: number;
  readonly oscillation: Oscillation;
}

/**
 * The oscillation at a net once it is steady: what repeats itself, and still does so alike when it has gone on for twice as
 * long, and until the slowest thing about the operating point has settled; what only rings has died away by then.
 */
function steadyFrom(
  session: AnalysisSession,
  readout: ReadoutOf<'rate' | 'period'>,
  context: ReadoutContext,
  effort: Effort,
  start: Pick<Run, 'start' | 'beside'>,
  { slowS, slowestS, isFinal }: Rest,
):
  | { readonly found: Oscillation; readonly isSettled: boolean }
  | { readonly lookedS: number; readonly ripple?: Oscillation } {
  let ripple: Oscillation | undefined;
  const endV = switchedEnd(session, readout.net);
  const mayFlipS = SETTLED_TIMES * slowestS;
  let first: Seen | null = null;
  const find = (trace: Trace, untilS: number) => {
    const oscillation = oscillationOf(trace);
    if (!oscillation) {
      first = null;
      const isOver = isFinal && untilS >= SETTLED_TIMES * slowS && isStill(trace);
      return isOver ? { oscillation: null, atS: untilS } : null;
    }
    // What comes over the supply from something quick is no flip of something slow, which may be still to come.
    if (untilS < mayFlipS && isRipple(trace, oscillation, endV)) {
      ripple = oscillation;
      return null;
    }
    const isLike =
      first !== null &&
      Math.abs(oscillation.periodS / first.oscillation.periodS - 1) < SAME_PERIOD &&
      Math.abs(oscillation.swing / first.oscillation.swing - 1) < SAME_SWING;
    // It goes on, and something slow still moves it.
    const isLong = untilS > MOST_PERIODS * oscillation.periodS;
    if (first === null || !isLike) {
      // Seen in a shorter run already, it is not forgotten where this run has not come so far yet.
      if (first === null || untilS > first.atS) first = { atS: untilS, oscillation };
      return isLong && isKept(trace, oscillation) ? { oscillation, isSettled: false } : null;
    }
    if (untilS < SEEN_AGAIN * first.atS) return null;
    const isSettled = untilS >= SETTLED_TIMES * slowS;
    return isSettled || isLong ? { oscillation, isSettled } : null;
  };
  const outcome = inGrowingRuns(session, readout, context, effort, start, find, LOOKS);
  if (!('found' in outcome)) return { ...outcome, ...(ripple ? { ripple } : {}) };
  const { found } = outcome;
  return found.oscillation === null
    ? { lookedS: found.atS }
    : { found: found.oscillation, isSettled: found.isSettled };
}

/** From this part of the highest supply on, an output is held at its end. */
const END_SHARE = 0.75;
/** The voltage from which the output of something that flips, a timer or an opamp, is held at its end; none for another net. */
function switchedEnd({ circuit }: AnalysisSession, net: string | undefined): number {
  const flips = circuit.parts.some(
    (p) => (p.kind === 'timer555' || p.kind === 'opamp') && p.pins.out === net,
  );
  if (!flips) return Number.POSITIVE_INFINITY;
  const volts = circuit.parts.flatMap((p) =>
    p.kind === 'supply' && typeof p.value === 'number' ? [Math.abs(p.value)] : [],
  );
  return END_SHARE * Math.max(0, ...volts);
}

/** What swings by less than this part of the voltage at which an output is held rides on that. */
const RIPPLE_SHARE = 0.05;
function isRipple({ value }: Trace, { swing }: Oscillation, endV: number): boolean {
  const [low, high] = extremesOf(value, Math.floor(value.length / 2));
  const level = Math.max(Math.abs(low), Math.abs(high));
  return level > endV && swing < RIPPLE_SHARE * level;
}

/** A net that moves by less than this in the second half of a run is still, V. */
const STILL_V = 1e-5;
function isStill({ timeS, value }: Trace): boolean {
  const half = timeS.at(-1)! / 2;
  const [low, high] = extremesOf(
    value,
    timeS.findIndex((t) => t >= half),
  );
  return high - low < STILL_V;
}

/** Whether an oscillation swings as it did half the run ago: what rings has lost some of it. */
function isKept({ timeS, value }: Trace, { swing }: Oscillation): boolean {
  const end = timeS.at(-1)!;
  const [from, to] = [0.4, 0.5].map((part) => timeS.findIndex((t) => t >= part * end)) as [number, number];
  const [low, high] = extremesOf(value.slice(from, to));
  return Math.abs((high - low) / swing - 1) < SAME_SWING;
}

/** How far beside its balance a run begins, V: as far as every real one is. */
const BESIDE_BALANCE_V = 1e-6;
/** How far charges are pushed where nothing leaves its rest, V: either way, since one of them turns transistors off. */
const PUSHES_V = [-2, 2];

/** What goes on once it is pushed: two transistors that both conduct fully hold one another until one of them is turned off. */
function pushedFromRest(
  session: AnalysisSession,
  readout: ReadoutOf<'rate' | 'period'>,
  context: ReadoutContext,
  effort: Effort,
  rest: Rest,
): Oscillation | undefined {
  if (!session.tryPointAtRest().ok) return undefined;
  for (const volt of PUSHES_V) {
    checkTime(readout, context);
    try {
      const beside = { volt, isOneSided: true };
      const outcome = steadyFrom(session, readout, context, effort, { start: 'op', beside }, rest);
      if ('found' in outcome) return outcome.found;
    } catch (error) {
      // Pushed so, a junction may conduct more than any step can follow; the other way it does not.
      if (!(error instanceof ZembleError) || error.code !== 'readout/not-defined') throw error;
    }
  }
  return undefined;
}

function steadyOscillation(
  sounding: AnalysisSession,
  readout: ReadoutOf<'rate' | 'period'>,
  context: ReadoutContext,
): Oscillation {
  const session = byItself(sounding, readout);
  const rest = restOf(session);
  const effort = wholeEffort();
  // From rest what is slow is settled.
  const settled = { ...rest, slowS: 0 };
  const from = (start: Run['start'], around: Rest) =>
    steadyFrom(session, readout, context, effort, { start, beside: { volt: BESIDE_BALANCE_V } }, around);
  const switchedOn = from('zero', rest);
  if ('found' in switchedOn && switchedOn.isSettled) return switchedOn.found;
  // From the operating point what is slow begins where it rests; and a balance that switch-on did not leave is left there too.
  const { ripple } = 'found' in switchedOn ? { ripple: undefined } : switchedOn;
  // What is hidden behind a ripple after switch-on is so from rest, too.
  const fromRest = session.tryPointAtRest().ok && !ripple ? from('op', settled) : { lookedS: 0 };
  if ('found' in fromRest) return fromRest.found;
  if ('found' in switchedOn) return switchedOn.found;
  const pushed = ripple ? undefined : pushedFromRest(session, readout, context, effort, settled);
  if (pushed) return pushed;
  const looked = lookedWords(Math.max(switchedOn.lookedS, fromRest.lookedS));
  const beside = ripple
    ? `, but for a ripple of ${formatQuantity(ripple.swing, 'V', { digits: 2 })} at ${formatQuantity(ripple.frequencyHz, 'Hz', { digits: 3 })}`
    : '';
  throw undefinedBecause(readout, `net ${readout.net} does not oscillate in the first ${looked}${beside}`);
}

/** Rate of the steady oscillation at a net, or of a clock by the resistance at its pin, Hz. */
export const rate: ReadoutType<'rate'> = {
  describe: (r) => (r.part === undefined ? `rate at ${r.net}` : `rate of ${r.part}`),
  compute(session, r, context) {
    if (r.part === undefined) return steadyOscillation(session, r, context).frequencyHz;
    if (r.net !== undefined) throw undefinedBecause(r, 'give "net" or "part", not both');
    return clockRate(session, r, r.part);
  },
};

/** Period of the steady oscillation at a net, s. */
export const period: ReadoutType<'period'> = {
  describe: (r) => `period at ${r.net}`,
  compute: (session, r, context) => steadyOscillation(session, r, context).periodS,
};

/** Seconds from switch-on until a net first crosses a threshold, rising unless `rising` is false. */
export const delay: ReadoutType<'delay'> = {
  describe: (r) => `until ${r.net} passes ${formatQuantity(r.thresholdV ?? 0, 'V')}`,
  compute(session, r, context) {
    const level = needed(r, 'thresholdV', r.thresholdV);
    const isRising = r.rising !== false;
    const find = (trace: Trace) => {
      const first = trace.value[0]!;
      // What is past it as soon as the supply is there needs no time.
      if (isRising && first >= level && level > 0) return 0;
      return crossingsOf(trace, level, isRising)[0] ?? null;
    };
    const outcome = inGrowingRuns(byItself(session, r), r, context, wholeEffort(), { start: 'zero' }, find);
    if ('found' in outcome) return outcome.found;
    throw undefinedBecause(
      r,
      `net ${r.net} does not pass ${formatQuantity(level, 'V')} in the first ${lookedWords(outcome.lookedS)}`,
    );
  },
};

/** What the poles about the point at rest say; nothing is final without an operating point. */
function restOf(session: AnalysisSession): Rest {
  const still = session.with({ silence: 'all' });
  if (!still.tryPointAtRest().ok) return { slowS: 0, slowestS: 0, isFinal: false };
  const { poles } = naturalFrequencies(still);
  const times = poles.flatMap(({ re }) => (re < 0 ? [-1 / re] : []));
  const slowS = Math.max(0, ...times.filter((t) => SETTLED_TIMES * t <= LONGEST_RUN_S));
  return {
    slowS,
    slowestS: slowS,
    isFinal: still.tryOperatingPoint().ok && poles.every(({ re }) => re < 0),
  };
}

/** A net has come to rest when both of its extremes move by less than this part of its peak from the third quarter of a run to the last. */
const AT_REST = 0.01;

/** Largest voltage at a net after switch-on, V, until it has come to rest. */
export const thump: ReadoutType<'thump'> = {
  describe: (r) => `thump at ${r.net} after switch-on`,
  compute(session, r, context) {
    const find = (trace: Trace): number | null => {
      const { timeS, value } = trace;
      const peak = peakOf(trace);
      const [third, fourth] = [0.5, 0.75].map((part) => timeS.findIndex((t) => t > part * timeS.at(-1)!));
      const [before, late] = [extremesOf(value.slice(third, fourth)), extremesOf(value.slice(fourth))];
      // Ripple goes on for good, and is no thump.
      return before.every((v, i) => Math.abs(v - late[i]!) <= AT_REST * peak) ? peak : null;
    };
    // A net may rest before a slow part has begun to move it, as a relay that waits: it is quiet when the slowest has settled.
    const still = byItself(session, r);
    const settledS = SETTLED_TIMES * restOf(still).slowS;
    let quiet = 0;
    const outcome = inGrowingRuns(still, r, context, wholeEffort(), { start: 'zero' }, (trace, untilS) => {
      const peak = find(trace);
      quiet = peak === null ? 0 : quiet + 1;
      return untilS >= settledS && quiet >= (settledS > 0 ? 1 : 3) ? peak : null;
    });
    if ('found' in outcome) return outcome.found;
    throw undefinedBecause(r, `net ${r.net} does not come to rest`);
  },
};
