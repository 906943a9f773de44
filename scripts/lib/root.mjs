import { fileURLToPath } from 'node:url';

/** The checkout. */
export const ROOT = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '');

/** A failure that one sentence explains; the scripts print it and stop. */
export class Sorry extends Error {}

/** Runs a script's body; a Sorry is printed as it is, everything else with its trace. */
export async function main(body) {
  try {
    await body();
  } catch (error) {
    process.stderr.write(`${error instanceof Sorry ? error.message : (error?.stack ?? error)}\n`);
    process.exitCode = 1;
  }
}
