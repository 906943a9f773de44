import { benchSteps } from '@zemble/core';
import { loadUnit } from '../file.ts';
import type { Options } from '../options.ts';

/**
 * `steps FILE [--change ID] [--whole]`: the bench work of the planned changes, of one change (one that is done is taken back), or
 * of a whole unit that is built from nothing, which is what a file without changes is.
 */
export async function steps(options: Options): Promise<unknown> {
  const unit = await loadUnit(options);
  const change = options.text('change');
  const isUnchanged = change === undefined && (unit.circuit.changes ?? []).length === 0;
  const { steps: list, problems } = benchSteps(unit, {
    change,
    isWhole: options.flag('whole') || isUnchanged,
  });
  return { steps: list, problems };
}
