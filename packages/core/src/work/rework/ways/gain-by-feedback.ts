import { formatQuantity } from '../../../base/quantity/index.ts';
import { feedbackOf } from './opamp-feedback.ts';
import { fit } from './parts.ts';
import { gainNow, GAIN_WITHIN_DB } from './gain.ts';
import type { Way } from './way.ts';

/** Rf = (A - 1) Rg, or A Rg of a stage that inverts: by what the stage reads with it. */
export const gainByFeedback: Way = {
  id: 'gain-by-feedback',
  title: 'Another gain by the feedback resistor',
  asks(place) {
    const found = feedbackOf(place);
    if (!found) return null;
    return [{ id: 'gain', label: 'Gain', quantity: 'level', given: Math.round(gainNow(place, found) + 6) }];
  },
  drafts(place, { gain }) {
    const { rf, chip, gain: readout } = feedbackOf(place)!;
    return [
      {
        name: `Gain ${Math.round(gain!)} dB`,
        steps: [fit(rf.ref, place.worth(rf))],
        unknowns: [{ refs: [rf.ref], series: 'E24', goal: 0 }],
        goals: [{ readout, aim: gain!, is: 'equal', within: GAIN_WITHIN_DB }],
        mayMoveRest: true,
        says: ({ value, reads }) => [
          `With ${formatQuantity(value(rf.ref), 'ohm')} for ${rf.ref} it is ${formatQuantity(reads[0]!, 'dB')}, with everything at the stage counted in.`,
        ],
        traps: () => [
          `A capacitor across ${rf.ref} sets a treble corner that comes down as ${rf.ref} goes up.`,
          `What ${chip.ref} amplifies more it also clips sooner, and its offset comes out larger.`,
        ],
      },
    ];
  },
};
