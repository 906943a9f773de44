import { magnitude, transfer } from '../analysis/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import { levelDb, NOTHING_DB } from './nothing.ts';
import { needed, undefinedBecause, type ReadoutType } from './readout-type.ts';

/** How far below the wanted net a signal arrives at the other channel, dB. */
export const separation: ReadoutType<'separation'> = {
  describe: (r) => `${r.wanted} against ${r.leak} at ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute(session, r) {
    const from = needed(r, 'from', r.from);
    const frequencyHz = needed(r, 'frequencyHz', r.frequencyHz);
    const levelAt = (net: string) => levelDb(magnitude(transfer(session, from, net, frequencyHz)));
    const [wanted, leak] = [needed(r, 'wanted', r.wanted), needed(r, 'leak', r.leak)];
    const [there, elsewhere] = [levelAt(wanted), levelAt(leak)];
    if (there <= -NOTHING_DB && elsewhere <= -NOTHING_DB)
      throw undefinedBecause(r, `nothing of ${from} arrives at ${wanted} or ${leak}`);
    // What does not arrive is as far apart as anything is, whatever arrives at the other.
    if (elsewhere <= -NOTHING_DB) return NOTHING_DB;
    return there <= -NOTHING_DB ? -NOTHING_DB : there - elsewhere;
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
