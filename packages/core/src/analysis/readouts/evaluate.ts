import {
  readoutDefinitionOf,
  type Layer,
  type QuantityKind,
  type Unit,
  type Readout,
} from '@zemble/contract';
import { AnalysisSession } from '../analysis/index.ts';
import { onDistinctLayers } from '../../circuit/changes/index.ts';
import type { LayerCircuit, Setting, UnitDocument } from '../../circuit/circuit/index.ts';
import { ZembleError, problem } from '../../base/errors/index.ts';
import type { ReadoutAnswer, ReadoutContext } from './readout-type.ts';
import { withSetting } from './range.ts';
import { computeReadout } from './registry.ts';

/** What readouts may refer to in their unit. */
export interface ReadoutsAround {
  readonly readouts?: readonly Readout[] | undefined;
  readonly settings?: readonly Setting[] | undefined;
  /** Asked while a long reading is taken; answering false leaves it out. */
  readonly mayGoOn?: (() => boolean) | undefined;
}

/**
 * One readout on one session, with the controls of its setting; `around` has the readouts that a range may be of, and the
 * settings. What it cannot be computed for is an answer, not an exception.
 */
export function evaluateReadout(
  session: AnalysisSession,
  readout: Readout,
  around: ReadoutsAround = {},
): ReadoutAnswer {
  const context: ReadoutContext = {
    readouts: around.readouts ?? [],
    settings: around.settings ?? [],
    mayGoOn: around.mayGoOn ?? (() => true),
    evaluate: (at, other) => evaluateReadout(at, other, around),
  };
  try {
    const at =
      readout.setting === undefined ? session : withSetting(session, readout, readout.setting, context);
    const reading = computeReadout(at, readout, context);
    const answer = typeof reading === 'number' ? { value: reading } : reading;
    if (Number.isFinite(answer.value)) return { ok: true, ...answer };
    return {
      ok: false,
      problem: problem('readout/not-defined', { where: readout.name, detail: 'there is nothing to read' }),
    };
  } catch (error) {
    if (error instanceof ZembleError) return { ok: false, problem: error.problem };
    throw error;
  }
}

/** Readouts on one circuit, with one operating point and one linearisation. */
export function evaluateAll(
  circuit: LayerCircuit,
  readouts: readonly Readout[],
  around: ReadoutsAround = { readouts },
): ReadoutAnswer[] {
  let session: AnalysisSession;
  try {
    session = new AnalysisSession(circuit);
  } catch (error) {
    if (error instanceof ZembleError) return readouts.map(() => ({ ok: false, problem: error.problem }));
    throw error;
  }
  return readouts.map((r) => evaluateReadout(session, r, around));
}

export interface ReadoutRow {
  readonly id: string;
  readonly unit: Unit;
  readonly answers: Readonly<Record<Layer, ReadoutAnswer>>;
}

/** Something for each layer, from a list in their order. */
export const byLayer = <T>(list: readonly T[]): Readonly<Record<Layer, T>> => ({
  marked: list[0]!,
  found: list[1]!,
  planned: list[2]!,
  proven: list[3]!,
});

/** Every readout of a unit on every layer. */
export function readoutTable(document: UnitDocument): ReadoutRow[] {
  const { circuit, readouts } = document;
  const layers = onDistinctLayers(circuit, (resolved) => evaluateAll(resolved, readouts, document));
  return readouts.map((r, i) => ({
    id: r.id,
    unit: unitOf(r, readouts),
    answers: byLayer(layers.map((answers) => answers[i]!)),
  }));
}

/** The unit a readout is read in; a range has that of the readout it is of. */
export function unitOf(readout: Readout, others: readonly Readout[] = []): Unit {
  if (readout.kind !== 'range') return readoutDefinitionOf(readout.kind).unit;
  if (readout.in === 'semitones') return 'semitones';
  const other = others.find((r) => r.id === readout.of);
  return other ? readoutDefinitionOf(other.kind).unit : '';
}

/** What a value of a readout is of, for reading it as it is typed. */
export function quantityOf(readout: Readout, others: readonly Readout[] = []): QuantityKind {
  if (readout.kind !== 'range') return readoutDefinitionOf(readout.kind).quantity;
  if (readout.in === 'semitones') return 'number';
  const other = others.find((r) => r.id === readout.of);
  return other ? readoutDefinitionOf(other.kind).quantity : 'number';
}
