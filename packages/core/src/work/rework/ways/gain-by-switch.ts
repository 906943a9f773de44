import { formatQuantity } from '../../../base/quantity/index.ts';
import { GAIN_WITHIN_DB, gainNow } from './gain.ts';
import { feedbackOf } from './opamp-feedback.ts';
import { contact, resistor } from './parts.ts';
import { cannot } from './place.ts';
import type { Way } from './way.ts';

/** Two gains nearer than this are one, dB. */
const SAME_DB = 0.2;

/** A resistor through a switch across Rg for more gain, across Rf for less. */
export const gainBySwitch: Way = {
  id: 'gain-by-switch',
  title: 'A second gain by a switch',
  asks(place) {
    const found = feedbackOf(place);
    if (!found) return null;
    const given = Math.round(gainNow(place, found) + 10);
    return [{ id: 'gain', label: 'Gain when on', quantity: 'level', given }];
  },
  drafts(place, { gain }) {
    const feedback = feedbackOf(place)!;
    const { rf, rg, isInverting, gain: readout } = feedback;
    const now = gainNow(place, feedback);
    if (!(Math.abs(gain! - now) > SAME_DB))
      throw cannot('That is the gain it has: ask for more, or for less.');
    const isMore = gain! > now;
    const across = isMore ? rg : rf;
    const [r, sw, net] = [place.free('R'), place.free('SW'), place.freeNet('sw')];
    const { a, b } = across.pins;
    return [
      {
        name: `Gain switch, ${Math.round(gain!)} dB`,
        steps: [resistor(r, place.worth(across), net, b!), contact(sw, a!, net)],
        unknowns: [{ refs: [r], series: 'E24', goal: 0 }],
        goals: [
          { readout, aim: gain!, is: 'equal', within: GAIN_WITHIN_DB },
          { readout, aim: now, is: 'equal', within: 0.05, stands: new Map([[sw, false]]) },
        ],
        mayMoveRest: true,
        says: ({ value, reads }) => [
          `${formatQuantity(value(r), 'ohm')} across ${across.ref}: ${formatQuantity(reads[0]!, 'dB')} when on, ${formatQuantity(reads[1]!, 'dB')} when off.`,
        ],
        traps: () => [
          'Off is the gain as it was, and between the two positions the feedback stays closed.',
          isMore
            ? `The bass corner of a capacitor in series with ${rg.ref} goes up with the gain.`
            : `A capacitor across ${rf.ref} sets a treble corner that goes up as the gain comes down.`,
          ...(isInverting && isMore ? ['The input impedance comes down with it.'] : []),
        ],
      },
    ];
  },
};
