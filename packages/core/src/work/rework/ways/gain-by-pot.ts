import { formatQuantity } from '../../../base/quantity/index.ts';
import { GAIN_WITHIN_DB } from './gain.ts';
import { feedbackOf } from './opamp-feedback.ts';
import { fit, move, remove, rheostat } from './parts.ts';
import { cannot, pinAt, trackFor } from './place.ts';
import type { Draft, Way } from './way.ts';

/** A track of E3 reaches beyond what was asked by up to this, dB. */
const TRACK_WITHIN_DB = 3;

/** The feedback resistor becomes an end stop with a potentiometer as a rheostat in series; at no gain the stop is nothing. */
export const gainByPot: Way = {
  id: 'gain-by-pot',
  title: 'Gain adjustable by a pot, with end stops',
  asks: (place) =>
    feedbackOf(place)
      ? [
          { id: 'low', label: 'From', quantity: 'level', given: 10 },
          { id: 'high', label: 'To', quantity: 'level', given: 26 },
        ]
      : null,
  drafts(place, { low, high }) {
    if (!(high! > low!)) throw cannot('The upper gain must lie above the lower one.');
    const { rf, rg, chip, gain: readout, isInverting } = feedbackOf(place)!;
    const ratio = (db: number) => Math.max(10 ** (db / 20) - (isInverting ? 0 : 1), 1e-3);
    const [stop, most] = [low!, high!].map((db) => place.worth(rg) * ratio(db)) as [number, number];
    const [pot, net] = [place.free('P'), place.freeNet('gain')];
    const [out, minus] = [chip.pins.out!, chip.pins.minus!];
    const track = trackFor(Math.max(most - stop, 1));
    const shared: Pick<Draft, 'name' | 'mayMoveRest' | 'traps'> = {
      name: `Gain by pot, ${Math.round(low!)} to ${Math.round(high!)} dB`,
      mayMoveRest: true,
      traps: () => [
        'A track that is open for a moment opens the feedback: the wiper is tied to the far end, so that it never does.',
        'A linear track crowds most of the gain into one end; a log one wired the other way spreads it.',
      ],
    };
    const upper = { readout, aim: high!, is: 'least', within: 0.5 } as const;
    const lower = {
      readout,
      aim: low!,
      is: 'equal',
      within: GAIN_WITHIN_DB,
      stands: new Map([[pot, 0]]),
    } as const;
    const reached = { readout, aim: high! + TRACK_WITHIN_DB, is: 'most', within: TRACK_WITHIN_DB } as const;
    const withStop: Draft = {
      ...shared,
      steps: [fit(rf.ref, stop), move(rf.ref, pinAt(rf, out), net), rheostat(pot, track, out, net, 1)],
      unknowns: [
        { refs: [rf.ref], series: 'E24', goal: 1 },
        { refs: [pot], series: 'E3', goal: 0 },
      ],
      goals: [upper, lower, { ...reached, stands: new Map([[pot, 1]]) }],
      says: ({ value, reads }) => [
        `${rf.ref} is the stop at ${formatQuantity(reads[1]!, 'dB')} with ${formatQuantity(value(rf.ref), 'ohm')}; the track of ${formatQuantity(value(pot), 'ohm')} reaches ${formatQuantity(reads[0]!, 'dB')}.`,
      ],
    };
    const alone: Draft = {
      ...shared,
      steps: [remove(rf.ref), rheostat(pot, track, out, minus, 1)],
      unknowns: [{ refs: [pot], series: 'E3', goal: 0 }],
      goals: [upper, lower],
      says: ({ value, reads }) => [
        `Without a stop it is ${formatQuantity(reads[1]!, 'dB')} at one end; the track of ${formatQuantity(value(pot), 'ohm')} reaches ${formatQuantity(reads[0]!, 'dB')}.`,
      ],
    };
    return [withStop, alone];
  },
};
