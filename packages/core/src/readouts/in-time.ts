import { BenchModel, transient } from '../analysis/index.ts';
import { crossingsOf, oscillationOf, type Oscillation, type Trace } from '../audio/index.ts';
import type { Readout } from '../circuit/index.ts';
import { HalfsplitError } from '../errors.ts';
import { formatQuantity } from '../quantity/index.ts';
import { nameField, type ReadoutType } from './readout-type.ts';

/** Runs after switch-on grow by this factor until they show what is looked for. */
const FIRST_RUN_S = 2e-3;
const GROWTH = 5;
const LONGEST_RUN_S = 800;
/** Most points of one run: a fast oscillation in a long run is seen long before. */
const MOST_POINTS = 60_000;

/** The same circuit without its audio: what happens by itself after switch-on. Pulses stay: they trigger. */
function silenced(model: BenchModel): BenchModel {
  const { layer } = model.system;
  const parts = model.circuit.parts.map((p) =>
    p.kind === 'signal' && p['waveform'] !== 'pulse' ? { ...p, [layer]: 0 } : p,
  );
  return new BenchModel({ ...model.circuit, parts }, layer);
}

/** A net's voltage from switch-on, or as far as `MOST_POINTS` reach. */
function afterSwitchOn(sounding: BenchModel, readout: Readout, stopS: number): Trace {
  const model = silenced(sounding);
  const node = model.system.node(nameField(readout, 'net'), `Readout "${readout.name}"`);
  const timeS: number[] = [];
  const value: number[] = [];
  const outcome = transient(model, {
    stopS,
    start: 'zero',
    onPoint(t, x) {
      timeS.push(t);
      value.push(x[node]!);
      return timeS.length < MOST_POINTS;
    },
  });
  if (!outcome.ok)
    throw new HalfsplitError('readout/not-defined', {
      where: readout.name,
      detail: outcome.problem.message.replace(/\.$/, ''),
    });
  return { timeS, value };
}

/** Looks in longer and longer runs until `find` answers; undefined when the longest does not show it. */
function inGrowingRuns<T>(
  model: BenchModel,
  readout: Readout,
  find: (trace: Trace, stopS: number) => T | null,
): T | undefined {
  for (let stopS = FIRST_RUN_S; stopS <= LONGEST_RUN_S; stopS *= GROWTH) {
    const trace = afterSwitchOn(model, readout, stopS);
    const found = find(trace, stopS);
    if (found !== null) return found;
    if (trace.timeS.length >= MOST_POINTS) return undefined;
  }
  return undefined;
}

function steadyOscillation(model: BenchModel, readout: Readout): Oscillation {
  const found = inGrowingRuns(model, readout, oscillationOf);
  if (found) return found;
  throw new HalfsplitError('readout/not-defined', {
    where: readout.name,
    detail: `net ${String(readout['net'])} does not oscillate`,
  });
}

/** Rate of the steady oscillation at a net, Hz. */
export const rate: ReadoutType = {
  unit: 'Hz',
  quantity: 'frequency',
  isSlow: true,
  describe: (r) => `rate at ${String(r['net'])}`,
  compute: (model, r) => steadyOscillation(model, r).frequencyHz,
};

/** Period of the steady oscillation at a net, s. */
export const period: ReadoutType = {
  unit: 's',
  quantity: 'time',
  isSlow: true,
  describe: (r) => `period at ${String(r['net'])}`,
  compute: (model, r) => steadyOscillation(model, r).periodS,
};

/** Seconds from switch-on until a net first crosses a threshold, rising unless `rising` is false. */
export const delay: ReadoutType = {
  unit: 's',
  quantity: 'time',
  isSlow: true,
  describe: (r) => `until ${String(r['net'])} passes ${formatQuantity(Number(r['thresholdV']), 'V')}`,
  compute(model, r) {
    const level = Number(r['thresholdV']);
    if (!Number.isFinite(level))
      throw new HalfsplitError('readout/not-defined', { where: r.name, detail: '"thresholdV" is missing' });
    const found = inGrowingRuns(
      model,
      r,
      (trace) => crossingsOf(trace, level, r['rising'] !== false)[0] ?? null,
    );
    if (found !== undefined) return found;
    throw new HalfsplitError('readout/not-defined', {
      where: r.name,
      detail: `net ${String(r['net'])} never passes ${formatQuantity(level, 'V')}`,
    });
  },
};

/** A net has come to rest when it moves by less than this part of its peak in the second half of a run. */
const AT_REST = 0.01;

/** Largest voltage at a net after switch-on, V, until it has come to rest. */
export const thump: ReadoutType = {
  unit: 'V',
  quantity: 'voltage',
  isSlow: true,
  describe: (r) => `thump at ${String(r['net'])} after switch-on`,
  compute(model, r) {
    const find = ({ timeS, value }: Trace): number | null => {
      const peak = Math.max(...value.map(Math.abs));
      const late = value.slice(timeS.findIndex((t) => t > timeS.at(-1)! / 2));
      return Math.max(...late) - Math.min(...late) <= AT_REST * peak ? peak : null;
    };
    // A net may rest before a slow part has begun to move it: the run after the first quiet one decides.
    let quiet = 0;
    const found = inGrowingRuns(model, r, (trace) => {
      const peak = find(trace);
      quiet = peak === null ? 0 : quiet + 1;
      return quiet >= 3 ? peak : null;
    });
    if (found !== undefined) return found;
    throw new HalfsplitError('readout/not-defined', {
      where: r.name,
      detail: `net ${String(r['net'])} does not come to rest`,
    });
  },
};
