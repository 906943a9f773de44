import { ratioToDb } from '../../base/quantity/index.ts';
import type { AnalysisSession } from './session.ts';
import { magnitude } from './small-signal.ts';

export interface AcResponse {
  readonly frequencyHz: number[];
  readonly magnitudeDb: number[];
  /** Degrees, unwrapped from the first frequency on. */
  readonly phaseDeg: number[];
}

const HALF_TURN_DEG = 180;
/** What stands for no signal at all, dB: below any real circuit's leakage, and still a number. */
const SILENCE_DB = -400;

/**
 * Response at a net to 1 V in a source's EMF, at frequencies in Hz.
 * Throws `circuit/unknown-net`, `circuit/unknown-part`, `analysis/no-source`, `circuit/singular`, or that there is no operating point.
 */
export function acResponse(
  session: AnalysisSession,
  source: string,
  out: string,
  frequencyHz: readonly number[],
): AcResponse {
  const node = session.system.node(out, 'The response');
  const magnitudeDb: number[] = [];
  const phaseDeg: number[] = [];
  for (const f of frequencyHz) {
    const v = session.smallSignal.at(f).drive(source).voltage(node);
    magnitudeDb.push(Math.max(SILENCE_DB, ratioToDb(magnitude(v))));
    phaseDeg.push(unwrapped((Math.atan2(v.im, v.re) * HALF_TURN_DEG) / Math.PI, phaseDeg.at(-1)));
  }
  return { frequencyHz: [...frequencyHz], magnitudeDb, phaseDeg };
}

/** As `acResponse`, of the current into a part: dB relative to 1 A for 1 V in the source's EMF. */
export function acCurrent(
  session: AnalysisSession,
  source: string,
  part: string,
  frequencyHz: readonly number[],
): AcResponse {
  const magnitudeDb: number[] = [];
  const phaseDeg: number[] = [];
  for (const f of frequencyHz) {
    const i = session.smallSignal.at(f).drive(source).current(part);
    magnitudeDb.push(Math.max(SILENCE_DB, ratioToDb(magnitude(i))));
    phaseDeg.push(unwrapped((Math.atan2(i.im, i.re) * HALF_TURN_DEG) / Math.PI, phaseDeg.at(-1)));
  }
  return { frequencyHz: [...frequencyHz], magnitudeDb, phaseDeg };
}

function unwrapped(angleDeg: number, previousDeg: number | undefined): number {
  if (previousDeg === undefined) return angleDeg;
  return angleDeg + 360 * Math.round((previousDeg - angleDeg) / 360);
}
