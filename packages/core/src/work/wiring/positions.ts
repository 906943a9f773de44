import { readoutDefinitionOf } from '@zemble/contract';
import { resolveLayer, withControls } from '../../circuit/changes/index.ts';
import type { UnitDocument } from '../../circuit/circuit/index.ts';
import { ZembleError } from '../../base/errors/index.ts';
import { evaluateAll, type ReadoutAnswer } from '../../analysis/readouts/index.ts';
import { contactsOf, type ContactPosition } from './lugs.ts';

/** A position of a switch or jack, with what the unit does in it. */
export interface PositionRow extends ContactPosition {
  readonly ref: string;
  /** In the order of the readouts; null for one that is not asked for, or where the position cannot be computed. */
  readonly answers: readonly (ReadoutAnswer | null)[];
}

/**
 * Which position of each switch, jack, relay and potentiometer does what: the lugs that it joins, and the readouts of the planned
 * layer in it.
 *
 * @param which the quick readouts only, or those that take runs in time as well: seconds for each position
 */
export function positionTable(document: UnitDocument, which: 'quick' | 'all' = 'quick'): PositionRow[] {
  const { circuit, readouts } = document;
  const asked = readouts.filter((r) => which === 'all' || readoutDefinitionOf(r.kind).isSlow !== true);
  return resolveLayer(circuit, 'planned').parts.flatMap((part) =>
    contactsOf(part).map((position): PositionRow => {
      const answers = position.state === undefined ? null : answersAt(part.ref, position.state);
      return {
        ref: part.ref,
        ...position,
        answers: readouts.map((r) => answers?.[asked.indexOf(r)] ?? null),
      };
    }),
  );

  function answersAt(
    ref: string,
    state: NonNullable<ContactPosition['state']>,
  ): readonly ReadoutAnswer[] | null {
    try {
      const turned = withControls(circuit, { [ref]: state });
      return evaluateAll(resolveLayer(turned, 'planned'), asked, document);
    } catch (error) {
      if (error instanceof ZembleError) return null;
      throw error;
    }
  }
}
