import { formatQuantity } from '../../../base/quantity/index.ts';
import { feedbackOf, gainDbOf, ratioFor } from './opamp-feedback.ts';
import type { Recipe } from './recipe.ts';
import { fitted, near } from './spot.ts';

/** Rf = (A - 1) Rg, or A Rg of a stage that inverts. */
export const gainByFeedback: Recipe = {
  id: 'gain-by-feedback',
  title: 'Another gain by the feedback resistor',
  asks(spot) {
    const found = feedbackOf(spot);
    if (!found) return null;
    const ratio = spot.worth(found.rf) / spot.worth(found.rg);
    const usual = Math.round(gainDbOf(ratio, found.isInverting) + 6);
    return [{ id: 'gain', label: 'Gain', quantity: 'level', usual }];
  },
  make(spot, { gain }) {
    const { rf, rg, isInverting, chip } = feedbackOf(spot)!;
    const exact = spot.worth(rg) * ratioFor(gain!, isInverting);
    const comes = gainDbOf(near(exact) / spot.worth(rg), isInverting);
    return {
      line: `Gain ${Math.round(gain!)} dB: ${rf.ref} -> ${fitted(exact)}`,
      says: [
        `${formatQuantity(exact, 'ohm')} exactly; with ${fitted(exact)} it is ${formatQuantity(comes, 'dB')}.`,
      ],
      traps: [
        `A capacitor across ${rf.ref} sets a treble corner that comes down as ${rf.ref} goes up.`,
        `What ${chip.ref} amplifies more it also clips sooner, and its offset comes out larger.`,
      ],
    };
  },
};
