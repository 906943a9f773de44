import { magnitude, transfer } from '../analysis/index.ts';
import { formatQuantity, ratioToDb } from '../../base/quantity/index.ts';
import { needed, undefinedBecause, type ReadoutType } from './readout-type.ts';

/** How far below the wanted net a signal arrives at the other channel, dB. */
export const separation: ReadoutType<'separation'> = {
  describe: (r) => `${r.wanted} against ${r.leak} at ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute(session, r) {
    const from = needed(r, 'from', r.from);
    const frequencyHz = needed(r, 'frequencyHz', r.frequencyHz);
    const levelAt = (net: string) => {
      const ratio = magnitude(transfer(session, from, net, frequencyHz));
      if (ratio === 0) throw undefinedBecause(r, `nothing of ${from} arrives at ${net}`);
      return ratioToDb(ratio);
    };
    return levelAt(needed(r, 'wanted', r.wanted)) - levelAt(needed(r, 'leak', r.leak));
  },
};

/** What a ripple of `sourceV` on the supply (the first one, unless `source` names another) leaves at a net, V. */
export const ripple: ReadoutType<'ripple'> = {
  describe: (r) => `ripple at ${r.net}, ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute(session, r) {
    const supply = r.source ?? session.circuit.parts.find((p) => p.kind === 'supply')?.ref;
    if (supply === undefined) throw undefinedBecause(r, 'the circuit has no supply');
    const node = session.system.node(needed(r, 'net', r.net), `Readout "${r.name}"`);
    const solved = session.smallSignal.at(needed(r, 'frequencyHz', r.frequencyHz)).drive(supply);
    return magnitude(solved.voltage(node)) * needed(r, 'sourceV', r.sourceV);
  },
};
