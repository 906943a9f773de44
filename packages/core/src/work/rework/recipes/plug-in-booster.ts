import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near } from './spot.ts';

/** The transistor that is taken, and its current gain below a milliampere (data sheet: 40 to 200 and more). */
const TYPE = '2N3904';
const GAIN = 130;
const VBE = 0.65;
const THERMAL_V = 0.02585;

/** A single transistor that lives on the power of the socket: collector at half of it, bias from the collector. */
export const plugInBooster: Recipe = {
  id: 'plug-in-booster',
  title: 'Single-transistor booster on plug-in power',
  asks: ({ net, circuit }) =>
    net !== undefined && net !== circuit.ground
      ? [
          { id: 'volts', label: 'Open socket', quantity: 'voltage', usual: 3 },
          { id: 'ohm', label: 'Through', quantity: 'resistor', usual: 2200 },
          { id: 'gain', label: 'Gain', quantity: 'level', usual: 20 },
        ]
      : null,
  /** IC = (V/2)/R; RB = (VC - VBE) BF/IC with that current gain; A = R/(VT/IC + RE). */
  make(spot, { volts, ohm, gain }) {
    if (!(volts! > 2 * VBE))
      throw cannot(`${formatQuantity(volts!, 'V')} is too little for a transistor: 1.3 V at least.`);
    const ampere = volts! / 2 / ohm!;
    const base = ((volts! / 2 - VBE) * GAIN) / ampere;
    const own = THERMAL_V / ampere;
    const emitter = ohm! / 10 ** (gain! / 20) - own;
    if (!(emitter >= 0))
      throw cannot(
        `At ${formatQuantity(ampere, 'A')} it has ${formatQuantity(20 * Math.log10(ohm! / own), 'dB')} at most.`,
      );
    const [q, rb, re, c, b, e] = [
      spot.free('Q'),
      spot.free('R'),
      spot.free('R'),
      spot.free('C'),
      spot.freeNet('boostb'),
      spot.freeNet('booste'),
    ];
    const out = spot.freeNet('plug');
    return {
      line: `Booster: +${c} 1u ${spot.net} ${b}; +${q} ${TYPE} ${out} ${b} ${e}; +${rb} ${fitted(base, 'E12')} ${out} ${b}; +${re} ${fitted(Math.max(10, emitter), 'E12')} ${e} ${spot.circuit.ground}`,
      says: [
        `It rests at ${formatQuantity(volts! / 2, 'V')} and ${formatQuantity(ampere, 'A')}; with ${formatQuantity(near(Math.max(10, emitter), 'E12'), 'ohm')} in the emitter the gain is about ${formatQuantity(gain!, 'dB')}, turned over.`,
      ],
      traps: [
        `${out} goes to the socket that feeds it; between the two stands the resistor of the socket.`,
        'More than half of its volts peak clip; a socket gives 2 to 5 V through 1 to 5 kΩ.',
      ],
    };
  },
};
