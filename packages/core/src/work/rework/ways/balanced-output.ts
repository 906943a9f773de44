import { formatQuantity } from '../../../base/quantity/index.ts';
import { readNow } from './gain.ts';
import { resistor } from './parts.ts';
import { cannot, MIDDLE_HZ, near } from './place.ts';
import type { ReadoutSpec, Way } from './way.ts';

/** What an output may present and still drive a cable, ohm (common practice). */
const MOST_OUTPUT_OHM = 1000;
/** Two legs are equal to the ground within this part; a hum that is on both goes by as much (IEC 60268-3 speaks of impedances, not levels). */
const EQUAL = 0.02;

/** A second leg of the same impedance without a signal: what the cable picks up comes on both alike, and goes in the difference. */
export const balancedOutput: Way = {
  id: 'balanced-output',
  title: 'Balanced output by a second leg of equal impedance',
  asks: (place) => {
    const { net } = place;
    if (net === undefined || net === place.ground || place.tone(net) === 0) return null;
    return place.seen(net) <= MOST_OUTPUT_OHM
      ? [
          {
            id: 'ohm',
            label: 'Each leg presents',
            quantity: 'resistor',
            given: Math.max(100, near(place.seen(net))),
          },
        ]
      : null;
  },
  drafts(place, { ohm }) {
    const net = place.net!;
    const source = place.signalAt(net)!;
    const own = place.seen(net);
    if (!(ohm! >= own))
      throw cannot(`${net} presents ${formatQuantity(own, 'ohm')} already: ask for as much or more.`);
    const [r1, r2, hot, cold] = [
      place.free('R'),
      place.free('R'),
      place.freeNet('hot'),
      place.freeNet('cold'),
    ];
    const across: ReadoutSpec = {
      kind: 'gain',
      from: source,
      to: hot,
      toMinus: cold,
      frequencyHz: MIDDLE_HZ,
    };
    const now = readNow(place, { kind: 'gain', from: source, to: net, frequencyHz: MIDDLE_HZ });
    return [
      {
        name: 'Balanced output',
        steps: [
          resistor(r1, Math.max(1, ohm! - own), net, hot),
          resistor(r2, near(ohm!, 'E96'), cold, place.ground),
        ],
        unknowns: [{ refs: [r1], series: 'E96', goal: 1 }],
        goals: [
          { readout: across, aim: now, is: 'equal', within: 0.1 },
          {
            readout: { kind: 'outputImpedance', net: hot, frequencyHz: MIDDLE_HZ },
            aim: near(ohm!, 'E96'),
            is: 'equal',
            within: EQUAL,
          },
        ],
        says: ({ value, reads }) => [
          `${hot} presents ${formatQuantity(reads[1]!, 'ohm')} and ${cold} ${formatQuantity(value(r2), 'ohm')}; the level between them is ${formatQuantity(reads[0]!, 'dB')} from ${source}, as it was.`,
        ],
        traps: () => [
          `${hot} goes to pin 2 of the connector, ${cold} to pin 3, the screen to the case (IEC 61076-2-103).`,
          'What the two legs differ by is what of the hum stays: take 1 % parts, or pick a pair.',
        ],
      },
    ];
  },
};
