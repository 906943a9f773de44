import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near } from './spot.ts';

/** Resistors of which the loss and the separation are told, ohm. */
const CURVE = [1e3, 2.2e3, 4.7e3, 10e3, 22e3, 47e3, 100e3];
const db = (ratio: number) => 20 * Math.log10(ratio);

/**
 * Two resistors from one signal into two channels: loss R/(R + Z) into each, and what of one channel comes back into the
 * other through both resistors and the source between them.
 */
export const monoMix: Recipe = {
  id: 'mono-mix',
  title: 'Mono into two channels',
  asks: ({ net, circuit }) =>
    net !== undefined && net !== circuit.ground
      ? [
          { id: 'source', label: 'Source resistance', quantity: 'resistor', usual: 600 },
          { id: 'load', label: 'Each channel presents', quantity: 'resistor', usual: 10_000 },
          { id: 'separation', label: 'Separation', quantity: 'level', usual: 40 },
        ]
      : null,
  make(spot, { source, load, separation }) {
    const lossOf = (r: number) => {
      // Both branches load the source.
      const branch = (r + load!) / 2;
      return -db((branch / (branch + source!)) * (load! / (r + load!)));
    };
    /** From one channel into the other: through R to the source's node, then through the other R. */
    const separationOf = (r: number) => {
      const onward = r + load!;
      const node = (source! * onward) / (source! + onward);
      return -db((node / (node + r)) * (load! / onward));
    };
    let exact = 0;
    for (let r = 10; r < 10e6 && exact === 0; r *= 1.01) if (separationOf(r) >= separation!) exact = r;
    if (exact === 0) throw cannot('No resistor separates them so far: a buffer for each channel does.');
    const [r1, r2, left, right] = [
      spot.free('R'),
      spot.free('R'),
      spot.freeNet('left'),
      spot.freeNet('right'),
    ];
    const r = near(exact);
    const curve = CURVE.map(
      (v) =>
        `${formatQuantity(v, 'ohm')}: ${formatQuantity(separationOf(v), 'dB', { digits: 2 })} for ${formatQuantity(lossOf(v), 'dB', { digits: 2 })}`,
    );
    return {
      line: `Mono mix: +${r1} ${fitted(exact)} ${spot.net} ${left}; +${r2} ${fitted(exact)} ${spot.net} ${right}`,
      says: [
        `${formatQuantity(r, 'ohm')}: ${formatQuantity(separationOf(r), 'dB')} of separation for ${formatQuantity(lossOf(r), 'dB')} of loss.`,
        `Separation against loss: ${curve.join('; ')}.`,
      ],
      traps: [
        `${left} and ${right} are to be wired to the channels.`,
        'A source of higher resistance brings the channels together: measure it with the cable on.',
      ],
    };
  },
};
