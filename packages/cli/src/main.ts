import { ZembleError } from '@zemble/core';
import { readFileSync } from 'node:fs';
import { Options, UsageError } from './options.ts';
import { helpOf, type Verb } from './verb.ts';
import { NoAnswer } from './no-answer.ts';
import { VERBS } from './verbs/index.ts';

const names = VERBS.map((v) => v.name);

/** What `zemble --help` prints. */
function help(): string {
  const width = Math.max(...names.map((n) => n.length));
  const lines = VERBS.map((v) => `  ${v.name.padEnd(width)}  ${v.does}`);
  return `zemble VERB FILE [options] reads a unit file and prints one JSON document.\n\n${lines.join('\n')}\n\nzemble VERB --help says how a verb is called. Errors are one sentence on stderr; exit 2 for bad input, 1 when there is no answer.\n`;
}

function version(): string {
  const file = readFileSync(new URL('../package.json', import.meta.url), 'utf8');
  const { version } = JSON.parse(file) as { version: string };
  return `zemble ${version}\n`;
}

/** Exit codes: input that cannot be used, and a computation that has no answer. */
const EXIT_BAD_INPUT = 2;
const EXIT_NO_ANSWER = 1;
const BAD_INPUT_CODES =
  /^(value|preferred|file|readout|rework|path)\/|^analysis\/(?:no-source|bad-request)$|^circuit\/unknown-|^change\/unknown$/;

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
    const [name, ...rest] = args;
    if (name === '--help' || name === 'help') return print(streams, help());
    if (name === '--version') return print(streams, version());
    const verb: Verb | undefined = VERBS.find((v) => v.name === name);
    if (!verb)
      throw new UsageError(
        name === undefined
          ? `Use: zemble ${names.join('|')} FILE [options]; zemble --help says more.`
          : `"${name}" is no verb; there are ${names.join(', ')}.`,
      );
    if (rest.includes('--help')) return print(streams, helpOf(verb));
    const options = new Options(rest);
    const answer = await verb.run(options);
    options.refuseUnknown();
    streams.out(`${JSON.stringify(answer, null, 2)}\n`);
    return 0;
  } catch (error) {
    if (error instanceof UsageError) return fail(streams, error.message, EXIT_BAD_INPUT);
    if (error instanceof ZembleError) {
      return fail(streams, error.message, BAD_INPUT_CODES.test(error.code) ? EXIT_BAD_INPUT : EXIT_NO_ANSWER);
    }
    if (error instanceof NoAnswer) return fail(streams, error.message, EXIT_NO_ANSWER);
    throw error;
  }
}

function print(streams: Streams, text: string): number {
  streams.out(text);
  return 0;
}

function fail(streams: Streams, sentence: string, code: number): number {
  streams.err(`${sentence}\n`);
  return code;
}
