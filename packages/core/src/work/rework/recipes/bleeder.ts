import { ratedFor } from '../../desk/index.ts';
import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near } from './spot.ts';

/** Below this a charged capacitor is not felt, V (IEC 60364: 60 V direct in the dry; half of it here). */
const SAFE_V = 30;

/** R = t/(C ln(U/30 V)) across a reservoir capacitor. */
export const bleeder: Recipe = {
  id: 'bleeder',
  title: 'Bleeder across a reservoir capacitor',
  asks: ({ part, circuit }) =>
    part?.kind === 'capacitor' && Object.values(part.pins).includes(circuit.ground)
      ? [{ id: 'time', label: 'Safe after', quantity: 'time', usual: 30 }]
      : null,
  make(spot, { time }) {
    const part = spot.part!;
    if (!(time! > 0)) throw cannot('It takes some time.');
    const volts = Math.abs(spot.volts(part.pins.a!) - spot.volts(part.pins.b!));
    if (volts <= SAFE_V)
      throw cannot(`${formatQuantity(volts, 'V')} stand across it: that needs no bleeder.`);
    const exact = time! / (spot.worth(part) * Math.log(volts / SAFE_V));
    const ohm = near(exact, 'E12');
    const watt = volts ** 2 / ohm;
    const rated = ratedFor(watt);
    return {
      line: `Bleeder: +${spot.free('R')} ${fitted(exact, 'E12')} ${part.pins.a} ${part.pins.b}`,
      says: [
        `Down to ${SAFE_V} V in ${formatQuantity(ohm * spot.worth(part) * Math.log(volts / SAFE_V), 's')}; it makes ${formatQuantity(watt, 'W')} of heat as long as the set is on${rated === undefined ? '' : `: take ${formatQuantity(rated, 'W')}`}.`,
      ],
      traps: [
        `It stands at ${formatQuantity(volts, 'V')}: one resistor bears 250 V (small) to 350 V (usual); above that, two in series.`,
        'Fitting it is work on a set that is off, unplugged, discharged and measured. On the mains side it is work for whoever is licensed to do it.',
      ],
    };
  },
};
