import { formatQuantity } from '../../../base/quantity/index.ts';
import type { LayerPart } from '../../../circuit/circuit/index.ts';
import { liveEnd } from './couple-load.ts';
import { readNow } from './gain.ts';
import { move, remove } from './parts.ts';
import { cannot, MIDDLE_HZ, type Place } from './place.ts';
import type { ReadoutSpec, Way } from './way.ts';

/** Outputs farther apart than this at rest heat a voice coil, V (common practice). */
const MOST_APART_V = 0.1;
/** Twice the voltage, within what unequal outputs are apart, dB. */
const TWICE_DB = { least: 3, aim: 6.02 };

/** A load from an output to the ground, with another like it at another output. */
function pairOf(place: Place) {
  const { part, circuit, ground } = place;
  const own = liveEnd(place);
  if (!part || !own) return null;
  const liveOf = ({ pins }: LayerPart) => Object.values(pins).find((net) => net !== ground);
  const twin = circuit.parts.find(
    (p) =>
      p !== part &&
      p.kind === part.kind &&
      Object.values(p.pins).includes(ground) &&
      liveOf(p) !== undefined &&
      liveOf(p) !== own.net,
  );
  const grounded = Object.keys(part.pins).find((pin) => part.pins[pin] === ground);
  const source = place.signalAt(own.net);
  return twin && grounded !== undefined && source !== undefined
    ? { own: own.net, other: liveOf(twin)!, twin, grounded, source }
    : null;
}

/** One load between two outputs that move against each other: twice the voltage, four times the power, half the load for each. */
export const bridgeLoad: Way = {
  id: 'bridge-load',
  title: 'Bridge two outputs for one load',
  asks: (place) => (pairOf(place) ? [] : null),
  drafts(place) {
    const part = place.part!;
    const { own, other, twin, grounded, source } = pairOf(place)!;
    const apart = Math.abs(place.volts(own) - place.volts(other));
    const ohm = place.worth(part);
    if (apart > MOST_APART_V)
      throw cannot(
        `${own} and ${other} rest ${formatQuantity(apart, 'V')} apart, which would drive ${formatQuantity(apart / ohm, 'A')} through ${part.ref}: bring them together first.`,
      );
    const single: ReadoutSpec = { kind: 'gain', from: source, to: own, frequencyHz: MIDDLE_HZ };
    const across: ReadoutSpec = { ...single, toMinus: other };
    const now = readNow(place, single);
    if (readNow(place, across) < now + TWICE_DB.least)
      throw cannot(
        `${other} does not move against ${own}: turn its input over first, or ${part.ref} gets nothing.`,
      );
    return [
      {
        name: 'Bridged',
        steps: [remove(twin.ref), move(part.ref, grounded, other)],
        unknowns: [],
        goals: [
          { readout: across, aim: now + TWICE_DB.aim, is: 'equal', within: TWICE_DB.aim - TWICE_DB.least },
        ],
        says: ({ reads }) => [
          `${part.ref} lies between ${own} and ${other}: ${formatQuantity(reads[0]! - now, 'dB')} more across it.`,
          `Each output sees ${formatQuantity(ohm / 2, 'ohm')} and gives twice the current; at rest ${formatQuantity(apart, 'V')} stand across it.`,
        ],
        traps: () => [
          'Neither end is ground any more: no ground clip of a scope, no common return of a headphone jack.',
          `Amplifiers rated for ${formatQuantity(ohm, 'ohm')} at the least must not be bridged into it.`,
        ],
      },
    ];
  },
};
