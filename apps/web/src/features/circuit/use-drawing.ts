import type { UnitResource } from '@zemble/contract';
import {
  isPolarised,
  isPType,
  markedValue,
  placementsOf,
  symbolTextRoom,
  readoutFields,
  type Circuit,
  type Readout,
} from '@zemble/core';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { DrawRequest, ReadDrawing } from '../../compute/drawing.ts';
import { LatestRunner } from '../../compute/runner.ts';

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
      symbolTextRoom(p, markedValue(p)).length,
    ]),
  ]);
}

/** Nets that readouts speak of: their names are written at their wires. */
function namedNets(readouts: readonly Readout[]): string {
  const names = readouts.flatMap((r) =>
    readoutFields(r).flatMap(({ field, value }) =>
      field.type === 'name' && field.of.startsWith('net') && typeof value === 'string' ? [value] : [],
    ),
  );
  return [...new Set(names)].join(' ');
}

/** The last drawing of each unit, so that going from stage to stage moves nothing and waits for nothing. */
const kept = new Map<string, { readonly of: string; readonly drawing: ReadDrawing }>();
const drawings = new LatestRunner<DrawRequest, ReadDrawing>('at hand', async (engine, r) => engine.draw(r));

export interface DrawingView {
  /** The newest drawing; of an earlier circuit while a new one is made, null before the first. */
  readonly drawing: ReadDrawing | null;
  readonly isPending: boolean;
  /** Why the circuit of now could not be drawn. */
  readonly why: string | null;
  /** Lays everything out from the beginning. */
  readonly drawAnew: () => void;
}

/** The drawing of a unit's circuit, made in a worker; values may change without it being drawn anew. */
export function useDrawing(
  circuit: Circuit,
  readouts: readonly Readout[],
  { id, nudges }: UnitResource,
): DrawingView {
  const [round, setRound] = useState(0);
  const [, setMade] = useState<ReadDrawing | null>(null);
  const [failed, setFailed] = useState<{ readonly of: string; readonly why: string } | null>(null);
  const structure = useMemo(() => structureOf(circuit), [circuit]);
  const names = useMemo(() => namedNets(readouts), [readouts]);
  const nudgeText = JSON.stringify(nudges);
  const wanted = `${structure}\n${names}\n${nudgeText}\n${round}`;
  const last = kept.get(id);
  const isPending = last?.of !== wanted;
  useEffect(() => {
    if (!isPending) return;
    let isCurrent = true;
    const previous = kept.get(id);
    const isAnew = previous === undefined || !previous.of.endsWith(`\n${round}`);
    drawings.run(
      {
        circuit,
        nudges,
        nameNets: names.split(' ').filter(Boolean),
        previous: isAnew ? null : placementsOf(previous.drawing),
      },
      (outcome) => {
        if (!isCurrent) return;
        if (!outcome.ok) return setFailed({ of: wanted, why: outcome.why });
        kept.set(id, { of: wanted, drawing: outcome.answer });
        setMade(outcome.answer);
      },
    );
    return () => {
      isCurrent = false;
    };
    // The circuit's values do not move its drawing; what does is in the text.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id, wanted]);
  const drawAnew = useCallback(() => setRound((r) => r + 1), []);
  const why = isPending && failed?.of === wanted ? failed.why : null;
  return { drawing: last?.drawing ?? null, isPending, why, drawAnew };
}
