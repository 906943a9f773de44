import { formatQuantity } from '../../../base/quantity/index.ts';
import { fit } from './parts.ts';
import { cannot } from './place.ts';
import { slowerWords, timedAt } from './slower.ts';
import { RATE_WITHIN } from './slower-by-switch.ts';
import { timingPairOf } from './timing-pair.ts';
import type { Way } from './way.ts';

/** One of two timing capacitors made unequal to the other. */
export const slowerByOne: Way = {
  id: 'slower-by-one',
  title: 'Slower or faster by one of two capacitors',
  isMoreSlower: true,
  asks: (place) =>
    timingPairOf(place) ? [{ id: 'times', label: 'Times slower', quantity: 'number', given: 1.5 }] : null,
  drafts(place, { times }) {
    const part = place.part!;
    const { other, way, share } = timingPairOf(place)!;
    const least = way === 'turns' ? 1 - share : 0;
    if (!(times! > least))
      throw cannot(
        `${other.ref} alone takes ${formatQuantity(least, '')} of the time: more than that, or change it too.`,
      );
    const { rate, now } = timedAt(place);
    return [
      {
        name: `${formatQuantity(times!, '')} times slower by ${part.ref}`,
        steps: [
          fit(part.ref, place.worth(part) * (way === 'turns' ? (times! - 1 + share) / share : times! ** 2)),
        ],
        unknowns: [{ refs: [part.ref], series: 'E12', goal: 0 }],
        goals: [{ readout: rate, aim: now / times!, is: 'equal', within: RATE_WITHIN }],
        mayMoveRest: true,
        says: ({ value, reads }) => [
          `With ${formatQuantity(value(part.ref), 'F')} it runs at ${slowerWords(now, reads[0]!)}`,
          way === 'turns'
            ? `${part.ref}'s turn is then another part of it than ${other.ref}'s.`
            : `The bridge then gives ${part.ref} and ${other.ref} unequal parts of the signal.`,
        ],
        traps: () => [
          way === 'turns'
            ? 'A wave that is no longer half and half has even harmonics, and sounds brighter.'
            : 'Unequal capacitors need another gain to swing: with equal resistors 2 + C(parallel)/C(series); check that it starts.',
        ],
      },
    ];
  },
};
