import { formatQuantity } from '../../../base/quantity/index.ts';
import { capacitor, other, resistor } from './parts.ts';
import { cannot, near, type Place } from './place.ts';
import type { Draft, Way } from './way.ts';

/** A rail that was typed is the one that is no farther from it than this, as a share. */
const SAME_RAIL = 0.1;
/** More than this is no rail for a relay here, V. */
const MOST_RAIL_V = 40;

const railsOf = (place: Place) => place.supplies().filter((s) => s.volts > 1 && s.volts <= MOST_RAIL_V);

/** A relay shorts the output until a capacitor behind a resistor has charged far enough for its coil to pull in. */
export const muteRelay: Way = {
  id: 'mute-relay',
  title: 'Mute and turn-on delay by a relay',
  isMoreSlower: true,
  asks(place) {
    const { net } = place;
    const rails = railsOf(place);
    if (net === undefined || net === place.ground || rails.length === 0 || rails.some((r) => r.net === net))
      return null;
    return [
      { id: 'time', label: 'Lets go after', quantity: 'time', given: 2 },
      { id: 'rail', label: 'From the rail of', quantity: 'voltage', given: rails.at(-1)!.volts },
      { id: 'coil', label: 'Coil', quantity: 'resistor', given: 1000 },
      { id: 'pull', label: 'Pulls in at', quantity: 'voltage', given: 5 },
    ];
  },
  drafts(place, { time, rail, coil, pull }) {
    if (!(time! > 0 && coil! > 0 && pull! > 0)) throw cannot('Time, coil and pull-in are above zero.');
    const net = place.net!;
    const rails = railsOf(place);
    const from = rails.find((r) => Math.abs(r.volts / rail! - 1) < SAME_RAIL);
    if (!from)
      throw cannot(
        `No rail has ${formatQuantity(rail!, 'V')}: there are ${rails.map((r) => `${r.net} with ${formatQuantity(r.volts, 'V')}`).join(', ')}.`,
      );
    // A third above pulling in at the end, so that it does, and holds.
    const end = Math.min(from.volts, 1.3 * pull!);
    if (!(from.volts > 1.1 * pull!))
      throw cannot(
        `${formatQuantity(from.volts, 'V')} does not pull in a coil that needs ${formatQuantity(pull!, 'V')}.`,
      );
    const series = near(Math.max(1, coil! * (from.volts / end - 1)), 'E12');
    const seen = (series * coil!) / (series + coil!);
    const final = (from.volts * coil!) / (coil! + series);
    if (!(final > pull!)) throw cannot('With a series resistor of E12 it would not pull in.');
    const farad = time! / (seen * Math.log(1 / (1 - pull! / final)));
    const [k, r, c, d] = [place.free('K'), place.free('R'), place.free('C'), place.free('D')];
    const [mid, free] = [place.freeNet('mute'), place.freeNet('free')];
    const { ground } = place;
    const draft: Draft = {
      name: 'Mute',
      steps: [
        resistor(r, series, from.net, mid),
        capacitor(c, near(farad, 'E6'), mid, ground, true),
        other({ ref: d, kind: 'diode', model: '1N4148', pins: { a: ground, k: mid } }),
        other({
          ref: k,
          kind: 'relay',
          pins: { coilA: mid, coilB: ground, com: net, no: free, nc: ground },
          coilOhm: coil!,
          pullInV: pull!,
        }),
      ],
      // The coil and its resistor hang on a rail alone: the law of the charge is exact, and a run in time tells it once.
      unknowns: [],
      goals: [
        { readout: { kind: 'delay', net: mid, thresholdV: pull! }, aim: time!, is: 'equal', within: 0.25 },
        { readout: { kind: 'voltage', net: mid }, aim: final, is: 'equal', within: 0.05 },
      ],
      mayMoveRest: true,
      says: ({ reads, watts }) => [
        `The coil takes ${formatQuantity(reads[1]! / coil!, 'A')} at ${formatQuantity(reads[1]!, 'V')}; until it pulls in, after ${formatQuantity(reads[0]!, 's')}, its rest contact holds ${net} at the ground.`,
        `${r} makes ${formatQuantity(watts(r), 'W')} of heat from ${from.net}.`,
      ],
      traps: () => [
        'The contact must bear what the output gives into a short: put a resistor before it, or break the path instead.',
        'Compare the thump with and without it in the readouts: the delay must outlast the rest position settling.',
      ],
    };
    if (farad > MOST_FARAD)
      throw cannot(
        `${formatQuantity(farad, 'F')} would be needed at a coil of ${formatQuantity(coil!, 'ohm')}: let a transistor or a timer wait, and take a coil of more ohms.`,
      );
    return [draft];
  },
};

/** What nobody fits for a delay, F. */
const MOST_FARAD = 22e-3;
