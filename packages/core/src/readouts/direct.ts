import { nameField, type ReadoutType } from './readout-type.ts';

/** Direct voltage at a net, V. */
export const voltage: ReadoutType = {
  unit: 'V',
  quantity: 'voltage',
  describe: (r) => `DC at ${String(r['net'])}`,
  compute: (model, r) =>
    model.operatingPoint()[model.system.node(nameField(r, 'net'), `Readout "${r.name}"`)]!,
  slopes: (adjoint, r) => adjoint.voltage(nameField(r, 'net')),
};

/** Direct current into a part's first pin, A. */
export const current: ReadoutType = {
  unit: 'A',
  quantity: 'current',
  describe: (r) => `current in ${String(r['part'])}`,
  compute: (model, r) =>
    model.system.device(nameField(r, 'part'), `Readout "${r.name}"`).report(model.operatingPoint()).current,
};

/** Heat in a part at rest, W. */
export const dissipation: ReadoutType = {
  unit: 'W',
  quantity: 'power',
  describe: (r) => `heat in ${String(r['part'])}`,
  compute: (model, r) =>
    model.system.device(nameField(r, 'part'), `Readout "${r.name}"`).report(model.operatingPoint()).power,
};
