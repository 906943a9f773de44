import { randomUUID } from 'node:crypto';
import { LONGEST_SUMMARY, readInverse, type Inverse } from '@zemble/contract';
import { Op, type Transaction } from 'sequelize';
import { actorOf } from '../../database/actor.ts';
import type { UnitModel } from '../../database/models/index.ts';
import { LogEntryModel } from '../../database/models/index.ts';

export interface Step {
  readonly kind: string;
  readonly summary: string;
  /** What takes the step back; empty for what cannot be undone. */
  readonly inverse?: readonly Inverse[];
  readonly at?: Date;
  /** Who did it, where it is not whoever writes now. */
  readonly by?: string | null;
}

/** Writes a step into the unit's log and marks the unit as touched. */
export const appendLog = (unit: UnitModel, step: Step, transaction: Transaction): Promise<void> =>
  appendSteps(unit, [step], transaction);

/** Steps of one thought that are gathered until all of it is done. */
const gathered = new WeakMap<Transaction, Step[]>();

/** Carries out several acts as one step: what each of them would write into the log becomes one. */
export async function asOneStep(
  unit: UnitModel,
  words: string | undefined,
  work: () => Promise<void>,
  transaction: Transaction,
): Promise<void> {
  // Inside of another thought it is part of that one.
  if (gathered.has(transaction)) return work();
  const steps: Step[] = [];
  gathered.set(transaction, steps);
  try {
    await work();
  } finally {
    gathered.delete(transaction);
  }
  const [first] = steps;
  if (!first) return;
  const kinds = new Set(steps.map(({ kind }) => kind));
  const step = {
    kind: kinds.size === 1 ? first.kind : 'several',
    summary: words ?? steps.map(({ summary }) => summary).join(' '),
    inverse: steps.flatMap(({ inverse = [] }) => inverse),
  };
  await appendLog(unit, step, transaction);
}

/** Writes steps one after the other, all at once. */
export async function appendSteps(
  unit: UnitModel,
  steps: readonly Step[],
  transaction: Transaction,
): Promise<void> {
  if (steps.length === 0) return;
  const together = gathered.get(transaction);
  if (together) {
    together.push(...steps);
    return;
  }
  const first = unit.sequence + 1;
  const rows = steps.map(
    ({ kind, summary, inverse = [], at = new Date(), by = actorOf(transaction) }, i) => ({
      id: randomUUID(),
      unitId: unit.id,
      sequence: first + i,
      at,
      kind,
      summary: cut(summary),
      inverse: [...inverse],
      undoneAt: null,
      by,
    }),
  );
  const last = rows.at(-1)!;
  await unit.update({ sequence: last.sequence, lastActivityAt: last.at }, { transaction });
  if (rows.length === 1) await LogEntryModel.create(last, { transaction });
  else await LogEntryModel.bulkCreate(rows, { transaction });
}

const cut = (summary: string): string =>
  summary.length > LONGEST_SUMMARY ? `${summary.slice(0, LONGEST_SUMMARY - 1)}…` : summary;

/** What takes a step back, in the order in which it was done; null where this version cannot. */
export function inversesOf({ inverse }: LogEntryModel): Inverse[] | null {
  const read = inverse.map(readInverse);
  return read.every((each) => each !== null) ? read : null;
}

/** A step by its place in the log. */
export async function stepAt(
  unitId: string,
  sequence: number,
  transaction: Transaction,
): Promise<LogEntryModel | null> {
  return LogEntryModel.findOne({ where: { unitId, sequence }, transaction });
}

/** The newest step after another that did something to an entity or a field, by what it is called in the inverse. */
export async function stepSince(
  unitId: string,
  sequence: number,
  isOf: (inverse: Inverse) => boolean,
  transaction: Transaction,
): Promise<LogEntryModel | null> {
  const later = await LogEntryModel.findAll({
    where: { unitId, sequence: { [Op.gt]: sequence }, undoneAt: null },
    order: [['sequence', 'DESC']],
    attributes: { exclude: ['effects'] },
    transaction,
  });
  return later.find((e) => inversesOf(e)?.some(isOf)) ?? null;
}

export async function markUndone(step: LogEntryModel, transaction: Transaction): Promise<void> {
  await step.update({ undoneAt: new Date() }, { transaction });
}
