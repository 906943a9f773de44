import { noiseAt } from '../analysis/index.ts';
import { needed, type ReadoutType } from './readout-type.ts';

/** Noise at a net over a band, V, or referred to a source when one is named. */
export const noise: ReadoutType<'noise'> = {
  describe: (r) =>
    `noise at ${r.out}${r.weighting && r.weighting !== 'none' ? `, ${r.weighting}-weighted` : ''}`,
  compute(session, r) {
    const { weighting, fromHz, toHz, source } = r;
    const answer = noiseAt(session, {
      out: needed(r, 'out', r.out),
      ...(weighting === undefined ? {} : { weighting }),
      ...(fromHz === undefined ? {} : { fromHz }),
      ...(toHz === undefined ? {} : { toHz }),
      ...(source === undefined ? {} : { source }),
    });
    return answer.inputReferredV ?? answer.totalV;
  },
};
