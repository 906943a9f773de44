import type { Change } from '@zemble/contract';
import type { Circuit, LayerPart, Value } from '../circuit/index.ts';
import { resolveLayer } from './layer.ts';

/** A change that fits other values, as it is planned until something else is said. */
export const fitChange = (
  id: string,
  values: ReadonlyMap<string, Value>,
  about: Partial<Pick<Change, 'name' | 'purpose' | 'why' | 'set'>> = {},
): Change => ({
  id,
  name: about.name ?? `Other value of ${[...values.keys()].join(', ')}`,
  purpose: about.purpose ?? 'repair',
  state: 'planned',
  ...(about.set === undefined ? {} : { set: about.set }),
  ...(about.why === undefined ? {} : { why: about.why }),
  steps: [...values].map(([ref, value]) => ({ do: 'fit', ref, value })),
});

/** Names the change of values that are tried out and not kept. */
const TRIED = 'tried';

/** A circuit with other values planned for some parts, on top of what is planned. */
export const withPlanned = (circuit: Circuit, values: ReadonlyMap<string, Value>): Circuit =>
  values.size === 0
    ? circuit
    : { ...circuit, changes: [...(circuit.changes ?? []), fitChange(TRIED, values)] };

/** The parts of the planned layer, those that changes add included. */
export const plannedParts = (circuit: Circuit): readonly LayerPart[] =>
  resolveLayer(circuit, 'planned').parts;
