import type { UnitResource } from '@halfsplit/contract';
import type { Problem, UnitDocument } from '@halfsplit/core';
import { createContext, use } from 'react';
import type { Change } from '../api/change.ts';
import type { Analysis } from '../compute/engine.ts';

/** What every stage of one unit works with. */
export interface UnitContextValue {
  readonly unit: UnitResource;
  /** The unit as it is, with planned values being tried on top. */
  readonly document: UnitDocument;
  readonly problems: readonly Problem[];
  readonly analysis: Analysis | null;
  readonly change: (change: Change) => void;
  readonly selectedRef: string | null;
  readonly selectedNet: string | null;
  readonly selectRef: (ref: string | null) => void;
  readonly selectNet: (net: string | null) => void;
  /** Test point of the path that is selected: the same in path, photo and search. */
  readonly selectedPoint: string | null;
  readonly selectPoint: (id: string | null) => void;
  /** Planned values that are tried but not accepted, by designator. */
  readonly trial: ReadonlyMap<string, number>;
  readonly setTrial: (trial: ReadonlyMap<string, number>) => void;
  /** Readout whose response is drawn. */
  readonly readoutId: string | null;
  readonly setReadoutId: (id: string | null) => void;
}

export const UnitContext = createContext<UnitContextValue | null>(null);

export function useUnitContext(): UnitContextValue {
  const value = use(UnitContext);
  if (!value) throw new Error('There is no unit around this component.');
  return value;
}
