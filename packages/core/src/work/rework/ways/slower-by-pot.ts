import { formatQuantity } from '../../../base/quantity/index.ts';
import { rateAt } from './oscillation.ts';
import { move, rheostat } from './parts.ts';
import { cannot, trackFor } from './place.ts';
import { slowerWords, timedAt } from './slower.ts';
import type { Way } from './way.ts';

/** A potentiometer as a rheostat in series with the timing resistor: from as it is to at least so many times as slow. */
export const slowerByPot: Way = {
  id: 'slower-by-pot',
  title: 'Slower by a pot in series',
  isMoreSlower: true,
  asks: (place) =>
    place.part?.kind === 'resistor' && rateAt(place, place.part)
      ? [{ id: 'times', label: 'Up to times slower', quantity: 'number', given: 3 }]
      : null,
  drafts(place, { times }) {
    const part = place.part!;
    if (!(times! > 1)) throw cannot('Slower is more than 1 times.');
    const { rate, now } = timedAt(place);
    const [pot, net] = [place.free('P'), place.freeNet('slow')];
    return [
      {
        name: 'Slow pot',
        steps: [
          move(part.ref, 'b', net),
          rheostat(pot, trackFor((times! - 1) * place.worth(part)), net, part.pins.b!, 1),
        ],
        unknowns: [{ refs: [pot], series: 'E3', goal: 0 }],
        goals: [{ readout: rate, aim: now / times!, is: 'most', within: 0.05 }],
        mayMoveRest: true,
        says: ({ value, reads }) => [
          `${part.ref} stays as the stop; with all of ${formatQuantity(value(pot), 'ohm')} it runs at ${slowerWords(now, reads[0]!)}`,
        ],
        traps: () => ['Rate is heard on a logarithm: an antilog track spreads the fast end.'],
      },
    ];
  },
};
