import { BenchModel } from '../analysis/index.ts';
import type { Readout } from '../circuit/index.ts';
import { HalfsplitError } from '../errors.ts';
import { nameField, type ReadoutAnswer, type ReadoutType } from './readout-type.ts';

/** Places of the travel that are tried, ends included. */
const PLACES = 11;

/** Evaluates another readout; given by the caller, which knows all of them. */
export type Evaluate = (model: BenchModel, readout: Readout) => ReadoutAnswer;

/**
 * Smallest and largest value of another readout (`of`, its id) over the travel of a potentiometer (`part`). As a single
 * number it is the distance between the two, in that readout's unit, or in semitones with `in`: "semitones".
 */
export function rangeOver(
  model: BenchModel,
  readout: Readout,
  others: readonly Readout[],
  evaluate: Evaluate,
): { min: number; max: number } {
  const other = others.find((r) => r.id === nameField(readout, 'of'));
  const pot = model.circuit.parts.find((p) => p.ref === nameField(readout, 'part'));
  const refuse = (detail: string) =>
    new HalfsplitError('readout/not-defined', { where: readout.name, detail });
  if (!other || other.kind === 'range')
    throw refuse(`there is no readout "${String(readout['of'])}" to take the range of`);
  if (pot?.kind !== 'potentiometer') throw refuse(`${String(readout['part'])} is not a potentiometer`);
  const values: number[] = [];
  for (let i = 0; i < PLACES; i += 1) {
    const parts = model.circuit.parts.map((p) => (p === pot ? { ...p, position: i / (PLACES - 1) } : p));
    const answer = evaluate(new BenchModel({ ...model.circuit, parts }, model.system.layer), other);
    if (answer.ok) values.push(answer.value);
  }
  if (values.length === 0) throw refuse(`"${other.name}" has no value anywhere on the travel of ${pot.ref}`);
  return { min: Math.min(...values), max: Math.max(...values) };
}

export const range: ReadoutType = {
  unit: '',
  quantity: 'number',
  isSlow: true,
  describe: (r) => `range of ${String(r['of'])} over ${String(r['part'])}`,
  compute() {
    throw new Error('A range is computed by evaluateReadout, which knows the other readouts.');
  },
};

/** Distance between two pitches in semitones of equal temperament: 12 log2 of their ratio. */
export const semitones = (lowHz: number, highHz: number): number => 12 * Math.log2(highHz / lowHz);
