import { exactText, formatQuantity } from '../../../base/quantity/index.ts';
import { feedbackOf, ratioFor } from './opamp-feedback.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, trackFor } from './spot.ts';

/** The feedback resistor becomes an end stop with a potentiometer as a rheostat in series. */
export const gainByPot: Recipe = {
  id: 'gain-by-pot',
  title: 'Gain adjustable by a pot, with end stops',
  asks: (spot) =>
    feedbackOf(spot)
      ? [
          { id: 'low', label: 'From', quantity: 'level', usual: 10 },
          { id: 'high', label: 'To', quantity: 'level', usual: 26 },
        ]
      : null,
  make(spot, { low, high }) {
    if (!(high! > low!)) throw cannot('The upper gain must lie above the lower one.');
    const { rf, rg, isInverting, chip } = feedbackOf(spot)!;
    const [stop, most] = [low!, high!].map((db) => spot.worth(rg) * ratioFor(db, isInverting)) as [
      number,
      number,
    ];
    const track = trackFor(most - stop);
    const [pot, net] = [spot.free('P'), spot.freeNet('gain')];
    const out = chip.pins.out!;
    const pin = rf.pins.a === out ? 'a' : 'b';
    return {
      line: `Gain by pot: ${rf.ref} -> ${fitted(stop)}; ${rf.ref}.${pin} to ${net}; +${pot} ${exactText(track, 'resistor')} 1=${out} 2=${net} 3=${net}`,
      says: [
        `${rf.ref} is the stop at ${formatQuantity(low!, 'dB')}; ${formatQuantity(most - stop, 'ohm')} of track reach ${formatQuantity(high!, 'dB')} exactly.`,
      ],
      traps: [
        'A track that is open for a moment opens the feedback: the wiper is tied to the far end, so that it never does.',
        'A linear track crowds most of the gain into one end; a log one wired the other way spreads it.',
      ],
    };
  },
};
