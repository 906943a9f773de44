import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { fitted, near } from './spot.ts';

/** A speaker's voice coil becomes an inductor up high; R = its resistance and C = L/R^2 keep the load a resistance. */
export const zobel: Recipe = {
  id: 'zobel',
  title: 'Zobel across a loudspeaker',
  asks: ({ part }) =>
    part?.kind === 'speaker' || part?.kind === 'load'
      ? [{ id: 'henry', label: 'Voice coil', quantity: 'inductor', usual: 0.5e-3 }]
      : null,
  make(spot, { henry }) {
    const part = spot.part!;
    const ohm = spot.worth(part);
    const [r, c, net] = [spot.free('R'), spot.free('C'), spot.freeNet('zobel')];
    const [a, b] = Object.values(part.pins);
    return {
      line: `Zobel: +${r} ${fitted(ohm, 'E12')} ${a} ${net}; +${c} ${fitted(henry! / ohm ** 2, 'E12')} ${net} ${b}`,
      says: [
        `Together with the coil it stays near ${formatQuantity(ohm, 'ohm')} above ${formatQuantity(ohm / (2 * Math.PI * henry!), 'Hz')}; exactly ${formatQuantity(henry! / ohm ** 2, 'F')}, of E12 ${formatQuantity(near(henry! / ohm ** 2, 'E12'), 'F')}.`,
      ],
      traps: ['If the amplifier oscillates the resistor burns: rate it 2 W or more, and short leads.'],
    };
  },
};
