import { namesIn, withControls, withPlanned, type ControlState, type UnitDocument } from '@zemble/core';
import { createContext, use } from 'react';

/** Planned values that are tried but not accepted: only what shows them follows while one is turned. */
export interface Trial {
  /** By designator. */
  readonly trial: ReadonlyMap<string, number>;
  readonly setTrial: (trial: ReadonlyMap<string, number>) => void;
  /** Where controls stand that were turned, by designator; the others stand as drawn. */
  readonly controls: Controls;
  readonly setControls: (controls: Controls) => void;
  /** The unit with what is tried on top. */
  readonly tried: UnitDocument;
}

export type Controls = Readonly<Record<string, ControlState>>;
export const AS_DRAWN: Controls = {};

/** A unit with values that are tried and controls that are turned; a control that is gone is left out. */
export function triedDocument(
  saved: UnitDocument,
  trial: ReadonlyMap<string, number>,
  controls: Controls,
): UnitDocument {
  const { circuit } = saved;
  const there = new Set([...circuit.parts.map((p) => p.ref), ...namesIn(circuit.changes ?? []).refs]);
  const turned = Object.fromEntries(Object.entries(controls).filter(([ref]) => there.has(ref)));
  if (trial.size === 0 && Object.keys(turned).length === 0) return saved;
  return { ...saved, circuit: withPlanned(withControls(circuit, turned), trial) };
}

export const NO_TRIAL: ReadonlyMap<string, number> = new Map();
export const TrialContext = createContext<Trial | null>(null);

export function useTrial(): Trial {
  const value = use(TrialContext);
  if (!value) throw new Error('There is no unit around this component.');
  return value;
}
