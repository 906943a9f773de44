import { readoutDefinitionOf } from '@halfsplit/contract';
import { resolveLayer, withControls } from '../changes/index.ts';
import type { UnitDocument } from '../circuit/index.ts';
import { HalfsplitError } from '../errors.ts';
import { evaluateAll, type ReadoutAnswer } from '../readouts/index.ts';
import { contactsOf, type ContactPosition } from './lugs.ts';

/** A position of a switch or jack, with what the unit does in it. */
export interface PositionRow extends ContactPosition {
  readonly ref: string;
  /** In the order of the readouts; null for one that takes runs in time, or where the position cannot be computed. */
  readonly answers: readonly (ReadoutAnswer | null)[];
}

/** Which position of each switch, jack and relay does what: the lugs that it joins, and the readouts of the planned layer in it. */
export function positionTable(document: UnitDocument): PositionRow[] {
  const { circuit, readouts } = document;
  const quick = readouts.filter((r) => readoutDefinitionOf(r.kind).isSlow !== true);
  return resolveLayer(circuit, 'planned').parts.flatMap((part) =>
    contactsOf(part).map((position): PositionRow => {
      const answers = position.state === undefined ? null : answersAt(part.ref, position.state);
      return {
        ref: part.ref,
        ...position,
        answers: readouts.map((r) => answers?.[quick.indexOf(r)] ?? null),
      };
    }),
  );

  function answersAt(
    ref: string,
    state: NonNullable<ContactPosition['state']>,
  ): readonly ReadoutAnswer[] | null {
    try {
      const turned = withControls(circuit, { [ref]: state });
      return evaluateAll(resolveLayer(turned, 'planned'), quick, document);
    } catch (error) {
      if (error instanceof HalfsplitError) return null;
      throw error;
    }
  }
}
