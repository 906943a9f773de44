import { HalfsplitError, NoOperatingPoint } from '@halfsplit/core';
import { Options, UsageError } from './options.ts';
import { NoAnswer, noise, poles, sensitivity, tolerance, transient } from './verbs/analysis.ts';
import { ac, check, op, readouts } from './verbs/circuit.ts';
import { meter } from './verbs/meter.ts';
import { preferred, value } from './verbs/quantity.ts';
import { drill, suspects } from './verbs/isolate.ts';
import { solve } from './verbs/solve.ts';

/** The verbs of the command; each answers one JSON document. */
const VERBS: Readonly<Record<string, (options: Options) => unknown>> = {
  check,
  op,
  ac,
  noise,
  transient,
  poles,
  tolerance,
  sensitivity,
  readouts,
  meter,
  suspects,
  drill,
  solve,
  value,
  preferred,
};

/** Exit codes: input that cannot be used, and a computation that has no answer. */
const EXIT_BAD_INPUT = 2;
const EXIT_NO_ANSWER = 1;
const BAD_INPUT_CODES =
  /^(value|preferred|file|readout|rework|path)\/|^analysis\/no-source$|^circuit\/unknown-/;

/** Where the command writes; the process's own streams unless a test gives others. */
export interface Streams {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}

const PROCESS: Streams = {
  out: (text) => void process.stdout.write(text),
  err: (text) => void process.stderr.write(text),
};

/** Runs one command line. Answers the exit code: 0, 1 (no answer) or 2 (bad input). */
export async function run(args: readonly string[], streams: Streams = PROCESS): Promise<number> {
  try {
    const [verb, ...rest] = args;
    const action = verb === undefined ? undefined : VERBS[verb];
    if (!action) throw new UsageError(`Use: halfsplit ${Object.keys(VERBS).join('|')} FILE [options].`);
    const options = new Options(rest);
    const answer = await action(options);
    options.refuseUnknown();
    streams.out(`${JSON.stringify(answer, null, 2)}\n`);
    return 0;
  } catch (error) {
    if (error instanceof UsageError) return fail(streams, error.message, EXIT_BAD_INPUT);
    if (error instanceof HalfsplitError) {
      return fail(streams, error.message, BAD_INPUT_CODES.test(error.code) ? EXIT_BAD_INPUT : EXIT_NO_ANSWER);
    }
    if (error instanceof NoOperatingPoint || error instanceof NoAnswer)
      return fail(streams, error.message, EXIT_NO_ANSWER);
    throw error;
  }
}

function fail(streams: Streams, sentence: string, code: number): number {
  streams.err(`${sentence}\n`);
  return code;
}
