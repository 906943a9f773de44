import { rateAt } from './oscillation.ts';
import { capacitor, contact } from './parts.ts';
import { cannot } from './place.ts';
import { slowerWords, timedAt } from './slower.ts';
import type { Way } from './way.ts';

/** A rate of E12 capacitors comes as near as this to what was asked, as a share. */
export const RATE_WITHIN = 0.12;

/** A capacitor across the timing capacitor, through a switch. */
export const slowerBySwitch: Way = {
  id: 'slower-by-switch',
  title: 'Slower by a switch',
  isMoreSlower: true,
  asks: (place) =>
    place.part?.kind === 'capacitor' && rateAt(place, place.part)
      ? [{ id: 'times', label: 'Times slower', quantity: 'number', given: 2 }]
      : null,
  drafts(place, { times }) {
    const part = place.part!;
    if (!(times! > 1)) throw cannot('Slower is more than 1 times; faster needs a smaller capacitor.');
    const { rate, now } = timedAt(place);
    const [c, sw, net] = [place.free('C'), place.free('SW'), place.freeNet('sw')];
    const { a, b } = part.pins;
    return [
      {
        name: 'Slow switch',
        steps: [capacitor(c, (times! - 1) * place.worth(part), net, b!), contact(sw, a!, net)],
        unknowns: [{ refs: [c], series: 'E12', goal: 0 }],
        goals: [{ readout: rate, aim: now / times!, is: 'equal', within: RATE_WITHIN }],
        mayMoveRest: true,
        says: ({ reads }) => [`With it on it runs at ${slowerWords(now, reads[0]!)}`],
        traps: () => [
          'A switch that opens a charged capacitor clicks: 1 MΩ across its contact keeps both at one voltage.',
          'Capacitors of one kind drift together; one of another kind does not.',
        ],
      },
    ];
  },
};
