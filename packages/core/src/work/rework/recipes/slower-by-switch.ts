import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near } from './spot.ts';

/** A capacitor across the timing capacitor, through a switch: C' = (k - 1) C. */
export const slowerBySwitch: Recipe = {
  id: 'slower-by-switch',
  title: 'Slower by a switch',
  isMoreSlower: true,
  asks: ({ part }) =>
    part?.kind === 'capacitor'
      ? [{ id: 'times', label: 'Times slower', quantity: 'number', usual: 2 }]
      : null,
  make(spot, { times }) {
    const part = spot.part!;
    if (!(times! > 1)) throw cannot('Slower is more than 1 times; faster needs a smaller capacitor.');
    const own = spot.worth(part);
    const exact = (times! - 1) * own;
    return {
      line: `Slow switch: +${spot.free('C')} ${fitted(exact, 'E12')} ${part.pins.a} ${part.pins.b} via ${spot.free('SW')}`,
      says: [
        `With it on, everything that ${part.ref} times takes ${formatQuantity(1 + near(exact, 'E12') / own, '')} times as long.`,
      ],
      traps: [
        'A switch that opens a charged capacitor clicks: 1 MΩ across its contact keeps both at one voltage.',
        'Capacitors of one kind drift together; one of another kind does not.',
      ],
    };
  },
};
