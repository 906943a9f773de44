import { exactText, formatQuantity } from '../../../base/quantity/index.ts';
import type { Recipe } from './recipe.ts';
import { cannot, fitted, near, trackFor, type Spot } from './spot.ts';

/** The resistor that sets the rate of a clock, with the clock. */
function clockOf({ part, circuit }: Spot) {
  const clock = circuit.parts.find(
    (p) => p.kind === 'clock' && part?.kind === 'resistor' && Object.values(part.pins).includes(p.pins.rset!),
  );
  return clock?.kind === 'clock' ? clock : null;
}

/** Rate as (R/R0)^exponent: so many semitones up and down need R between R0 2^(up/(12 exponent)) and the other end. */
export const clockRange: Recipe = {
  id: 'clock-range',
  title: 'Pitch by a pot, in semitones, with end stops',
  asks: (spot) =>
    clockOf(spot)
      ? [
          { id: 'up', label: 'Up, semitones', quantity: 'number', usual: 5 },
          { id: 'down', label: 'Down, semitones', quantity: 'number', usual: 12 },
        ]
      : null,
  make(spot, { up, down }) {
    const [part, clock] = [spot.part!, clockOf(spot)!];
    const now = spot.worth(part);
    const exponent = clock.exponent ?? -1;
    const at = (semitones: number) => now * 2 ** (semitones / 12 / exponent);
    const [least, most] = [at(up!), at(-down!)];
    if (!(most > least)) throw cannot('The range must be wider than nothing.');
    const { minOhm, maxOhm } = clock;
    if (minOhm !== undefined && least < minOhm)
      throw cannot(
        `${formatQuantity(least, 'ohm')} is below the ${formatQuantity(minOhm, 'ohm')} that ${clock.ref} bears: fewer semitones up.`,
      );
    if (maxOhm !== undefined && most > maxOhm)
      throw cannot(
        `${formatQuantity(most, 'ohm')} is above the ${formatQuantity(maxOhm, 'ohm')} at which ${clock.ref} still runs: fewer semitones down.`,
      );
    const track = trackFor(most - least);
    const stop = near(least);
    const [pot, net] = [spot.free('P'), spot.freeNet('pitch')];
    const semitones = (ohm: number) => 12 * exponent * Math.log2(ohm / now);
    return {
      line: `Pitch pot: ${part.ref} -> ${fitted(least)}; ${part.ref}.b to ${net}; +${pot} ${exactText(track, 'resistor')} 1=${net} 2=${part.pins.b} 3=${part.pins.b}`,
      says: [
        `${formatQuantity(semitones(stop), '', { signed: true })} to ${formatQuantity(semitones(stop + track), '', { signed: true })} semitones with ${formatQuantity(stop, 'ohm')} and ${formatQuantity(track, 'ohm')}.`,
      ],
      traps: [
        ...(maxOhm !== undefined && stop + track > maxOhm
          ? [
              `At the end of the track it is beyond the ${formatQuantity(maxOhm, 'ohm')} at which ${clock.ref} still runs.`,
            ]
          : []),
        'The memory runs with the clock: too slow and the sound falls apart, too fast and it stops.',
      ],
    };
  },
};
