import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near } from './spot.ts';

const LOADS: ReadonlySet<string> = new Set(['speaker', 'headphone', 'load']);

/** C = 1/(2 pi f R) in series with a load that must not see direct voltage. */
export const coupleLoad: Recipe = {
  id: 'couple-load',
  title: 'Couple a load by a capacitor',
  asks: ({ part }) =>
    part && LOADS.has(part.kind)
      ? [{ id: 'hz', label: 'Bass corner', quantity: 'frequency', usual: 30 }]
      : null,
  make(spot, { hz }) {
    if (!(hz! > 0)) throw cannot('A corner lies above 0 Hz.');
    const part = spot.part!;
    const ohm = spot.worth(part);
    const exact = 1 / (2 * Math.PI * hz! * ohm);
    const [hot] = Object.entries(part.pins).find(([, net]) => net !== spot.circuit.ground) ?? [];
    const volts = spot.volts(part.pins[hot!]!);
    return {
      line: `Coupling: +${spot.free('C')} ${fitted(exact, 'E3', 'capacitor')} in series with ${part.ref}.${hot}`,
      says: [
        `${formatQuantity(exact, 'F')} for ${formatQuantity(hz!, 'Hz')} into ${formatQuantity(ohm, 'ohm')}; with ${fitted(exact, 'E3')} it is ${formatQuantity(1 / (2 * Math.PI * ohm * near(exact, 'E3')), 'Hz')}.`,
      ],
      traps: [
        `${formatQuantity(volts, 'V')} stand there at rest: the plus of an electrolytic goes to the side that is higher.`,
        'It charges through the load when the set is switched on: that is the thump.',
      ],
    };
  },
};
