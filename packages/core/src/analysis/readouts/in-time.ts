import type { ReadoutOf } from '@zemble/contract';
import { naturalFrequencies, transient, type AnalysisSession } from '../analysis/index.ts';
import { crossingsOf, oscillationOf, type Oscillation, type Trace } from '../audio/index.ts';
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
const LONGEST_RUN_S = 800;
/** Most points of one run: a fast oscillation in a long run is seen long before. */
const MOST_POINTS = 60_000;
/** Points between two looks at the clock. */
const POINTS_A_CHECK = 128;

type InTime = ReadoutOf<'rate' | 'period' | 'delay' | 'thump'>;

type Find<T> = (trace: Trace, untilS: number) => T | null;

/**
 * Runs a net's voltage from switch-on, or as far as `MOST_POINTS` reach, without audio: what happens by itself. Pulses
 * stay, for they trigger. Looks for something at the end, and on the way at the parts of the run given.
 */
function afterSwitchOn<T>(
  sounding: AnalysisSession,
  readout: InTime,
  stopS: number,
  context: ReadoutContext,
  find: Find<T>,
  looks: readonly number[],
): { found: T | null; isCut: boolean } {
  const session = sounding.with({ silence: 'all but pulses' });
  const node = session.system.node(needed(readout, 'net', readout.net), `Readout "${readout.name}"`);
  const trace = { timeS: [] as number[], value: [] as number[] };
  let look = 0;
  let found: T | null = null;
  const outcome = transient(session, {
    stopS,
    start: 'zero',
    onPoint(t, x) {
      trace.timeS.push(t);
      trace.value.push(x[node]!);
      if (trace.timeS.length % POINTS_A_CHECK === 0) checkTime(readout, context);
      if (look < looks.length && t >= looks[look]! * stopS) {
        look += 1;
        found = find(trace, t);
      }
      return found === null && trace.timeS.length < MOST_POINTS;
    },
  });
  if (!outcome.ok) throw undefinedBecause(readout, outcome.problem.message);
  return { found: found ?? find(trace, stopS), isCut: trace.timeS.length >= MOST_POINTS };
}

/** Looks in longer and longer runs until `find` answers; undefined when the longest does not show it. */
function inGrowingRuns<T>(
  session: AnalysisSession,
  readout: InTime,
  context: ReadoutContext,
  find: Find<T>,
  looks: readonly number[] = [],
): T | undefined {
  for (let stopS = FIRST_RUN_S; stopS <= LONGEST_RUN_S; stopS *= GROWTH) {
    const { found, isCut } = afterSwitchOn(session, readout, stopS, context, find, looks);
    if (found !== null) return found;
    if (isCut) return undefined;
  }
  return undefined;
}

/** An oscillation that is steady before the end of a run needs no more of it. */
const LOOKS = [0.3, 0.45, 0.6, 0.8];

function steadyOscillation(
  session: AnalysisSession,
  readout: ReadoutOf<'rate' | 'period'>,
  context: ReadoutContext,
): Oscillation {
  const found = inGrowingRuns(session, readout, context, oscillationOf, LOOKS);
  if (found) return found;
  throw undefinedBecause(readout, `net ${readout.net} does not oscillate`);
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
    const found = inGrowingRuns(session, r, context, find);
    if (found !== undefined) return found;
    throw undefinedBecause(
      r,
      `net ${r.net} does not pass ${formatQuantity(level, 'V')} in the first ${Math.round(LONGEST_RUN_S / 60)} minutes`,
    );
  },
};

/** After this many of its time constants what is slowest moves by less than a hundredth. */
const SETTLED_TIMES = 5;

/** Time constant of the slowest thing about the operating point that still settles within the longest run, s; 0 without any. */
function slowestS(session: AnalysisSession): number {
  const still = session.with({ silence: 'all' });
  if (!still.tryOperatingPoint().ok) return 0;
  const times = naturalFrequencies(still).poles.flatMap(({ re }) => (re < 0 ? [-1 / re] : []));
  return Math.max(0, ...times.filter((t) => SETTLED_TIMES * t <= LONGEST_RUN_S));
}

/** A net has come to rest when it moves by less than this part of its peak in the second half of a run. */
const AT_REST = 0.01;

/** Largest voltage at a net after switch-on, V, until it has come to rest. */
export const thump: ReadoutType<'thump'> = {
  describe: (r) => `thump at ${r.net} after switch-on`,
  compute(session, r, context) {
    const find = ({ timeS, value }: Trace): number | null => {
      const peak = Math.max(...value.map(Math.abs));
      const late = value.slice(timeS.findIndex((t) => t > timeS.at(-1)! / 2));
      return Math.max(...late) - Math.min(...late) <= AT_REST * peak ? peak : null;
    };
    // A net may rest before a slow part has begun to move it, as a relay that waits: it is quiet when the slowest has settled.
    const settledS = SETTLED_TIMES * slowestS(session);
    let quiet = 0;
    const found = inGrowingRuns(session, r, context, (trace, untilS) => {
      const peak = find(trace);
      quiet = peak === null ? 0 : quiet + 1;
      return untilS >= settledS && quiet >= (settledS > 0 ? 1 : 3) ? peak : null;
    });
    if (found !== undefined) return found;
    throw undefinedBecause(r, `net ${r.net} does not come to rest`);
  },
};
