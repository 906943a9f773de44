import { formatQuantity } from '../../../base/quantity/index.ts';
import { evaluateReadout } from '../../../analysis/readouts/index.ts';
import { capacitor } from './parts.ts';
import { cannot, type Place } from './place.ts';
import type { Way } from './way.ts';

/** The corner of a net by the way from the source that drives it. */
function wayTo(place: Place) {
  const { net } = place;
  if (net === undefined || net === place.ground || place.isStill(net)) return null;
  const source = place.signalAt(net);
  if (source === undefined || place.tone(net) === 0) return null;
  return { kind: 'corner', from: source, to: net, side: 'high' } as const;
}

/** A capacitor from a net to the ground, together with what is there already. */
export const trebleCorner: Way = {
  id: 'treble-corner',
  title: 'Treble corner by a capacitor to ground',
  asks: (place) =>
    wayTo(place) ? [{ id: 'hz', label: 'Corner', quantity: 'frequency', given: 20_000 }] : null,
  drafts(place, { hz }) {
    if (!(hz! > 0)) throw cannot('A corner lies above 0 Hz.');
    const net = place.net!;
    const readout = wayTo(place)!;
    const now = evaluateReadout(place.session, { id: 'now', name: 'now', ...readout });
    if (now.ok && now.value < hz!)
      throw cannot(
        `${net} falls from ${formatQuantity(now.value, 'Hz')} on already: a capacitor more only brings that down.`,
      );
    const c = place.free('C');
    return [
      {
        name: `Treble ${formatQuantity(hz!, 'Hz')}`,
        steps: [capacitor(c, 1 / (2 * Math.PI * hz! * Math.max(place.seen(net), 1)), net, place.ground)],
        unknowns: [{ refs: [c], series: 'E12', goal: 0 }],
        goals: [{ readout, aim: hz!, is: 'equal', within: 0.12 }],
        says: ({ value, reads }) => [
          `With ${formatQuantity(value(c), 'F')} at ${net} it is 3 dB down at ${formatQuantity(reads[0]!, 'Hz')}, with what is there already.`,
        ],
        traps: () => [
          'An output of a chip does not like a capacitor straight to ground: it may oscillate. Put it behind a resistor.',
        ],
      },
    ];
  },
};
