import { evaluateReadout, type Readout } from '../../../analysis/readouts/index.ts';
import type { Feedback } from './opamp-feedback.ts';
import { cannot, type Place } from './place.ts';
import type { ReadoutSpec } from './way.ts';

/** A gain of E24 parts comes as near as this to what was asked, dB: half a step of the series. */
export const GAIN_WITHIN_DB = 0.6;

/** What a readout is as the place is now. Throws `rework/way` where it has no value. */
export function readNow(place: Place, readout: ReadoutSpec): number {
  const answer = evaluateReadout(place.session, { id: 'now', name: 'now', ...readout } as Readout);
  if (!answer.ok) throw cannot(answer.problem.message);
  return answer.value;
}

/** The gain of a stage as it is now, dB. */
export const gainNow = (place: Place, { gain }: Feedback): number => readNow(place, gain);
