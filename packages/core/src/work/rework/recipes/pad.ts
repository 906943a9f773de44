import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near } from './spot.ts';

/** The part of a pin's own leg that a pad is put into: any resistor or capacitor between two nets. */
export const pad: Recipe = {
  id: 'pad',
  title: 'Pad between unequal levels',
  isMoreSlower: true,
  asks: ({ part }) =>
    part?.kind === 'capacitor' || part?.kind === 'resistor'
      ? [
          { id: 'db', label: 'Down by', quantity: 'level', usual: 10 },
          { id: 'ohm', label: 'It may load the source with', quantity: 'resistor', usual: 10_000 },
        ]
      : null,
  /** L-pad by the handbook: series R = Z (1 - 1/k), shunt R = Z/k, for Z in all with an open end. */
  make(spot, { db, ohm }) {
    if (!(db! > 0)) throw cannot('A pad takes away more than 0 dB.');
    const part = spot.part!;
    const k = 10 ** (db! / 20);
    const [series, shunt] = [ohm! * (1 - 1 / k), ohm! / k];
    const comes = 20 * Math.log10((near(series) + near(shunt)) / near(shunt));
    const [net, rs, rp] = [spot.freeNet('pad'), spot.free('R'), spot.free('R')];
    return {
      line: `Pad: ${part.ref}.a to ${net}; +${rs} ${fitted(series)} ${part.pins.a} ${net}; +${rp} ${fitted(shunt)} ${net} ${spot.circuit.ground}`,
      says: [
        `${formatQuantity(comes, 'dB')} into an open end; its source is ${formatQuantity((near(series) * near(shunt)) / (near(series) + near(shunt)), 'ohm')}.`,
      ],
      traps: ['What follows loads it: take the shunt a tenth of that, or less.'],
    };
  },
};
