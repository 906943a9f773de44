import { formatQuantity } from '../../../base/quantity/index.ts';
import { SAFE_V } from '../../../bench/isolate/index.ts';
import { capacitor, resistor } from './parts.ts';
import { cannot, near } from './place.ts';
import type { Way } from './way.ts';

/** A contact that opens a coil arcs: C = I^2/10 in microfarad and R = V/(10 I^(1 + 50/V)) across it (C. C. Bates' rule, common practice). */
export const snubber: Way = {
  id: 'snubber',
  title: 'Snubber across a contact',
  asks: ({ part }) =>
    part?.kind === 'switch'
      ? [
          { id: 'volts', label: 'Opens', quantity: 'voltage', given: 24 },
          { id: 'ampere', label: 'Carries', quantity: 'current', given: 0.1 },
        ]
      : null,
  drafts(place, { volts, ampere }) {
    const [u, i] = [volts!, ampere!];
    if (!(u > 0 && i > 0)) throw cannot('A contact opens more than 0 V and carries more than 0 A.');
    if (u > SAFE_V)
      throw cannot(
        `Above ${SAFE_V} V, and on the mains whatever it is, a snubber is a safety-rated part fitted by a licensed person.`,
      );
    // Nobody fits less than 10n: stray capacity and the coil's own ring would do as much.
    const farad = near(Math.max(10e-9, (i ** 2 / 10) * 1e-6), 'E6');
    const ohm = near(Math.min(Math.max(1, u / (10 * i ** (1 + 50 / u))), u / i), 'E12');
    const [r, c, net] = [place.free('R'), place.free('C'), place.freeNet('snub')];
    const { a, b } = place.part!.pins;
    return [
      {
        name: 'Snubber',
        steps: [resistor(r, ohm, a!, net), capacitor(c, farad, net, b!)],
        unknowns: [],
        goals: [{ readout: { kind: 'current', part: r }, aim: 0, is: 'equal', within: 1e-6 }],
        says: () => [
          `${formatQuantity(farad, 'F')} takes the ${formatQuantity(i, 'A')} over when the contact opens; ${formatQuantity(ohm, 'ohm')} keep what it holds from welding the contact when it closes. At rest nothing flows through it.`,
        ],
        traps: () => [
          'A coil on direct current is better off with a diode across itself, cathode to plus; its relay then lets go later.',
          `Open, alternating voltage still passes it: ${formatQuantity(u * 2 * Math.PI * place.mainsHz * farad, 'A')} at ${place.mainsHz} Hz.`,
          'The capacitor must bear the peak when the contact opens: rate it for ten times the supply.',
        ],
      },
    ];
  },
};
