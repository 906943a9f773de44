import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted } from './spot.ts';

/** C = 1/(2 pi f R), R what the capacitor sees at both ends in the real circuit, every pot at its worst. */
export const bassCorner: Recipe = {
  id: 'bass-corner',
  title: 'Bass corner by a coupling capacitor',
  asks(spot) {
    const { part, circuit } = spot;
    const isCoupling =
      part?.kind === 'capacitor' && part.pins.a !== circuit.ground && part.pins.b !== circuit.ground;
    return isCoupling ? [{ id: 'hz', label: 'Corner', quantity: 'frequency', usual: 20 }] : null;
  },
  make(spot, { hz }) {
    const part = spot.part!;
    if (!(hz! > 0)) throw cannot('A corner lies above 0 Hz.');
    const ohm = spot.seen(part.pins.a!, part.pins.b!, hz!, part.ref);
    const exact = 1 / (2 * Math.PI * hz! * ohm);
    return {
      line: `Bass ${formatQuantity(hz!, 'Hz')}: ${part.ref} -> ${fitted(exact, 'E12', 'capacitor')}`,
      says: [
        `It sees ${formatQuantity(ohm, 'ohm')} with every pot at its worst: ${formatQuantity(exact, 'F')} for 3 dB down there, by this capacitor alone.`,
      ],
      traps: [
        'Two corners at one place are 6 dB down together: the others belong a third lower.',
        ...(exact >= 1e-6 ? ['An electrolytic has its plus where the direct voltage is higher.'] : []),
      ],
    };
  },
};
