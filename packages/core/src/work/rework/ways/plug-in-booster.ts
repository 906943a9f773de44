import { formatQuantity } from '../../../base/quantity/index.ts';
import { capacitor, other, resistor } from './parts.ts';
import { cannot, MIDDLE_HZ } from './place.ts';
import type { Way } from './way.ts';

/** The transistor that is taken, and its current gain below a milliampere (data sheet: 40 to 200 and more). */
const TYPE = '2N3904';
const GAIN = 130;
const VBE = 0.65;
const THERMAL_V = 0.02585;
/** Less in the emitter is within what the transistor itself has. */
const LEAST_EMITTER_OHM = 10;

/** A single transistor that lives on the power of the socket: collector at half of it, bias from the collector. */
export const plugInBooster: Way = {
  id: 'plug-in-booster',
  title: 'Single-transistor booster on plug-in power',
  asks: (place) =>
    place.net !== undefined && place.net !== place.ground && !place.isStill(place.net)
      ? [
          { id: 'volts', label: 'Open socket', quantity: 'voltage', given: 3 },
          { id: 'ohm', label: 'Through', quantity: 'resistor', given: 2200 },
          { id: 'gain', label: 'Gain', quantity: 'level', given: 20 },
        ]
      : null,
  drafts(place, { volts, ohm, gain }) {
    if (!(volts! > 2 * VBE))
      throw cannot(`${formatQuantity(volts!, 'V')} is too little for a transistor: 1.3 V at least.`);
    if (!(ohm! > 0)) throw cannot('A socket feeds through more than 0 ohm.');
    const net = place.net!;
    const ampere = volts! / 2 / ohm!;
    const emitter = Math.max(LEAST_EMITTER_OHM, ohm! / 10 ** (gain! / 20) - THERMAL_V / ampere);
    const [q, rb, re, c] = [place.free('Q'), place.free('R'), place.free('R'), place.free('C')];
    const [rs, vs] = [place.free('R'), place.free('V')];
    const [b, e, out, feed] = [
      place.freeNet('boostb'),
      place.freeNet('booste'),
      place.freeNet('plug'),
      place.freeNet('socket'),
    ];
    return [
      {
        name: 'Booster',
        steps: [
          capacitor(c, 1e-6, net, b),
          other({ ref: q, kind: 'bjt', model: TYPE, pins: { c: out, b, e } }),
          resistor(rb, ((volts! / 2 - VBE) * GAIN) / ampere, out, b),
          resistor(re, emitter, e, place.ground),
          // What the socket is, so that the stage can be computed.
          resistor(rs, ohm!, feed, out),
          other({ ref: vs, kind: 'supply', pins: { plus: feed, minus: place.ground }, marked: volts! }),
        ],
        unknowns: [
          { refs: [rb], series: 'E12', goal: 1 },
          { refs: [re], series: 'E12', goal: 0, least: LEAST_EMITTER_OHM },
        ],
        goals: [
          {
            readout: { kind: 'gain', from: net, to: out, frequencyHz: MIDDLE_HZ },
            aim: gain!,
            is: 'equal',
            within: 1,
          },
          { readout: { kind: 'voltage', net: out }, aim: volts! / 2, is: 'equal', within: 0.2 },
        ],
        says: ({ reads, value }) => [
          `It rests at ${formatQuantity(reads[1]!, 'V')}; with ${formatQuantity(value(re), 'ohm')} in the emitter the gain is ${formatQuantity(reads[0]!, 'dB')}, turned over.`,
        ],
        traps: () => [
          `${rs} and ${vs} stand for the socket, and are not fitted: ${out} goes to its pin.`,
          'More than half of its volts peak clip; a socket gives 2 to 5 V through 1 to 5 kΩ.',
        ],
      },
    ];
  },
};
