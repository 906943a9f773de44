import type { ReadingResource, ReadoutResource, UnitResource } from '@zemble/contract';
import { DocumentMaker, parseSheetLine, type Problem } from '@zemble/core';
import { render } from '@testing-library/react';
import { useMemo, useState, type ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { vi } from 'vitest';
import { newUnit } from '../api/new-unit.ts';
import type { Analysis } from '../compute/engine.ts';
import { AnalysedContext } from '../unit/analysed.tsx';
import { SelectionProvider } from '../unit/selection.tsx';
import { AS_DRAWN, NO_TRIAL, TrialContext, triedDocument } from '../unit/trial.tsx';
import { UnitContext } from '../unit/unit-context.tsx';

/** Ids by a number, as a page makes them. */
export const idOf = (n: number): string => `01890a5d-ac96-774b-bcce-${String(n).padStart(12, '0')}`;

interface Made {
  readonly lines: readonly string[];
  readonly readouts?: readonly ReadoutResource['readout'][];
  readonly readings?: readonly (Partial<ReadingResource> & { readonly value: ReadingResource['value'] })[];
  readonly planned?: Readonly<Record<string, number>>;
}

/** A unit of parts as they are typed, with whole records of everything. */
export function unitOf({ lines, readouts = [], readings = [], planned = {} }: Made): UnitResource {
  const blank = newUnit({
    key: 'made',
    unitId: idOf(0),
    change: {
      type: 'create-unit',
      at: '2026-01-01T00:00:00.000Z',
      values: { name: 'Bench amplifier', kind: '', hazards: [], notes: '', hazardNotes: '', intake: {} },
    },
  })!;
  return {
    ...blank,
    number: 7,
    sequence: 1,
    parts: lines.map((line, position) => {
      const read = parseSheetLine(line);
      if (!read.ok) throw new Error(`${line}: ${read.problem.message}`);
      const { found: _found, ...part } = read.part;
      return {
        id: idOf(100 + position),
        version: 2,
        position,
        part: part as UnitResource['parts'][number]['part'],
      };
    }),
    changes: Object.entries(planned).map(([ref, value], position) => ({
      id: idOf(400 + position),
      version: 0,
      position,
      change: {
        id: idOf(400 + position),
        name: `Other value of ${ref}`,
        purpose: 'repair',
        state: 'planned',
        steps: [{ do: 'fit', ref, value }],
      },
    })),
    readouts: readouts.map((readout, position) => ({
      id: idOf(200 + position),
      version: 0,
      position,
      readout,
    })),
    readings: readings.map((r, i) => ({
      id: idOf(300 + i),
      partId: null,
      readoutId: null,
      changeId: null,
      ref: null,
      condition: 'leg lifted',
      instrument: null,
      esr: null,
      aspect: null,
      red: null,
      isAsDrawn: false,
      between: null,
      takenAt: new Date(i * 1000).toISOString(),
      withdrawn: false,
      ...r,
    })),
  };
}

/** Shows something inside a unit, as its page does; what it changes is told. */
export function showInUnit(
  unit: UnitResource,
  children: ReactNode,
  analysis: Analysis | null = null,
  warnings: readonly Problem[] = [],
) {
  const change = vi.fn();
  function Inside() {
    const document = useMemo(() => new DocumentMaker().make(unit), []);
    const [trial, setTrial] = useState(NO_TRIAL);
    const [readoutId, setReadoutId] = useState<string | null>(null);
    const [controls, setControls] = useState(AS_DRAWN);
    const tried = useMemo(() => triedDocument(document, trial, controls), [document, trial, controls]);
    return (
      <MemoryRouter initialEntries={[`/units/${unit.id}/measure`]}>
        <UnitContext value={{ unit, document, problems: [], warnings, change }}>
          <AnalysedContext value={{ analysis, why: null, readoutId, setReadoutId }}>
            <TrialContext value={{ trial, setTrial, controls, setControls, tried }}>
              <SelectionProvider testPoints={[]} isMeasuring={false}>
                {children}
              </SelectionProvider>
            </TrialContext>
          </AnalysedContext>
        </UnitContext>
      </MemoryRouter>
    );
  }
  return { change, ...render(<Inside />) };
}
