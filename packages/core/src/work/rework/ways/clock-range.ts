import { formatQuantity, preferredBetween } from '../../../base/quantity/index.ts';
import { fit, move, resistor, rheostat } from './parts.ts';
import { cannot, near, type Place } from './place.ts';
import { readNow } from './gain.ts';
import type { Draft, ReadoutSpec, Way } from './way.ts';

/** The resistor that sets the rate of a clock, with the clock. */
function clockOf({ part, circuit }: Place) {
  const clock = circuit.parts.find(
    (p) => p.kind === 'clock' && part?.kind === 'resistor' && Object.values(part.pins).includes(p.pins.rset!),
  );
  return clock?.kind === 'clock' ? clock : null;
}

/** Tracks up to this many times what is needed are laid across with a resistor, where one alone would go too far. */
const LARGER_TRACKS = 12;
/** A semitone, as a share of the rate. */
const semitones = (n: number): number => 2 ** (n / 12);

/**
 * Rate by a stop and a track in place of the resistor. A track that would go beyond what the chip bears has a resistor across
 * it, so that the range ends where it was asked to.
 */
export const clockRange: Way = {
  id: 'clock-range',
  title: 'Pitch by a pot, in semitones, with end stops',
  asks: (place) =>
    clockOf(place)
      ? [
          { id: 'up', label: 'Up, semitones', quantity: 'number', given: 5 },
          { id: 'down', label: 'Down, semitones', quantity: 'number', given: 12 },
        ]
      : null,
  drafts(place, { up, down }) {
    const [part, clock] = [place.part!, clockOf(place)!];
    if (!(up! + down! > 0)) throw cannot('The range must be wider than nothing.');
    const readout: ReadoutSpec = { kind: 'rate', part: clock.ref };
    const now = readNow(place, readout);
    const own = place.worth(part);
    const exponent = clock.exponent ?? -1;
    const [least, most] = [up!, -down!].map((n) => own * semitones(n) ** (1 / exponent)) as [number, number];
    const [pot, net] = [place.free('P'), place.freeNet('pitch')];
    const high = { readout, aim: now * semitones(up!), is: 'equal', within: 0.06 } as const;
    const low = { readout, aim: now / semitones(down!), is: 'equal', within: 0.06 } as const;
    const bears = (): string | null => {
      const { minOhm, maxOhm } = clock;
      if (minOhm !== undefined && least < minOhm)
        return `${formatQuantity(least, 'ohm')} is below the ${formatQuantity(minOhm, 'ohm')} that ${clock.ref} bears: fewer semitones up.`;
      if (maxOhm !== undefined && most > maxOhm)
        return `${formatQuantity(most, 'ohm')} is above the ${formatQuantity(maxOhm, 'ohm')} at which ${clock.ref} still runs: fewer semitones down.`;
      return null;
    };
    const refused = bears();
    if (refused !== null) throw cannot(refused);
    const shared: Pick<Draft, 'name' | 'mayMoveRest' | 'says' | 'traps'> = {
      name: `Pitch pot, +${formatQuantity(up!, '')} to -${formatQuantity(down!, '')} semitones`,
      mayMoveRest: true,
      says: ({ reads, value }) => [
        `${formatQuantity(12 * Math.log2(reads[1]! / now), '', { signed: true })} to ${formatQuantity(12 * Math.log2(reads[0]! / now), '', { signed: true })} semitones with ${formatQuantity(value(part.ref), 'ohm')} and a track of ${formatQuantity(value(pot), 'ohm')}.`,
      ],
      traps: () => [
        'The memory runs with the clock: too slow and the sound falls apart, too fast and it stops.',
      ],
    };
    const start = [fit(part.ref, near(least)), move(part.ref, 'b', net)];
    const stop = {
      refs: [part.ref],
      series: 'E24',
      goal: 1,
      ...(clock.minOhm === undefined ? {} : { least: clock.minOhm }),
    } as const;
    const ends = [low, { ...high, stands: new Map([[pot, 0]]) }];
    const needed = most - least;
    const tracks = preferredBetween(needed * 0.9, needed * LARGER_TRACKS, 'E3');
    const plain = (track: number): Draft => ({
      ...shared,
      steps: [...start, rheostat(pot, track, net, part.pins.b!, 1)],
      unknowns: [stop],
      goals: ends,
    });
    const across = (track: number): Draft => {
      const r = place.free('R');
      return {
        ...shared,
        steps: [
          ...start,
          rheostat(pot, track, net, part.pins.b!, 1),
          resistor(r, 1 / Math.max(1 / needed - 1 / track, 1 / (100 * needed)), net, part.pins.b!),
        ],
        unknowns: [stop, { refs: [r], series: 'E24', goal: 0 }],
        goals: ends,
        says: (found) => [
          ...shared.says(found),
          `${formatQuantity(found.value(r), 'ohm')} across the track end the range where it was asked to.`,
        ],
      };
    };
    return [...tracks.slice(0, 1).map(plain), ...tracks.filter((t) => t > needed).map(across)];
  },
};
