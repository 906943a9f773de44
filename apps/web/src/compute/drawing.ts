import type { UnitResource } from '@zemble/contract';
import {
  figuresOf,
  layoutCircuit,
  markedValue,
  symbolTextRoom,
  type Circuit,
  type Drawing,
  type Figure,
  type Placement,
} from '@zemble/core';

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

/** A drawing with the figures that the trade sees in it. */
export interface ReadDrawing extends Drawing {
  readonly figures: readonly Figure[];
}

/** Draws a circuit with what is printed on its parts, and tells its figures. */
export const draw = ({ circuit, nudges, nameNets, previous }: DrawRequest): ReadDrawing => ({
  ...layoutCircuit(circuit, {
    textOf: (part) => symbolTextRoom(part, markedValue(part)),
    nudges,
    nameNets,
    ...(previous ? { previous } : {}),
  }),
  figures: figuresOf(circuit),
});
