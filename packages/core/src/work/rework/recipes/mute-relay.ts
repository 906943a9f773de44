import { formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near, type Spot } from './spot.ts';

const supplyOf = ({ circuit }: Spot) =>
  circuit.parts.find((p) => p.kind === 'supply' && p.pins.minus === circuit.ground);

/** A relay shorts the output until a capacitor behind a resistor has charged far enough for its coil to pull in. */
export const muteRelay: Recipe = {
  id: 'mute-relay',
  title: 'Mute and turn-on delay by a relay',
  isMoreSlower: true,
  asks: (spot) =>
    spot.net !== undefined && spot.net !== spot.circuit.ground && supplyOf(spot)
      ? [
          { id: 'time', label: 'Lets go after', quantity: 'time', usual: 2 },
          { id: 'coil', label: 'Coil', quantity: 'resistor', usual: 1000 },
          { id: 'pull', label: 'Pulls in at', quantity: 'voltage', usual: 5 },
        ]
      : null,
  /** Coil and series resistor divide the supply; the capacitor across the coil charges through both: t = RC ln(1/(1 - Vp/V)). */
  make(spot, { time, coil, pull }) {
    const [net, supply] = [spot.net!, supplyOf(spot)!];
    const rail = supply.pins.plus!;
    const volts = Math.abs(spot.volts(rail));
    // A third above pulling in at the end, so that it does, and holds.
    const end = Math.min(volts, 1.3 * pull!);
    if (!(volts > 1.1 * pull!))
      throw cannot(
        `${formatQuantity(volts, 'V')} does not pull in a coil that needs ${formatQuantity(pull!, 'V')}.`,
      );
    const series = near(Math.max(1, coil! * (volts / end - 1)), 'E12');
    const final = (volts * coil!) / (coil! + series);
    if (!(final > pull!)) throw cannot('With a series resistor of E12 it would not pull in.');
    const seen = (series * coil!) / (series + coil!);
    const farad = time! / (seen * Math.log(1 / (1 - pull! / final)));
    const [k, r, c, d, mid] = [
      spot.free('K'),
      spot.free('R'),
      spot.free('C'),
      spot.free('D'),
      spot.freeNet('mute'),
    ];
    const gnd = spot.circuit.ground;
    return {
      line: `Mute: +${r} ${fitted(series, 'E12')} ${rail} ${mid}; +${c} ${fitted(farad, 'E6')} ${mid} ${gnd} polarised; +${d} 1N4148 ${gnd} ${mid}; +${k} relay ${mid} ${gnd} ${net} ${spot.freeNet('free')} ${gnd} coilOhm=${Math.round(coil!)} pullInV=${pull}`,
      says: [
        `The coil takes ${formatQuantity(final / coil!, 'A')} at ${formatQuantity(final, 'V')}; until it pulls in, after about ${formatQuantity(seen * near(farad, 'E6') * Math.log(1 / (1 - pull! / final)), 's')}, its rest contact holds ${net} at the ground.`,
      ],
      traps: [
        'The contact must bear what the output gives into a short: put a resistor before it, or break the path instead.',
        'Compare the thump with and without it in the readouts: the delay must outlast the rest position settling.',
      ],
    };
  },
};
