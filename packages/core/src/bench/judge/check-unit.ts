import type { Layer } from '@zemble/contract';
import { checkCircuit, type UnitDocument } from '../../circuit/circuit/index.ts';
import type { Problem } from '../../base/errors/index.ts';
import { unknownModel } from '../../circuit/models/index.ts';
import { checkReadouts } from '../../analysis/readouts/index.ts';
import { warningsOn } from './change-warnings.ts';

/**
 * Everything that is wrong with a unit, or was not understood of it: its circuit as it is written down, type numbers that
 * are not known, its readouts, and on a layer what is asked of parts beyond their ratings.
 */
export function checkUnit(document: UnitDocument, layer: Layer = 'marked'): Problem[] {
  const { circuit, readouts, settings } = document;
  return [
    ...checkCircuit(circuit),
    ...assumptionsOf(document),
    ...checkReadouts(circuit, readouts, settings),
    ...warningsOn(circuit, layer),
  ];
}

/** What is assumed of parts whose type number is not known: every computation rests on it. */
export const assumptionsOf = ({ circuit }: Pick<UnitDocument, 'circuit'>): Problem[] =>
  circuit.parts.flatMap((part) => unknownModel(part, circuit.models) ?? []);
