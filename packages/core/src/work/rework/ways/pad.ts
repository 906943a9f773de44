import { formatQuantity } from '../../../base/quantity/index.ts';
import { move, resistor } from './parts.ts';
import { cannot, MIDDLE_HZ, type Place } from './place.ts';
import type { Draft, Way } from './way.ts';

/** A part that passes the signal on, with the side that it comes from. */
function passingOf(place: Place) {
  const { part } = place;
  const { a, b } = part?.pins ?? {};
  if (!part || (part.kind !== 'capacitor' && part.kind !== 'resistor') || a === undefined || b === undefined)
    return null;
  if (a === place.ground || b === place.ground || place.isStill(a) || place.isStill(b)) return null;
  const [atA, atB] = [place.tone(a), place.tone(b, a)];
  if (atA === 0 && atB === 0) return null;
  return atA >= atB
    ? ({ part, source: { pin: 'a', net: a }, load: { pin: 'b', net: b } } as const)
    : ({ part, source: { pin: 'b', net: b }, load: { pin: 'a', net: a } } as const);
}

/** L-pad by the handbook, series R = Z (1 - 1/k) and shunt R = Z/k; the shunt is then fitted to what it works into. */
export const pad: Way = {
  id: 'pad',
  title: 'Pad between unequal levels',
  isMoreSlower: true,
  asks: (place) =>
    passingOf(place)
      ? [
          { id: 'db', label: 'Down by', quantity: 'level', given: 10 },
          { id: 'ohm', label: 'It may load the source with', quantity: 'resistor', given: 10_000 },
        ]
      : null,
  drafts(place, { db, ohm }) {
    if (!(db! > 0)) throw cannot('A pad takes away more than 0 dB.');
    if (!(ohm! > 0)) throw cannot('It loads the source with more than 0 ohm.');
    const { part, source, load } = passingOf(place)!;
    const k = 10 ** (db! / 20);
    const [rs, rp, net] = [place.free('R'), place.free('R'), place.freeNet('pad')];
    const [series, shunt] = [ohm! * (1 - 1 / k), ohm! / k];
    const draft = (steps: Draft['steps'], from: string, to: string): Draft => ({
      name: `Pad ${Math.round(db!)} dB`,
      steps,
      unknowns: [{ refs: [rp], series: 'E24', goal: 0 }],
      goals: [
        {
          readout: { kind: 'gain', from, to, frequencyHz: MIDDLE_HZ },
          aim: -db!,
          is: 'equal',
          within: 0.6,
        },
      ],
      says: ({ value, reads }) => [
        `${formatQuantity(value(rs), 'ohm')} in series and ${formatQuantity(value(rp), 'ohm')} to the ground make ${formatQuantity(reads[0]!, 'dB')} with what follows; it loads its source with about ${formatQuantity(value(rs) + value(rp), 'ohm')}.`,
      ],
      traps: () => ['What follows loads it: take the shunt a tenth of that, or less.'],
    });
    // On the side it comes from where that rests at nothing, otherwise behind the part, which holds the direct voltage off.
    return [
      draft(
        [
          move(part.ref, source.pin, net),
          resistor(rs, series, source.net, net),
          resistor(rp, shunt, net, place.ground),
        ],
        source.net,
        net,
      ),
      draft(
        [
          move(part.ref, load.pin, net),
          resistor(rs, series, net, load.net),
          resistor(rp, shunt, load.net, place.ground),
        ],
        net,
        load.net,
      ),
    ];
  },
};
