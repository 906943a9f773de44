import { formatQuantity } from '../../../base/quantity/index.ts';
import { GAIN_WITHIN_DB, readNow } from './gain.ts';
import { move, resistor } from './parts.ts';
import { cannot, farEnd, MIDDLE_HZ, pinAt, type Place } from './place.ts';
import type { ReadoutSpec, Way } from './way.ts';

/** A transistor stage with a bypassed emitter resistor, from its base to its collector. */
function stageOf(place: Place) {
  const bjt = place.part?.kind === 'bjt' ? place.part : undefined;
  const { b, c, e } = bjt?.pins ?? {};
  if (!bjt || b === undefined || c === undefined || e === undefined || e === place.ground) return null;
  const bypass = place.at(e).find((p) => p.kind === 'capacitor' && place.isStill(farEnd(p, e)));
  const isFed = place.at(e).some((p) => p.kind === 'resistor');
  if (!bypass || !isFed || place.isStill(c) || place.isStill(b)) return null;
  const gain: ReadoutSpec = { kind: 'gain', from: b, to: c, frequencyHz: MIDDLE_HZ };
  return { bjt, bypass, e, gain };
}

/** A resistor in series with the bypass capacitor leaves the rest position alone, and takes gain away. */
export const gainByEmitter: Way = {
  id: 'gain-by-emitter',
  title: 'Less gain by a resistor in the emitter bypass',
  asks(place) {
    const stage = stageOf(place);
    if (!stage) return null;
    return [
      { id: 'gain', label: 'Gain', quantity: 'level', given: Math.round(readNow(place, stage.gain) - 10) },
    ];
  },
  drafts(place, { gain }) {
    const { bjt, bypass, e, gain: readout } = stageOf(place)!;
    const now = readNow(place, readout);
    if (!(gain! < now))
      throw cannot(`${bjt.ref} has ${formatQuantity(now, 'dB')}: more it does not have there.`);
    const [r, net] = [place.free('R'), place.freeNet('byp')];
    return [
      {
        name: `Gain by emitter, ${Math.round(gain!)} dB`,
        steps: [move(bypass.ref, pinAt(bypass, e), net), resistor(r, 100, e, net)],
        unknowns: [{ refs: [r], series: 'E24', goal: 0 }],
        goals: [{ readout, aim: gain!, is: 'equal', within: GAIN_WITHIN_DB }],
        says: ({ value, reads }) => [
          `${formatQuantity(value(r), 'ohm')} in series with ${bypass.ref} make ${formatQuantity(reads[0]!, 'dB')} from base to collector, with what hangs on it; it is ${formatQuantity(now, 'dB')} now.`,
        ],
        traps: () => [
          `The bass corner by ${bypass.ref} comes down by as much, and the input impedance goes up.`,
        ],
      },
    ];
  },
};
