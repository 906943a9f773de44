import { formatQuantity } from '../../../base/quantity/index.ts';
import { feedbackOf, gainDbOf, ratioFor } from './opamp-feedback.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near } from './spot.ts';

/** A resistor through a switch across Rg for more gain, across Rf for less: 1/R = 1/wanted - 1/own. */
export const gainBySwitch: Recipe = {
  id: 'gain-by-switch',
  title: 'A second gain by a switch',
  asks(spot) {
    const found = feedbackOf(spot);
    if (!found) return null;
    const now = gainDbOf(spot.worth(found.rf) / spot.worth(found.rg), found.isInverting);
    return [{ id: 'gain', label: 'Gain when on', quantity: 'level', usual: Math.round(now + 10) }];
  },
  make(spot, { gain }) {
    const { rf, rg, isInverting } = feedbackOf(spot)!;
    const [high, low] = [spot.worth(rf), spot.worth(rg)];
    const wanted = ratioFor(gain!, isInverting);
    const isMore = wanted > high / low;
    const [part, own, aim] = isMore ? [rg, low, high / wanted] : [rf, high, wanted * low];
    if (!(aim < own * 0.999)) throw cannot('That is the gain it has: ask for more, or for less.');
    const exact = 1 / (1 / aim - 1 / own);
    const beside = near(exact);
    const both = 1 / (1 / own + 1 / beside);
    const comes = gainDbOf(isMore ? high / both : both / low, isInverting);
    return {
      line: `Gain switch: +${spot.free('R')} ${fitted(exact)} ${part.pins.a} ${part.pins.b} via ${spot.free('SW')}`,
      says: [
        `${formatQuantity(exact, 'ohm')} across ${part.ref} exactly; with ${fitted(exact)} it is ${formatQuantity(comes, 'dB')} when on, ${formatQuantity(gainDbOf(high / low, isInverting), 'dB')} when off.`,
      ],
      traps: [
        'Off is the gain as it was, and between the two positions the feedback stays closed.',
        isMore
          ? `The bass corner of a capacitor in series with ${part.ref} goes up with the gain.`
          : `A capacitor across ${part.ref} sets a treble corner that goes up as the gain comes down.`,
        ...(isInverting && isMore
          ? [`The input impedance comes down to ${formatQuantity(both, 'ohm')}.`]
          : []),
      ],
    };
  },
};
