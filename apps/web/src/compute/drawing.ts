import type { UnitResource } from '@halfsplit/contract';
import {
  layoutCircuit,
  markedValue,
  symbolTextRoom,
  type Circuit,
  type Drawing,
  type Placement,
} from '@halfsplit/core';

/** A circuit to be drawn. */
export interface DrawRequest {
  readonly circuit: Circuit;
  /** Symbols that were moved by hand. */
  readonly nudges: UnitResource['nudges'];
  /** Nets whose names are written. */
  readonly nameNets: readonly string[];
  /** Where the symbols stood before; they stay there. */
  readonly previous: ReadonlyMap<string, Placement> | null;
}

/** Draws a circuit with what is printed on its parts. */
export const draw = ({ circuit, nudges, nameNets, previous }: DrawRequest): Drawing =>
  layoutCircuit(circuit, {
    textOf: (part) => symbolTextRoom(part, markedValue(part)),
    nudges,
    nameNets,
    ...(previous ? { previous } : {}),
  });
