import { isTemporary, type Change } from '@zemble/contract';
import type { Circuit } from '../circuit/index.ts';
import { problem, type Problem } from '../../base/errors/index.ts';
import { buildLayer, type MadeChange } from './layer.ts';
import { placesOf } from './places.ts';
import { changeSentence, stepWords, undoSentences } from './words.ts';

/** A temporary change that is in force: what was done, and how it is taken back. */
export interface LedgerEntry {
  readonly id: string;
  readonly sentence: string;
  readonly undo: string;
  readonly since?: string | undefined;
  /** What is seen while it is in force is seen under this. */
  readonly condition?: string | undefined;
  /** Parts and nets where it is. */
  readonly refs: readonly string[];
  readonly nets: readonly string[];
}

/** A change as it stands: what keeps it from being made, and what takes it back. */
export interface ChangeReport {
  readonly change: Change;
  readonly problems: readonly Problem[];
  /** What has to be done to take it back, in order. */
  readonly undo: readonly string[];
  /** What each of its steps does. */
  readonly does: readonly string[];
}

/**
 * Every change of a circuit with its problems and its way back. One that is done is looked at as it lies on the bench; one
 * that is planned on the planned layer with its own set; one that was taken back or dropped has neither problem nor way back.
 */
export function reportChanges(circuit: Circuit): ChangeReport[] {
  const sets = new Set((circuit.sets ?? []).map((s) => s.id));
  const now = new Map(buildLayer(circuit, 'proven').changes.map((m) => [m.change.id, m]));
  const bySet = new Map<string | undefined, ReadonlyMap<string, MadeChange>>();
  const plannedWith = (set: string | undefined) => {
    const known = bySet.get(set);
    if (known) return known;
    const { changes } = buildLayer(circuit, 'planned', set === undefined ? {} : { set });
    const made = new Map(changes.map((m) => [m.change.id, m]));
    bySet.set(set, made);
    return made;
  };
  return (circuit.changes ?? []).map((change) => {
    const made =
      change.state === 'done'
        ? now.get(change.id)
        : change.state === 'planned'
          ? isTemporary(change)
            ? tried(circuit, change)
            : plannedWith(change.set).get(change.id)
          : undefined;
    const isLost = change.set !== undefined && !sets.has(change.set);
    const problems = [
      ...(isLost ? [problem('change/unknown-set', { text: change.set })] : []),
      ...(made?.problem ? [made.problem] : []),
    ];
    const before = made?.made[0]?.before;
    return {
      change,
      problems,
      undo: before ? undoSentences(change, before) : [],
      does: change.steps.map((step, i) => stepWords(step, made?.made[i]?.before)),
    };
  });
}

/** A temporary change that is planned, as if it were made now. */
const tried = (circuit: Circuit, change: Change): MadeChange | undefined =>
  buildLayer(
    {
      ...circuit,
      changes: [...(circuit.changes ?? []).filter((c) => c.id !== change.id), { ...change, state: 'done' }],
    },
    'proven',
  ).changes.at(-1);

/** The temporary changes in force. A unit is not finished while there is one. */
export const ledgerOf = (reports: readonly ChangeReport[]): LedgerEntry[] =>
  reports
    .filter(({ change }) => isTemporary(change) && change.state === 'done')
    .map(({ change, does, undo }) => ({
      id: change.id,
      sentence: changeSentence(change.name, does),
      undo: undo.join(' ') || 'Put it back as it was.',
      ...(change.condition === undefined ? {} : { condition: change.condition }),
      ...(change.since === undefined ? {} : { since: change.since }),
      ...placesOf(change),
    }));
