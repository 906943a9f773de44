import { formatQuantity } from '../../../base/quantity/index.ts';
import { liveEnd } from './couple-load.ts';
import { capacitor, resistor } from './parts.ts';
import { cannot, near } from './place.ts';
import type { Way } from './way.ts';

/** Above the range that is heard, where the coil of a voice coil has the say, Hz. */
const HIGH_HZ = 100_000;

/** A speaker's voice coil becomes an inductor up high; R = its resistance and C = L/R^2 keep the load a resistance. */
export const zobel: Way = {
  id: 'zobel',
  title: 'Zobel across a loudspeaker',
  asks: (place) =>
    (place.part?.kind === 'speaker' || place.part?.kind === 'load') && liveEnd(place)
      ? [{ id: 'henry', label: 'Voice coil', quantity: 'inductor', given: 0.5e-3 }]
      : null,
  drafts(place, { henry }) {
    if (!(henry! > 0)) throw cannot('A voice coil has more than 0 H.');
    const part = place.part!;
    const { net } = liveEnd(place)!;
    const ohm = place.worth(part);
    const [r, c, between] = [place.free('R'), place.free('C'), place.freeNet('zobel')];
    return [
      {
        name: 'Zobel',
        steps: [
          resistor(r, near(ohm, 'E12'), net, between),
          capacitor(c, near(henry! / ohm ** 2, 'E12'), between, place.ground),
        ],
        unknowns: [],
        goals: [
          {
            readout: { kind: 'outputImpedance', net, frequencyHz: HIGH_HZ },
            aim: 1.1 * ohm,
            is: 'most',
            within: 0.1,
          },
        ],
        says: ({ value }) => [
          `Together with the coil it stays near ${formatQuantity(ohm, 'ohm')} above ${formatQuantity(ohm / (2 * Math.PI * henry!), 'Hz')}; exactly ${formatQuantity(henry! / ohm ** 2, 'F')}, fitted ${formatQuantity(value(c), 'F')}.`,
        ],
        traps: () => [
          'If the amplifier oscillates the resistor burns: rate it 2 W or more, and short leads.',
        ],
      },
    ];
  },
};
