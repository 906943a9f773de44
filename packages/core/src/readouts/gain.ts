import { magnitude } from '../analysis/index.ts';
import type { Readout } from '../circuit/index.ts';
import { formatQuantity, ratioToDb } from '../quantity/index.ts';
import { nameField, positiveField, type ReadoutType } from './readout-type.ts';

/** Voltage gain from one net to another at a frequency, dB. */
export const gain: ReadoutType = {
  unit: 'dB',
  quantity: 'level',
  describe: (r) =>
    `${String(r['from'])} to ${String(r['to'])} at ${formatQuantity(Number(r['frequencyHz']), 'Hz')}`,
  compute: (model, r) => ratioToDb(magnitude(model.transfer(...transferOf(r)))),
  slopes: (adjoint, r) => adjoint.gainDb(...transferOf(r)),
};

function transferOf(r: Readout): [from: string, to: string, frequencyHz: number, toMinus?: string] {
  const minus = typeof r['toMinus'] === 'string' ? [r['toMinus']] : [];
  return [nameField(r, 'from'), nameField(r, 'to'), positiveField(r, 'frequencyHz'), ...(minus as [string?])];
}
