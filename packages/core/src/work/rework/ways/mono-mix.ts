import { formatQuantity } from '../../../base/quantity/index.ts';
import { resistor } from './parts.ts';
import { cannot, MIDDLE_HZ, type Place } from './place.ts';
import { twinNet } from './twins.ts';
import type { ReadoutSpec, Way } from './way.ts';

/** Two channels that a net can be mixed into: nets that are named as left and right, and carry a tone of their own. */
function channelsOf(place: Place): readonly [string, string] | null {
  const { net } = place;
  if (net === undefined || net === place.ground || place.isStill(net)) return null;
  const nets = [...new Set(place.circuit.parts.flatMap((p) => Object.values(p.pins)))].sort();
  for (const left of nets) {
    const right = twinNet(place, left);
    if (right === undefined || left === net || right === net || place.isStill(left) || place.isStill(right))
      continue;
    const isInput = (side: string) =>
      place.at(side).some((p) => p.kind === 'capacitor' || p.kind === 'resistor');
    if (place.tone(left) > 0 && place.tone(right) > 0 && isInput(left) && isInput(right))
      return [left, right];
  }
  return null;
}

/** Two equal resistors from one signal into two channels: what they lose, and what of one channel comes into the other. */
export const monoMix: Way = {
  id: 'mono-mix',
  title: 'Mono into two channels',
  asks: (place) =>
    channelsOf(place) ? [{ id: 'separation', label: 'Separation', quantity: 'level', given: 40 }] : null,
  drafts(place, { separation }) {
    if (!(separation! > 0)) throw cannot('Channels are more than 0 dB apart.');
    const net = place.net!;
    const [left, right] = channelsOf(place)!;
    const [r1, r2] = [place.free('R'), place.free('R')];
    const apart: ReadoutSpec = {
      kind: 'separation',
      from: left,
      wanted: left,
      leak: right,
      frequencyHz: MIDDLE_HZ,
    };
    const arrives: ReadoutSpec = { kind: 'gain', from: net, to: left, frequencyHz: MIDDLE_HZ };
    return [
      {
        name: 'Mono mix',
        steps: [resistor(r1, 10_000, net, left), resistor(r2, 10_000, net, right)],
        unknowns: [{ refs: [r1, r2], series: 'E24', goal: 0 }],
        goals: [
          { readout: apart, aim: separation!, is: 'least', within: 0.5 },
          { readout: arrives, aim: 0, is: 'most', within: 0.01 },
        ],
        says: ({ value, reads }) => [
          `${formatQuantity(value(r1), 'ohm')} each: ${formatQuantity(reads[0]!, 'dB')} between ${left} and ${right}, and ${formatQuantity(-reads[1]!, 'dB')} lost from ${net} into ${left}.`,
        ],
        traps: () => [
          'A source of higher resistance brings the channels together: measure it with the cable on.',
        ],
      },
    ];
  },
};
