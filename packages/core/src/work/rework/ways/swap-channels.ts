import { MIDDLE_HZ } from './place.ts';
import { move } from './parts.ts';
import { cannot } from './place.ts';
import { twinOf } from './twins.ts';
import type { ReadoutSpec, Way } from './way.ts';

/** Two pins change places: each is rewired to where the other was. */
export const swapChannels: Way = {
  id: 'swap-channels',
  title: 'Swap two channels at this part and its twin',
  asks: (place) => (twinOf(place) && Object.keys(place.part!.pins).length === 2 ? [] : null),
  drafts(place) {
    const [part, twin] = [place.part!, twinOf(place)!];
    const pin = Object.keys(part.pins).findLast((name) => part.pins[name] !== twin.pins[name]);
    if (pin === undefined) throw cannot(`${part.ref} and ${twin.ref} are at the same nets already.`);
    const [own, others] = [part.pins[pin]!, twin.pins[pin]!];
    const from = Object.entries(part.pins).find(([name]) => name !== pin)?.[1];
    const readout: ReadoutSpec =
      from !== undefined && from !== place.ground && place.tone(from) > 0
        ? { kind: 'gain', from, to: others, frequencyHz: MIDDLE_HZ }
        : { kind: 'voltage', net: others };
    return [
      {
        name: 'Channels swapped',
        steps: [move(part.ref, pin, others), move(twin.ref, pin, own)],
        unknowns: [],
        goals: [{ readout, aim: 0, is: 'equal', within: Infinity }],
        says: () => [`${part.ref}.${pin} goes to ${others}, ${twin.ref}.${pin} to ${own}.`],
        traps: () => ['Swapped twice, at two places, they are as they were.'],
      },
    ];
  },
};
