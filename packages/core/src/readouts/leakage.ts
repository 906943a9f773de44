import { magnitude } from '../analysis/index.ts';
import { HalfsplitError } from '../errors.ts';
import { formatQuantity, ratioToDb } from '../quantity/index.ts';
import { nameField, positiveField, type ReadoutType } from './readout-type.ts';

/** How far below the wanted net a signal arrives at the other channel, dB. */
export const separation: ReadoutType = {
  unit: 'dB',
  quantity: 'level',
  describe: (r) =>
    `${String(r['wanted'])} against ${String(r['leak'])} at ${formatQuantity(Number(r['frequencyHz']), 'Hz')}`,
  compute(model, r) {
    const to = (field: string) =>
      magnitude(model.transfer(nameField(r, 'from'), nameField(r, field), positiveField(r, 'frequencyHz')));
    return ratioToDb(to('wanted')) - ratioToDb(to('leak'));
  },
};

/** What a ripple of `sourceV` on the supply (the first one, unless `source` names another) leaves at a net, V. */
export const ripple: ReadoutType = {
  unit: 'V',
  quantity: 'voltage',
  describe: (r) => `ripple at ${String(r['net'])}, ${formatQuantity(Number(r['frequencyHz']), 'Hz')}`,
  compute(model, r) {
    const supply =
      typeof r['source'] === 'string'
        ? r['source']
        : model.circuit.parts.find((p) => p.kind === 'supply')?.ref;
    if (supply === undefined)
      throw new HalfsplitError('readout/not-defined', { where: r.name, detail: 'the circuit has no supply' });
    const node = model.system.node(nameField(r, 'net'), `Readout "${r.name}"`);
    const response = model.smallSignal.at(positiveField(r, 'frequencyHz')).drive(supply).voltage(node);
    return magnitude(response) * positiveField(r, 'sourceV');
  },
};
