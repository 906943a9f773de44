import type { ReadoutOf } from '@zemble/contract';
import { magnitude, transfer } from '../analysis/index.ts';
import { formatQuantity } from '../../base/quantity/index.ts';
import { levelDb } from './nothing.ts';
import { needed, type ReadoutType } from './readout-type.ts';

/** Voltage gain at a frequency, dB: from a net, or from a source's electromotive force. */
export const gain: ReadoutType<'gain'> = {
  describe: (r) => `${r.from} to ${r.to} at ${formatQuantity(r.frequencyHz ?? 0, 'Hz')}`,
  compute(session, r) {
    return levelDb(magnitude(transfer(session, ...transferOf(r))));
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
