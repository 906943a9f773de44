import { magnitude } from '../analysis/index.ts';
import { HalfsplitError } from '../errors.ts';
import { formatQuantity, ratioToDb } from '../quantity/index.ts';
import { nameField, positiveField, type ReadoutType } from './readout-type.ts';

/** Time constants of disc replay, s (IEC 60098): bass, middle, treble. */
const BASS_S = 3180e-6;
const MIDDLE_S = 318e-6;
const TREBLE_S = 75e-6;
const REFERENCE_HZ = 1000;

/** Published curves by name: magnitude in dB relative to 1 kHz at a frequency in Hz. */
export const CURVES: Readonly<Record<string, (frequencyHz: number) => number>> = {
  'disc-replay': (f) => discReplay(f) - discReplay(REFERENCE_HZ),
};

function discReplay(frequencyHz: number): number {
  const omega = 2 * Math.PI * frequencyHz;
  const term = (seconds: number) => Math.hypot(1, omega * seconds);
  return ratioToDb(term(MIDDLE_S) / (term(BASS_S) * term(TREBLE_S)));
}

/** Departure of the gain from a published curve at a frequency, both relative to 1 kHz, dB. */
export const curveError: ReadoutType = {
  unit: 'dB',
  quantity: 'level',
  describe: (r) => `against ${String(r['curve'])} at ${formatQuantity(Number(r['frequencyHz']), 'Hz')}`,
  compute(model, r) {
    const curve = CURVES[nameField(r, 'curve')];
    if (!curve) {
      const detail = `there is no curve "${String(r['curve'])}"; known: ${Object.keys(CURVES).join(', ')}`;
      throw new HalfsplitError('readout/not-defined', { where: r.name, detail });
    }
    const frequencyHz = positiveField(r, 'frequencyHz');
    const gainDb = (f: number) =>
      ratioToDb(magnitude(model.transfer(nameField(r, 'from'), nameField(r, 'to'), f)));
    return gainDb(frequencyHz) - gainDb(REFERENCE_HZ) - curve(frequencyHz);
  },
};
