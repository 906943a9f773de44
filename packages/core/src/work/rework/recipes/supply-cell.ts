import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near, type Spot } from './spot.ts';

const MAINS_HUM_HZ = 100;

/** A supply that stands at a net against the ground. */
function supplyAt(spot: Spot) {
  const { part, net, circuit } = spot;
  const supplies = circuit.parts.filter((p) => p.kind === 'supply');
  const found = supplies.find((p) => p.ref === part?.ref) ?? supplies.find((p) => p.pins.plus === net);
  return found && found.pins.plus !== circuit.ground && found.pins.minus === circuit.ground ? found : null;
}

/** R takes the voltage that may be lost at the current drawn, C what hum shall go: C = sqrt(10^(dB/10) - 1)/(2 pi f R). */
export const supplyCell: Recipe = {
  id: 'supply-cell',
  title: 'RC cell in the supply',
  isMoreSlower: true,
  asks: (spot) =>
    supplyAt(spot)
      ? [
          { id: 'lost', label: 'May lose', quantity: 'voltage', usual: 1 },
          { id: 'db', label: 'Hum down by', quantity: 'level', usual: 20 },
        ]
      : null,
  make(spot, { lost, db }) {
    const supply = supplyAt(spot)!;
    const ampere = spot.drawn(supply.ref);
    if (!(ampere > 0)) throw cannot(`Nothing is drawn from ${supply.ref}.`);
    if (!(lost! > 0 && db! > 0)) throw cannot('Some voltage must go, and some hum.');
    const net = supply.pins.plus!;
    const ohm = near(lost! / ampere);
    const farad = Math.sqrt(10 ** (db! / 10) - 1) / (2 * Math.PI * MAINS_HUM_HZ * ohm);
    const raw = spot.freeNet('raw');
    const left = Math.abs(spot.volts(net)) - ohm * ampere;
    if (!(left > 0)) throw cannot(`Only ${formatQuantity(Math.abs(spot.volts(net)), 'V')} stand there.`);
    const rating = Math.abs(spot.volts(net)) * 1.5;
    const comes = 10 * Math.log10(1 + (2 * Math.PI * MAINS_HUM_HZ * ohm * near(farad, 'E6')) ** 2);
    return {
      line: `RC cell: ${supply.ref}.plus to ${raw}; +${spot.free('R')} ${fitted(ohm)} ${raw} ${net}; +${spot.free('C')} ${fitted(farad, 'E6', 'capacitor')} ${net} ${spot.circuit.ground} polarised`,
      says: [
        `${formatQuantity(ampere, 'A')} are drawn: about ${formatQuantity(left, 'V')} of ${formatQuantity(Math.abs(spot.volts(net)), 'V')} are left, and hum at 100 Hz comes down by ${formatQuantity(comes, 'dB')}.`,
        `The resistor makes ${formatQuantity(ohm * ampere ** 2, 'W')} of heat; rate the capacitor ${formatQuantity(rating, 'V', { digits: 2 })} or more.`,
      ],
      traps: [
        'What the lost voltage changes is in the readouts: headroom and rest positions come down with it.',
        'A stage that draws in gulps swings its own supply behind a resistor.',
      ],
    };
  },
};
