import type { ReadoutOf } from '@zemble/contract';
import { magnitude, transfer } from '../analysis/index.ts';
import { formatQuantity, ratioToDb } from '../../base/quantity/index.ts';
import { needed, undefinedBecause, type ReadoutType } from './readout-type.ts';

type CurveName = NonNullable<ReadoutOf<'curveError'>['curve']>;

/** Time constants of disc replay, s (IEC 60098): bass, middle, treble. */
const BASS_S = 3180e-6;
const MIDDLE_S = 318e-6;
const TREBLE_S = 75e-6;
const REFERENCE_HZ = 1000;

/** Published curves by name: magnitude in dB relative to 1 kHz at a frequency in Hz. */
export const CURVES: Readonly<Record<CurveName, (frequencyHz: number) => number>> = {
  'disc-replay': (f) => discReplay(f) - discReplay(REFERENCE_HZ),
};

function discReplay(frequencyHz: number): number {
  const omega = 2 * Math.PI * frequencyHz;
  const term = (seconds: number) => Math.hypot(1, omega * seconds);
  return ratioToDb(term(MIDDLE_S) / (term(BASS_S) * term(TREBLE_S)));
}

/** Departure of the gain from a published curve at a frequency, both relative to 1 kHz, dB. */
export const curveError: ReadoutType<'curveError'> = {
  describe: (r) => `against ${r.curve} at ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute(session, r) {
    const curve = CURVES[needed(r, 'curve', r.curve)];
    const [from, to] = [needed(r, 'from', r.from), needed(r, 'to', r.to)];
    const frequencyHz = needed(r, 'frequencyHz', r.frequencyHz);
    const gainDb = (f: number) => {
      const ratio = magnitude(transfer(session, from, to, f));
      if (ratio === 0) throw undefinedBecause(r, `nothing of ${from} arrives at ${to}`);
      return ratioToDb(ratio);
    };
    return gainDb(frequencyHz) - gainDb(REFERENCE_HZ) - curve(frequencyHz);
  },
};
