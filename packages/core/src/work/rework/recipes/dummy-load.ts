import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted } from './spot.ts';

/** A resistor in place of what a net feeds, for measuring. */
export const dummyLoad: Recipe = {
  id: 'dummy-load',
  title: 'Dummy load at this net',
  asks: ({ net, circuit }) =>
    net !== undefined && net !== circuit.ground
      ? [
          { id: 'ohm', label: 'Load', quantity: 'resistor', usual: 8 },
          { id: 'watt', label: 'Driven with', quantity: 'power', usual: 10 },
        ]
      : null,
  make(spot, { ohm, watt }) {
    if (!(ohm! > 0 && watt! > 0)) throw cannot('Both are above zero.');
    const volts = Math.sqrt(watt! * ohm!);
    return {
      line: `Dummy load: +${spot.free('R')} ${fitted(ohm!, 'E24')} ${spot.net} ${spot.circuit.ground}`,
      says: [
        `${formatQuantity(volts, 'V')} and ${formatQuantity(volts / ohm!, 'A')} r.m.s.: rate it ${formatQuantity(2 * watt!, 'W', { digits: 2 })}, on metal or in water.`,
      ],
      traps: [
        'It is clipped on: keep it as "to measure", so that it stands on the ledger until it is back.',
        'A bridged output has no side at the ground: the load goes between its two outputs.',
      ],
    };
  },
};
