import type { Options } from './options.ts';

/** One verb of the command: what it does, how it is called, and what it answers. */
export interface Verb {
  readonly name: string;
  /** What stands behind the name: `FILE --source V1 --out NET [--from 20]`. */
  readonly usage: string;
  /** One sentence. */
  readonly does: string;
  readonly example: string;
  run(options: Options): unknown;
}

/** What `zemble <verb> --help` prints. */
export const helpOf = ({ name, usage, does, example }: Verb): string =>
  `${does}\n\n  zemble ${name} ${usage}\n\nFor example: zemble ${example}\n`;
