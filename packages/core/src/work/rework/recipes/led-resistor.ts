import { ratedFor } from '../../desk/index.ts';
import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near } from './spot.ts';

/** R = (V - Vf)/I from a rail through an LED. */
export const ledResistor: Recipe = {
  id: 'led-resistor',
  title: 'Pilot LED from this net',
  asks: ({ net, circuit }) =>
    net !== undefined && net !== circuit.ground
      ? [
          { id: 'ampere', label: 'Current', quantity: 'current', usual: 0.003 },
          { id: 'drop', label: 'LED drops', quantity: 'voltage', usual: 2 },
        ]
      : null,
  make(spot, { ampere, drop }) {
    const volts = spot.volts(spot.net!);
    if (!(volts > drop!))
      throw cannot(
        `${spot.net} stands at ${formatQuantity(volts, 'V')}: that lights no LED that drops ${formatQuantity(drop!, 'V')}.`,
      );
    if (!(ampere! > 0)) throw cannot('Some current must flow.');
    const ohm = near((volts - drop!) / ampere!);
    const watt = (volts - drop!) ** 2 / ohm;
    const [r, led, net] = [spot.free('R'), spot.free('LED'), spot.freeNet('led')];
    const rated = ratedFor(watt);
    return {
      line: `Pilot LED: +${r} ${fitted(ohm)} ${spot.net} ${net}; +${led} red ${net} ${spot.circuit.ground}`,
      says: [
        `${formatQuantity((volts - drop!) / ohm, 'A')} flow, and the resistor makes ${formatQuantity(watt, 'W')}${rated === undefined ? '' : `: take ${formatQuantity(rated, 'W')}`}.`,
      ],
      traps: ['It loads the rail by as much: a battery lasts that much shorter.'],
    };
  },
};
