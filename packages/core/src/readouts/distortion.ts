import { BenchModel, transient } from '../analysis/index.ts';
import { harmonics, totalHarmonicDistortion } from '../audio/index.ts';
import type { Part, Readout } from '../circuit/index.ts';
import { HalfsplitError } from '../errors.ts';
import { formatQuantity } from '../quantity/index.ts';
import { nameField, positiveField, type ReadoutType } from './readout-type.ts';

/** Periods let go by before the wave is taken, the periods taken, and samples in each. */
const SETTLING_PERIODS = 6;
const TAKEN_PERIODS = 2;
const SAMPLES_PER_PERIOD = 128;
/** Highest harmonic counted. */
const HIGHEST = 10;

/** The model with one signal source as a sine of a level and frequency. */
function drivenBy(model: BenchModel, source: string, level: number, frequency: number): BenchModel {
  const parts = model.circuit.parts.map((p): Part => {
    if (p.ref !== source) return p;
    const { layer } = model.system;
    return { ...p, [layer]: level, frequency, waveform: 'sine' };
  });
  if (!parts.some((p) => p.ref === source && p.kind === 'signal')) {
    throw new HalfsplitError('analysis/no-source', { where: source, detail: 'it is not a signal source' });
  }
  return new BenchModel({ ...model.circuit, parts }, model.system.layer);
}

/** Amplitudes of the harmonics at a net with a sine of `level` volt peak. Throws where no time step can be taken. */
function amplitudesAt(model: BenchModel, readout: Readout, level: number): number[] {
  const frequency = positiveField(readout, 'frequencyHz');
  const driven = drivenBy(model, nameField(readout, 'source'), level, frequency);
  const node = driven.system.node(nameField(readout, 'out'), `Readout "${readout.name}"`);
  const samples: number[] = [];
  const outcome = transient(driven, {
    stopS: (SETTLING_PERIODS + TAKEN_PERIODS) / frequency,
    stepS: 1 / (frequency * SAMPLES_PER_PERIOD),
    onPoint: (_t, x) => void samples.push(x[node]!),
  });
  if (!outcome.ok)
    throw new HalfsplitError('readout/not-defined', {
      where: readout.name,
      detail: outcome.problem.message.replace(/\.$/, ''),
    });
  const taken = Float64Array.from(samples.slice(-TAKEN_PERIODS * SAMPLES_PER_PERIOD));
  return harmonics(taken, TAKEN_PERIODS, HIGHEST);
}

/** Total harmonic distortion at a level, as a ratio (IEC 60268-3). */
export const thd: ReadoutType = {
  unit: 'ratio',
  quantity: 'number',
  isSlow: true,
  describe: (r) =>
    `distortion at ${String(r['out'])}, ${formatQuantity(Number(r['levelV']), 'V')} at ${formatQuantity(Number(r['frequencyHz']), 'Hz')}`,
  compute: (model, r) => totalHarmonicDistortion(amplitudesAt(model, r, positiveField(r, 'levelV'))),
};

const USUAL_THD = 0.01;
const LEAST_LEVEL_V = 1e-4;
const LARGEST_LEVEL_V = 100;
const BISECTIONS = 9;

/** Largest fundamental at a net, V peak, before the distortion passes `thd` (default 1 %). */
export const headroom: ReadoutType = {
  unit: 'V',
  quantity: 'voltage',
  isSlow: true,
  describe: (r) => `headroom at ${String(r['out'])}, ${formatQuantity(Number(r['frequencyHz']), 'Hz')}`,
  compute(model, r) {
    const limit = positiveField(r, 'thd', USUAL_THD);
    const at = (level: number) => amplitudesAt(model, r, level);
    let [low, high] = [LEAST_LEVEL_V, LEAST_LEVEL_V];
    while (totalHarmonicDistortion(at(high)) <= limit) {
      low = high;
      high *= 4;
      if (high > LARGEST_LEVEL_V)
        throw new HalfsplitError('readout/not-defined', {
          where: r.name,
          detail: `it does not distort up to ${LARGEST_LEVEL_V} V`,
        });
    }
    for (let i = 0; i < BISECTIONS; i += 1) {
      const middle = Math.sqrt(low * high);
      if (totalHarmonicDistortion(at(middle)) <= limit) low = middle;
      else high = middle;
    }
    return at(low)[1]!;
  },
};
