import type { ChangeState, FileChange, UnitResource } from '@zemble/contract';
import { activeSet, ledgerOf, reportChanges, type ChangeReport, type LedgerEntry } from '@zemble/core';
import { useMemo } from 'react';
import type { Change } from '../../api/change.ts';
import { newId } from '../../api/outbox-store.ts';
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
export const restated = ({ id, version, change }: ChangeResource, values: Partial<FileChange>): Change => ({
  type: 'update-change',
  changeId: id,
  seen: version,
  change: { ...change, ...values },
});

/** A change with its steps ticked now, or not any more. */
function inState(change: FileChange, state: ChangeState): Partial<FileChange> {
  const since = new Date().toISOString();
  const steps = change.steps.map(({ done, ...step }) =>
    state === 'done' ? { ...step, done: done ?? { at: since } } : step,
  );
  return { state, since, steps: steps as FileChange['steps'] };
}

/** What can be done with changes. */
export function useChangeActions() {
  const { unit, change } = useUnitContext();
  const latest = useLatestAnalysis();
  /** Values of readouts on a layer, for the record of a change. */
  const valuesOn = (layer: 'planned' | 'proven') =>
    Object.fromEntries(
      (latest.current?.rows ?? []).map((r) => [r.id, r.answers[layer].ok ? r.answers[layer].value : null]),
    );
  const measures = () => ({ before: valuesOn('proven'), predicted: valuesOn('planned') });
  return {
    /** @returns the id of the change */
    add(made: Pick<FileChange, 'name' | 'purpose' | 'steps'> & Partial<FileChange>): string {
      const id = newId();
      const isDone = made.state === 'done';
      const set = made.purpose === 'modification' ? activeSet(unit) : undefined;
      const whole: FileChange = { id, state: 'planned', ...(set === undefined ? {} : { set }), ...made };
      const values = isDone ? { ...whole, ...inState(whole, 'done'), before: valuesOn('proven') } : whole;
      change({ type: 'add-change', id, change: values });
      return id;
    },
    put(resource: ChangeResource, state: ChangeState) {
      const told = state === 'done' && resource.change.purpose !== 'diagnosis' ? measures() : {};
      change(restated(resource, { ...inState(resource.change, state), ...told }));
    },
    /** Ticks one step, or takes its tick back; with the last one the change is done. */
    tickStep(resource: ChangeResource, index: number, isDone: boolean) {
      const at = new Date().toISOString();
      const steps = resource.change.steps.map(({ done, ...step }, i) =>
        i === index ? (isDone ? { ...step, done: { at } } : step) : done ? { ...step, done } : step,
      ) as FileChange['steps'];
      const isWhole = steps.every((step) => step.done !== undefined);
      const state = isWhole ? 'done' : 'planned';
      const told = isWhole && resource.change.purpose !== 'diagnosis' ? measures() : {};
      const since = state === resource.change.state ? {} : { since: at };
      change(restated(resource, { steps, state, ...since, ...told }));
    },
    say: (resource: ChangeResource, values: Partial<FileChange>) => change(restated(resource, values)),
  };
}
