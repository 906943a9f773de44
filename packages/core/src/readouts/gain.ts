import { magnitude } from '../analysis/index.ts';
import { formatQuantity, ratioToDb } from '../quantity/index.ts';
import { nameField, positiveField, type ReadoutType } from './readout-type.ts';

/** Voltage gain from one net to another at a frequency, dB. */
export const gain: ReadoutType = {
  unit: 'dB',
  quantity: 'level',
  describe: (r) =>
    `${String(r['from'])} to ${String(r['to'])} at ${formatQuantity(Number(r['frequencyHz']), 'Hz')}`,
  compute(model, r) {
    const minus = typeof r['toMinus'] === 'string' ? r['toMinus'] : undefined;
    return ratioToDb(
      magnitude(
        model.transfer(nameField(r, 'from'), nameField(r, 'to'), positiveField(r, 'frequencyHz'), minus),
      ),
    );
  },
};
