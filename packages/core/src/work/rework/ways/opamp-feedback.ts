import type { LayerPart } from '../../../circuit/circuit/index.ts';
import { farEnd, MIDDLE_HZ, type Place } from './place.ts';
import type { ReadoutSpec } from './way.ts';

/** An operational amplifier with its feedback by two resistors. */
export interface Feedback {
  readonly chip: LayerPart;
  /** From the output to the inverting input. */
  readonly rf: LayerPart;
  /** From the inverting input away: the input's of a stage that inverts. */
  readonly rg: LayerPart;
  readonly isInverting: boolean;
  /** The stage's own gain, as it is with everything at it. */
  readonly gain: ReadoutSpec;
}

/** A tone at the other input of more than this part of that at the far end of the lower resistor comes in there. */
const COMES_IN = 0.2;
/** A far end with less than this part of the resistor to the ground is where a stage that does not invert has its foot. */
const FOOT = 0.1;

/**
 * The feedback that a chosen chip or resistor belongs to; null where it is none by one resistor back and one away, as of a
 * mixer, of which no resistor was chosen.
 */
export function feedbackOf(place: Place): Feedback | null {
  const { circuit, part } = place;
  if (!part) return null;
  for (const chip of circuit.parts.filter((p) => p.kind === 'opamp')) {
    const { minus, out, plus } = chip.pins;
    if (minus === undefined || out === undefined || plus === undefined || minus === out) continue;
    const back = place.between('resistor', minus, out);
    const [rf] = back;
    const away = place.at(minus).filter((p) => p.kind === 'resistor' && !back.includes(p));
    const rg: LayerPart | undefined = away.includes(part) ? part : away.length === 1 ? away[0] : undefined;
    if (!rf || back.length > 1 || !rg || ![chip, rf, rg].includes(part)) continue;
    const far = farEnd(rg, minus);
    const isInverting = !comesInAt(place, plus, far, rg);
    const from = isInverting ? far : plus;
    if (from === circuit.ground) continue;
    return {
      chip,
      rf,
      rg,
      isInverting,
      gain: { kind: 'gain', from, to: out, frequencyHz: MIDDLE_HZ },
    };
  }
  return null;
}

/** Whether the signal comes to the input that does not invert: by the tone there, or by what the lower resistor stands on. */
function comesInAt(place: Place, plus: string, far: string, rg: LayerPart): boolean {
  if (far === place.ground) return true;
  if (plus === place.ground) return false;
  const [atPlus, atFar] = [place.tone(plus), place.tone(far)];
  if (atPlus > 0 || atFar > 0) return atPlus > COMES_IN * atFar;
  return place.seen(far) < FOOT * place.worth(rg);
}
