import type { ReadoutOf } from '@zemble/contract';
import { magnitude, transfer } from '../analysis/index.ts';
import { formatQuantity, ratioToDb } from '../../base/quantity/index.ts';
import { needed, undefinedBecause, type ReadoutType } from './readout-type.ts';

/** Voltage gain at a frequency, dB: from a net, or from a source's electromotive force. */
export const gain: ReadoutType<'gain'> = {
  describe: (r) => `${r.from} to ${r.to} at ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute(session, r) {
    const ratio = magnitude(transfer(session, ...transferOf(r)));
    if (ratio === 0) throw undefinedBecause(r, `nothing of ${r.from} arrives at ${r.to}`);
    return ratioToDb(ratio);
  },
  slopes: (adjoint, _session, r) => adjoint.gainDb(...transferOf(r)),
};

function transferOf(r: ReadoutOf<'gain'>): [from: string, to: string, frequencyHz: number, toMinus?: string] {
  const minus: [string?] = r.toMinus === undefined ? [] : [r.toMinus];
  return [
    needed(r, 'from', r.from),
    needed(r, 'to', r.to),
    needed(r, 'frequencyHz', r.frequencyHz),
    ...minus,
  ];
}
