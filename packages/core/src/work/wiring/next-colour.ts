import { classifyNets } from '../../circuit/figures/index.ts';
import type { LayerCircuit } from '../../circuit/circuit/index.ts';
import type { WIRE_COLOURS } from './colours.ts';
import { netOfEnd, netOfWire, placesOfEnds, type ReadWire, type WireEnd } from './ends.ts';

/** Colours that wires are sold in and that are told apart on a bench, those for signals (common practice). */
const SIGNAL_COLOURS: readonly (typeof WIRE_COLOURS)[number][] = [
  'white',
  'yellow',
  'green',
  'blue',
  'orange',
  'violet',
  'brown',
  'grey',
  'pink',
  'turquoise',
];
/** Ground is black and the positive supply red (common practice). */
const OF_RAILS = { ground: 'black', 'positive rail': 'red' } as const;

/**
 * The colour for one more wire: that of its net where its net has one, black for ground, red for the positive supply, and for
 * a signal the first that no wire of another net has at either of its places, so that none is taken for another.
 *
 * @returns undefined where every colour is taken there
 */
export function nextColour(
  ends: readonly [WireEnd, WireEnd],
  wires: readonly ReadWire[],
  circuit: LayerCircuit,
): string | undefined {
  const net = netOfEnd(ends[0]) ?? netOfEnd(ends[1]);
  const places = placesOfEnds(ends);
  const taken = new Set(
    wires
      .filter((w) => netOfWire(w) !== net && [...placesOfEnds(w.ends)].some((p) => places.has(p)))
      .map((w) => w.wire.colour?.trim().toLowerCase()),
  );
  const own = wires.filter((w) => net !== undefined && netOfWire(w) === net).map((w) => w.wire.colour);
  const kind = net === undefined ? 'signal' : classifyNets(circuit)(net);
  const usual = kind === 'ground' || kind === 'positive rail' ? [OF_RAILS[kind]] : [];
  return [...own, ...usual, ...SIGNAL_COLOURS].find(
    (colour) => colour !== undefined && colour.trim() !== '' && !taken.has(colour.trim().toLowerCase()),
  );
}
