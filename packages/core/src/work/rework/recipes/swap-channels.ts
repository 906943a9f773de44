import type { Recipe } from './recipe.ts';
import { cannot, type Spot } from './spot.ts';

/** The same part of the other channel: R112 of R12, R212 of R112. */
function twinOf({ part, circuit }: Spot) {
  const [, letters, digits] = /^([A-Z]+)(\d+)$/i.exec(part?.ref ?? '') ?? [];
  if (!part || letters === undefined || digits === undefined) return null;
  const twins = [100, -100, 1, -1].map((step) => `${letters}${Number(digits) + step}`);
  return (
    circuit.parts.find((p) => twins.includes(p.ref) && p.kind === part.kind && p.value === part.value) ?? null
  );
}

/** Two pins change places: each is rewired to where the other was. */
export const swapChannels: Recipe = {
  id: 'swap-channels',
  title: 'Swap two channels at this part and its twin',
  asks: (spot) => (twinOf(spot) ? [] : null),
  make(spot) {
    const [part, twin] = [spot.part!, twinOf(spot)!];
    const pin = Object.keys(part.pins).findLast((name) => part.pins[name] !== twin.pins[name]);
    if (pin === undefined) throw cannot(`${part.ref} and ${twin.ref} are at the same nets already.`);
    return {
      line: `Channels swapped: swap ${part.ref}.${pin} ${twin.ref}.${pin}`,
      says: [`${part.ref}.${pin} goes to ${twin.pins[pin]}, ${twin.ref}.${pin} to ${part.pins[pin]}.`],
      traps: ['Swapped twice, at two places, they are as they were.'],
    };
  },
};
