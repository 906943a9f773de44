import type { ActOf, ChangeState, FileChange, UnitResource } from '@zemble/contract';
import {
  activeSet,
  inState,
  ledgerOf,
  reportChanges,
  superseding,
  type ChangeReport,
  type LedgerEntry,
} from '@zemble/core';
import { useMemo } from 'react';

import { asOneEntry } from '../../api/act.ts';
import { newId } from '../../api/new-id.ts';
import { useLatestAnalysis } from '../../unit/analysed.tsx';
import { useUnitContext } from '../../unit/unit-context.tsx';

export type ChangeResource = UnitResource['changes'][number];

/** A change of the unit, as the record has it and as it stands in the circuit. */
export interface SeenChange {
  readonly resource: ChangeResource;
  readonly report: ChangeReport;
}

/** The changes of the unit in their order, each with its problems and its way back. */
export function useChanges(): readonly SeenChange[] {
  const { unit, document } = useUnitContext();
  return useMemo(() => {
    const reports = new Map(reportChanges(document.circuit).map((r) => [r.change.id, r]));
    return unit.changes.flatMap((resource) => {
      const report = reports.get(resource.change.id);
      return report ? [{ resource, report }] : [];
    });
  }, [unit.changes, document.circuit]);
}

/** What is temporary and in force. */
export function useLedger(): readonly LedgerEntry[] {
  const changes = useChanges();
  return useMemo(() => ledgerOf(changes.map((c) => c.report)), [changes]);
}

/** A change under other words or in another state. */
export const restated = (
  { id, version, change }: ChangeResource,
  values: Partial<FileChange>,
): ActOf<'update-change'> => ({
  type: 'update-change',
  changeId: id,
  seen: version,
  change: { ...change, ...values },
});

/** Readouts as they are, and as they will be with what is planned, of the circuit of now; nothing while they are not yet computed. */
export function useMeasures(): () => { before: ReadoutValues; predicted: ReadoutValues } | undefined {
  return measuresOf.bind(null, useLatestAnalysis());
}

function measuresOf(
  latest: ReturnType<typeof useLatestAnalysis>,
): { before: ReadoutValues; predicted: ReadoutValues } | undefined {
  const analysis = latest.current;
  if (!analysis?.isCurrent) return undefined;
  const valuesOn = (layer: 'planned' | 'proven') =>
    Object.fromEntries(analysis.rows.map((r) => [r.id, r.answers[layer].ok ? r.answers[layer].value : null]));
  return { before: valuesOn('proven'), predicted: valuesOn('planned') };
}
type ReadoutValues = Record<string, number | null>;

/** What can be done with changes. */
export function useChangeActions() {
  const { unit, change } = useUnitContext();
  const measures = useMeasures();
  return {
    /** @returns the id of the change */
    add(made: Pick<FileChange, 'name' | 'purpose' | 'steps'> & Partial<FileChange>): string {
      const id = newId();
      const isDone = made.state === 'done';
      const set = made.purpose === 'modification' ? activeSet(unit) : undefined;
      const whole: FileChange = { id, state: 'planned', ...(set === undefined ? {} : { set }), ...made };
      const before = measures()?.before;
      const values = isDone
        ? { ...inState(whole, 'done', new Date().toISOString()), ...(before ? { before } : {}) }
        : whole;
      const isPlan = values.state === 'planned' && values.purpose === 'modification';
      const { acts, steps } = isPlan ? superseding(unit, values.steps) : { acts: [], steps: values.steps };
      const own = { type: 'add-change', id, change: { ...values, steps } } as const;
      change(asOneEntry(steps.length === 0 ? acts : [...acts, own]));
      return id;
    },
    put(resource: ChangeResource, state: ChangeState) {
      const told = state === 'done' && resource.change.purpose !== 'diagnosis' ? measures() : {};
      change(restated(resource, { ...inState(resource.change, state, new Date().toISOString()), ...told }));
    },
    say: (resource: ChangeResource, values: Partial<FileChange>) => change(restated(resource, values)),
  };
}
