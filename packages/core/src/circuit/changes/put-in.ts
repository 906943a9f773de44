import type { Change } from '@zemble/contract';
import type { Part } from '../circuit/index.ts';

/**
 * The part that a change puts in under a designator, as it is marked, with nothing measured of it: a new one, or another
 * in the place of `came`. Undefined where the change puts none in there.
 */
export function partPutIn(
  change: Pick<Change, 'steps'>,
  came: Part | undefined,
  ref: string,
): Part | undefined {
  const step = change.steps.findLast(
    (s) => (s.do === 'add' && s.part.ref === ref) || (s.do === 'fit' && s.ref === ref),
  );
  if (step?.do === 'add') return step.part;
  if (step?.do !== 'fit' || !came) return undefined;
  const { found: _found, proven: _proven, foundParams: _beside, ...bare } = came;
  return { ...bare, ...step.part, marked: step.value ?? came.marked ?? null } as Part;
}
