import { formatQuantity } from '../../../base/quantity/index.ts';
import { readNow } from './gain.ts';
import { rateAt } from './oscillation.ts';
import { cannot, type Place } from './place.ts';
import type { ReadoutSpec } from './way.ts';

/** What a change of the rate starts from. Throws `rework/way` where nothing is timed there. */
export function timedAt(place: Place): { readonly rate: ReadoutSpec; readonly now: number } {
  const rate = rateAt(place, place.part!);
  if (!rate) throw cannot(`${place.part!.ref} times nothing that is known.`);
  return { rate, now: readNow(place, rate) };
}

/** "5 Hz instead of 10 Hz: 2 times as slow". */
export const slowerWords = (now: number, then: number): string =>
  `${formatQuantity(then, 'Hz')} instead of ${formatQuantity(now, 'Hz')}: ${formatQuantity(now / then, '')} times as slow.`;
