import { exactText, formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, trackFor } from './spot.ts';

/** A potentiometer as a rheostat in series with the timing resistor: from as it is to k times as slow. */
export const slowerByPot: Recipe = {
  id: 'slower-by-pot',
  title: 'Slower by a pot in series',
  isMoreSlower: true,
  asks: ({ part }) =>
    part?.kind === 'resistor'
      ? [{ id: 'times', label: 'Up to times slower', quantity: 'number', usual: 3 }]
      : null,
  make(spot, { times }) {
    const part = spot.part!;
    if (!(times! > 1)) throw cannot('Slower is more than 1 times.');
    const own = spot.worth(part);
    const exact = (times! - 1) * own;
    const track = trackFor(exact);
    const [pot, net] = [spot.free('P'), spot.freeNet('slow')];
    return {
      line: `Slow pot: ${part.ref}.b to ${net}; +${pot} ${exactText(track, 'resistor')} 1=${net} 2=${part.pins.b} 3=${part.pins.b}`,
      says: [
        `${part.ref} stays as the stop: from as it is to ${formatQuantity(1 + track / own, '')} times as slow.`,
      ],
      traps: ['Rate is heard on a logarithm: an antilog track spreads the fast end.'],
    };
  },
};
