import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near } from './spot.ts';

/** Above this a contact is not worked on from here, V. */
const SAFE_V = 60;

/** A contact that opens a coil arcs: C = I^2/10 in microfarad and R = V/(10 I^(1 + 50/V)) across it (C. C. Bates' rule, common practice). */
export const snubber: Recipe = {
  id: 'snubber',
  title: 'Snubber across a contact',
  asks: ({ part }) =>
    part?.kind === 'switch'
      ? [
          { id: 'volts', label: 'Opens', quantity: 'voltage', usual: 24 },
          { id: 'ampere', label: 'Carries', quantity: 'current', usual: 0.1 },
        ]
      : null,
  make(spot, { volts, ampere }) {
    const [u, i] = [volts!, ampere!];
    if (!(u > 0 && i > 0)) throw cannot('A contact opens more than 0 V and carries more than 0 A.');
    if (u > SAFE_V)
      throw cannot(
        `Above ${SAFE_V} V, and on the mains whatever it is, a snubber is a safety-rated part fitted by a licensed person.`,
      );
    const part = spot.part!;
    // Nobody fits less than 10n: stray capacity and the coil's own ring would do as much.
    const farad = Math.max(10e-9, (i ** 2 / 10) * 1e-6);
    const ohm = Math.max(1, u / (10 * i ** (1 + 50 / u)));
    const bounded = Math.min(ohm, u / i);
    const net = spot.freeNet('snub');
    const [a, b] = Object.values(part.pins);
    return {
      line: `Snubber: +${spot.free('R')} ${fitted(bounded, 'E12', 'capacitor')} ${a} ${net}; +${spot.free('C')} ${fitted(farad, 'E6', 'capacitor')} ${net} ${b}`,
      says: [
        `${formatQuantity(near(farad, 'E6'), 'F')} takes the ${formatQuantity(i, 'A')} over when the contact opens; ${formatQuantity(near(bounded, 'E12'), 'ohm')} keep what it holds from welding the contact when it closes.`,
      ],
      traps: [
        'A coil on direct current is better off with a diode across itself, cathode to plus; its relay then lets go later.',
        `Open, alternating voltage still passes it: ${formatQuantity(u * 2 * Math.PI * 50 * near(farad, 'E6'), 'A')} at 50 Hz.`,
        'The capacitor must bear the peak when the contact opens: rate it for ten times the supply.',
      ],
    };
  },
};
