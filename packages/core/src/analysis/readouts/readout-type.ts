import type { ReadoutKind, Readout, ReadoutOf } from '@zemble/contract';
import type { AdjointSlopes, AnalysisSession } from '../analysis/index.ts';
import type { Setting } from '../../circuit/circuit/index.ts';
import { ZembleError, type Problem } from '../../base/errors/index.ts';

/** A readout's answer on one layer: a number, or the sentence that says why there is none. */
export type ReadoutAnswer =
  | {
      readonly ok: true;
      readonly value: number;
      /** The two ends of a range, in the readout's unit. */
      readonly range?: { readonly min: number; readonly max: number };
      /** What the number alone would hide, a sentence. */
      readonly beside?: string;
    }
  | { readonly ok: false; readonly problem: Problem };

/** What a readout may need beside the circuit: the unit's other readouts and its settings. */
export interface ReadoutContext {
  readonly readouts: readonly Readout[];
  readonly settings: readonly Setting[];
  /** Asked while something long is computed: answering false ends it without a value. */
  readonly mayGoOn: () => boolean;
  /** Computes another readout on a session; what it cannot be computed for is an answer. */
  evaluate(session: AnalysisSession, readout: Readout): ReadoutAnswer;
}

/** A reading: a number, one with something that must be said beside it, or the two ends of a range with the distance between them. */
export type ReadoutReading =
  | number
  | { readonly value: number; readonly beside?: string }
  | { readonly value: number; readonly range: { readonly min: number; readonly max: number } };

/** How a kind of readout is computed; its unit and fields are in its definition. */
export interface ReadoutType<K extends ReadoutKind> {
  /** Short words for a list: "from in to out at 1 kHz". */
  describe(readout: ReadoutOf<K>): string;
  /** Throws ZembleError where it is not defined, or the circuit has no operating point. */
  compute(session: AnalysisSession, readout: ReadoutOf<K>, context: ReadoutContext): ReadoutReading;
  /** d value / d (relative deviation) of every part by the adjoint system, where the kind has one. */
  slopes?(adjoint: AdjointSlopes, session: AnalysisSession, readout: ReadoutOf<K>): number[];
}

/** What must be there. Throws `readout/not-defined` that names the field. */
export function needed<T>(readout: Readout, name: string, value: T | undefined): T {
  if (value !== undefined && value !== '') return value;
  throw new ZembleError('readout/not-defined', { where: readout.name, detail: `"${name}" is missing` });
}

/** Ends a long computation whose time is up. Throws `readout/left-out`. */
export function checkTime(readout: Readout, { mayGoOn }: Pick<ReadoutContext, 'mayGoOn'>): void {
  if (!mayGoOn()) throw new ZembleError('readout/left-out', { where: readout.name });
}

/** Why a readout is not defined, as an error to throw. */
export const undefinedBecause = (readout: Readout, detail: string): ZembleError =>
  new ZembleError('readout/not-defined', { where: readout.name, detail: detail.replace(/\.$/, '') });
