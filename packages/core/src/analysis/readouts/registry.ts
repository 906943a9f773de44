import type { ReadoutKind, Readout, ReadoutOf } from '@zemble/contract';
import type { AnalysisSession, AdjointSlopes } from '../analysis/index.ts';
import { corner } from './corner.ts';
import { current, dissipation, junctionTemperature, supplyPower, voltage } from './direct.ts';
import { headroom, outputPower, thd } from './distortion.ts';
import { gain } from './gain.ts';
import { inputImpedance, outputImpedance } from './impedance.ts';
import { delay, period, rate, thump } from './in-time.ts';
import { ripple, separation } from './leakage.ts';
import { noise } from './noise-level.ts';
import { overlap, range } from './range.ts';
import type { ReadoutContext, ReadoutReading, ReadoutType } from './readout-type.ts';
import { curveError } from './replay-curve.ts';
import { stability } from './stability.ts';
import { lifetime, runTime } from './stored-energy.ts';

/** The readouts that can be computed. A new one is its file and a line here. */
const READOUTS: { readonly [K in ReadoutKind]: ReadoutType<K> } = {
  gain,
  corner,
  voltage,
  current,
  dissipation,
  inputImpedance,
  outputImpedance,
  curveError,
  noise,
  thd,
  headroom,
  outputPower,
  rate,
  period,
  delay,
  separation,
  thump,
  ripple,
  range,
  overlap,
  stability,
  junctionTemperature,
  supplyPower,
  runTime,
  lifetime,
};

/** The type of a readout's kind with the readout as one of that kind: the registry's own type pairs them. */
function typed<K extends ReadoutKind, T>(
  kind: K,
  readout: Readout,
  use: (type: ReadoutType<K>, readout: ReadoutOf<K>) => T,
): T {
  return use(READOUTS[kind], readout as ReadoutOf<K>);
}

/** Short words for a readout: "from in to out at 1 kHz". */
export const describeReadout = (readout: Readout): string =>
  typed(readout.kind, readout, (type, r) => type.describe(r));

/** Computes a readout. Throws ZembleError where it is not defined, or the circuit has no operating point. */
export const computeReadout = (
  session: AnalysisSession,
  readout: Readout,
  context: ReadoutContext,
): ReadoutReading => typed(readout.kind, readout, (type, r) => type.compute(session, r, context));

/** The slopes of a readout by the adjoint system; undefined where its kind has none. */
export const adjointSlopesOf = (
  readout: Readout,
): ((adjoint: AdjointSlopes, session: AnalysisSession) => number[]) | undefined =>
  typed(readout.kind, readout, ({ slopes }, r) =>
    slopes ? (adjoint: AdjointSlopes, session: AnalysisSession) => slopes(adjoint, session, r) : undefined,
  );

/** Where a readout's signal goes in and comes out, for drawing its response; null for kinds that have no response. */
export function transferEnds(readout: Readout): { from: string; to: string } | null {
  switch (readout.kind) {
    case 'gain':
    case 'corner':
    case 'curveError':
      return readout.from && readout.to ? { from: readout.from, to: readout.to } : null;
    case 'separation':
      return readout.from && readout.wanted ? { from: readout.from, to: readout.wanted } : null;
    default:
      return null;
  }
}
