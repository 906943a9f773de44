import { formatQuantity } from '../../../base/quantity/index.ts';
import { capacitor, move } from './parts.ts';
import { cannot, type Place } from './place.ts';
import type { Way } from './way.ts';

const LOADS: ReadonlySet<string> = new Set(['speaker', 'headphone', 'load']);

/** The live pin of a load to the ground. A load between two outputs has no direct voltage to be held off. */
export function liveEnd({ part, ground }: Place): { readonly pin: string; readonly net: string } | null {
  if (!part || !LOADS.has(part.kind)) return null;
  const pins = Object.entries(part.pins);
  const live = pins.filter(([, net]) => net !== ground);
  const [pin, net] = live[0] ?? [];
  return live.length === 1 && pin !== undefined && net !== undefined ? { pin, net } : null;
}

/** A capacitor in series with a load that must not see direct voltage. */
export const coupleLoad: Way = {
  id: 'couple-load',
  title: 'Couple a load by a capacitor',
  asks: (place) =>
    liveEnd(place) ? [{ id: 'hz', label: 'Bass corner', quantity: 'frequency', given: 30 }] : null,
  drafts(place, { hz }) {
    if (!(hz! > 0)) throw cannot('A corner lies above 0 Hz.');
    const part = place.part!;
    const { pin, net } = liveEnd(place)!;
    const ohm = place.worth(part);
    const volts = place.volts(net);
    const [c, load] = [place.free('C'), place.freeNet('load')];
    const [plus, minus] = volts < 0 ? [load, net] : [net, load];
    return [
      {
        name: 'Coupling',
        steps: [move(part.ref, pin, load), capacitor(c, 1 / (2 * Math.PI * hz! * ohm), plus, minus, true)],
        unknowns: [{ refs: [c], series: 'E6', goal: 0 }],
        goals: [
          {
            readout: { kind: 'corner', from: net, to: load, side: 'low' },
            aim: hz!,
            is: 'most',
            within: 0.06,
          },
          { readout: { kind: 'voltage', net: load }, aim: 0, is: 'most', within: 0.01 },
        ],
        mayMoveRest: true,
        says: ({ value, reads }) => [
          `With ${formatQuantity(value(c), 'F')} into ${formatQuantity(ohm, 'ohm')} it is 3 dB down at ${formatQuantity(reads[0]!, 'Hz')}, and ${formatQuantity(Math.abs(volts), 'V')} of direct voltage stay before it.`,
        ],
        traps: () => [
          `The plus of ${c} is at ${plus}, which is higher.`,
          'It charges through the load when the set is switched on: that is the thump.',
        ],
      },
    ];
  },
};
