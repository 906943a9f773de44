import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted } from './spot.ts';

/** C = 1/(2 pi f R) from a net to ground, R what the net presents. */
export const trebleCorner: Recipe = {
  id: 'treble-corner',
  title: 'Treble corner by a capacitor to ground',
  asks: (spot) =>
    spot.net !== undefined && spot.net !== spot.circuit.ground
      ? [{ id: 'hz', label: 'Corner', quantity: 'frequency', usual: 20_000 }]
      : null,
  make(spot, { hz }) {
    const net = spot.net!;
    if (!(hz! > 0)) throw cannot('A corner lies above 0 Hz.');
    const ohm = spot.seen(net, spot.circuit.ground, hz!);
    const exact = 1 / (2 * Math.PI * hz! * ohm);
    return {
      line: `Treble ${formatQuantity(hz!, 'Hz')}: +${spot.free('C')} ${fitted(exact, 'E12', 'capacitor')} ${net} ${spot.circuit.ground}`,
      says: [`${net} presents ${formatQuantity(ohm, 'ohm')} there, so ${formatQuantity(exact, 'F')}.`],
      traps: [
        'An output of a chip does not like a capacitor straight to ground: it may oscillate. Put it behind a resistor.',
      ],
    };
  },
};
