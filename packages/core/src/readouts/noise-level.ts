import { noiseAt } from '../analysis/index.ts';
import { WEIGHTINGS, type Weighting } from '../audio/index.ts';
import { HalfsplitError } from '../errors.ts';
import { nameField, positiveField, type ReadoutType } from './readout-type.ts';

const FROM_HZ = 20;
const TO_HZ = 20_000;

/** Noise at a net over a band, V, or referred to a source when one is named. */
export const noise: ReadoutType = {
  unit: 'V',
  quantity: 'voltage',
  describe: (r) =>
    `noise at ${String(r['out'])}${r['weighting'] && r['weighting'] !== 'none' ? `, ${String(r['weighting'])}-weighted` : ''}`,
  compute(model, r) {
    const weighting = (r['weighting'] ?? 'none') as Weighting;
    if (!WEIGHTINGS.includes(weighting)) {
      throw new HalfsplitError('readout/not-defined', {
        where: r.name,
        detail: `"${weighting}" is no weighting; there are ${WEIGHTINGS.join(', ')}`,
      });
    }
    const source = typeof r['source'] === 'string' ? r['source'] : undefined;
    const answer = noiseAt(model, {
      out: nameField(r, 'out'),
      weighting,
      fromHz: positiveField(r, 'fromHz', FROM_HZ),
      toHz: positiveField(r, 'toHz', TO_HZ),
      ...(source === undefined ? {} : { source }),
    });
    return answer.inputReferredV ?? answer.totalV;
  },
};
