import { formatQuantity } from '../../../base/quantity/index.ts';
import { resistor } from './parts.ts';
import { cannot, near } from './place.ts';
import type { Way } from './way.ts';

/** More direct voltage than this at an output heats what hangs on it, V (common practice). */
const AT_REST_V = 0.1;

/** A resistor in place of what a net feeds, for measuring. */
export const dummyLoad: Way = {
  id: 'dummy-load',
  title: 'Dummy load at this net',
  asks: (place) =>
    place.net !== undefined &&
    place.net !== place.ground &&
    !place.supplies().some((s) => s.net === place.net)
      ? [
          { id: 'ohm', label: 'Load', quantity: 'resistor', given: 8 },
          { id: 'watt', label: 'Driven with', quantity: 'power', given: 10 },
        ]
      : null,
  drafts(place, { ohm, watt }) {
    if (!(ohm! > 0 && watt! > 0)) throw cannot('Both are above zero.');
    const net = place.net!;
    const rest = place.volts(net);
    if (Math.abs(rest) > AT_REST_V)
      throw cannot(
        `${net} rests at ${formatQuantity(rest, 'V')}: ${formatQuantity(Math.abs(rest) / ohm!, 'A')} of direct current would flow. The load goes behind the coupling capacitor, or between the two outputs of a bridge.`,
      );
    const r = place.free('R');
    const value = near(ohm!);
    const volts = Math.sqrt(watt! * ohm!);
    return [
      {
        name: 'Dummy load',
        steps: [resistor(r, value, net, place.ground)],
        unknowns: [],
        goals: [
          { readout: { kind: 'dissipation', part: r }, aim: AT_REST_V ** 2 / value, is: 'most', within: 0.1 },
        ],
        mayMoveRest: true,
        says: () => [
          `${formatQuantity(volts, 'V')} and ${formatQuantity(volts / ohm!, 'A')} r.m.s.: rate it ${formatQuantity(2 * watt!, 'W', { digits: 2 })}, on metal or in water.`,
        ],
        traps: () => [
          'It is clipped on: keep it as a trial, so that it stands on the ledger until it is back.',
        ],
      },
    ];
  },
};
