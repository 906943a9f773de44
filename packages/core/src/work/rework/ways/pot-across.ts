import { formatQuantity } from '../../../base/quantity/index.ts';
import { readNow } from './gain.ts';
import { resistor, rheostat } from './parts.ts';
import { cannot, near, trackFor } from './place.ts';
import type { ReadoutSpec, Way } from './way.ts';

/** A track this many times the resistor leaves it nearly as it is at its far end. */
const TRACK_TIMES = 10;

/** A pot with an end stop across a resistor that stays soldered: from nearly as it is down to a part of its ohms. */
export const potAcross: Way = {
  id: 'pot-across',
  title: 'Pot with an end stop across this resistor',
  asks: (place) =>
    place.part?.kind === 'resistor'
      ? [
          {
            id: 'least',
            label: 'Down to',
            quantity: 'resistor',
            given: Number((place.worth(place.part) / 3).toPrecision(2)),
          },
        ]
      : null,
  drafts(place, { least }) {
    const part = place.part!;
    const own = place.worth(part);
    if (!(least! > 0 && least! < own))
      throw cannot(`Across ${part.ref} it only gets less than ${formatQuantity(own, 'ohm')}.`);
    const stop = near(1 / (1 / least! - 1 / own));
    const track = trackFor(Math.max(TRACK_TIMES * own, 3 * stop));
    const [pot, r, net] = [place.free('P'), place.free('R'), place.freeNet('trim')];
    const { a, b } = part.pins;
    const readout: ReadoutSpec = { kind: 'voltage', net: a === place.ground ? b! : a! };
    const together = (ohm: number) => (own * ohm) / (own + ohm);
    return [
      {
        name: `Pot across ${part.ref}`,
        steps: [resistor(r, stop, a!, net), rheostat(pot, track, net, b!, 1)],
        unknowns: [],
        goals: [{ readout, aim: readNow(place, readout), is: 'equal', within: Infinity }],
        mayMoveRest: true,
        says: () => [
          `${part.ref} acts as ${formatQuantity(together(stop), 'ohm')} to ${formatQuantity(together(stop + track), 'ohm')}, with ${formatQuantity(stop, 'ohm')} as the stop and ${formatQuantity(track, 'ohm')} of track; nothing is unsoldered.`,
        ],
        traps: () => ['A track that opens leaves the resistor as it is soldered, so that nothing runs away.'],
      },
    ];
  },
};
