import { magnitude } from '../analysis/index.ts';
import { HalfsplitError } from '../errors.ts';
import { formatQuantity } from '../quantity/index.ts';
import { nameField, positiveField, type ReadoutType } from './readout-type.ts';

/** What a source sees at its terminals, without its own resistance, ohm. */
export const inputImpedance: ReadoutType = {
  unit: 'ohm',
  quantity: 'resistor',
  describe: (r) => `seen by ${String(r['source'])} at ${formatQuantity(Number(r['frequencyHz']), 'Hz')}`,
  compute(model, r) {
    const ref = nameField(r, 'source');
    const { system } = model;
    const row = system.device(ref, `Readout "${r.name}"`).driveRow;
    const part = system.circuit.parts.find((p) => p.ref === ref);
    if (row === undefined || !part) {
      throw new HalfsplitError('readout/not-defined', { where: r.name, detail: `${ref} is not a source` });
    }
    const solved = model.smallSignal.at(positiveField(r, 'frequencyHz')).drive(ref);
    const volt = solved.voltage(system.node(part.pins['plus']!), system.node(part.pins['minus']!));
    const ampere = magnitude({ re: solved.xRe[row]!, im: solved.xIm[row]! });
    if (ampere === 0)
      throw new HalfsplitError('readout/not-defined', {
        where: r.name,
        detail: 'nothing draws current from it',
      });
    return magnitude(volt) / ampere;
  },
};

/** What a net presents to a load, all sources at rest, ohm. */
export const outputImpedance: ReadoutType = {
  unit: 'ohm',
  quantity: 'resistor',
  describe: (r) => `of ${String(r['net'])} at ${formatQuantity(Number(r['frequencyHz']), 'Hz')}`,
  compute(model, r) {
    const node = model.system.node(nameField(r, 'net'), `Readout "${r.name}"`);
    return magnitude(model.smallSignal.at(positiveField(r, 'frequencyHz')).inject(0, node).voltage(node));
  },
};
