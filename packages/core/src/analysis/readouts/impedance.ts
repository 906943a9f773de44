import { magnitude } from '../analysis/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import { needed, undefinedBecause, type ReadoutType } from './readout-type.ts';

/** What a source sees at its terminals, without its own resistance, ohm. */
export const inputImpedance: ReadoutType<'inputImpedance'> = {
  describe: (r) => `seen by ${r.source} at ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute(session, r) {
    const ref = needed(r, 'source', r.source);
    const { system } = session;
    const row = system.device(ref, `Readout "${r.name}"`).driveRow;
    const part = session.circuit.parts.find((p) => p.ref === ref);
    if (row === undefined || !part) throw undefinedBecause(r, `${ref} is not a source`);
    const solved = session.smallSignal.at(needed(r, 'frequencyHz', r.frequencyHz)).drive(ref);
    const volt = solved.voltage(system.node(part.pins.plus!), system.node(part.pins.minus!));
    const ampere = magnitude({ re: solved.xRe[row]!, im: solved.xIm[row]! });
    if (ampere === 0) throw undefinedBecause(r, 'nothing draws current from it');
    return magnitude(volt) / ampere;
  },
  slopes: (adjoint, _session, r) =>
    adjoint.inputImpedance(needed(r, 'source', r.source), needed(r, 'frequencyHz', r.frequencyHz)),
};

/** What a net presents to a load, all sources at rest, ohm. */
export const outputImpedance: ReadoutType<'outputImpedance'> = {
  describe: (r) => `of ${r.net} at ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute(session, r) {
    const node = session.system.node(needed(r, 'net', r.net), `Readout "${r.name}"`);
    const solved = session.smallSignal.at(needed(r, 'frequencyHz', r.frequencyHz)).inject(0, node);
    return magnitude(solved.voltage(node));
  },
  slopes: (adjoint, _session, r) =>
    adjoint.outputImpedance(needed(r, 'net', r.net), needed(r, 'frequencyHz', r.frequencyHz)),
};
