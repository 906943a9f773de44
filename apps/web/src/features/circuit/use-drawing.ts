import type { UnitResource } from '@halfsplit/contract';
import {
  formatCode,
  isPolarised,
  isPType,
  KINDS,
  layoutCircuit,
  markedValue,
  readoutFields,
  type Circuit,
  type Drawing,
  type Part,
  type UnitDocument,
} from '@halfsplit/core';
import { useMemo, useState } from 'react';

/** Text beside a symbol: the value as printed, or the type number. */
export function printedText(part: Part, value: unknown): string {
  if (typeof value === 'number')
    return KINDS[part.kind].value === 'voltage'
      ? `${formatCode(value, 3, 'V')}${value >= 1 ? 'V' : ''}`.replace(/VV$/, 'V')
      : formatCode(value, 3, part.kind === 'capacitor' ? 'F' : 'R');
  return typeof value === 'string' ? value : (part.model ?? '');
}

/** Draws circuits one after another, each keeping the symbols of the one before where they were. */
class DrawingKeeper {
  private last: Drawing | undefined;

  forget(): void {
    this.last = undefined;
  }

  draw(circuit: Circuit, nudges: UnitResource['nudges'], nameNets: readonly string[]): Drawing {
    const previous = this.last;
    this.last = layoutCircuit(circuit, {
      textOf: (part) => printedText(part, markedValue(part)),
      nudges,
      nameNets,
      ...(previous ? { previous } : {}),
    });
    return this.last;
  }
}

/** Everything of a circuit that its drawing depends on, as text: equal texts, equal drawings. */
function structureOf(circuit: Circuit): string {
  return JSON.stringify([
    circuit.ground,
    circuit.parts.map((p) => [
      p.ref,
      p.kind,
      p.pins,
      isPType(p, circuit.models),
      isPolarised(p),
      printedText(p, markedValue(p)).length,
    ]),
  ]);
}

const keepers = new Map<string, DrawingKeeper>();

/** One keeper a unit, so that going from stage to stage moves nothing. */
function keeperOf(unitId: string): DrawingKeeper {
  const known = keepers.get(unitId);
  if (known) return known;
  const made = new DrawingKeeper();
  keepers.set(unitId, made);
  return made;
}

/** The drawing of a unit's circuit, and what draws it anew; values may change without it being drawn anew. */
export function useDrawing(document: UnitDocument, unit: UnitResource): readonly [Drawing, () => void] {
  const [round, setRound] = useState(0);
  const keeper = keeperOf(unit.id);
  const structure = structureOf(document.circuit);
  const names = [
    ...new Set(
      document.readouts.flatMap((r) =>
        readoutFields(r).flatMap(({ field, value }) =>
          field.type === 'name' && field.of.startsWith('net') && typeof value === 'string' ? [value] : [],
        ),
      ),
    ),
  ];
  const nameKey = names.join(' ');
  const nudgeKey = JSON.stringify(unit.nudges);
  const drawing = useMemo(
    () => keeper.draw(document.circuit, unit.nudges, nameKey.split(' ').filter(Boolean)),
    // The circuit's values do not move its drawing; its structure and the moved symbols, as text, stand for it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [keeper, structure, nudgeKey, nameKey, round],
  );
  const drawAnew = () => {
    keeper.forget();
    setRound(round + 1);
  };
  return [drawing, drawAnew];
}
