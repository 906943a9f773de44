import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near } from './spot.ts';
import { timingPairOf } from './timing-pair.ts';

/**
 * One of two timing capacitors made unequal to the other. Taking turns, T = ln 2 (R1 C1 + R2 C2): C1' = C1 (k - 1 + share)/share;
 * in a Wien bridge f = 1/(2 pi sqrt(R1 R2 C1 C2)): C1' = k^2 C1.
 */
export const slowerByOne: Recipe = {
  id: 'slower-by-one',
  title: 'Slower or faster by one of two capacitors',
  isMoreSlower: true,
  asks: (spot) =>
    timingPairOf(spot) ? [{ id: 'times', label: 'Times slower', quantity: 'number', usual: 1.5 }] : null,
  make(spot, { times }) {
    const part = spot.part!;
    const { other, way, share } = timingPairOf(spot)!;
    const least = way === 'turns' ? 1 - share : 0;
    if (!(times! > least))
      throw cannot(
        `${other.ref} alone takes ${formatQuantity(least, '')} of the time: more than that, or change it too.`,
      );
    const own = spot.worth(part);
    const exact = way === 'turns' ? (own * (times! - 1 + share)) / share : own * times! ** 2;
    const comes = near(exact, 'E12') / own;
    const factor = way === 'turns' ? 1 - share + share * comes : Math.sqrt(comes);
    const turn = (share * comes) / factor;
    return {
      line: `One capacitor: ${part.ref} -> ${fitted(exact, 'E12')}`,
      says: [
        `${formatQuantity(exact, 'F')} exactly; with ${fitted(exact, 'E12')} a period takes ${formatQuantity(factor, '')} times as long.`,
        way === 'turns'
          ? `${part.ref}'s turn is then ${formatQuantity(100 * turn, '%', { digits: 2 })} of it.`
          : `The bridge then gives ${part.ref} and ${other.ref} unequal parts of the signal.`,
      ],
      traps: [
        way === 'turns'
          ? 'A wave that is no longer half and half has even harmonics, and sounds brighter.'
          : 'Unequal capacitors need another gain to swing: with equal resistors 2 + C(parallel)/C(series); check that it starts.',
      ],
    };
  },
};
